import { Plus } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { UNTIDIED } from '@scenograph/core/retouch/tidy';
import { MAKES_SHOT, readSteps, STEP_TITLES, type RecipeStep } from '@scenograph/core/recipe/recipe';
import { refresh, call, useRoute } from '../../api/client';
import { Button, buttonClass, Select, TextField } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { StatusMark, type Mark } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { secondsText } from '../deliveries/deliver-dialog';
import { useTemplates } from '../templates/use-templates';
import type { AnswerOf } from '@scenograph/contract';
import type { RecipeDetail } from '../../api/client';
import { StepDesk } from './step-desk';

const MARKS: Record<RecipeDetail['products'][number]['steps'][string]['state'], Mark> = {
  waiting: 'working',
  working: 'working',
  done: 'pass',
  failed: 'stop',
  cancelled: 'missing',
};

export function RecipeScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/recipes/:id', { params: { id } });
  const { data: products } = useRoute('GET /api/products/titles');
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {(!data || !products) && !error && <Waiting what="the recipe" />}
      {data && products && <RecipeDesk key={data.id} recipe={data} products={products} />}
    </>
  );
}

function RecipeDesk({
  recipe,
  products,
}: {
  recipe: RecipeDetail;
  products: AnswerOf<'GET /api/products/titles'>;
}) {
  const navigate = useNavigate();
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: sheets } = useRoute('GET /api/spec-sheets');
  const { data: templates } = useTemplates();
  const [at, setAt] = useState(recipe.steps[0]?.id ?? '');
  const [chosen, setChosen] = useState<string[]>(() => recipe.products.map((p) => p.productId));
  const [estimate, setEstimate] = useState<AnswerOf<'POST /api/recipes/:id/estimate'> | null>(null);
  const { steps } = recipe;
  const step = steps.find((s) => s.id === at) ?? steps[0];

  const save = async (change: { title?: string; steps?: RecipeStep[] }) => {
    try {
      if (change.steps) readSteps(change.steps);
      await call('PUT /api/recipes/:id', {
        params: { id: recipe.id },
        body: {
          revision: recipe.revision,
          title: change.title ?? recipe.title,
          steps: change.steps ?? steps,
        },
      });
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/recipes');
  };
  const put = (patch: Partial<RecipeStep>) =>
    void save({ steps: steps.map((s) => (s.id === step.id ? ({ ...s, ...patch } as RecipeStep) : s)) });
  const addStep = (kind: RecipeStep['kind']) => {
    let n = 1;
    while (steps.some((s) => s.id === `${kind}-${n}`)) n++;
    const shots = steps.filter((s) => MAKES_SHOT.has(s.kind)).map((s) => s.id);
    const before = MAKES_SHOT.has(kind)
      ? (steps.find((s) => MAKES_SHOT.has(s.kind))?.after ?? [])
      : kind === 'fit'
        ? shots
        : steps.slice(-1).map((s) => s.id);
    const base = { id: `${kind}-${n}`, title: STEP_TITLES[kind], after: before };
    const made: Record<RecipeStep['kind'], () => RecipeStep> = {
      tidy: () => ({ ...base, kind: 'tidy', tidy: UNTIDIED }),
      'cut-out': () => ({ ...base, kind: 'cut-out' }),
      arrange: () => ({ ...base, kind: 'arrange', pose: 'stand' }),
      white: () => ({ ...base, kind: 'white' }),
      stage: () => ({ ...base, kind: 'stage', scene: scenes![0].id, title: scenes![0].title }),
      template: () => ({ ...base, kind: 'template', template: templates![0].id, title: templates![0].title }),
      fit: () => ({ ...base, kind: 'fit', sheets: [sheets![0].id] }),
      deliver: () => ({ ...base, kind: 'deliver' }),
    };
    const fresh = made[kind]();
    // A new shot is fitted with the others.
    const others = steps.map((s) =>
      s.kind === 'fit' && MAKES_SHOT.has(kind) ? { ...s, after: [...s.after, fresh.id] } : s,
    );
    setAt(fresh.id);
    void save({ steps: [...others, fresh] });
  };
  const removeStep = () => {
    const rest = steps
      .filter((s) => s.id !== step.id)
      .map((s) =>
        s.after.includes(step.id)
          ? { ...s, after: [...new Set([...s.after.filter((a) => a !== step.id), ...step.after])] }
          : s,
      );
    if (!rest.length) return say('stop', 'A recipe needs a step.');
    setAt(rest[0].id);
    void save({ steps: rest });
  };
  useEffect(() => {
    if (!chosen.length) return setEstimate(null);
    let here = true;
    call('POST /api/recipes/:id/estimate', { params: { id: recipe.id }, body: { productIds: chosen } })
      .then((e) => here && setEstimate(e))
      .catch((e: Error) => here && say('stop', e.message));
    return () => {
      here = false;
    };
  }, [chosen, recipe]);
  const run = async () => {
    try {
      const { ordered, unchanged } = await call('POST /api/recipes/:id/run', {
        params: { id: recipe.id },
        body: { productIds: chosen },
      });
      say(
        'pass',
        `${ordered} product${ordered === 1 ? '' : 's'} under way${unchanged ? `, ${unchanged} unchanged` : ''}.`,
      );
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/recipes');
  };
  const levels = useMemo(() => levelsOf(steps), [steps]);
  const busy = recipe.products.some((p) =>
    Object.values(p.steps).some((s) => s.state === 'waiting' || s.state === 'working'),
  );

  return (
    <>
      <div className="border-line bg-card flex h-15 shrink-0 items-center gap-3 border-b px-5">
        <Link to="/recipes" className="text-ink-2 hover:text-ink">
          Recipes
        </Link>
        <span className="text-ink-3">/</span>
        <div className="w-64">
          <TextField
            hideLabel
            label="Name of the recipe"
            value={recipe.title}
            onCommit={(title) => title.trim() && void save({ title: title.trim() })}
          />
        </div>
        <p className="text-ink-2 ml-auto" aria-live="polite">
          {estimate
            ? estimate.steps
              ? `${estimate.steps} step${estimate.steps === 1 ? '' : 's'} to run, ${estimate.cutouts} cutouts, ${estimate.pictures} pictures, about ${secondsText(estimate.seconds)}`
              : 'Nothing has changed since it ran.'
            : 'Choose products to see what it will cost.'}
        </p>
        {busy && (
          <Button
            tone="danger"
            onClick={() =>
              void call('POST /api/recipes/:id/cancel', { params: { id: recipe.id } }).then(() =>
                refresh('/api/recipes'),
              )
            }
          >
            Cancel what waits
          </Button>
        )}
        <Button
          tone="danger"
          onClick={() =>
            void call('DELETE /api/recipes/:id', { params: { id: recipe.id } }).then(() => {
              refresh('/api/recipes');
              void navigate('/recipes');
            })
          }
        >
          Remove
        </Button>
        <Button tone="main" disabled={!estimate?.steps} onClick={() => void run()}>
          Run for {chosen.length} product{chosen.length === 1 ? '' : 's'}
        </Button>
      </div>
      <main className="flex min-h-0 grow">
        <div className="min-w-0 grow overflow-auto px-5 py-4" tabIndex={0} aria-label="Steps and products">
          <ol aria-label="Steps" className="flex items-stretch gap-2">
            {levels.map((level, i) => (
              <li key={i} className="flex items-center gap-2">
                <div className="grid gap-2">
                  {level.map((s) => (
                    <button
                      key={s.id}
                      type="button"
                      aria-current={s.id === step.id}
                      onClick={() => setAt(s.id)}
                      className={`w-36 rounded-md border px-2.5 py-2 text-left ${s.id === step.id ? 'border-spruce bg-spruce-tint' : 'border-line bg-card hover:border-ink-3'}`}
                    >
                      <span className="text-ink-2 block text-[11px]">{STEP_TITLES[s.kind]}</span>
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
            <Select
              label="Add a step"
              value={'' as RecipeStep['kind']}
              onChange={addStep}
              options={(Object.keys(STEP_TITLES) as RecipeStep['kind'][]).map((k) => ({
                value: k,
                title: STEP_TITLES[k],
              }))}
            />
            <Plus size={14} aria-hidden className="text-ink-3" />
          </div>
          <table className="border-line bg-card mt-5 border">
            <thead>
              <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                <th className="px-3 py-2 font-medium">
                  <label className="flex items-center gap-2">
                    <input
                      type="checkbox"
                      className="accent-spruce"
                      checked={chosen.length === products.length}
                      onChange={(e) => setChosen(e.target.checked ? products.map((p) => p.id) : [])}
                    />
                    Product
                  </label>
                </th>
                {steps.map((s) => (
                  <th key={s.id} className="max-w-36 truncate px-3 py-2 font-medium">
                    {s.title}
                  </th>
                ))}
                <th className="px-3 py-2 font-medium">Results</th>
              </tr>
            </thead>
            <tbody>
              {products.map((p) => {
                const row = recipe.products.find((r) => r.productId === p.id);
                const made = Object.values(row?.steps ?? {}).reduce<Record<string, string>>(
                  (all, s) => ({ ...all, ...s.made }),
                  {},
                );
                return (
                  <tr key={p.id} className="border-line border-b last:border-b-0">
                    <td className="px-3 py-1.5">
                      <label className="flex items-center gap-2 whitespace-nowrap">
                        <input
                          type="checkbox"
                          className="accent-spruce"
                          checked={chosen.includes(p.id)}
                          onChange={(e) =>
                            setChosen((c) => (e.target.checked ? [...c, p.id] : c.filter((x) => x !== p.id)))
                          }
                        />
                        <span className="font-medium">{p.title}</span>
                      </label>
                    </td>
                    {steps.map((s) => {
                      const r = row?.steps[s.id];
                      return (
                        <td
                          key={s.id}
                          className="max-w-36 px-3 py-1.5 text-[12px]"
                          title={r?.says ?? undefined}
                        >
                          {r ? (
                            <span className="flex items-center gap-1.5">
                              <StatusMark mark={MARKS[r.state]} size={9} />
                              <span className="truncate">
                                {r.state === 'waiting'
                                  ? 'waits'
                                  : r.state === 'working'
                                    ? 'under way'
                                    : (r.says ?? r.state)}
                              </span>
                            </span>
                          ) : (
                            <span className="text-ink-2">not run</span>
                          )}
                        </td>
                      );
                    })}
                    <td className="px-3 py-1.5">
                      <span className="flex gap-1.5">
                        {made.listing && (
                          <Link to={`/listings/${made.listing}`} className={buttonClass()}>
                            Board
                          </Link>
                        )}
                        {made.delivery && (
                          <Link to={`/deliveries/${made.delivery}`} className={buttonClass()}>
                            Delivery
                          </Link>
                        )}
                      </span>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
        {step && (
          <StepDesk
            step={step}
            steps={steps}
            scenes={scenes}
            sheets={sheets}
            templates={templates}
            onPut={put}
            onRemove={removeStep}
          />
        )}
      </main>
    </>
  );
}

/** Steps in columns: each stands after the last of those it waits for, so that branches are side by side. */
function levelsOf(steps: RecipeStep[]): RecipeStep[][] {
  const level = new Map<string, number>();
  for (const s of steps) level.set(s.id, Math.max(0, ...s.after.map((a) => (level.get(a) ?? 0) + 1)));
  const columns: RecipeStep[][] = [];
  for (const s of steps) (columns[level.get(s.id)!] ??= []).push(s);
  return columns.filter(Boolean);
}
