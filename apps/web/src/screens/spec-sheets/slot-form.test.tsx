import { expect, test } from '@jest/globals';
import { readSlot, slotSchema, type Slot } from '@scenograph/core/spec/slot';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { SlotForm } from './slot-form';

const FRONT = readSlot({
  id: 'front',
  title: 'Front',
  width: 2000,
  height: 1600,
  formats: ['jpeg'],
  maxBytes: 2_000_000,
  background: { kind: 'any' },
});

/** The form of a slot that takes what is changed; `now` is the slot as it stands. */
function opened(over: Partial<Slot> = {}) {
  const kept = { now: { ...FRONT, ...over } };
  function Kept() {
    const [slot, setSlot] = useState(kept.now);
    return (
      <SlotForm
        slot={slot}
        onChange={(patch) => {
          kept.now = { ...slot, ...patch };
          setSlot(kept.now);
        }}
      />
    );
  }
  render(<Kept />);
  return kept;
}
const group = (title: string) => within(screen.getByRole('region', { name: title }));
async function typed(field: HTMLElement, text: string) {
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

test('a slot is named, and told how many pictures it takes and whether it needs one', async () => {
  const kept = opened();
  const slot = group('The slot');
  await typed(slot.getByLabelText('Title'), 'Main picture');
  await typed(slot.getByLabelText('Id, by which shots fill it'), 'main');
  await typed(slot.getByLabelText('Pictures'), '4');
  await userEvent.click(slot.getByRole('switch', { name: 'Required' }));
  expect(kept.now).toMatchObject({ title: 'Main picture', id: 'main', count: 4, required: false });
});

test('a note that is emptied is none', async () => {
  const kept = opened({ note: 'No props.' });
  const note = group('The slot').getByLabelText('Note');
  await userEvent.clear(note);
  await userEvent.tab();
  expect(kept.now.note).toBeUndefined();
  expect(slotSchema.validate(kept.now).error).toBeUndefined();
});

test('sizes within limits begin with the size itself as the least; exactly this size has no limits', async () => {
  const kept = opened();
  await userEvent.click(screen.getByRole('radio', { name: 'Within limits' }));
  expect(kept.now.limits).toEqual({
    minWidth: 2000,
    minHeight: 1600,
    maxWidth: null,
    maxHeight: null,
    minAspect: null,
    maxAspect: null,
  });
  expect(slotSchema.validate(kept.now).error).toBeUndefined();
  await userEvent.click(screen.getByRole('radio', { name: 'Exactly this size' }));
  expect(kept.now.limits).toBeNull();
});

test('a number out of its bounds is held within them', async () => {
  const kept = opened();
  await typed(group('Pixels').getByLabelText('Width'), '99999');
  expect(kept.now.width).toBe(12000);
  await typed(group('Pixels').getByLabelText('Width'), '3');
  expect(kept.now.width).toBe(16);
});

test('tolerance is of white grounds alone; the share of clear pixels of both', async () => {
  const kept = opened();
  const ground = () => group('Background and product');
  expect(ground().queryByLabelText('Tolerance')).toBeNull();
  await userEvent.click(ground().getByRole('radio', { name: 'Pure white' }));
  await typed(ground().getByLabelText('Tolerance'), '6');
  await typed(ground().getByLabelText('Share'), '99');
  expect(kept.now.background).toEqual({ kind: 'white', tolerance: 6, minShare: 0.99 });
  await userEvent.click(ground().getByRole('radio', { name: 'Transparent' }));
  expect(ground().queryByLabelText('Tolerance')).toBeNull();
  expect(ground().getByLabelText('Share')).toHaveValue('99');
});

test.each([
  ['Minimum coverage', 'min', 0.3],
  ['Maximum coverage', 'max', 0.95],
  ['Wanted coverage', 'wanted', 0.8],
] as const)('%s is limited only where it is said, and then by a percentage', async (title, key, first) => {
  const kept = opened();
  const ground = group('Background and product');
  expect(kept.now.coverage[key]).toBeNull();
  await userEvent.click(ground.getByRole('checkbox', { name: title }));
  expect(kept.now.coverage[key]).toBe(first);
  await typed(ground.getByRole('textbox', { name: title }), '62.5');
  expect(kept.now.coverage[key]).toBeCloseTo(0.625, 9);
  await userEvent.click(ground.getByRole('checkbox', { name: title }));
  expect(kept.now.coverage).toEqual({ min: null, max: null, wanted: null });
});

test('overlays and watermarks are taken or not; text up to a share', async () => {
  const kept = opened();
  const overlays = group('Overlays');
  await userEvent.click(overlays.getByRole('checkbox', { name: 'Maximum text' }));
  expect(kept.now.maxTextShare).toBe(0.2);
  await typed(overlays.getByRole('textbox', { name: 'Maximum text' }), '12');
  expect(kept.now.maxTextShare).toBeCloseTo(0.12, 9);
  await userEvent.click(overlays.getByRole('radio', { name: 'None taken' }));
  expect(kept.now.overlays).toBe('forbidden');
  const before = kept.now.watermark;
  await userEvent.click(overlays.getByRole('switch', { name: 'Watermarks taken' }));
  expect(kept.now.watermark).not.toBe(before);
});

test('zones of the marketplace are added, placed, named and removed', async () => {
  const kept = opened();
  const zones = () => group('Safe zones');
  await userEvent.click(zones().getByRole('button', { name: 'Add a zone' }));
  await userEvent.click(zones().getByRole('button', { name: 'Add a zone' }));
  expect(kept.now.safeZones).toHaveLength(2);
  await typed(zones().getAllByLabelText('What lies there')[1], 'price');
  await typed(zones().getAllByLabelText('Left')[1], '75');
  expect(kept.now.safeZones[1]).toMatchObject({ title: 'price', x: 0.75 });
  // The other stays as it was.
  expect(kept.now.safeZones[0]).toMatchObject({ title: 'badge', x: 0 });
  await userEvent.click(zones().getByRole('button', { name: 'Remove badge' }));
  expect(kept.now.safeZones.map((z) => z.title)).toEqual(['price']);
  expect(slotSchema.validate(kept.now).error).toBeUndefined();
});
