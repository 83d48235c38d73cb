/** What tests of checks share: a slot, a measured picture, words as the painter has seen them. */
import { createPlane, createRgba } from '../../raster/pixels';
import type { LegibilityReport } from '../../paint/legibility-report';
import { emptyShot, type Shot } from '../../shot/document';
import { data } from '../../shot/one-of-each.fixture';
import { readSlot, type Slot } from '../slot';
import type { Check, Finding, Subject } from './check';

export const SIDE = 400;
export const slotOf = (change: object = {}): Slot =>
  readSlot({
    id: 'main',
    title: 'Main',
    width: SIDE,
    height: SIDE,
    formats: ['jpeg'],
    maxBytes: 100_000,
    background: { kind: 'any' },
    ...change,
  });
export const slot = slotOf();

/** A grey picture of the slot's size with a product in a rectangle. */
export const subjectOf = (
  more: Partial<Subject> = {},
  at = { x: 100, y: 100, width: 200, height: 200 },
): Subject => {
  const products = createPlane(SIDE, SIDE);
  for (let y = at.y; y < at.y + at.height; y++)
    for (let x = at.x; x < at.x + at.width; x++) products.data[y * SIDE + x] = 1;
  const picture = createRgba(SIDE, SIDE);
  picture.data.fill(255);
  return {
    slot,
    slotKey: 's/main',
    width: SIDE,
    height: SIDE,
    picture,
    products,
    shot: null,
    words: null,
    sources: new Map(),
    ...more,
  };
};

/** A block of words as the painter has seen it. */
export const word = (change: Partial<LegibilityReport> = {}): LegibilityReport => ({
  id: 'headline',
  name: 'Headline',
  kind: 'text',
  text: 'Hand thrown',
  sign: false,
  size: 40,
  bounds: { x: 100, y: 100, width: 200, height: 50 },
  contrast: 12,
  weakest: { x: 100, y: 100, width: 40, height: 40 },
  ground: 1,
  outside: 0,
  covered: [],
  cut: 0,
  unprintable: [],
  ...change,
});
export const seen = (...words: LegibilityReport[]) => ({ width: SIDE, height: SIDE, words });

/** What a check says, as a list. */
export const says = <M>(check: Check<M>, measured: M, by = slot): Finding[] => {
  const found = check.judge(measured, by) ?? [];
  return Array.isArray(found) ? found : [found];
};
export const verdicts = (list: Finding[]) => list.map((f) => f.verdict);

export const FRAME = { width: SIDE, height: SIDE };
export const product = { ...data, cutout: { ...data.cutout!, width: 300, height: 400 } };
export const shotOf = (...elements: Shot['elements']): Shot => ({ ...emptyShot(SIDE, SIDE), elements });
