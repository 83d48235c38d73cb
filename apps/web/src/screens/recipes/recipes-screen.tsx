import { Plus } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import { UNTIDIED } from '@scenograph/core/retouch/tidy';
import { STEP_TITLES, type RecipeStep } from '@scenograph/core/recipe/recipe';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import { refresh, type Scene, call, useRoute } from '../../api/client';
import { Button } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { msg } from '../../language/language';

/** A first recipe: the whole order of work once, to be changed. */
function firstSteps(scenes: Scene[], sheets: SpecSheet[]): RecipeStep[] {
  const places = scenes.filter((s) => !s.survey.areas.length).slice(0, 2);
  const staged = ['white', ...places.map((_, i) => `scene-${i + 1}`)];
  return [
    { id: 'tidy', kind: 'tidy', title: msg(STEP_TITLES.tidy), after: [], tidy: UNTIDIED },
    { id: 'cut-out', kind: 'cut-out', title: msg(STEP_TITLES['cut-out']), after: ['tidy'] },
    { id: 'white', kind: 'white', title: msg(STEP_TITLES.white), after: ['cut-out'] },
    ...places.map((scene, i): RecipeStep => ({
      id: `scene-${i + 1}`,
      kind: 'stage',
      title: scene.title,
      after: ['cut-out'],
      scene: scene.id,
    })),
    {
      id: 'fit',
      kind: 'fit',
      title: msg(STEP_TITLES.fit),
      after: staged,
      sheets: sheets.slice(0, 2).map((s) => s.id),
    },
    { id: 'deliver', kind: 'deliver', title: msg(STEP_TITLES.deliver), after: ['fit'] },
  ];
}

export function RecipesScreen() {
  const { data, error } = useRoute('GET /api/recipes');
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: sheets } = useRoute('GET /api/spec-sheets');
  const navigate = useNavigate();
  const add = async () => {
    try {
      const made = await call('POST /api/recipes', {
        body: {
          title: msg('New recipe'),
          steps: firstSteps(scenes ?? [], sheets ?? []),
        },
      });
      refresh('/api/recipes');
      void navigate(`/recipes/${made.id}`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex flex-wrap items-center gap-2">
          <div>
            <h1 className="font-display text-[22px] font-bold">{msg('Recipes')}</h1>
            <p className="text-ink-2">
              {msg(
                'A run of steps, defined once and run over many products: only what has not run or has changed.',
              )}
            </p>
          </div>
          <Button tone="main" className="ml-auto" disabled={!scenes || !sheets} onClick={() => void add()}>
            <Plus size={14} aria-hidden /> {msg('New recipe')}
          </Button>
        </div>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the recipes')} />}
        {data?.length === 0 && (
          <div className="mt-6">
            <Empty title={msg('No recipes yet')}>
              {msg('A new one begins with the whole order of work: tidy, cut out, stage, fit, deliver.')}
            </Empty>
          </div>
        )}
        <ul className="mt-4 grid gap-2">
          {data?.map((r) => (
            <li key={r.id}>
              <Link
                to={`/recipes/${r.id}`}
                className="border-line bg-card hover:border-ink-3 flex items-baseline gap-4 rounded-lg border px-4 py-3"
              >
                <span className="font-display text-[15px] font-bold">{r.title}</span>
                <span className="text-ink-2 truncate">{r.steps.map((s) => s.title).join(', ')}</span>
              </Link>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}
