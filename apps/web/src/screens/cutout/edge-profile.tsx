import { useRef } from 'react';
import {
  EDGE_PRESETS,
  edgeWith,
  profileOf,
  STEEPEST,
  type EdgeProfile,
} from '@scenograph/core/cutout/edge-profile';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { NumberField, Segmented, Slider } from '../../ui/controls';
import type { RecipeEdits } from './recipe-edits';
import { msg, rich } from '../../language/language';

const WIDTH = 274;
const HEIGHT = 96;
const TOP = 12;
const FLOOR = 72;

type Handle = 'begin' | 'place' | 'end';
const HANDLES: readonly { id: Handle; label: string }[] = [
  { id: 'begin', label: msg('Where the edge begins: opaque up to here') },
  { id: 'place', label: msg('Place of the edge') },
  { id: 'end', label: msg('Where the edge ends: transparent from here on') },
];

/** A slope with one of its handles moved to `x`: the middle takes both ends along. */
function withHandle({ begin, end }: EdgeProfile, handle: Handle, x: number): EdgeProfile {
  if (handle === 'begin') return { begin: Math.min(x, end - STEEPEST), end };
  if (handle === 'end') return { begin, end: Math.max(x, begin + STEEPEST) };
  const half = (end - begin) / 2;
  return { begin: x - half, end: x + half };
}

/** Where the handles stand, in photo pixels across the edge. */
const valuesOf = ({ begin, end }: EdgeProfile): Record<Handle, number> => ({
  begin,
  place: (begin + end) / 2,
  end,
});

/** The recipe with a handle moved to `x`, to a tenth of a pixel. */
const withEdgeHandle = (handle: Handle, x: number) => (r: CutoutRecipe) => ({
  ...r,
  edge: edgeWith(r.edge, withHandle(profileOf(r.edge), handle, Math.round(x * 10) / 10)),
});

/** The edge across which the matte falls: its plot, its two ends as numbers, how bumps are evened out, and presets. */
export function EdgeProfilePlot({ recipe, during, finish }: RecipeEdits & { recipe: CutoutRecipe }) {
  const { edge } = recipe;
  const profile = profileOf(edge);
  const preset = EDGE_PRESETS.find((p) =>
    Object.entries(p.edge).every(([key, v]) => Math.abs(edge[key as keyof typeof edge] - v) < 1e-6),
  );
  return (
    <section aria-label={msg('Edge')} className="border-line border-b px-3.5 py-3">
      <h2 className="flex justify-between font-semibold">
        {rich('Edge <measure>across it, photo px</measure>', {
          measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
        })}
      </h2>
      <Plot
        profile={profile}
        onDuring={(handle, x) => during(withEdgeHandle(handle, x))}
        onFinish={(handle, x) => finish(msg('Change the edge'), withEdgeHandle(handle, x))}
      />
      <div className="mt-1 grid grid-cols-2 gap-2">
        {(['begin', 'end'] as const).map((id) => (
          <NumberField
            key={id}
            label={id === 'begin' ? msg('Begins') : msg('Ends')}
            unit="px"
            min={-40}
            max={40}
            digits={1}
            value={profile[id]}
            onCommit={(v) => finish(msg('Change the edge'), withEdgeHandle(id, v))}
          />
        ))}
      </div>
      <Slider
        label={msg('Even out')}
        unit="px"
        min={0}
        max={20}
        step={0.5}
        digits={1}
        value={edge.smooth}
        onChange={(smooth) => during((r) => ({ ...r, edge: { ...r.edge, smooth } }))}
        onCommit={(smooth) =>
          finish(msg('Even out the edge'), (r) => ({ ...r, edge: { ...r.edge, smooth } }))
        }
      />
      <div className="mt-1">
        <Segmented
          label={msg('Edge for')}
          value={preset?.id ?? 'own'}
          onChange={(id) => {
            const chosen = EDGE_PRESETS.find((p) => p.id === id);
            if (chosen)
              finish(msg('Edge: {chosen}', { chosen: chosen.title }), (r) => ({
                ...r,
                edge: { ...r.edge, ...chosen.edge },
              }));
          }}
          options={EDGE_PRESETS.map((p) => ({ value: p.id, title: msg(p.title) }))}
        />
      </div>
    </section>
  );
}

