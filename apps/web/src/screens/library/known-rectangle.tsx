import { useEffect } from 'react';
import { create } from 'zustand';
import type { PrintArea } from '@scenograph/core/surface/area';
import type { Pair } from '@scenograph/core/surface/homography';
import { sizeByRectangle } from '@scenograph/core/surface/known-size';
import { writeSize } from '@scenograph/core/data/length';
import { Button } from '../../ui/controls';
import { LengthField, useLengthUnit } from '../../ui/length-field';
import { msg } from '../../language/language';
import { handlesFor } from './survey-handle';

interface Rectangle {
  corners: Pair[];
  widthMm: number;
  heightMm: number;
}

/** The rectangle of known size that is being drawn on an item; nothing of it is kept but the size it gives. */
export const useKnownRectangle = create<{
  rectangle: Rectangle | null;
  set(rectangle: Rectangle | null): void;
}>((set) => ({ rectangle: null, set: (rectangle) => set({ rectangle }) }));

const CORNERS = [
  msg('Top left of the rectangle'),
  msg('Top right of the rectangle'),
  msg('Bottom right of the rectangle'),
  msg('Bottom left of the rectangle'),
];

/** The rectangle over the picture, to be dragged onto what it measures. */
export function KnownRectangle({
  px,
  at,
  snap,
}: {
  px: number;
  at(e: React.PointerEvent): Pair;
  snap(to: Pair): Pair;
}) {
  const { rectangle, set } = useKnownRectangle();
  if (!rectangle) return null;
  const moved = (corners: Pair[]) => set({ ...rectangle, corners });
  const handle = handlesFor({ px, at, snap, during: moved, commit: moved });
  return (
    <g>
      <path
        d={`M${rectangle.corners.map((c) => c.join(' ')).join('L')}Z`}
        fill="#12463a22"
        stroke="#ffffff"
        strokeWidth={2 * px}
        strokeDasharray={`${6 * px} ${4 * px}`}
        pointerEvents="none"
      />
      {rectangle.corners.map((c, i) =>
        handle(CORNERS[i], c, (to) => rectangle.corners.map((p, j) => (j === i ? to : p)), { snaps: true }),
      )}
    </g>
  );
}

/** A card laid on the item, for instance: 85.6 by 54 mm (ISO/IEC 7810). */
const CARD = { widthMm: 85.6, heightMm: 54 };

/** Sets an area's size by a rectangle of known size on the same surface. */
export function SizeByRectangle({
  area,
  onSize,
}: {
  area: PrintArea;
  onSize(size: { widthMm: number; heightMm: number }): void;
}) {
  const { unit } = useLengthUnit();
  const { rectangle, set } = useKnownRectangle();
  // It belongs to the area it was begun for.
  useEffect(() => () => set(null), [set]);
  if (!rectangle)
    return (
      <Button onClick={() => set({ ...CARD, corners: inside(area.corners) })}>
        {msg('Size by a known rectangle')}
      </Button>
    );
  const { size, wrong } = sizeOf(rectangle, area);
  return (
    <div role="group" aria-label={msg('Known rectangle')} className="grid gap-2">
      <p className="text-ink-2 text-[12px]">
        {msg(
          'Drag its corners onto something rectangular on the item whose size you know, a label or a card, and type that size.',
        )}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label={msg('Its width')}
          min={1}
          value={rectangle.widthMm}
          onCommit={(widthMm) => set({ ...rectangle, widthMm })}
        />
        <LengthField
          label={msg('Its height')}
          min={1}
          value={rectangle.heightMm}
          onCommit={(heightMm) => set({ ...rectangle, heightMm })}
        />
      </div>
      {wrong && (
        <p role="alert" className="text-coral-ink text-[12.5px]">
          {wrong}
        </p>
      )}
      <div className="flex gap-2">
        <Button
          tone="main"
          disabled={!size}
          onClick={() => {
            onSize(size!);
            set(null);
          }}
        >
          {size ? msg('Use {size}', { size: writeSize(size.widthMm, size.heightMm, unit, 1) }) : msg('Use')}
        </Button>
        <Button onClick={() => set(null)}>{msg('Cancel')}</Button>
      </div>
    </div>
  );
}

function sizeOf(rectangle: Rectangle, area: PrintArea) {
  try {
    return { size: sizeByRectangle(rectangle.corners, rectangle, area.corners), wrong: null };
  } catch (e) {
    return { size: null, wrong: (e as Error).message };
  }
}

/** Corners half-way to the middle of an area. */
function inside(corners: readonly Pair[]): Pair[] {
  const [mx, my] = [0, 1].map((i) => corners.reduce((s, c) => s + c[i], 0) / corners.length);
  return corners.map(([x, y]): Pair => [(x + mx) / 2, (y + my) / 2]);
}
