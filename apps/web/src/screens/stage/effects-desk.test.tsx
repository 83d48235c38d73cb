import { beforeEach, expect, jest, test } from '@jest/globals';
import { EMPTY_KIT } from '@scenograph/core/brand/kit';
import type { ShotElement } from '@scenograph/core/elements/index';
import { NO_EFFECTS, type Effects } from '@scenograph/core/raster/effects';
import { ONE_OF_EACH } from '@scenograph/core/shot/one-of-each.fixture';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { show } from '../../../test/show';
import { useNotices } from '../../ui/notices';
import { EffectsDesk } from './effects-desk';

const TEXT = ONE_OF_EACH.find((e) => e.kind === 'text')!;
const SOFT: Effects = { ...NO_EFFECTS, glow: { size: 30, colour: '#ffeecc', opacity: 0.5 } };
const HARD: Effects = {
  ...NO_EFFECTS,
  dropShadow: { x: 4, y: 4, blur: 0, colour: '#000000', opacity: 1 },
};

beforeEach(() => useNotices.setState({ list: [] }));

/** The desk of an element that keeps what is done to it. */
function opened(effects: Effects = NO_EFFECTS, { refuses = '', brand = {} } = {}) {
  const asked = answering({
    'GET /api/effects': [{ id: 'k1', title: 'Hard', effects: HARD }] as never,
    'POST /api/effects': () => (refuses ? refusal(refuses, 422) : ({ id: 'k2' } as never)),
    'GET /api/brand': {
      kit: { ...EMPTY_KIT, effects: [{ id: 'soft', title: 'Soft', effects: SOFT }] },
      revision: 1,
      history: { past: [], future: [] },
    },
  });
  const steps: { label: string; value: Partial<ShotElement> }[] = [];
  const during = jest.fn();
  const element = { ...TEXT, effects, brand } as ShotElement;
  const shown = show(
    () => (
      <EffectsDesk
        element={element}
        during={during}
        commit={(label, value) => steps.push({ label, value })}
      />
    ),
    '/x',
  );
  return { ...shown, asked, steps, during };
}
const last = (steps: { label: string; value: Partial<ShotElement> }[]) => steps[steps.length - 1];

test.each([
  ['Outline', 'outline'],
  ['Glow', 'glow'],
  ['Drop shadow', 'dropShadow'],
  ['Inner shadow', 'innerShadow'],
] as const)('%s is switched on with values to begin with, and off again', async (title, key) => {
  const { user, steps } = opened();
  await user.click(screen.getByRole('switch', { name: title }));
  expect(last(steps).label).toBe(title);
  const on = last(steps).value.effects!;
  expect(on[key]).not.toBeNull();
  // The others stay as they were.
  expect({ ...on, [key]: null }).toEqual(NO_EFFECTS);
});

test('switched off, it is named as what it was', async () => {
  const { user, steps } = opened(HARD);
  await user.click(screen.getByRole('switch', { name: 'Drop shadow' }));
  expect(last(steps)).toEqual({ label: 'No drop shadow', value: { effects: NO_EFFECTS, brand: {} } });
});

test('a value that is typed changes that value alone', async () => {
  const { user, steps } = opened(HARD);
  const shadow = within(screen.getByRole('group', { name: 'Drop shadow' }));
  const across = shadow.getByRole('textbox', { name: 'Across' });
  await user.clear(across);
  await user.type(across, '20{Enter}');
  expect(last(steps).value.effects).toEqual({ ...HARD, dropShadow: { ...HARD.dropShadow!, x: 20 } });
});

test('what a slider shows while it moves is no step', async () => {
  const { during, steps } = opened(HARD);
  const shadow = within(screen.getByRole('group', { name: 'Drop shadow' }));
  const slider = shadow.getAllByRole('slider')[0];
  slider.focus();
  fireEvent.keyDown(slider, { key: 'ArrowRight' });
  await waitFor(() => expect(during).toHaveBeenCalled());
  expect(during.mock.calls[0][0]).toMatchObject({ effects: { dropShadow: { x: 5 } } });
  fireEvent.keyUp(slider, { key: 'ArrowRight' });
  await waitFor(() => expect(steps.length).toBeLessThanOrEqual(1));
});

test('effects go from one element to another', async () => {
  const first = opened(HARD);
  await first.user.click(screen.getByRole('button', { name: 'Copy effects' }));
  await first.user.click(screen.getByRole('button', { name: 'Paste effects' }));
  expect(last(first.steps)).toEqual({ label: 'Paste effects', value: { effects: HARD, brand: {} } });
  await first.user.click(screen.getByRole('button', { name: 'None' }));
  expect(last(first.steps).value.effects).toEqual(NO_EFFECTS);
});

test('those of the brand kit are followed; what is done by hand ends that', async () => {
  const { user, steps } = opened(SOFT, { brand: { effects: 'soft', font: 'display' } });
  const ofBrand = await screen.findByRole('button', { name: 'Soft' });
  expect(ofBrand).toHaveAttribute('aria-pressed', 'true');
  await user.click(screen.getByRole('switch', { name: 'Outline' }));
  // Other values that follow the kit go on doing so.
  expect(last(steps).value.brand).toEqual({ font: 'display' });
  await user.click(ofBrand);
  expect(last(steps)).toEqual({
    label: 'Effects "Soft"',
    value: { effects: SOFT, brand: { font: 'display', effects: 'soft' } },
  });
});

test('kept effects are used by name, and new ones kept', async () => {
  const { user, steps, asked } = opened(SOFT);
  await user.click(await screen.findByRole('combobox', { name: 'Use kept effects' }));
  await user.click(await screen.findByRole('option', { name: 'Hard' }));
  expect(last(steps)).toEqual({ label: 'Effects "Hard"', value: { effects: HARD, brand: {} } });
  await user.type(screen.getByLabelText('Keep these effects as'), 'Candle{Enter}');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toEqual({ title: 'Candle', effects: SOFT });
});

test('without a name they get a number; a refusal is told', async () => {
  const { user, asked } = opened(SOFT, { refuses: 'There are 200 kept effects already.' });
  await screen.findByRole('combobox', { name: 'Use kept effects' });
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  await waitFor(() => expect(useNotices.getState().list).toHaveLength(1));
  expect(asked[0].sent.body).toMatchObject({ title: 'Effects 2' });
  expect(useNotices.getState().list[0].text).toBe('There are 200 kept effects already.');
});
