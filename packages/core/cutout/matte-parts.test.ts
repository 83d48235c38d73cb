import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createRgba } from '../raster/pixels';
import {
  changedPart,
  copyMatte,
  cropBytes,
  emptyMatte,
  givenMatte,
  grownRect,
  pasteMatte,
} from './matte-parts';

const [W, H] = [30, 20];
const all = { x: 0, y: 0, width: W, height: H };

test('what differs is held by the smallest rectangle', () => {
  const places = fc.array(fc.nat(W * H - 1), { maxLength: 6 });
  fc.assert(
    fc.property(places, (list) => {
      const a = new Uint8Array(W * H);
      const b = new Uint8Array(W * H);
      for (const i of list) b[i] = 1;
      const part = changedPart(a, b, W, H);
      if (!list.length) return expect(part).toBeNull();
      const xs = list.map((i) => i % W);
      const ys = list.map((i) => Math.floor(i / W));
      expect(part).toEqual({
        x: Math.min(...xs),
        y: Math.min(...ys),
        width: Math.max(...xs) - Math.min(...xs) + 1,
        height: Math.max(...ys) - Math.min(...ys) + 1,
      });
    }),
  );
});

test('a difference within the tolerance is none', () => {
  const b = new Float32Array(W * H);
  b[40] = 0.2;
  expect(changedPart(new Float32Array(W * H), b, W, H, 0.3)).toBeNull();
  expect(changedPart(new Float32Array(W * H), b, W, H, 0.1)).toMatchObject({ width: 1, height: 1 });
});

test('a grown rectangle is scaled, given a margin and held in the picture', () => {
  expect(grownRect({ x: 4, y: 3, width: 2, height: 2 }, 2, 3, all)).toEqual({
    x: 5,
    y: 3,
    width: 10,
    height: 10,
  });
  expect(grownRect({ x: 0, y: 0, width: 15, height: 10 }, 2, 5, all)).toEqual(all);
});

test('cut out and put back, a part is what it was; its rim is left as the whole had it', () => {
  const part = { x: 5, y: 4, width: 12, height: 9 };
  const whole = emptyMatte(createRgba(W, H), 1);
  const labels = new Uint8Array(W * H);
  const solved = {
    labels: new Uint8Array(part.width * part.height).fill(1),
    matte: emptyMatte(createRgba(part.width, part.height), 1),
  };
  solved.matte.alpha.fill(0.5);
  solved.matte.front.fill(80);
  pasteMatte(solved, part, 2, all, labels, whole);
  const inner = { x: 7, y: 6, width: 8, height: 5 };
  expect(cropBytes(labels, W, inner).every((v) => v === 1)).toBe(true);
  expect(labels.reduce((s, v) => s + v, 0)).toBe(inner.width * inner.height);
  expect(whole.alpha[6 * W + 7]).toBe(0.5);
  expect(whole.front[(6 * W + 7) * 3 + 2]).toBe(80);
  expect(whole.alpha[5 * W + 7]).toBe(0);
});

test('a part that reaches the border has no rim there', () => {
  const whole = emptyMatte(createRgba(W, H), 1);
  const labels = new Uint8Array(W * H);
  const solved = { labels: new Uint8Array(W * H).fill(1), matte: emptyMatte(createRgba(W, H), 1) };
  pasteMatte(solved, all, 3, all, labels, whole);
  expect(labels.every((v) => v === 1)).toBe(true);
});

test('a copy is no view of the first', () => {
  const matte = emptyMatte(createRgba(W, H), 1);
  const copy = copyMatte(matte);
  copy.alpha[3] = 1;
  copy.zone[3] = 2;
  expect([matte.alpha[3], matte.zone[3]]).toEqual([0, 0]);
});

test('a photo that brought its own transparency is kept whole until a correction drops a part', () => {
  const fine = createRgba(4, 1);
  const labels = Uint8Array.of(1, 0, 1, 0);
  expect([...givenMatte(fine, labels, false).alpha]).toEqual([1, 1, 1, 1]);
  expect([...givenMatte(fine, labels, true).alpha]).toEqual([1, 0, 1, 0]);
});
