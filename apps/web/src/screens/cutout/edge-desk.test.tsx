import { expect, jest, test } from '@jest/globals';
import { PLAIN_RECIPE, type CutoutRecipe, type RepairPiece } from '@scenograph/core/cutout/recipe';
import { UNTIDIED, type Tidy } from '@scenograph/core/retouch/tidy';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { HASH, MOMENT, uuid } from '../../../test/listing';
import { EdgeDesk } from './edge-desk';
import { SavedOutlines } from './saved-outlines';
import { TidyDesk } from './tidy-desk';

const FRINGE = {
  white: { mean: 1.2, worst: 7.5 },
  black: { mean: 2.4, worst: 5 },
  around: [1, 7, 2],
  worstAt: { x: 12, y: 34 },
} as Parameters<typeof EdgeDesk>[0]['fringe'];
const PIECE = {
  id: 'p1',
  shape: 'rounded',
  fill: '#ffffff',
  place: 'front',
  softness: 0,
  outline: null,
  corner: 20,
} as unknown as RepairPiece;

/** The edge desk over a recipe that is kept; gives the steps and what is there now. */
function edge(start: Partial<CutoutRecipe> = {}, fringe = FRINGE) {
  const steps: string[] = [];
  const onShowWorst = jest.fn();
  let now = { ...PLAIN_RECIPE, ...start };
  function Kept() {
    const [recipe, set] = useState(now);
    now = recipe;
    return (
      <EdgeDesk
        recipe={recipe}
        fringe={fringe}
        during={(change) => set(change)}
        finish={(label, change) => {
          steps.push(label);
          set(change);
        }}
        onShowWorst={onShowWorst}
      />
    );
  }
  render(<Kept />);
  return { user: userEvent.setup(), steps, now: () => now, onShowWorst };
}

test('the halo is told as mean and worst, the larger ground counting, and its worst place is shown', async () => {
  const { user, onShowWorst } = edge();
  expect(screen.getByText('ΔE 2.4 mean, 7.5 worst')).toBeVisible();
  await user.click(screen.getByRole('button', { name: 'Show the worst place' }));
  expect(onShowWorst).toHaveBeenCalledWith({ x: 12, y: 34 });
});

test('while it is not measured nothing is claimed', () => {
  edge({}, null);
  expect(screen.getByText('measuring')).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Show the worst place' })).toBeNull();
});

test('choices of the automatic cutout are steps with names that say what was chosen', async () => {
  const { user, steps, now } = edge();
  const part = within(screen.getByRole('region', { name: 'Automatic cutout' }));
  const holes = now().automatic.holes;
  await user.click(part.getByRole('switch', { name: 'Openings inside the product' }));
  expect(now().automatic.holes).toBe(!holes);
  await user.click(part.getByRole('radio', { name: 'Glass' }));
  await user.click(part.getByRole('radio', { name: 'Solid' }));
  await user.click(part.getByRole('radio', { name: 'Automatic' }));
  expect(now().automatic.glass).toBe('auto');
  expect(steps.slice(1)).toEqual(['Clear glass', 'Not glass', 'Glass found by itself']);
});

test('a box and points that were drawn are said and removed together', async () => {
  const automatic = {
    ...PLAIN_RECIPE.automatic,
    box: { x: 1, y: 2, width: 3, height: 4 },
    at: [[1, 1] as CutoutRecipe['automatic']['at'][number]],
  };
  const { user, now } = edge({ automatic });
  const part = within(screen.getByRole('region', { name: 'Automatic cutout' }));
  expect(part.getByText('a box and 1 point drawn')).toBeVisible();
  await user.click(part.getByRole('button', { name: 'Remove' }));
  expect(now().automatic).toMatchObject({ box: null, at: [] });
  expect(part.queryByText(/drawn/)).toBeNull();
});

test('a repair piece is changed and removed; an outline of 0 is none', async () => {
  const { user, steps, now } = edge({ repairs: [PIECE] });
  const part = within(screen.getByRole('region', { name: 'Repair pieces' }));
  await user.click(part.getByRole('radio', { name: 'Behind' }));
  const width = part.getByRole('textbox', { name: 'Outline' });
  await user.clear(width);
  await user.type(width, '3{Enter}');
  expect(now().repairs[0]).toMatchObject({ place: 'behind', outline: { width: 3 } });
  await user.clear(part.getByRole('textbox', { name: 'Outline' }));
  await user.type(part.getByRole('textbox', { name: 'Outline' }), '0{Enter}');
  expect(now().repairs[0].outline).toBeNull();
  expect(new Set(steps)).toEqual(new Set(['Change a repair piece']));
  await user.click(part.getByRole('button', { name: 'Remove' }));
  expect(now().repairs).toEqual([]);
  expect(part.getByText('none')).toBeVisible();
});

