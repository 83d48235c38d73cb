import { useMemo, useRef } from 'react';
import { type BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { blankOf } from '@scenograph/core/elements/backdrop/paint';
import { placeOn, type AreaSurface } from '@scenograph/core/surface/area-surface';
import type { Pair } from '@scenograph/core/surface/homography';
import { surfaceOf } from '@scenograph/core/surface/print-item';
import { printOpacity, printCorners, type Print } from '@scenograph/core/surface/print';
import { withPrint, type MockupElement } from './editing';
import { keyedPrint, movedPrint, pinnedPrint, scaledPrint, turnedPrint, type PrintDrag } from './print-moves';
import { useMockupTools } from './tools';
import { msg } from '../../../language/language';

/** While a design is moved it fades to this share, to show what lies under it. */
const SEEN_THROUGH = 0.5;

/** The designs' outlines on the mockup as they lie, to be chosen, dragged, scaled, turned and pinned. */
export function PrintHandles({
  element,
  zoom,
  during,
  commit,
}: {
  element: MockupElement;
  zoom: number;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}) {
  const { print: chosen, choose } = useMockupTools();
  const { fill, box } = element;
  const { survey, item } = fill;
  const svg = useRef<SVGSVGElement>(null);
  const k = (box.width / survey.width) * zoom;
  const surfaces = useMemo(() => {
    const blank = blankOf(fill);
    const out = new Map<string, AreaSurface>();
    for (const area of survey.areas)
      try {
        out.set(area.id, surfaceOf(area, blank));
      } catch {
        // An area that makes no surface is told where it is surveyed.
      }
    return out;
  }, [survey]);
  const screen = ([x, y]: Pair): Pair => [box.x * zoom + x * k, box.y * zoom + y * k];
  const onArea = (surface: AreaSurface, [mx, my]: Pair): Pair =>
    screen(surface.at(mx / surface.area.widthMm, my / surface.area.heightMm));
  const millimetres = (surface: AreaSurface, e: React.PointerEvent): Pair | null => {
    const r = svg.current!.getBoundingClientRect();
    const at = placeOn(
      surface,
      (e.clientX - r.left - box.x * zoom) / k,
      (e.clientY - r.top - box.y * zoom) / k,
    );
    return at && [at[0] * surface.area.widthMm, at[1] * surface.area.heightMm];
  };
  return (
    <svg ref={svg} data-testid="designs" className="absolute overflow-visible" width="1" height="1">
      {survey.areas.map((area) => {
        const surface = surfaces.get(area.id);
        if (!surface) return null;
        return (
          <path
            key={area.id}
            d={outline(surface, corners(area.widthMm, area.heightMm), onArea)}
            fill="none"
            stroke="#12463a"
            strokeOpacity={0.45}
            strokeDasharray="3 4"
          />
        );
      })}
      {item.prints.map((print) => {
        const surface = surfaces.get(print.area);
        if (!surface || print.hidden) return null;
        return (
          <PrintShape
            key={print.id}
            print={print}
            surface={surface}
            chosen={print.id === chosen}
            onChoose={() => choose(print.id)}
            onArea={onArea}
            millimetres={millimetres}
            during={(change) => during(withPrint(element, print.id, change))}
            commit={(label, change) => commit(`${label} ${print.name}`, withPrint(element, print.id, change))}
          />
        );
      })}
    </svg>
  );
}

const corners = (w: number, h: number): Pair[] => [
  [0, 0],
  [w, 0],
  [w, h],
  [0, h],
];

function outline(
  surface: AreaSurface,
  around: Pair[],
  onArea: (surface: AreaSurface, mm: Pair) => Pair,
): string {
  const points: Pair[] = [];
  around.forEach(([x, y], i) => {
    const [nx, ny] = around[(i + 1) % 4];
    for (let s = 0; s < 12; s++)
      points.push(onArea(surface, [x + ((nx - x) * s) / 12, y + ((ny - y) * s) / 12]));
  });
  return `M${points
    .filter(([x, y]) => Number.isFinite(x + y))
    .map((p) => p.map((v) => v.toFixed(1)).join(' '))
    .join('L')}Z`;
}

function keyLabel(key: string): string {
  if (key.startsWith('Arrow')) return msg('Move');
  return key === '[' || key === ']' ? msg('Rotate') : msg('Size');
}

const NAMES = [msg('Top left'), msg('Top right'), msg('Bottom right'), msg('Bottom left')];

function PrintShape({
  print,
  surface,
  chosen,
  onChoose,
  onArea,
  millimetres,
  during,
  commit,
}: {
  print: Print;
  surface: AreaSurface;
  chosen: boolean;
  onChoose(): void;
  onArea(surface: AreaSurface, mm: Pair): Pair;
  millimetres(surface: AreaSurface, e: React.PointerEvent): Pair | null;
  during(change: Partial<Print>): void;
  commit(label: string, change: Partial<Print>): void;
}) {
  // What was grabbed: the design as it was, and where the pointer was.
  const grabbed = useRef<{ print: Print; at: Pair } | null>(null);
  const at = printCorners(print);
  const gesture = (label: string, change: (drag: PrintDrag, e: React.PointerEvent) => Partial<Print>) => ({
    onPointerDown: (e: React.PointerEvent) => {
      const mm = millimetres(surface, e);
      if (!mm) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      grabbed.current = { print, at: mm };
    },
    onPointerMove: (e: React.PointerEvent) => {
      const mm = grabbed.current && e.buttons ? millimetres(surface, e) : null;
      if (!mm) return;
      const g = grabbed.current!;
      const full = printOpacity(g.print, surface.area);
      during({ ...change({ from: g.print, began: g.at, now: mm }, e), opacity: full * SEEN_THROUGH });
    },
    onPointerUp: (e: React.PointerEvent) => {
      const g = grabbed.current;
      grabbed.current = null;
      if (!g) return;
      const mm = millimetres(surface, e) ?? g.at;
      if (Math.hypot(mm[0] - g.at[0], mm[1] - g.at[1]) < 1e-6) return;
      commit(label, { ...change({ from: g.print, began: g.at, now: mm }, e), opacity: g.print.opacity });
    },
  });
  const move = gesture(msg('Move'), (drag) => movedPrint(drag, surface.area));
  return (
    <g>
      <path
        role="button"
        tabIndex={0}
        aria-label={msg('Design {print}', { print: print.name })}
        aria-pressed={chosen}
        d={outline(surface, at, onArea)}
        fill="#d3f04a"
        fillOpacity={0}
        stroke={chosen ? '#12463a' : '#ffffff'}
        strokeOpacity={chosen ? 1 : 0.8}
        strokeWidth={chosen ? 1.75 : 1}
        className="pointer-events-auto cursor-move outline-none"
        {...move}
        onPointerDown={(e) => {
          onChoose();
          move.onPointerDown(e);
        }}
        onFocus={onChoose}
        data-design
        aria-description={msg(
          'Arrow keys move the design by a millimetre, with Shift by ten; + and - scale it, [ and ] rotate it.',
        )}
        onKeyDown={(e) => {
          if (e.ctrlKey || e.metaKey || e.altKey) return;
          const change = keyedPrint(print, e.key, e.shiftKey);
          if (!change) return;
          e.preventDefault();
          e.stopPropagation();
          commit(keyLabel(e.key), change);
        }}
      />
      {chosen && !print.pins && (
        <TurnKnob
          corners={at}
          onScreen={(mm) => onArea(surface, mm)}
          {...gesture(msg('Rotate'), (drag, e) => turnedPrint(drag, e.shiftKey))}
        />
      )}
      {chosen &&
        at.map((corner, i) => (
          <CornerKnob
            key={i}
            corner={i}
            at={onArea(surface, corner)}
            pinned={!!print.pins}
            {...(print.pins
              ? gesture(msg('Pin'), (drag) => pinnedPrint(drag, i))
              : gesture(msg('Size'), (drag, e) => scaledPrint(drag, e.shiftKey)))}
          />
        ))}
    </g>
  );
}

/** A corner by which a design is sized, or pinned to its place. */
function CornerKnob({
  corner,
  at: [x, y],
  pinned,
  ...handlers
}: { corner: number; at: Pair; pinned: boolean } & React.SVGProps<SVGCircleElement>) {
  const cursor = pinned ? 'cursor-crosshair' : corner % 2 ? 'cursor-nesw-resize' : 'cursor-nwse-resize';
  return (
    <circle
      cx={x}
      cy={y}
      r={6}
      fill={pinned ? '#d3f04a' : '#ffffff'}
      stroke="#12463a"
      strokeWidth={2}
      role="button"
      aria-label={msg('{corner} corner of the design', { corner: NAMES[corner] })}
      className={`pointer-events-auto ${cursor}`}
      {...handlers}
    />
  );
}

/** The knob over the design's top side, by which it is turned. */
function TurnKnob({
  corners,
  onScreen,
  ...handlers
}: { corners: Pair[]; onScreen(mm: Pair): Pair } & React.SVGProps<SVGCircleElement>) {
  const between = ([ax, ay]: Pair, [bx, by]: Pair): Pair => [(ax + bx) / 2, (ay + by) / 2];
  const [tx, ty] = onScreen(between(corners[0], corners[1]));
  const [mx, my] = onScreen(between(corners[0], corners[2]));
  const away = Math.hypot(tx - mx, ty - my) || 1;
  const [x, y]: Pair = [tx + ((tx - mx) / away) * 26, ty + ((ty - my) / away) * 26];
  return (
    <>
      <line x1={tx} y1={ty} x2={x} y2={y} stroke="#12463a" strokeWidth={1.5} />
      <circle
        cx={x}
        cy={y}
        r={6}
        fill="#ffffff"
        stroke="#12463a"
        strokeWidth={2}
        role="button"
        aria-label={msg('Rotate the design')}
        className="pointer-events-auto cursor-grab"
        {...handlers}
      />
    </>
  );
}
