import type { AnswerOf } from '@scenograph/contract';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { readSteps, type RecipeStep } from '@scenograph/core/recipe/recipe';
import { call, useRoute, type RecipeDetail } from '../../api/client';
import { ConflictDialog, DocumentUndoRedo, SavingNote, useDocument } from '../../documents/document-bar';
import { storedRecipe, type RecipeDocument } from '../../documents/kinds';
import { useOpened } from '../../documents/use-opened';
import { Button, TextField } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { secondsText } from '../deliveries/seconds-text';
import { useTemplates } from '../templates/use-templates';
import { RecipeProducts } from './recipe-products';
import { RecipeSteps } from './recipe-steps';
import { recipeStore } from './recipe-store';
import { StepDesk } from './step-desk';
import { withoutStep, withStep } from './steps';
import { useRecipeRun, type RecipeEstimate } from './use-recipe-run';
import { msg } from '../../language/language';

export function RecipeScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/recipes/:id', { params: { id } });
  const { data: products } = useRoute('GET /api/products/titles');
  const stored = useMemo(() => data && storedRecipe(data), [data]);
  const opened = useOpened(recipeStore, id, stored);
  const now = recipeStore.use((s) => s.document);
  const ready = data && products && opened && now;
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!ready && !error && <Waiting what={msg('the recipe')} />}
      {ready && <RecipeDesk key={data.id} recipe={data} now={now} products={products} />}
    </>
  );
}

function RecipeDesk({
  recipe,
  now,
  products,
}: {
  recipe: RecipeDetail;
  now: RecipeDocument;
  products: AnswerOf<'GET /api/products/titles'>;
}) {
  const state = recipeStore.use();
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: sheets } = useRoute('GET /api/spec-sheets');
  const { data: templates } = useTemplates();
  const [at, setAt] = useState(now.steps[0]?.id ?? '');
  const [chosen, setChosen] = useState<string[]>(() => recipe.products.map((p) => p.productId));
  const running = useRecipeRun(recipe, chosen);
  useDocument(recipeStore.use.getState, recipeStore.save);
  const { steps } = now;
  const step = steps.find((s) => s.id === at) ?? steps[0];

  /** Steps that cannot be run are not taken. */
  const setSteps = (label: string, next: RecipeStep[]) => {
    try {
      readSteps(next);
    } catch (e) {
      say('stop', (e as Error).message);
      return;
    }
    state.edit(label, (r) => ({ ...r, steps: next }));
  };
  const put = (patch: Partial<RecipeStep>) =>
    setSteps(
      msg('Change {step}', { step: step.title }),
      steps.map((s) => (s.id === step.id ? ({ ...s, ...patch } as RecipeStep) : s)),
    );
  const add = (kind: RecipeStep['kind']) => {
    const made = withStep(steps, kind, { scene: scenes?.[0], template: templates?.[0], sheet: sheets?.[0] });
    if (typeof made === 'string') return say('stop', made);
    setSteps(msg('Add a step'), made.steps);
    setAt(made.id);
  };
  const remove = () => {
    const rest = withoutStep(steps, step);
    if (!rest.length) return say('stop', msg('A recipe needs a step.'));
    setSteps(msg('Remove {step}', { step: step.title }), rest);
    setAt(rest[0].id);
  };
  const busy = recipe.products.some((p) =>
    Object.values(p.steps).some((s) => s.state === 'waiting' || s.state === 'working'),
  );

  return (
    <>
      <RecipeHeader id={recipe.id} title={now.title} busy={busy} chosen={chosen.length} {...running} />
      <main className="flex min-h-0 grow">
        <div
          className="min-w-0 grow overflow-auto px-5 py-4"
          tabIndex={0}
          aria-label={msg('Steps and products')}
        >
          <RecipeSteps steps={steps} at={step?.id ?? ''} onChoose={setAt} onAdd={add} />
          <RecipeProducts
            recipe={recipe}
            steps={steps}
            products={products}
            chosen={chosen}
            onChosen={setChosen}
          />
        </div>
        {step && (
          <StepDesk
            step={step}
            steps={steps}
            scenes={scenes}
            sheets={sheets}
            templates={templates}
            onPut={put}
            onRemove={remove}
          />
        )}
      </main>
      <ConflictDialog of={state} word={msg('recipe')} />
    </>
  );
}

function RecipeHeader({
  id,
  title,
  busy,
  chosen,
  estimate,
  run,
  cancel,
}: {
  id: string;
  title: string;
  busy: boolean;
  chosen: number;
  estimate: RecipeEstimate | null;
  run(): Promise<void>;
  cancel(): Promise<void>;
}) {
  const state = recipeStore.use();
  const navigate = useNavigate();
  const remove = async () => {
    const ask = call('DELETE /api/recipes/:id', { params: { id } }, { revision: state.revision });
    if (await removing(ask, `"${title}"`, '/api/recipes')) void navigate('/recipes');
  };
  const rename = (to: string) => to && state.edit(msg('Name'), (r) => ({ ...r, title: to }));
  return (
    <div className="border-line bg-card flex h-15 shrink-0 items-center gap-3 border-b px-5">
      <Link to="/recipes" className="text-ink-2 hover:text-ink">
        {msg('Recipes')}
      </Link>
      <span className="text-ink-3">/</span>
      <div className="w-56">
        <TextField
          hideLabel
          label={msg('Name of the recipe')}
          value={title}
          onCommit={(t) => rename(t.trim())}
        />
      </div>
      <SavingNote of={state} onTryAgain={() => void recipeStore.save()} />
      <DocumentUndoRedo of={state} />
      <p className="text-ink-2 ml-auto" aria-live="polite">
        {costs(estimate)}
      </p>
      {busy && (
        <Button tone="danger" onClick={() => void cancel()}>
          {msg('Cancel what waits')}
        </Button>
      )}
      <Button tone="danger" onClick={() => void remove()}>
        {msg('Remove')}
      </Button>
      <Button tone="main" disabled={!estimate?.steps} onClick={() => void run()}>
        {msg('Run for {chosen} {chosen, plural, one {product} other {products}}', { chosen })}
      </Button>
    </div>
  );
}

function costs(estimate: RecipeEstimate | null): string {
  if (!estimate) return msg('Choose products to see what it will cost.');
  const { steps, cutouts, pictures, seconds } = estimate;
  if (!steps) return msg('Nothing has changed since it ran.');
  return msg(
    '{steps} {steps, plural, one {step} other {steps}} to run, {cutouts, plural, one {# cutout} other {# cutouts}}, {pictures, plural, one {# picture} other {# pictures}}, about {seconds}',
    { steps, cutouts, pictures, seconds: secondsText(seconds) },
  );
}
