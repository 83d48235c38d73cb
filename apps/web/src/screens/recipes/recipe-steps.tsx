import { Plus } from 'lucide-react';
import { useMemo } from 'react';
import { STEP_TITLES, type RecipeStep } from '@scenograph/core/recipe/recipe';
import { Select } from '../../ui/controls';
import { levelsOf } from './steps';
import { msg } from '../../language/language';

const KINDS = (Object.keys(STEP_TITLES) as RecipeStep['kind'][]).map((value) => ({
  value,
  title: msg(STEP_TITLES[value]),
}));

/** The steps from left to right, branches side by side, and a way to add one. */
export function RecipeSteps({
  steps,
  at,
  onChoose,
  onAdd,
}: {
  steps: readonly RecipeStep[];
  at: string;
  onChoose(id: string): void;
  onAdd(kind: RecipeStep['kind']): void;
}) {
  const levels = useMemo(() => levelsOf(steps), [steps]);
  return (
    <>
      <ol aria-label={msg('Steps')} className="flex items-stretch gap-2">
        {levels.map((level, i) => (
          <li key={i} className="flex items-center gap-2">
            <div className="grid gap-2">
              {level.map((s) => (
                <button
                  key={s.id}
                  type="button"
                  aria-current={s.id === at}
                  onClick={() => onChoose(s.id)}
                  className={`w-36 rounded-md border px-2.5 py-2 text-left ${s.id === at ? 'border-spruce bg-spruce-tint' : 'border-line bg-card hover:border-ink-3'}`}
                >
                  <span className="text-ink-2 block text-[11px]">{msg(STEP_TITLES[s.kind])}</span>
                  <span className="block truncate font-medium">{s.title}</span>
                </button>
              ))}
            </div>
            {i < levels.length - 1 && (
              <span className="text-ink-3" aria-hidden>
                &rarr;
              </span>
            )}
          </li>
        ))}
      </ol>
      <div className="mt-3 flex items-center gap-2">
        <Select label={msg('Add a step')} value={'' as RecipeStep['kind']} onChange={onAdd} options={KINDS} />
        <Plus size={14} aria-hidden className="text-ink-3" />
      </div>
    </>
  );
}
