import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { addGuide, guidesIn, moveGuide, rulerTicks } from '@scenograph/core/shot/guides';
import { RULER, useLayoutAids } from './rulers';
import { useStage } from './store';
import { msg } from '../../language/language';

interface Sight {
  /** Where the frame's corner is in the view, and screen pixels per pixel of the frame. */
  left: number;
  top: number;
  zoom: number;
  /** The frame that is shown, and the room it is shown in, in screen pixels. */
  frame: { width: number; height: number };
  size: { width: number; height: number };
}

type Axis = 'x' | 'y';
const SIDE = { x: 'width', y: 'height' } as const;

/** Grid, centre lines, guides and rulers over the picture, as far as they are switched on. */
export function LayoutAids(sight: Sight) {
  const { rulers, grid, centre, spacing } = useLayoutAids();
  const [drawn, setDrawn] = useState<{ axis: Axis; at: number } | null>(null);
  return (
    <>
      {(grid || centre) && <GridLines {...sight} grid={grid ? spacing : null} centre={centre} />}
      {rulers && <Guides {...sight} />}
      {rulers && drawn && <GuideLine {...sight} {...drawn} />}
      {rulers && (
        <>
          <Ruler {...sight} axis="x" onDrawn={setDrawn} />
          <Ruler {...sight} axis="y" onDrawn={setDrawn} />
          <div
            className="border-line bg-card absolute top-0 left-0 z-20 border-r border-b"
            style={{ width: RULER, height: RULER }}
          />
        </>
      )}
    </>
  );
}

/** Places of lines `spacing` apart, the picture's edges left out. */
function linesOf(length: number, spacing: number): number[] {
  const count = Math.min(400, Math.ceil(length / spacing) - 1);
  return Array.from({ length: Math.max(0, count) }, (_, i) => (i + 1) * spacing);
}

function GridLines({
  left,
  top,
  zoom,
  frame,
  grid,
  centre,
}: Sight & { grid: number | null; centre: boolean }) {
  const [w, h] = [frame.width * zoom, frame.height * zoom];
  const lines = (places: { x: number[]; y: number[] }) =>
    places.x.map((x) => `M${x * zoom} 0V${h}`).join('') + places.y.map((y) => `M0 ${y * zoom}H${w}`).join('');
  // Where they would lie closer than can be told apart, every second, fourth ... is shown.
  const spacing = grid && grid * 2 ** Math.max(0, Math.ceil(Math.log2(6 / (grid * zoom))));
  const thirds = (length: number) => [length / 3, length / 2, (2 * length) / 3];
  return (
    <svg
      aria-hidden
      data-testid="grid-lines"
      className="pointer-events-none absolute overflow-visible"
      style={{ left, top }}
      width={w}
      height={h}
    >
      {spacing && (
        <path
          d={lines({ x: linesOf(frame.width, spacing), y: linesOf(frame.height, spacing) })}
          stroke="#12463a59"
          fill="none"
        />
      )}
      {centre && (
        <path
          d={lines({ x: thirds(frame.width), y: thirds(frame.height) })}
          stroke="#12463aa6"
          strokeDasharray="6 4"
          fill="none"
        />
      )}
    </svg>
  );
}

/** A ruler in pixels of the frame; a guide is dragged out of it. */
function Ruler({
  axis,
  onDrawn,
  ...sight
}: Sight & { axis: Axis; onDrawn(guide: { axis: Axis; at: number } | null): void }) {
  const { left, top, zoom, size } = sight;
  const [start, length] = axis === 'x' ? [left, size.width] : [top, size.height];
  const ticks = rulerTicks(-start / zoom, (length - start) / zoom, zoom);
  const across = axis === 'x';
  // Dragged out of the upper ruler a guide lies across, out of the left one it stands.
  const made: Axis = across ? 'y' : 'x';
  const place = usePlaceOf(sight, made);
  return (
    <svg
      className={`border-line bg-card absolute top-0 left-0 z-10 touch-none ${across ? 'cursor-row-resize border-b' : 'cursor-col-resize border-r'}`}
      role="img"
      aria-label={across ? msg('Ruler across, in pixels') : msg('Ruler down, in pixels')}
      data-testid={`ruler-${axis}`}
      width={across ? size.width : RULER}
      height={across ? RULER : size.height}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (e.buttons & 1) onDrawn({ axis: made, at: place(e) });
      }}
      onPointerUp={(e) => {
        const at = place(e);
        onDrawn(null);
        if (at < 0 || at > sight.frame[SIDE[made]]) return;
        useStage
          .getState()
          .edit(msg('Add a guide'), (s) =>
            addGuide(s, { axis: made, at: inShot(at, made, sight.frame, s.frame) }),
          );
      }}
    >
      <path
        d={ticks
          .map(({ at, long }) => {
            const p = Math.round(start + at * zoom) + 0.5;
            const end = long ? RULER / 2 : RULER - 4;
            return across ? `M${p} ${RULER}V${end}` : `M${RULER} ${p}H${end}`;
          })
          .join('')}
        stroke="var(--color-ink-3)"
      />
      {ticks
        .filter((t) => t.long)
        .map(({ at }) => {
          const p = start + at * zoom + 3;
          const text = String(Math.round(at * 10) / 10);
          return across ? (
            <text key={at} x={p} y={9} className="fill-ink-2 text-[9px] select-none">
              {text}
            </text>
          ) : (
            <text
              key={at}
              transform={`translate(9 ${p - 6}) rotate(-90)`}
              className="fill-ink-2 text-[9px] select-none"
            >
              {text}
            </text>
          );
        })}
    </svg>
  );
}

