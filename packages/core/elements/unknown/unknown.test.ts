import { expect, test } from '@jest/globals';
import { readShot, SHOT_VERSION } from '../../shot/document';
import { patchFit } from '../../shot/edit';
import { data, FRAME, ONE_OF_EACH } from '../../shot/one-of-each.fixture';
import { resolveBase, resolveForSlot } from '../../shot/resolve';
import { CHECKS, judgeMeasures, measureAll } from '../../spec/checks/index';
import { subjectOf } from '../../spec/checks/subject.fixture';
import { readSlot } from '../../spec/slot';
import { elementKind, isKnown, scaledElement, type ShotElement } from '../index';
import { elementPainter } from '../painters';

/** An element as a newer version might write it, with keys that this one has never heard of. */
const HOLOGRAM = {
  ...ONE_OF_EACH[3],
  id: 'hologram',
  kind: 'hologram',
  name: 'Hologram',
  depthMm: 12,
  layers: [{ at: 0.5, hue: 'teal' }],
} as unknown as ShotElement;
const SHOT = {
  version: SHOT_VERSION,
  frame: FRAME,
  elements: [ONE_OF_EACH[0], ONE_OF_EACH[1], HOLOGRAM],
  fits: {},
  importance: [],
};
const slot = readSlot({
  ...{ id: 'wide', title: 'Wide', width: 900, height: 300, formats: ['png'], maxBytes: 1e6 },
  background: { kind: 'any' },
});

test('an element of an unknown kind is read and stays as it came, to the last key', () => {
  expect(readShot(structuredClone(SHOT))).toEqual(SHOT);
});

test('it needs what every element has: without a place it is refused by its number', () => {
  const { box: _, ...placeless } = HOLOGRAM;
  expect(() => readShot({ ...SHOT, elements: [placeless] })).toThrow(/elements\[0\].*box/);
});

test('it follows frames and slots like any overlay, and its own keys are not touched', () => {
  for (const shown of [resolveBase(SHOT, data), resolveForSlot(SHOT, 's/wide', slot, data)]) {
    const seen = shown.elements.find((e) => e.id === 'hologram')!;
    expect(seen).toMatchObject({ kind: 'hologram', depthMm: 12, layers: [{ at: 0.5, hue: 'teal' }] });
  }
  expect(scaledElement(HOLOGRAM, 2)).toEqual(HOLOGRAM);
  const hidden = patchFit(SHOT, 's/wide', slot, 'hologram', { hidden: true });
  expect(readShot(structuredClone(hidden))).toEqual(hidden);
});

test('it is not painted and asks for no files; names of built-in things are no kinds either', () => {
  for (const kind of ['hologram', 'constructor', '__proto__', 'toString', '']) {
    expect(isKnown({ kind })).toBe(false);
    expect(elementKind(kind).needs(HOLOGRAM)).toEqual({ pictures: [], fonts: [] });
    expect(elementPainter(kind).paint(HOLOGRAM, null as never, null as never)).toBeUndefined();
  }
});

test('that it is left out of the picture is a fault of its own, until it is hidden', () => {
  const found = (elements: ShotElement[]) => {
    const shot = resolveBase({ ...SHOT, elements }, data);
    const measures = measureAll(
      subjectOf({ shot }),
      CHECKS.filter((c) => c.id === 'unknown-element'),
    );
    return judgeMeasures(measures, slot);
  };
  expect(found(SHOT.elements)).toMatchObject([
    { verdict: 'stop', measured: 'hologram', about: { id: 'hologram' } },
  ]);
  expect(found([{ ...HOLOGRAM, hidden: true }])).toEqual([]);
  expect(found([ONE_OF_EACH[0]])).toEqual([]);
});