/** The matte's slope as one plot: opaque inside, transparent outside, photo pixels along the bottom; its handles move it. */
function Plot({
  profile,
  onDuring,
  onFinish,
}: {
  profile: EdgeProfile;
  onDuring(handle: Handle, x: number): void;
  onFinish(handle: Handle, x: number): void;
}) {
  const plot = useRef<SVGSVGElement>(null);
  const held = useRef<Handle | null>(null);
  const reach = Math.max(6, Math.ceil(Math.max(Math.abs(profile.begin), Math.abs(profile.end)) * 1.25));
  const toX = (v: number) => ((v + reach) / (2 * reach)) * WIDTH;
  const values = valuesOf(profile);
  const heights: Record<Handle, number> = { begin: TOP, place: (TOP + FLOOR) / 2, end: FLOOR };
  const at = (e: React.PointerEvent) => {
    const box = plot.current!.getBoundingClientRect();
    return ((e.clientX - box.left) / box.width) * 2 * reach - reach;
  };
  return (
    <svg
      ref={plot}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mt-2 block w-full touch-none select-none"
      role="group"
      aria-label={msg('Profile of the edge, from the opaque inside to the transparent outside')}
      onPointerMove={(e) => held.current && onDuring(held.current, at(e))}
      onPointerUp={(e) => {
        if (held.current) onFinish(held.current, at(e));
        held.current = null;
      }}
    >
      <Slope begin={toX(profile.begin)} end={toX(profile.end)} />
      <Ruler reach={reach} toX={toX} />
      {HANDLES.map(({ id, label }) => (
        <HandleMark
          key={id}
          round={id !== 'place'}
          label={label}
          value={values[id]}
          x={toX(values[id])}
          y={heights[id]}
          onHold={(e) => {
            held.current = id;
            plot.current!.setPointerCapture(e.pointerId);
          }}
          onStep={(by) => onFinish(id, values[id] + by)}
        />
      ))}
    </svg>
  );
}

function Slope({ begin, end }: { begin: number; end: number }) {
  return (
    <>
      <path d={`M0 ${FLOOR} L0 ${TOP} L${begin} ${TOP} L${end} ${FLOOR} Z`} fill="var(--color-spruce-tint)" />
      <path
        d={`M0 ${TOP} L${begin} ${TOP} L${end} ${FLOOR} L${WIDTH} ${FLOOR}`}
        fill="none"
        stroke="var(--color-spruce)"
        strokeWidth="1.6"
      />
    </>
  );
}

/** Photo pixels along the bottom, and a line where the photo's own edge is. */
function Ruler({ reach, toX }: { reach: number; toX(v: number): number }) {
  const step = reach > 16 ? 8 : reach > 8 ? 4 : 2;
  const each = Math.floor(reach / step);
  const ticks = Array.from({ length: each * 2 + 1 }, (_, i) => (i - each) * step);
  return (
    <>
      <line
        x1={toX(0)}
        x2={toX(0)}
        y1={TOP - 6}
        y2={FLOOR}
        stroke="var(--color-ink-3)"
        strokeDasharray="2 3"
      />
      {ticks.map((t) => (
        <text
          key={t}
          x={toX(t)}
          y={HEIGHT - 8}
          textAnchor={toX(t) < 8 ? 'start' : toX(t) > WIDTH - 8 ? 'end' : 'middle'}
          className="measure fill-ink-2 text-[10px]"
        >
          {t > 0 ? `+${t}` : t}
        </text>
      ))}
      <text x="4" y={FLOOR - 6} className="fill-ink-2 text-[10px]">
        {msg('inside')}
      </text>
      <text x={WIDTH - 4} y={TOP + 4} textAnchor="end" className="fill-ink-2 text-[10px]">
        {msg('outside')}
      </text>
    </>
  );
}

/** A handle for pointer and keys: arrows move it by a tenth of a pixel, with Shift or by page by a whole one. */
function HandleMark({
  round,
  label,
  value,
  x,
  y,
  onHold,
  onStep,
}: {
  round: boolean;
  label: string;
  value: number;
  x: number;
  y: number;
  onHold(e: React.PointerEvent): void;
  onStep(by: number): void;
}) {
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Math.round(value * 10) / 10}
      aria-valuemin={-40}
      aria-valuemax={40}
      aria-valuetext={`${value.toFixed(1)} px`}
      className="cursor-ew-resize"
      onPointerDown={onHold}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -0.1, ArrowRight: 0.1, PageDown: -1, PageUp: 1 }[e.key];
        if (!by) return;
        e.preventDefault();
        onStep(by * (e.shiftKey ? 10 : 1));
      }}
    >
      <rect x={x - 12} y={y - 12} width="24" height="24" fill="transparent" />
      {round ? (
        <circle cx={x} cy={y} r="5.5" fill="var(--color-ink)" />
      ) : (
        <rect
          x={x - 5}
          y={y - 5}
          width="10"
          height="10"
          fill="var(--color-ink)"
          transform={`rotate(45 ${x} ${y})`}
        />
      )}
    </g>
  );
}
