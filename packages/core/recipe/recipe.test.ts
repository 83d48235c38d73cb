import { UNTIDIED } from '../retouch/tidy';
import { readSteps, stepKeys, stepsBefore, type RecipeStep } from './recipe';

const scene = '00000000-0000-4000-8000-000000000001';
const steps = (): RecipeStep[] => [
  { id: 'deliver', kind: 'deliver', title: 'Deliver', after: ['fit'] },
  { id: 'fit', kind: 'fit', title: 'Fit', after: ['white', 'stage'], sheets: ['kestrel-market'] },
  { id: 'white', kind: 'white', title: 'White', after: ['cut'] },
  { id: 'stage', kind: 'stage', title: 'Sill', after: ['cut'], scene },
  { id: 'cut', kind: 'cut-out', title: 'Cut', after: ['tidy'] },
  { id: 'tidy', kind: 'tidy', title: 'Tidy', after: [], tidy: UNTIDIED },
];

test('steps are put in order; unknown kinds, missing and circular waits are told', () => {
  const ordered = readSteps(steps()).map((s) => s.id);
  expect(ordered).toEqual(['tidy', 'cut', 'white', 'stage', 'fit', 'deliver']);
  expect(
    stepsBefore(steps(), 'fit')
      .map((s) => s.id)
      .sort(),
  ).toEqual(['cut', 'stage', 'tidy', 'white']);
  expect(() => readSteps([{ id: 'x', kind: 'dance', title: 'X', after: [] }])).toThrow(/unknown kind/);
  expect(() => readSteps([{ ...steps()[2], after: ['gone'] }])).toThrow(/waits for a step that is not there/);
  const [a, b] = [steps()[2], steps()[3]];
  expect(() =>
    readSteps([
      { ...a, after: ['stage'] },
      { ...b, after: ['white'] },
    ]),
  ).toThrow(/"White" and "Sill" wait for each other/);
});

test('only what depends on a changed input runs again', () => {
  const digest = (text: string) => text;
  const ordered = readSteps(steps());
  const keys = (inputs: Record<string, unknown>, list = ordered) =>
    stepKeys(list, (s) => inputs[s.id] ?? null, digest);
  const before = keys({});
  const changed = (after: Map<string, string>) =>
    ordered.map((s) => s.id).filter((id) => before.get(id) !== after.get(id));
  expect(changed(keys({ stage: 'another scene' }))).toEqual(['stage', 'fit', 'deliver']);
  expect(changed(keys({ cut: 'another photo' }))).toEqual(['cut', 'white', 'stage', 'fit', 'deliver']);
  expect(changed(keys({ deliver: 'another price' }))).toEqual(['deliver']);
  const renamed = ordered.map((s) => (s.id === 'cut' ? { ...s, title: 'Cut it out' } : s));
  expect(changed(keys({}, renamed))).toEqual([]);
});
