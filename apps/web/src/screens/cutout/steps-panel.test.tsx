import { beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { PLAIN_RECIPE, type CutoutRecipe, type Step } from '@scenograph/core/cutout/recipe';
import { StepsPanel } from './steps-panel';

const stroke = (id: string, name: string): Step => ({
  id,
  name,
  on: true,
  kind: 'stroke',
  side: 'keep',
  points: [[10, 10]],
  radius: 4,
});
const colour: Step = {
  id: 'c',
  name: 'By colour',
  on: true,
  kind: 'colour',
  mode: 'take',
  seeds: [
    [10, 20],
    [30, 40],
  ],
  tolerance: 6,
  reach: 'touching',
};

beforeEach(() => {
  Object.assign(window, { innerWidth: 1280 });
});

/** The panel with a recipe that is kept; gives the newest recipe and the labels of the edits. */
function panel(steps: Step[], confidence: number | null = 0.95, accepted = false) {
  const seen: { recipe: CutoutRecipe; labels: string[] } = { recipe: { ...PLAIN_RECIPE, steps }, labels: [] };
  const save = jest.fn<(title: string) => Promise<boolean>>().mockResolvedValue(true);
  function Kept() {
    const [recipe, setRecipe] = useState(seen.recipe);
    const [chosen, setChosen] = useState<string | null>(null);
    seen.recipe = recipe;
    return (
      <StepsPanel
        recipe={recipe}
        confidence={confidence}
        accepted={accepted}
        chosen={chosen}
        outlines={[]}
        onChoose={setChosen}
        onEdit={(label, change) => {
          seen.labels.push(label);
          setRecipe(change);
        }}
        onSaveOutline={save}
        onUseOutline={() => undefined}
        onRemoveOutline={() => undefined}
        onImportOutline={() => undefined}
        svgUrl={() => ''}
      />
    );
  }
  render(<Kept />);
  return { seen, save, ids: () => seen.recipe.steps.map((s) => s.id) };
}
const press = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }));

test.each([
  [0.95, 'looks right'],
  [0.6, 'look at it'],
  [0.1, 'needs a hand'],
])('a confidence of %p is said as "%s"', (confidence, words) => {
  panel([], confidence);
  expect(screen.getByText(words)).toBeVisible();
});

test('what a person has accepted is not called unsure', () => {
  panel([], 0.1, true);
  expect(screen.getByText('accepted')).toBeVisible();
  expect(screen.queryByText('needs a hand')).toBeNull();
});

test('what a hand has corrected is not called unsure', async () => {
  panel([stroke('a', 'Keep stroke')], 0.1);
  expect(screen.getByText('corrected')).toBeVisible();
  expect(screen.queryByText('needs a hand')).toBeNull();
});

test('the automatic cutout can be switched off and on again', async () => {
  const { seen } = panel([]);
  await press('Automatic');
  expect(seen.recipe.automatic.on).toBe(false);
  expect(screen.getByText('off')).toBeVisible();
  await press('Automatic');
  expect(seen.recipe.automatic.on).toBe(true);
});

test('a step is chosen, moved, switched off and deleted, each as one named edit', async () => {
  const { seen, ids } = panel([stroke('a', 'First'), stroke('b', 'Second')]);
  await press('First');
  expect(screen.getByRole('button', { name: 'Earlier' })).toBeDisabled();
  await press('Later');
  expect(ids()).toEqual(['b', 'a']);
  await press('Switch off');
  expect(seen.recipe.steps[1].on).toBe(false);
  await press('Delete this step');
  expect(ids()).toEqual(['b']);
  expect(seen.labels).toEqual(['Change the order of steps', 'Switch a step off', 'Delete First']);
});

test('a typed width is the whole brush, and changes the one step alone', async () => {
  const { seen } = panel([stroke('a', 'First'), stroke('b', 'Second')]);
  await press('Second');
  const width = screen.getByLabelText('Width');
  expect(width).toHaveValue('8');
  await userEvent.clear(width);
  await userEvent.type(width, '30{Enter}');
  expect(seen.recipe.steps.map((s) => 'radius' in s && s.radius)).toEqual([4, 15]);
});

test('single picked colours are removed; the last one stays', async () => {
  const { seen } = panel([colour]);
  await press('By colour');
  await press('Remove the pick at 10, 20');
  expect(seen.recipe.steps[0]).toMatchObject({ seeds: [[30, 40]] });
  expect(screen.getByRole('button', { name: 'Remove the pick at 30, 40' })).toBeDisabled();
});

test('how far a colour reaches and what it does are chosen', async () => {
  const { seen } = panel([colour]);
  await press('By colour');
  await userEvent.click(
    within(screen.getByRole('radiogroup', { name: 'How far it reaches' })).getByText('Anywhere'),
  );
  await userEvent.click(within(screen.getByRole('radiogroup', { name: 'What it does' })).getByText('Add'));
  expect(seen.recipe.steps[0]).toMatchObject({ reach: 'anywhere', mode: 'add' });
});

test('everything is inverted, and all steps go at once', async () => {
  const { seen } = panel([stroke('a', 'First')]);
  await press('Invert');
  expect(seen.recipe.steps.map((s) => s.kind)).toEqual(['stroke', 'invert']);
  await press('Delete all steps');
  expect(seen.recipe.steps).toEqual([]);
});

test('an outline is saved under its title, or under a number', async () => {
  const { save } = panel([]);
  await press('Save');
  expect(save).toHaveBeenLastCalledWith('Outline 1');
  await userEvent.type(screen.getByLabelText('Save the present outline as'), 'Before the handle');
  await press('Save');
  expect(save).toHaveBeenLastCalledWith('Before the handle');
});

test('in a narrow window the steps are folded away until they are asked for', async () => {
  Object.assign(window, { innerWidth: 1024 });
  panel([stroke('a', 'First')]);
  expect(screen.queryByText('Saved outlines')).toBeNull();
  await press(/How this edge was made ?, 1/);
  expect(screen.getByText(/Saved outlines/)).toBeVisible();
});
