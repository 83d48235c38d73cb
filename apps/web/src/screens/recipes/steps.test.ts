import { expect, test } from '@jest/globals';
import { readSteps, type RecipeStep } from '@scenograph/core/recipe/recipe';
import fc from 'fast-check';
import { levelsOf, withoutStep, withStep } from './steps';

const CHOICES = {
  scene: { id: '3f0b8c1e-52a1-4d6e-9a51-0d6f2a7c1b11', title: 'Sill' },
  template: { id: 'sale', title: 'Sale' },
  sheet: { id: 'kestrel' },
};
const KINDS = ['tidy', 'cut-out', 'arrange', 'white', 'stage', 'template', 'fit', 'deliver'] as const;
const grown = (kinds: readonly RecipeStep['kind'][]) =>
  kinds.reduce<RecipeStep[]>((steps, kind) => {
    const next = withStep(steps, kind, CHOICES);
    return typeof next === 'string' ? steps : next.steps;
  }, []);

test('a recipe grown step by step branches into its shots, which are fitted together', () => {
  const steps = grown(['cut-out', 'white', 'fit', 'stage', 'deliver']);
  expect(steps.map((s) => [s.id, s.after])).toEqual([
    ['cut-out-1', []],
    ['white-1', ['cut-out-1']],
    ['fit-1', ['white-1', 'stage-1']],
    ['stage-1', ['cut-out-1']],
    ['deliver-1', ['fit-1']],
  ]);
});

test('a step that needs a scene, a template or a sheet is not added where there is none', () => {
  for (const kind of ['stage', 'template', 'fit'] as const)
    expect(withStep([], kind, {})).toMatch(/^There is no /);
});

test('whatever is added and removed, ids stay apart, nothing waits for what is gone, and no step is lost from the columns', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...KINDS), { minLength: 1, maxLength: 12 }),
      fc.array(fc.nat(30), { maxLength: 6 }),
      (kinds, removals) => {
        let steps = grown(kinds);
        for (const r of removals) if (steps.length > 1) steps = withoutStep(steps, steps[r % steps.length]);
        const ids = steps.map((s) => s.id);
        expect(new Set(ids).size).toBe(ids.length);
        for (const s of steps) for (const a of s.after) expect(ids).toContain(a);
        expect(
          levelsOf(steps)
            .flat()
            .map((s) => s.id)
            .sort(),
        ).toEqual([...ids].sort());
      },
    ),
  );
});

test('the usual recipe is one the server reads', () => {
  expect(() =>
    readSteps(grown(['tidy', 'cut-out', 'arrange', 'white', 'stage', 'template', 'fit', 'deliver'])),
  ).not.toThrow();
});
