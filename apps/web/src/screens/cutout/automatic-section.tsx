import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { Button, Segmented, Switch } from '../../ui/controls';
import type { RecipeEdits } from './recipe-edits';
import { msg } from '../../language/language';

/** What the automatic cutout may take for backdrop and for glass, and what it was shown by hand. */
export function AutomaticSection({ recipe, finish }: Pick<RecipeEdits, 'finish'> & { recipe: CutoutRecipe }) {
  const { box, at } = recipe.automatic;
  const automatic = (label: string, value: Partial<CutoutRecipe['automatic']>) =>
    finish(label, (r) => ({ ...r, automatic: { ...r.automatic, ...value } }));
  return (
    <section aria-label={msg('Automatic cutout')} className="border-line border-b px-3.5 py-3">
      <h2 className="font-semibold">{msg('Automatic cutout')}</h2>
      <Switch
        label={msg('Openings inside the product')}
        on={recipe.automatic.holes}
        onChange={(holes) => automatic(holes ? msg('Keep openings') : msg('Fill openings'), { holes })}
      />
      <Switch
        label={msg('Soft shadows belong to the background')}
        on={recipe.automatic.shadows}
        onChange={(shadows) => automatic(msg('Soft shadows'), { shadows })}
      />
      <div className="flex items-center justify-between gap-3 py-1">
        <span>{msg('Glass')}</span>
        <Segmented
          label={msg('Glass, seen through')}
          value={String(recipe.automatic.glass)}
          onChange={(v) =>
            automatic(
              v === 'auto'
                ? msg('Glass found by itself')
                : v === 'true'
                  ? msg('Clear glass')
                  : msg('Not glass'),
              {
                glass: v === 'auto' ? 'auto' : v === 'true',
              },
            )
          }
          options={[
            { value: 'auto', title: msg('Automatic') },
            { value: 'true', title: msg('Glass') },
            { value: 'false', title: msg('Solid') },
          ]}
        />
      </div>
      {(box || at.length > 0) && (
        <div className="flex items-center justify-between gap-3 py-1">
          <span className="text-ink-2">
            {msg('{value} drawn', {
              value: [
                box && msg('a box'),
                at.length > 0 && msg('{at, plural, one {# point} other {# points}}', { at: at.length }),
              ]
                .filter(Boolean)
                .join(' and '),
            })}
          </span>
          <Button tone="quiet" onClick={() => automatic(msg('Remove box and points'), { box: null, at: [] })}>
            {msg('Remove')}
          </Button>
        </div>
      )}
    </section>
  );
}
