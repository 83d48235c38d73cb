import { expect, test } from '@jest/globals';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { newBackdrop, newProduct, newText } from '@scenograph/core/shot/starters';
import { NEW_SET } from '@scenograph/core/stage/set';
import { data, HASH } from '@scenograph/core/shot/one-of-each.fixture';
import fc from 'fast-check';
import { boxFromShown, shownBox } from './shown-box';

const frame = { width: 1200, height: 900 };
const backdrop = { ...newBackdrop('set', frame, '#ffffff'), fill: { ...NEW_SET, colour: '#ddd5c8' } };
const ground = groundOf([backdrop])!;
const cutout = { picture: HASH, width: 400, height: 600, base: data.cutout!.base };
const product = newProduct('pot', { ...data, cutout }, frame, 'stand', [backdrop]);
const flat: ProductElement = { ...product, pose: 'flat' };

test('what stands is seen where its box is, and its handles give its box', () => {
  expect(shownBox(product, ground, frame)).toBe(product.box);
  const text = newText('words', 'Sale', frame);
  expect(shownBox(text, ground, frame)).toBe(text.box);
  const dragged = { ...product.box, width: 300 };
  expect(boxFromShown(product, dragged, ground, frame)).toBe(dragged);
});

test('without a ground even what lies flat is seen as it is written', () => {
  expect(shownBox(flat, null, frame)).toBe(flat.box);
});

test('what lies flat on a ground is seen shorter than its box, with no turn of its own', () => {
  const seen = shownBox(flat, ground, frame);
  expect(seen).not.toBe(flat.box);
  expect(seen.height / seen.width).toBeLessThan(flat.box.height / flat.box.width);
  expect(seen.rotation).toBe(0);
});

test('its handles scale and turn its box by as much as what is seen, about its middle', () => {
  const seen = shownBox(flat, ground, frame);
  const middle = (b: { x: number; y: number; width: number; height: number }) => [
    b.x + b.width / 2,
    b.y + b.height / 2,
  ];
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 4, noNaN: true }),
      fc.integer({ min: -180, max: 180 }),
      (times, turn) => {
        const handled = { ...seen, width: seen.width * times, height: seen.height * times, rotation: turn };
        const made = boxFromShown(flat, handled, ground, frame);
        expect(made.width / flat.box.width).toBeCloseTo(times, 6);
        expect(made.height / flat.box.height).toBeCloseTo(times, 6);
        expect(made.rotation).toBe(flat.box.rotation + turn);
        middle(made).forEach((v, i) => expect(v).toBeCloseTo(middle(flat.box)[i], 6));
      },
    ),
  );
});
