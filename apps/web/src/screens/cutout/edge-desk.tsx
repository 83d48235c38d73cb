import type { Fringe } from '@scenograph/core/cutout/fringe';
import type { CutoutRecipe, RepairPiece } from '@scenograph/core/cutout/recipe';
import { Switch } from '../../ui/controls';
import { AutomaticSection } from './automatic-section';
import { EdgeHalo } from './edge-halo';
import { EdgeProfilePlot } from './edge-profile';
import type { RecipeEdits } from './recipe-edits';
import { RepairPieceFields } from './repair-piece';
import { msg, rich } from '../../language/language';

const changed = (id: string, value: Partial<RepairPiece>) => (r: CutoutRecipe) => ({
  ...r,
  repairs: r.repairs.map((p) => (p.id === id ? { ...p, ...value } : p)),
});

/** Edge, fringe, what the automatic cutout may take for backdrop, the camera's own shadow, repair pieces. */
export function EdgeDesk({
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
  return (
    <>
      <EdgeProfilePlot recipe={recipe} during={during} finish={finish} />
      <EdgeHalo {...{ recipe, fringe, during, finish, onShowWorst }} />
      <AutomaticSection recipe={recipe} finish={finish} />
      <section aria-label={msg('Camera’s own shadow')} className="border-line border-b px-3.5 py-3">
        <h2 className="font-semibold">{msg('Camera’s own shadow')}</h2>
        <Switch
          label={msg('Keep it with the cutout')}
          on={recipe.ownShadow}
          onChange={(ownShadow) =>
            finish(ownShadow ? msg('Keep the own shadow') : msg('Leave the own shadow'), (r) => ({
              ...r,
              ownShadow,
            }))
          }
        />
        <p className="text-ink-2 text-[12px]">
          {msg('From plain paper only. Show or hide it in the Light section of any shot.')}
        </p>
      </section>
      <section aria-label={msg('Repair pieces')} className="px-3.5 py-3">
        <h2 className="flex justify-between font-semibold">
          {rich('Repair pieces<measure>{repairs}</measure>', {
            measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
            repairs: recipe.repairs.length || 'none',
          })}
        </h2>
        {recipe.repairs.map((piece, i) => (
          <RepairPieceFields
            key={piece.id}
            n={i + 1}
            piece={piece}
            onDuring={(value) => during(changed(piece.id, value))}
            onChange={(value) => finish(msg('Change a repair piece'), changed(piece.id, value))}
            onRemove={() =>
              finish(msg('Remove a repair piece'), (r) => ({
                ...r,
                repairs: r.repairs.filter((p) => p.id !== piece.id),
              }))
            }
          />
        ))}
        {!recipe.repairs.length && (
          <p className="text-ink-2 text-[12px]">{msg('Choose Repair below the photo and draw a piece.')}</p>
        )}
      </section>
    </>
  );
}
