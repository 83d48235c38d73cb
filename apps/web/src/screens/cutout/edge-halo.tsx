import type { Fringe } from '@scenograph/core/cutout/fringe';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { Slider } from '../../ui/controls';
import type { RecipeEdits } from './recipe-edits';
import { msg, rich } from '../../language/language';

/** How much of the ground's colour is left around the edge, where it is worst, and its removal. */
export function EdgeHalo({
  recipe,
  fringe,
  during,
  finish,
  onShowWorst,
}: RecipeEdits & {
  recipe: CutoutRecipe;
  fringe: Fringe | null;
  onShowWorst(at: { x: number; y: number }): void;
}) {
  const most = fringe ? Math.max(6, ...fringe.around) : 6;
  const spill = (v: number) => (r: CutoutRecipe) => ({ ...r, edge: { ...r.edge, spill: v / 100 } });
  return (
    <section aria-label={msg('Edge halo')} className="border-line border-b px-3.5 py-3">
      <h2 className="flex justify-between font-semibold">
        {rich('Edge halo<measure>{part}</measure>', {
          measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
          part: fringe
            ? msg('ΔE {mean} mean, {worst} worst', {
                mean: Math.max(fringe.white.mean, fringe.black.mean).toFixed(1),
                worst: Math.max(fringe.white.worst, fringe.black.worst).toFixed(1),
              })
            : msg('measuring'),
        })}
      </h2>
      <svg
        viewBox="0 0 274 44"
        className="mt-2 block h-11 w-full"
        role="img"
        aria-label={msg('Edge halo around the product, from the top clockwise')}
      >
        {fringe?.around.map((v, i) => {
          const h = Math.max(1, (v / most) * 44);
          return (
            <rect
              key={i}
              x={i * 4.28}
              y={44 - h}
              width="3.2"
              height={h}
              fill={v > 6 ? 'var(--color-coral)' : 'var(--color-spruce)'}
            />
          );
        })}
      </svg>
      {fringe && (
        <p className="text-ink-2 mt-1 text-[12px]">
          {msg('on white')}{' '}
          <span className="measure">
            {fringe.white.mean.toFixed(1)} / {fringe.white.worst.toFixed(1)}
          </span>
          {msg(', on black')}{' '}
          <span className="measure">
            {fringe.black.mean.toFixed(1)} / {fringe.black.worst.toFixed(1)}
          </span>{' '}
          {fringe.worstAt && (
            <button
              type="button"
              className="text-spruce underline"
              onClick={() => onShowWorst(fringe.worstAt!)}
            >
              {msg('Show the worst place')}
            </button>
          )}
        </p>
      )}
      <Slider
        label={msg('Remove colour spill')}
        unit="%"
        min={0}
        max={100}
        value={recipe.edge.spill * 100}
        onChange={(v) => during(spill(v))}
        onCommit={(v) => finish(msg('Remove colour spill'), spill(v))}
      />
    </section>
  );
}
