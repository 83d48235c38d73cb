import { expect, test } from '@jest/globals';
import { contradictions } from './contradictions';
import { readSlot } from './slot';

const LIMITS = {
  minWidth: null,
  maxWidth: null,
  minHeight: null,
  maxHeight: null,
  minAspect: null,
  maxAspect: null,
};
const slot = (change: object = {}) =>
  readSlot({
    id: 'main',
    title: 'Main',
    width: 1000,
    height: 1000,
    formats: ['jpeg'],
    maxBytes: 1_000_000,
    background: { kind: 'any' },
    ...change,
  });
const coverage = (min: number | null, max: number | null, wanted: number | null = null) => ({
  coverage: { min, max, wanted },
});

test('a slot that can be kept is not complained about', () => {
  expect(contradictions(slot())).toEqual([]);
  expect(contradictions(slot({ ...coverage(0.6, 0.9, 0.8), marginShare: 0.05 }))).toEqual([]);
});

test.each([
  ['coverage the wrong way round', coverage(0.9, 0.5), /at least 90 % and at most 50 %/],
  ['a wanted coverage outside its limits', coverage(0.5, 0.7, 0.8), /wanted coverage of 80 % lies outside/],
  ['a margin that leaves too little', { ...coverage(0.95, null), marginShare: 0.1 }, /leaves 80 % of the frame/],
  ['limits the wrong way round', { limits: { ...LIMITS, minWidth: 900, maxWidth: 800 } }, /width is to be at least 900 px and at most 800 px/],
  ['a width it does not take itself', { limits: { ...LIMITS, minWidth: 1200 } }, /a width of 1000 px, which the slot itself/],
  ['a height it does not take itself', { limits: { ...LIMITS, maxHeight: 900 } }, /a height of 1000 px, which the slot itself/],
  ['an aspect ratio it does not take itself', { limits: { ...LIMITS, minAspect: 1.2 } }, /an aspect ratio of 1,/],
  ['transparency in JPEG', { background: { kind: 'transparent' } }, /which JPEG cannot hold/],
  ['a density in WebP', { formats: ['webp'], density: 300 }, /which WebP and AVIF cannot hold/],
  ['text on a slot without overlays', { overlays: 'forbidden', maxTextShare: 0.2 }, /Set the share to none/],
  ['a file name of nothing known', { fileName: '{price}' }, /asks for \{price\}/],
  ['bytes for no picture', { maxBytes: 12_000 }, /12,000 bytes are too few for 1000 x 1000 px/],
] as [string, object, RegExp][])('%s is told, with the slot’s name', (_, change, words) => {
  const found = contradictions(slot(change));
  expect(found).toHaveLength(1);
  expect(found[0]).toMatch(words);
  expect(found[0]).toMatch(/^"Main": /);
}); // prettier-ignore

test('a safe zone that reaches out of the frame is told by its title', () => {
  const zone = { id: 'z', title: 'Price tag', x: 0.8, y: 0, width: 0.4, height: 0.2 };
  expect(contradictions({ ...slot(), safeZones: [zone as never] })[0]).toContain('"Price tag" reaches out');
});

test('transparency is fine where one of the formats holds it, and several faults are all told', () => {
  expect(contradictions(slot({ background: { kind: 'transparent' }, formats: ['jpeg', 'png'] }))).toEqual([]);
  expect(contradictions(slot({ ...coverage(0.9, 0.5), maxBytes: 12_000 }))).toHaveLength(2);
});
