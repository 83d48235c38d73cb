import type { Guide } from '../stage/snap';
import type { Bounds } from '../vector/outline';

type Frame = { width: number; height: number };
type Named = Bounds & { name: string };

/** Margins that a frame is divided by, as a share of its shorter side. */
const MARGIN = 0.06;

/**
 * A box drawn to what is near: the frame's middle and margins, the edges and middles of others, and the places where
 * the gaps between three in a row come out equal.
 * @param reach how near, in pixels of the frame
 * @param drawn lines that a person has drawn, in the frame's pixels
 */
export function snapBox(
  box: Bounds,
  others: readonly Named[],
  frame: Frame,
  reach: number,
  drawn: readonly Guide[] = [],
): { x: number; y: number; guides: Guide[] } {
  const guides: Guide[] = [];
  const along = (axis: 'x' | 'y'): number => {
    const size = axis === 'x' ? 'width' : 'height';
    const margin = MARGIN * Math.min(frame.width, frame.height);
    const start = box[axis];
    const length = box[size];
    let best: { move: number; guide: Guide } | null = null;
    const offer = (at: number, own: number, label: string) => {
      const move = at - own;
      if (Math.abs(move) >= Math.min(reach, best ? Math.abs(best.move) : reach)) return;
      best = { move, guide: { axis, at, label } };
    };
    offer(frame[size] / 2, start + length / 2, 'centre');
    offer(margin, start, 'margin');
    offer(frame[size] - margin, start + length, 'margin');
    for (const g of drawn)
      if (g.axis === axis)
        for (const own of [start, start + length / 2, start + length]) offer(g.at, own, g.label);
    for (const o of others) {
      const edges = [o[axis], o[axis] + o[size] / 2, o[axis] + o[size]];
      offer(edges[0], start, o.name);
      offer(edges[2], start + length, o.name);
      offer(edges[1], start + length / 2, `middle of ${o.name}`);
      offer(edges[0], start + length, o.name);
      offer(edges[2], start, o.name);
    }
    for (const at of equalGaps(box, others, axis)) offer(at, start, 'equal gaps');
    const found = best as { move: number; guide: Guide } | null;
    if (!found) return start;
    guides.push(found.guide);
    return start + found.move;
  };
  const x = along('x');
  const y = along('y');
  return { x, y, guides };
}

/** Where a box must begin for equal gaps: between two others, or in line after or before two. */
function equalGaps(box: Bounds, others: readonly Named[], axis: 'x' | 'y'): number[] {
  const [size, cross, crossSize] =
    axis === 'x' ? (['width', 'y', 'height'] as const) : (['height', 'x', 'width'] as const);
  // Only what stands in the same row counts.
  const row = others
    .filter((o) => o[cross] < box[cross] + box[crossSize] && o[cross] + o[crossSize] > box[cross])
    .sort((a, b) => a[axis] - b[axis]);
  const places: number[] = [];
  for (let i = 0; i + 1 < row.length; i++) {
    const [a, b] = [row[i], row[i + 1]];
    const end = a[axis] + a[size];
    const gap = b[axis] - end;
    if (gap <= 0) continue;
    places.push(end + (gap - box[size]) / 2, b[axis] + b[size] + gap, a[axis] - gap - box[size]);
  }
  return places;
}
