import fc from 'fast-check';
import type { ProductData } from '../data/product-data';
import { isProduct, type ProductElement } from '../elements/product/model';
import { readSlot } from '../spec/slot';
import { basePoint } from '../stage/stand';
import type { Box } from '../vector/box';
import type { Shot } from './document';
import { BASE, boxPatch, patchFit } from './edit';
import { resolveBase, resolveForSlot } from './resolve';
import { whiteShot } from './starters';

/** A variant with a cutout of its own: any shape, any base, measured or not. */
const variant = (letter: string) =>
  fc
    .record({
      width: fc.integer({ min: 300, max: 3000 }),
      height: fc.integer({ min: 300, max: 3000 }),
      x: fc.double({ min: 0.35, max: 0.65, noNaN: true }),
      halfWidth: fc.double({ min: 0.1, max: 0.35, noNaN: true }),
      mm: fc.option(fc.integer({ min: 40, max: 400 }), { nil: null }),
    })
    .map(({ width, height, x, halfWidth, mm }): ProductData => {
      const base = {
        x,
        y: (height / width) * 0.97,
        halfWidth,
        halfDepth: halfWidth * 0.3,
        topDepth: halfWidth * 0.3,
        length: height / width,
        pitchDeg: 15,
        confidence: 1,
      };
      return {
        id: letter,
        title: 'Pot',
        variant: letter,
        sku: letter,
        price: null,
        currency: 'GBP',
        widthMm: mm,
        heightMm: mm && Math.round((mm * height) / width),
        depthMm: mm,
        cutout: { picture: letter.repeat(64), width, height, base },
      };
    });

const SLOT = readSlot({
  id: 'wide',
  title: 'Wide',
  width: 1600,
  height: 900,
  formats: ['jpeg'],
  maxBytes: 1e6,
  background: { kind: 'any' },
  marginShare: 0.04,
  safeShare: 0.05,
});
/** Where it is placed: in the base, in a slot, and in one cell of a slot. */
const PLACES = {
  base: { key: BASE, see: (shot: Shot, data: ProductData) => resolveBase(shot, data) },
  slot: { key: 'm/wide', see: (shot: Shot, data: ProductData) => resolveForSlot(shot, 'm/wide', SLOT, data) },
};
const productIn = (elements: readonly { kind: string }[]) => elements.find(isProduct) as ProductElement;
const rounded = ({ x, y, width, height, rotation }: Box) =>
  [x, y, width, height, rotation].map((v) => Math.round(v * 1000) / 1000);

for (const [place, { key, see }] of Object.entries(PLACES)) {
  /** A product put somewhere by hand while a variant is on the stage. */
  const placed = (shot: Shot, data: ProductData, dx: number, dy: number, k: number) => {
    const seen = productIn(see(shot, data).elements);
    const { box } = seen;
    const to = { ...box, x: box.x + dx, y: box.y + dy, width: box.width * k, height: box.height * k };
    return { to, shot: patchFit(shot, key, SLOT, seen.id, boxPatch(seen, to)) };
  };

  test(`${place}: what is placed on one variant stays where it was put, again and again`, () => {
    fc.assert(
      fc.property(variant('a'), variant('b'), fc.integer({ min: -200, max: 200 }), (a, b, d) => {
        let shot = whiteShot(a, 'stand');
        for (const step of [d, 7, -3]) {
          const next = placed(shot, b, step, step / 2, 1.1);
          shot = next.shot;
          expect(rounded(productIn(see(shot, b).elements).box)).toEqual(rounded(next.to));
        }
      }),
    );
  });

  test(`${place}: other variants stand on the same point, in their own shape`, () => {
    fc.assert(
      fc.property(variant('a'), variant('b'), fc.integer({ min: -200, max: 200 }), (a, b, d) => {
        const { shot } = placed(whiteShot(a, 'stand'), b, d, 0, 0.8);
        const [own, other] = [b, a].map((data) => productIn(see(shot, data).elements));
        const [from, to] = [basePoint(own), basePoint(other)];
        expect(to.x).toBeCloseTo(from.x, 4);
        expect(to.y).toBeCloseTo(from.y, 4);
        expect(other.picture).toBe(a.cutout!.picture);
        expect(other.box.height / other.box.width).toBeCloseTo(a.cutout!.height / a.cutout!.width, 6);
      }),
    );
  });

  test(`${place}: a cutout made anew stays on its point, and further moves are as far as they say`, () => {
    fc.assert(
      fc.property(variant('a'), variant('b'), fc.integer({ min: -150, max: 150 }), (a, again, d) => {
        // The same variant, cut out anew: another picture, another shape, another base.
        const recut = { ...again, id: a.id, widthMm: a.widthMm, heightMm: a.heightMm, depthMm: a.depthMm };
        const before = placed(whiteShot(a, 'stand'), a, d, 0, 1).shot;
        const at = (data: ProductData, shot: Shot) => basePoint(productIn(see(shot, data).elements));
        const [old, now] = [at(a, before), at(recut, before)];
        expect(now.x).toBeCloseTo(old.x, 4);
        expect(now.y).toBeCloseTo(old.y, 4);
        const moved = at(recut, placed(before, recut, 10, 5, 1).shot);
        expect(moved.x - now.x).toBeCloseTo(10, 4);
        expect(moved.y - now.y).toBeCloseTo(5, 4);
      }),
    );
  });
}
