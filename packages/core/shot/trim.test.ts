import fc from 'fast-check';
import { data } from './one-of-each.fixture';
import { readShot } from './document';
import { newShot } from './new-shot';
import {
  frameOf,
  lengthOf,
  mmOf,
  READY_SIZES,
  safeRect,
  SIZE_UNITS,
  trimmedSize,
  trimRect,
  type TrimmedSize,
} from './trim';

const A5: TrimmedSize = { width: 148, height: 210, unit: 'mm', dpi: 300, bleedMm: 3, safeMm: 5 };
const WHITE = { type: 'colour', colour: '#ffffff' } as const;

test('a size on paper makes a frame of its pixels and the bleed on every side', () => {
  // 148 mm are 1748 pixels, 3 mm are 35.
  expect(frameOf(A5)).toEqual({ width: 1748 + 70, height: 2480 + 70 });
  expect(frameOf({ ...A5, unit: 'cm', width: 14.8, height: 21 })).toEqual(frameOf(A5));
  expect(frameOf({ ...A5, unit: 'in', width: 4, height: 6, bleedMm: 0 })).toEqual({
    width: 1200,
    height: 1800,
  });
  expect(frameOf({ ...A5, unit: 'px', width: 801, height: 600, bleedMm: 0 })).toEqual({
    width: 801,
    height: 600,
  });
});

test('the trimmed picture and its safe part lie within the frame', () => {
  const frame = frameOf(A5);
  expect(trimRect(frame, A5)).toEqual({ x: 35, y: 35, width: 1748, height: 2480 });
  const safe = safeRect(frame, A5);
  expect(safe.x).toBeCloseTo(35 + 59.06, 1);
  expect(safe.x + safe.width).toBeCloseTo(frame.width - safe.x, 6);
});

test('a size that was typed is shown as it was typed, in every unit', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SIZE_UNITS),
      fc.integer({ min: 72, max: 600 }),
      fc.integer({ min: 200, max: 2000 }),
      fc.integer({ min: 200, max: 2000 }),
      fc.constantFrom(0, 3, 3.175),
      (unit, dpi, tenthsWide, tenthsHigh, bleedMm) => {
        // Tenths of a millimetre, hundredths of a centimetre and of an inch are at least half a pixel apart at 600.
        const typed = (tenths: number) =>
          unit === 'px' ? tenths : unit === 'mm' ? Math.round(tenths / 10) : Math.round(tenths / 10) / 10;
        const size = { unit, dpi, bleedMm, safeMm: 0, width: typed(tenthsWide), height: typed(tenthsHigh) };
        const told = trimmedSize(frameOf(size), size);
        expect(told.width).toBeCloseTo(size.width, unit === 'px' ? 6 : 1);
        expect(told.height).toBeCloseTo(size.height, unit === 'px' ? 6 : 1);
        expect(frameOf(told)).toEqual(frameOf(size));
      },
    ),
  );
});

test('lengths go to millimetres and back', () => {
  for (const unit of SIZE_UNITS) expect(lengthOf(mmOf(7.25, unit, 300), unit, 300)).toBeCloseTo(7.25, 9);
  expect(mmOf(1, 'in', 300)).toBeCloseTo(25.4);
  expect(mmOf(300, 'px', 300)).toBeCloseTo(25.4);
});

test.each<[string, Partial<TrimmedSize>, RegExp]>([
  ['nothing', { width: 0 }, /width and a height/],
  ['no number', { height: NaN }, /width and a height/],
  ['one dot an inch', { dpi: 1 }, /at least 16/],
  ['a hundred thousand pixels', { unit: 'px', width: 100_000, height: 100_000 }, /up to 12000/],
  ['more pixels than can be held', { unit: 'px', width: 11_000, height: 11_000 }, /80 million/],
  ['margins that meet', { safeMm: 74 }, /safe margins/],
])('%s is refused with a sentence', (_, change, says) => {
  expect(() => frameOf({ ...A5, ...change })).toThrow(says);
});

test('every ready-made size can be made, and is told by its own name alone', () => {
  for (const size of READY_SIZES)
    expect(trimmedSize(frameOf(size), size)).toMatchObject({ width: size.width, height: size.height });
  expect(new Set(READY_SIZES.map((s) => s.id)).size).toBe(READY_SIZES.length);
  expect(new Set(READY_SIZES.map((s) => s.title)).size).toBe(READY_SIZES.length);
});

test('a new picture has its ground and, within its safe margins, its product; it can be read again', () => {
  const shot = newShot({ ...A5, safeMm: 60 }, WHITE, { data, pose: 'stand' });
  expect(readShot(JSON.parse(JSON.stringify(shot)))).toEqual(shot);
  const [backdrop, product] = shot.elements;
  expect(backdrop.box).toMatchObject({ x: 0, y: 0, ...shot.frame });
  const room = safeRect(shot.frame, shot.trim!);
  expect(product.box.width).toBeLessThanOrEqual(room.width + 0.001);
  expect(product.box.x + product.box.width / 2).toBeCloseTo(shot.frame.width / 2);
  expect(product.box.height / product.box.width).toBeCloseTo(800 / 600);
});

test('without a product, or with one that is not cut out yet, a new picture is its ground', () => {
  const none = newShot(A5, { type: 'transparent' }, null);
  expect(none.elements.map((e) => e.kind)).toEqual(['backdrop']);
  expect(readShot(none)).toEqual(none);
  const { cutout: _, ...uncut } = data;
  expect(newShot(A5, WHITE, { data: uncut as typeof data, pose: 'stand' }).elements).toHaveLength(1);
});

test('a shot whose trim says nonsense is refused', () => {
  const shot = newShot(A5, WHITE, null);
  expect(() => readShot({ ...shot, trim: { ...shot.trim, bleedMm: -1 } })).toThrow(/trim/);
  expect(() => readShot({ ...shot, trim: { ...shot.trim, unit: 'furlong' } })).toThrow(/trim/);
});
