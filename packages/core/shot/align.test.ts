import fc from 'fast-check';
import type { ShotElement } from '../elements/index';
import { basePoint } from '../stage/stand';
import { isProduct } from '../elements/product/model';
import { uprightBounds } from '../vector/box';
import { sameSizeBoxes, touchedBy } from './align';
import { ONE_OF_EACH } from './one-of-each.fixture';

const length = fc.integer({ min: 1, max: 2000 });
const box = fc.record({
  x: fc.integer({ min: -500, max: 1500 }),
  y: fc.integer({ min: -500, max: 1500 }),
  width: length,
  height: length,
  rotation: fc.integer({ min: -180, max: 180 }),
});
const placed = fc
  .tuple(...ONE_OF_EACH.map(() => box))
  .map((boxes) => ONE_OF_EACH.map((e, i): ShotElement => ({ ...e, box: boxes[i] })));

test('of the same width or height, all keep their shape, and their base or their middle', () => {
  fc.assert(
    fc.property(placed, fc.constantFrom('width' as const, 'height' as const), (elements, side) => {
      const boxes = sameSizeBoxes(elements, side);
      expect([...boxes.keys()]).toEqual(elements.slice(1).map((e) => e.id));
      for (const e of elements.slice(1)) {
        const to = boxes.get(e.id)!;
        expect(to[side]).toBeCloseTo(elements[0].box[side], 6);
        expect(to.width / to.height).toBeCloseTo(e.box.width / e.box.height, 6);
        const kept = (b: typeof to) =>
          isProduct(e) ? basePoint({ ...e, box: b }) : { x: b.x + b.width / 2, y: b.y + b.height / 2 };
        expect(kept(to).x).toBeCloseTo(kept(e.box).x, 4);
        expect(kept(to).y).toBeCloseTo(kept(e.box).y, 4);
        expect(to.rotation).toBe(e.box.rotation);
      }
    }),
    { numRuns: 40 },
  );
});

test('a frame chooses what it touches: all of what lies within it, nothing that lies apart, never the ground', () => {
  fc.assert(
    fc.property(placed, box, (elements, frame) => {
      const chosen = touchedBy(elements, frame);
      for (const e of elements) {
        const b = uprightBounds(e.box);
        const within =
          b.x > frame.x &&
          b.y > frame.y &&
          b.x + b.width < frame.x + frame.width &&
          b.y + b.height < frame.y + frame.height;
        const apart =
          b.x > frame.x + frame.width ||
          b.y > frame.y + frame.height ||
          b.x + b.width < frame.x ||
          b.y + b.height < frame.y;
        if (e.kind === 'backdrop' || apart) expect(chosen).not.toContain(e.id);
        else if (within) expect(chosen).toContain(e.id);
      }
    }),
  );
  const all = { x: -1e5, y: -1e5, width: 2e5, height: 2e5 };
  const still = ONE_OF_EACH.map((e) => ({ ...e, hidden: e.id === 'badge', locked: e.id === 'text' }));
  const chosen = touchedBy(still, all);
  expect(chosen).not.toContain('badge');
  expect(chosen).not.toContain('text');
  expect(chosen).toHaveLength(ONE_OF_EACH.length - 3);
});
