import { contradictions } from './contradictions';
import { READY_SHEET } from './ready-sheet';
import { specSheetSchema, type SpecSheet } from './slot';

const { value, error } = specSheetSchema.validate(READY_SHEET);
const { slots } = value as SpecSheet;

test('the ready spec sheet is one, and asks for nothing that contradicts itself', () => {
  expect(error).toBeUndefined();
  expect(slots.map((slot) => slot.id)).toEqual(['front', 'square', 'portrait', 'story', 'wide']);
  for (const slot of slots) expect(contradictions(slot)).toEqual([]);
});

test('only its front must be on white, and must show the product whole', () => {
  expect(slots.filter((slot) => slot.background.kind === 'white').map((slot) => slot.id)).toEqual(['front']);
  expect(slots.filter((slot) => slot.whole).map((slot) => slot.id)).toEqual(['front']);
  expect(slots.filter((slot) => slot.required).map((slot) => slot.id)).toEqual([
    'front',
    'square',
    'portrait',
  ]);
});
