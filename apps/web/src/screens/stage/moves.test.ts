import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { elementKind } from '@scenograph/core/elements/index';
import { readShot, type Shot } from '@scenograph/core/shot/document';
import { data, ONE_OF_EACH } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { STAGED } from '../../../test/stage';
import { baseLike, linkedWith, movedBy, placed, snapped } from './moves';

const linked = (...ids: string[]): Shot => ({
  ...STAGED,
  elements: STAGED.elements.map((e) => (ids.includes(e.id) ? { ...e, link: 'pair' } : e)),
});
const box = (shot: Shot, id: string) => shot.elements.find((e) => e.id === id)!.box;
const resolved = (shot: Shot) => resolveBase(shot, data);
const element = (shot: Shot, id: string) => resolved(shot).elements.find((e) => e.id === id)!;
const far = fc.double({ min: -600, max: 600, noNaN: true });

test('what is linked comes along, but not what is locked', () => {
  const shot = linked('left', 'right', 'text');
  const held = {
    ...shot,
    elements: shot.elements.map((e) => (e.id === 'text' ? { ...e, locked: true } : e)),
  };
  expect(linkedWith(resolved(shot), 'left').map((e) => e.id)).toEqual(['left', 'right', 'text']);
  expect(linkedWith(resolved(held), 'left').map((e) => e.id)).toEqual(['left', 'right']);
  expect(linkedWith(resolved(shot), 'gone')).toEqual([]);
});

test('linked elements move by as much, and there and back again is where they were', () => {
  const shot = linked('left', 'right');
  fc.assert(
    fc.property(far, far, (dx, dy) => {
      const there = movedBy(resolved(shot), 'left', dx, dy, null)(shot);
      for (const id of ['left', 'right']) {
        // Places are whole hundredths of a pixel.
        expect(box(there, id).x).toBeCloseTo(box(shot, id).x + dx, 1);
        expect(box(there, id).y).toBeCloseTo(box(shot, id).y + dy, 1);
      }
      expect(box(there, 'text')).toEqual(box(shot, 'text'));
      const back = movedBy(resolved(there), 'left', -dx, -dy, null)(there);
      expect(box(back, 'left').x).toBeCloseTo(box(shot, 'left').x, 1);
    }),
    { numRuns: 30 },
  );
});

test('whatever is moved, the shot stays one that can be read', () => {
  const shot: Shot = { ...STAGED, elements: ONE_OF_EACH };
  fc.assert(
    fc.property(fc.nat(shot.elements.length - 1), far, far, (n, dx, dy) => {
      const { id } = shot.elements[n];
      const moved = movedBy(resolved(shot), id, dx, dy, null)(shot);
      expect(() => readShot(JSON.parse(JSON.stringify(moved)))).not.toThrow();
    }),
    { numRuns: 40 },
  );
});

test('an overlay is caught by the edge of another within reach; with no reach nothing catches it', () => {
  const left = element(STAGED, 'left');
  const caught = snapped(resolved(STAGED), left, 1, 198, 6);
  expect(caught.dy).toBe(200);
  expect(caught.guides.length).toBeGreaterThan(0);
  expect(snapped(resolved(STAGED), left, 1, 198, 0)).toEqual({ dx: 1, dy: 198, guides: [] });
});

test('a catch is never farther than its reach', () => {
  const left = element(STAGED, 'left');
  fc.assert(
    fc.property(far, far, fc.double({ min: 1, max: 30, noNaN: true }), (dx, dy, reach) => {
      const to = snapped(resolved(STAGED), left, dx, dy, reach);
      expect(Math.abs(to.dx - dx)).toBeLessThanOrEqual(reach + 1e-6);
      expect(Math.abs(to.dy - dy)).toBeLessThanOrEqual(reach + 1e-6);
    }),
  );
});

test('a ground is caught by nothing', () => {
  const backdrop = element(STAGED, 'backdrop');
  expect(elementKind(backdrop.kind).role).toBe('ground');
  expect(snapped(resolved(STAGED), backdrop, 3, 3, 20).guides).toEqual([]);
});

test('a box that is only moved takes its group along; one that is resized goes alone', () => {
  const shot = linked('left', 'right');
  const left = element(shot, 'left');
  const moved = placed(resolved(shot), left, { ...left.box, x: 160, y: 130 }, true, null)(shot);
  expect(box(moved, 'right')).toMatchObject({ x: 560, y: 330 });
  const sized = placed(resolved(shot), left, { ...left.box, width: 300 }, false, null)(shot);
  expect(box(sized, 'left').width).toBe(300);
  expect(box(sized, 'right')).toEqual(box(shot, 'right'));
});

test('sizes are taken from the base as it is written, in a slot as it is placed there', () => {
  const at = { ...element(STAGED, 'left'), name: 'as placed' };
  expect(baseLike(STAGED, at, null).name).toBe('left');
  expect(baseLike(STAGED, at, { key: 'k' } as never)).toBe(at);
});