function tidy(start: Partial<Tidy> = {}, others = 2) {
  const finish = jest.fn<(label: string, value: Partial<Tidy>) => void>();
  const onTool = jest.fn();
  const onApplyToAll = jest.fn();
  const { rerender } = render(<Shown tool="keep" />);
  function Shown({ tool }: { tool: Parameters<typeof TidyDesk>[0]['tool'] }) {
    return (
      <TidyDesk
        tidy={{ ...UNTIDIED, ...start }}
        histogram={{ red: [0, 1], green: [1, 0], blue: [0, 0], clippedDark: 0.021, clippedLight: 0 }}
        tool={tool}
        onTool={onTool}
        during={() => undefined}
        finish={finish}
        onApplyToAll={onApplyToAll}
        others={others}
      />
    );
  }
  return {
    user: userEvent.setup(),
    finish,
    onTool,
    onApplyToAll,
    withTool: (t: 'crop') => rerender(<Shown tool={t} />),
  };
}

test('values of tone are typed as they are shown, and stored as they are kept', async () => {
  const { user, finish } = tidy();
  for (const [name, text] of [
    ['Exposure', '1,2'],
    ['Contrast', '-30'],
    ['Saturation', '250'],
  ]) {
    // prettier-ignore
    await user.clear(screen.getByRole('textbox', { name }));
    await user.type(screen.getByRole('textbox', { name }), `${text}{Enter}`);
  }
  expect(finish.mock.calls).toEqual([
    ['Exposure', { exposure: 1.2 }],
    ['Contrast', { contrast: -0.3 }],
    ['Saturation', { saturation: 1 }],
  ]);
});

test('what is clipped is told', () => {
  tidy();
  expect(screen.getByText('clipped: 2.1 % dark, 0.0 % light')).toBeVisible();
});

test('a tool is taken up and put down by the same button', async () => {
  const { user, onTool, withTool } = tidy();
  await user.click(screen.getByRole('button', { name: 'Crop' }));
  expect(onTool).toHaveBeenLastCalledWith('crop');
  withTool('crop');
  await user.click(screen.getByRole('button', { name: 'Draw the part to keep' }));
  expect(onTool).toHaveBeenLastCalledWith('keep');
});

test('crop and neutral are taken back one by one, or all of it at once', async () => {
  const { user, finish } = tidy({ crop: { x: 0, y: 0, width: 800, height: 600 }, neutral: '#808080' });
  expect(screen.getByText('800 x 600 px')).toBeVisible();
  await user.click(screen.getByRole('button', { name: 'All of it' }));
  await user.click(screen.getByRole('button', { name: 'Undo it' }));
  await user.click(screen.getByRole('button', { name: 'As it was taken' }));
  expect(finish.mock.calls.map(([label]) => label)).toEqual([
    'Leave the crop',
    'Leave the white balance',
    'Untidy',
  ]);
});

test('the same for a whole shoot names how many; alone there is nobody to give it to', () => {
  tidy({}, 0);
  expect(screen.getByRole('button', { name: 'Same for the other photo' })).toBeDisabled();
});

test('an outline that could not be kept leaves its name in the field', async () => {
  const user = userEvent.setup();
  const answers = [false, true];
  const onSave = jest.fn<(title: string) => Promise<boolean>>(() => Promise.resolve(answers.shift()!));
  const outline = { id: uuid(5), photoId: uuid(6), title: 'Before', matte: HASH, createdAt: MOMENT };
  const onUse = jest.fn();
  render(
    <SavedOutlines
      outlines={[outline]}
      onSave={onSave}
      onUse={onUse}
      onRemove={() => undefined}
      onImport={() => undefined}
      svgUrl={() => '/x.svg'}
    />,
  );
  const field = screen.getByRole('textbox', { name: 'Save the present outline as' });
  await user.type(field, 'Handle{Enter}');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(field).toHaveValue('Handle');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(field).toHaveValue(''));
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(onSave.mock.calls.map(([title]) => title)).toEqual(['Handle', 'Handle', 'Outline 2']);
  await user.click(screen.getByRole('button', { name: 'Use' }));
  await user.click(await screen.findByRole('menuitem', { name: 'Subtract it' }));
  expect(onUse).toHaveBeenCalledWith(outline, 'take');
});
