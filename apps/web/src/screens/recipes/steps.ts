import { MAKES_SHOT, STEP_TITLES, type RecipeStep } from '@scenograph/core/recipe/recipe';
import { UNTIDIED } from '@scenograph/core/retouch/tidy';
import { msg } from '../../language/language';

/** What a new step is set to at first. */
export interface FirstChoices {
  scene?: { id: string; title: string };
  template?: { id: string; title: string };
  sheet?: { id: string };
}

/**
 * The steps with one more: a new shot stands beside the others and is fitted with them, everything else comes last.
 * @returns the steps and the new one's id; a sentence where there is nothing to set it to
 */
export function withStep(
  steps: readonly RecipeStep[],
  kind: RecipeStep['kind'],
  { scene, template, sheet }: FirstChoices,
): { steps: RecipeStep[]; id: string } | string {
  let n = 1;
  while (steps.some((s) => s.id === `${kind}-${n}`)) n++;
  const base = { id: `${kind}-${n}`, title: msg(STEP_TITLES[kind]), after: comesAfter(steps, kind) };
  const made: Record<RecipeStep['kind'], () => RecipeStep | string> = {
    tidy: () => ({ ...base, kind: 'tidy', tidy: UNTIDIED }),
    'cut-out': () => ({ ...base, kind: 'cut-out' }),
    arrange: () => ({ ...base, kind: 'arrange', pose: 'stand' }),
    white: () => ({ ...base, kind: 'white' }),
    stage: () =>
      scene
        ? { ...base, kind: 'stage', scene: scene.id, title: scene.title }
        : msg('There is no scene yet. Add one to the library first.'),
    template: () =>
      template
        ? { ...base, kind: 'template', template: template.id, title: template.title }
        : msg('There is no template yet.'),
    fit: () =>
      sheet
        ? { ...base, kind: 'fit', sheets: [sheet.id] }
        : msg('There is no spec sheet yet. Add one first.'),
    deliver: () => ({ ...base, kind: 'deliver' }),
  };
  const fresh = made[kind]();
  if (typeof fresh === 'string') return fresh;
  const others = steps.map((s) =>
    s.kind === 'fit' && MAKES_SHOT.has(kind) ? { ...s, after: [...s.after, fresh.id] } : s,
  );
  return { steps: [...others, fresh], id: fresh.id };
}

function comesAfter(steps: readonly RecipeStep[], kind: RecipeStep['kind']): string[] {
  const ids = (list: readonly RecipeStep[]) => list.map((s) => s.id);
  const shots = steps.filter((s) => MAKES_SHOT.has(s.kind));
  const fits = steps.filter((s) => s.kind === 'fit');
  if (MAKES_SHOT.has(kind) && shots.length) return shots[0].after;
  if (kind === 'fit') return ids(shots);
  if (kind === 'deliver') return ids(fits.length ? fits : steps.slice(-1));
  // Preparations follow one another, and a first shot follows the last of them.
  return ids(
    steps.filter((s) => !MAKES_SHOT.has(s.kind) && s.kind !== 'fit' && s.kind !== 'deliver').slice(-1),
  );
}

/** The steps without one; what came after it comes after what it came after. */
export function withoutStep(steps: readonly RecipeStep[], gone: RecipeStep): RecipeStep[] {
  return steps
    .filter((s) => s.id !== gone.id)
    .map((s) =>
      s.after.includes(gone.id)
        ? { ...s, after: [...new Set([...s.after.filter((a) => a !== gone.id), ...gone.after])] }
        : s,
    );
}

/** Steps in columns: each stands after the last of those it waits for, so that branches are side by side. */
export function levelsOf(steps: readonly RecipeStep[]): RecipeStep[][] {
  const level = new Map<string, number>();
  for (const s of steps) level.set(s.id, Math.max(0, ...s.after.map((a) => (level.get(a) ?? 0) + 1)));
  const columns: RecipeStep[][] = [];
  for (const s of steps) (columns[level.get(s.id)!] ??= []).push(s);
  return columns.filter(Boolean);
}
