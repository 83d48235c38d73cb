import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MAKES_SHOT, readSteps, STEP_TITLES, stepKeys, stepsBefore, type RecipeStep } from './recipe';

/** Steps of which each waits for some of those made before it, in any order. */
const graphs = fc
  .array(fc.array(fc.nat(20), { maxLength: 3 }), { minLength: 1, maxLength: 12 })
  .chain((waits) => {
    const steps = waits.map((before, i): RecipeStep => ({
      id: `s${i}`,
      kind: 'white',
      title: `Step ${i}`,
      after: i ? [...new Set(before.map((b) => `s${b % i}`))] : [],
    }));
    return fc.shuffledSubarray(steps, { minLength: steps.length });
  });
const at = (steps: readonly RecipeStep[]) => new Map(steps.map((s, i) => [s.id, i]));

test('every step comes after all that it waits for, and none is lost', () => {
  fc.assert(
    fc.property(graphs, (steps) => {
      const ordered = readSteps(steps);
      expect([...ordered.map((s) => s.id)].sort()).toEqual(steps.map((s) => s.id).sort());
      const place = at(ordered);
      for (const step of ordered)
        for (const before of step.after) expect(place.get(before)!).toBeLessThan(place.get(step.id)!);
    }),
    { numRuns: 40 },
  );
});

test('steps in order stay in order', () => {
  fc.assert(
    fc.property(graphs, (steps) => {
      const once = readSteps(steps);
      expect(readSteps(once)).toEqual(once);
    }),
    { numRuns: 40 },
  );
});

test('what stands before a step is all that it waits for, near and far, and never itself', () => {
  fc.assert(
    fc.property(graphs, (steps) => {
      for (const step of steps) {
        const before = stepsBefore(steps, step.id).map((s) => s.id);
        expect(before).not.toContain(step.id);
        for (const id of step.after) expect(before).toContain(id);
        for (const id of before)
          for (const further of steps.find((s) => s.id === id)!.after) expect(before).toContain(further);
      }
    }),
    { numRuns: 40 },
  );
});

test('a changed step runs again with all that wait for it, and nothing else does', () => {
  fc.assert(
    fc.property(graphs, fc.nat(11), (steps, n) => {
      const ordered = readSteps(steps);
      const changed = ordered[n % ordered.length].id;
      const keys = (of: (step: RecipeStep) => unknown) => stepKeys(ordered, of, (text) => text);
      const before = keys(() => null);
      const after = keys((step) => (step.id === changed ? 'another' : null));
      for (const { id } of ordered) {
        const follows = id === changed || stepsBefore(ordered, id).some((s) => s.id === changed);
        expect([id, before.get(id) !== after.get(id)]).toEqual([id, follows]);
      }
    }),
    { numRuns: 40 },
  );
});

test('a circle is told with the names of all that wait', () => {
  const circle = ['a', 'b', 'c'].map((id, i, all): RecipeStep => ({
    id,
    kind: 'white',
    title: id.toUpperCase(),
    after: [all[(i + 1) % 3]],
  }));
  expect(() => readSteps(circle)).toThrow('"A" and "B" and "C" wait for each other. Break the circle.');
});

test('every kind of step has a title, and those that make a shot are among them', () => {
  for (const kind of MAKES_SHOT) expect(STEP_TITLES[kind]).toMatch(/\w/);
  expect(new Set(Object.values(STEP_TITLES)).size).toBe(Object.keys(STEP_TITLES).length);
});

test.each([
  ['none', []],
  ['two of one id', [1, 2].map(() => ({ id: 'a', kind: 'white', title: 'A', after: [] }))],
  ['without a title', [{ id: 'a', kind: 'white', title: ' ', after: [] }]],
  ['with a foreign key', [{ id: 'a', kind: 'white', title: 'A', after: [], colour: 'red' }]],
  ['a scene that is no id', [{ id: 'a', kind: 'stage', title: 'A', after: [], scene: 'sill' }]],
  ['no list at all', 'white'],
  ['nothing', null],
])('steps are refused with a sentence: %s', (_, steps) => {
  expect(() => readSteps(steps)).toThrow(/These are not the steps of a recipe: .+\.$/);
});
