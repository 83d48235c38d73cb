import { beforeEach, expect, jest, test } from '@jest/globals';
import { importanceOrder } from '@scenograph/core/shot/fit/importance';
import type { Shot } from '@scenograph/core/shot/document';
import { data } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { answering } from '../../../test/answering';
import { MOMENT, SHEET } from '../../../test/listing';
import { boxOf, onStage, stage, STAGED, stepsBack } from '../../../test/stage';
import { FitDesk } from './fit-desk';
import { useStage } from './store';

const FED = { key: 'harbour/front', slot: SHEET.slots[0], marketplace: 'Harbour Market' };
const FRAME = { width: FED.slot.width, height: FED.slot.height };
const MOVED = { x: 40, y: 50, width: 200, height: 100, rotation: 0 };
const onPatch = jest.fn();

beforeEach(() => {
  onPatch.mockClear();
  answering({ 'PUT /api/shots/:id': { revision: 2, updatedAt: MOMENT } });
});

/** The desk beside the stage, in the base or in the slot. */
function Shown({ inSlot, dropped }: { inSlot: boolean; dropped?: string[] }) {
  const shot = useStage((s) => s.document)!;
  const selected = useStage((s) => s.selected);
  const resolved = inSlot ? resolveForSlot(shot, FED.key, FED.slot, data) : resolveBase(shot, data);
  return (
    <FitDesk
      shot={shot}
      resolved={dropped ? { ...resolved, dropped } : resolved}
      active={inSlot ? FED : null}
      element={resolved.elements.find((e) => e.id === selected) ?? null}
      written={shot.elements.find((e) => e.id === selected) ?? null}
      onPatch={onPatch}
    />
  );
}
const withFit = (elements: Shot['fits'][string]['elements']): Shot => ({
  ...STAGED,
  fits: { [FED.key]: { frame: FRAME, elements } },
});
const fits = () => useStage.getState().document!.fits;

test('in the base it says where fits are changed', () => {
  stage(null);
  render(<Shown inSlot={false} />);
  expect(screen.getByText('Choose a size below the stage to see and change its fit.')).toBeVisible();
});

test('a slot without differences follows the base by rule', () => {
  stage(null);
  render(<Shown inSlot />);
  expect(screen.getByText(/This slot follows the base by rule/)).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Reset all of this slot' })).toBeNull();
});

test('one difference is reset without the others', async () => {
  stage(null, [], withFit({ left: { box: MOVED }, right: { hidden: true } }));
  render(<Shown inSlot />);
  await userEvent.click(screen.getByRole('button', { name: `Reset ${onStage('left').name}` }));
  expect(Object.keys(fits()[FED.key].elements)).toEqual(['right']);
  expect(stepsBack()).toEqual(['Reset a difference']);
});

test('all of a slot are reset in one step, which can be taken back', async () => {
  stage(null, [], withFit({ left: { box: MOVED }, right: { hidden: true } }));
  render(<Shown inSlot />);
  await userEvent.click(screen.getByRole('button', { name: 'Reset all of this slot' }));
  expect(fits()[FED.key]).toBeUndefined();
  useStage.getState().undo();
  expect(Object.keys(fits()[FED.key].elements)).toEqual(['left', 'right']);
});

test('a difference becomes the base: the slot has it no more, the base looks like the slot did', async () => {
  stage(null, [], withFit({ left: { box: MOVED } }));
  render(<Shown inSlot />);
  await userEvent.click(screen.getByRole('button', { name: `Make ${onStage('left').name} the base` }));
  expect(fits()[FED.key]?.elements.left?.box).toBeUndefined();
  const frame = useStage.getState().document!.frame;
  // The same place in the frame, whatever its size.
  expect(boxOf('left').x / frame.width).toBeCloseTo(MOVED.x / FRAME.width, 1);
  expect(boxOf('left').width).toBeGreaterThan(0);
});

test('of several values of one element each can follow the base by itself', async () => {
  stage(null, [], withFit({ text: { box: MOVED, hidden: true } }));
  render(<Shown inSlot />);
  const name = onStage('text').name;
  const values = within(screen.getByRole('list', { name: `What this slot changes of ${name}` }));
  expect(values.getAllByRole('listitem')).toHaveLength(2);
  await userEvent.click(values.getByRole('button', { name: `${name}, shown or hidden: follow the base` }));
  expect(fits()[FED.key].elements.text).toEqual({ box: MOVED });
});

test('what was left out for want of room is shown here with one click, and chosen', async () => {
  stage(null);
  render(<Shown inSlot dropped={['text']} />);
  await userEvent.click(screen.getByRole('button', { name: `Show ${onStage('text').name} here` }));
  expect(fits()[FED.key].elements.text).toEqual({ hidden: false });
  expect(useStage.getState().selected).toBe('text');
});

test('an element that is gone does not break the list of what was left out', () => {
  stage(null);
  render(<Shown inSlot dropped={['no-such-element']} />);
  expect(screen.getByText('removed element')).toBeVisible();
});

test('importance is moved by one place, and not beyond the ends', async () => {
  stage(null);
  render(<Shown inSlot={false} />);
  const list = screen.getByRole('list', { name: 'Importance of overlays' });
  const rows = () => within(list).getAllByRole('listitem');
  const names = () => rows().map((r) => r.textContent?.replace(/^\d+/, ''));
  const before = names();
  expect(within(rows()[0]).getByRole('button', { name: /More important/ })).toBeDisabled();
  expect(within(rows().at(-1)!).getByRole('button', { name: /Less important/ })).toBeDisabled();
  await userEvent.click(within(rows()[0]).getByRole('button', { name: /Less important/ }));
  expect(names()).toEqual([before[1], before[0], ...before.slice(2)]);
  const shot = useStage.getState().document!;
  expect(shot.importance).toHaveLength(before.length);
  const overlays = shot.elements.filter((e) => shot.importance.includes(e.id));
  expect(importanceOrder(overlays, shot.importance)).toEqual(shot.importance);
  expect(stepsBack()).toEqual(['Change importance']);
});

test('only an overlay in the base can be told to stretch with the frame', async () => {
  stage('text');
  const { rerender } = render(<Shown inSlot={false} />);
  await userEvent.click(screen.getByRole('switch', { name: /stretches with the frame/ }));
  expect(onPatch).toHaveBeenCalledWith('Stretch with the frame', { spread: true });
  rerender(<Shown inSlot />);
  expect(screen.queryByRole('switch', { name: /stretches with the frame/ })).toBeNull();
  stage('product');
  rerender(<Shown inSlot={false} />);
  expect(screen.queryByRole('switch', { name: /stretches with the frame/ })).toBeNull();
});
