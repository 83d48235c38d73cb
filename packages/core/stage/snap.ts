/** A line that something snapped to, to be shown while it is dragged. */
export interface Guide {
  axis: 'x' | 'y';
  at: number;
  label: string;
}

export interface SnapTargets {
  frame: { width: number; height: number };
  spots: readonly { id: string; x: number; y: number }[];
  /** Bases of the other products. */
  bases: readonly { name: string; x: number; y: number }[];
  /** Lines that a person has drawn. */
  guides?: readonly Guide[];
}

/**
 * A base's place drawn to what is near: a stand spot takes both coordinates, else each goes to the nearest of the
 * frame's middle and thirds, drawn guides and the other products' bases.
 * @param reach how near, in pixels of the frame
 */
export function snapBase(
  at: { x: number; y: number },
  { frame, spots, bases, guides: drawn = [] }: SnapTargets,
  reach: number,
): { x: number; y: number; guides: Guide[] } {
  const spot = spots.find((s) => Math.hypot(s.x - at.x, s.y - at.y) < reach * 1.5);
  if (spot)
    return {
      x: spot.x,
      y: spot.y,
      guides: [
        { axis: 'x', at: spot.x, label: `spot ${spot.id}` },
        { axis: 'y', at: spot.y, label: '' },
      ],
    };
  const lines: Guide[] = [
    ...drawn,
    { axis: 'x', at: frame.width / 2, label: 'centre' },
    { axis: 'x', at: frame.width / 3, label: 'third' },
    { axis: 'x', at: (frame.width * 2) / 3, label: 'third' },
    { axis: 'y', at: (frame.height * 2) / 3, label: 'third' },
    ...bases.flatMap((b): Guide[] => [
      { axis: 'x', at: b.x, label: b.name },
      { axis: 'y', at: b.y, label: `base of ${b.name}` },
    ]),
  ];
  const guides: Guide[] = [];
  const along = (axis: 'x' | 'y'): number => {
    let best: Guide | null = null;
    for (const line of lines)
      if (
        line.axis === axis &&
        Math.abs(line.at - at[axis]) < Math.min(reach, best ? Math.abs(best.at - at[axis]) : reach)
      )
        best = line;
    if (best) guides.push(best);
    return best?.at ?? at[axis];
  };
  const x = along('x');
  const y = along('y');
  return { x, y, guides };
}
