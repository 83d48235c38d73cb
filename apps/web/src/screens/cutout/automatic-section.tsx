import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { Button, Segmented, Switch } from '../../ui/controls';
import type { RecipeEdits } from './recipe-edits';

/** What the automatic cutout may take for backdrop and for glass, and what it was shown by hand. */
export function AutomaticSection({ recipe, finish }: Pick<RecipeEdits, 'finish'> & { recipe: CutoutRecipe }) {
  const { box, at } = recipe.automatic;
  const automatic = (label: string, value: Partial<CutoutRecipe['automatic']>) =>
    finish(label, (r) => ({ ...r, automatic: { ...r.automatic, ...value } }));
  return (
    <section aria-label="Automatic cutout" className="border-line border-b px-3.5 py-3">
      <h2 className="font-semibold">Automatic cutout</h2>
      <Switch
        label="Openings inside the product"
        on={recipe.automatic.holes}
        onChange={(holes) => automatic(holes ? 'Keep openings' : 'Fill openings', { holes })}
      />
      <Switch
        label="Soft shadows belong to the background"
        on={recipe.automatic.shadows}
        onChange={(shadows) => automatic('Soft shadows', { shadows })}
      />
      <div className="flex items-center justify-between gap-3 py-1">
        <span>Glass</span>
        <Segmented
          label="Glass, seen through"
          value={String(recipe.automatic.glass)}
          onChange={(v) =>
            automatic(v === 'auto' ? 'Glass found by itself' : v === 'true' ? 'Clear glass' : 'Not glass', {
              glass: v === 'auto' ? 'auto' : v === 'true',
            })
          }
          options={[
            { value: 'auto', title: 'Automatic' },
            { value: 'true', title: 'Glass' },
            { value: 'false', title: 'Solid' },
          ]}
        />
      </div>
      {(box || at.length > 0) && (
        <div className="flex items-center justify-between gap-3 py-1">
          <span className="text-ink-2">
            {[box && 'a box', at.length > 0 && `${at.length} ${at.length === 1 ? 'point' : 'points'}`]
              .filter(Boolean)
              .join(' and ')}{' '}
            drawn
          </span>
          <Button tone="quiet" onClick={() => automatic('Remove box and points', { box: null, at: [] })}>
            Remove
          </Button>
        </div>
      )}
    </section>
  );
}