/** A place of the frame that is shown, in pixels of the shot's own. */
const inShot = (at: number, axis: Axis, shown: Sight['frame'], own: Sight['frame']) =>
  Math.round(((at * own[SIDE[axis]]) / shown[SIDE[axis]]) * 10) / 10;

/** Where along an axis a pointer is, in pixels of the frame. */
function usePlaceOf({ left, top, zoom }: Sight, axis: Axis) {
  return (e: PointerEvent<SVGElement | HTMLElement>) => {
    const room = e.currentTarget.closest('[data-stage-room]')!.getBoundingClientRect();
    return axis === 'x' ? (e.clientX - room.left - left) / zoom : (e.clientY - room.top - top) / zoom;
  };
}

function Guides(sight: Sight) {
  const shot = useStage((s) => s.document);
  if (!shot?.guides) return null;
  return guidesIn(shot, sight.frame).map(({ axis, at }, index) => (
    <GuideLine key={index} {...sight} axis={axis} at={at} index={index} />
  ));
}

/**
 * One guide: dragged, or with the focus moved by arrow keys (ten pixels with Shift); dropped outside the picture, or with
 * Delete, it is gone. Without an index it is only shown, while it is dragged out of its ruler.
 */
function GuideLine({ index, axis, at, ...sight }: Sight & { index?: number; axis: Axis; at: number }) {
  const { left, top, zoom, frame, size } = sight;
  const stands = axis === 'x';
  const place = usePlaceOf(sight, axis);
  const moved = useRef(false);
  const change = (to: number | null) => (s: NonNullable<ReturnType<typeof useStage.getState>['document']>) =>
    moveGuide(s, index!, to === null ? null : inShot(to, axis, frame, s.frame));
  const onKeyDown = (e: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[e.key];
    if (by) {
      const to = Math.min(frame[SIDE[axis]], Math.max(0, at + by * (e.shiftKey ? 10 : 1)));
      useStage.getState().repeat(msg('Move a guide'), change(to));
    } else if (e.key === 'Delete' || e.key === 'Backspace')
      useStage.getState().edit(msg('Remove a guide'), change(null));
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const p = (stands ? left : top) + at * zoom;
  return (
    <div
      role="separator"
      aria-orientation={stands ? 'vertical' : 'horizontal'}
      aria-label={msg('Guide at {at} pixels {part}', {
        at: Math.round(at),
        part: stands ? msg('from the left') : msg('from the top'),
      })}
      aria-valuenow={Math.round(at)}
      aria-valuemin={0}
      aria-valuemax={frame[SIDE[axis]]}
      tabIndex={index === undefined ? -1 : 0}
      data-guide={index}
      className={`absolute z-[5] touch-none ${stands ? 'cursor-col-resize' : 'cursor-row-resize'} ${index === undefined ? 'pointer-events-none' : ''}`}
      style={
        stands
          ? { left: p - 3, top: 0, width: 7, height: size.height }
          : { left: 0, top: p - 3, width: size.width, height: 7 }
      }
      onKeyDown={index === undefined ? undefined : onKeyDown}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        moved.current = false;
      }}
      onPointerMove={(e) => {
        if (!(e.buttons & 1)) return;
        moved.current = true;
        // Beyond the picture it stays, to be taken off when it is let go there.
        const to = Math.min(frame[SIDE[axis]], Math.max(0, place(e)));
        useStage.getState().during(change(to));
      }}
      onPointerUp={(e) => {
        if (!moved.current) return;
        const to = place(e);
        const off = to < 0 || to > frame[SIDE[axis]];
        useStage
          .getState()
          .finish(off ? msg('Remove a guide') : msg('Move a guide'), change(off ? null : to));
      }}
    >
      <span
        aria-hidden
        className="absolute bg-[#12463a] shadow-[0_0_0_1px_#ffffff8c]"
        style={
          stands
            ? { left: 3, top: 0, width: 1, height: '100%' }
            : { top: 3, left: 0, height: 1, width: '100%' }
        }
      />
    </div>
  );
}
