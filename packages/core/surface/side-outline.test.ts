import { expect, test } from '@jest/globals';
import { createPlane } from '../raster/pixels';
import { sideOutline } from './side-outline';

/** A packet from its side: 240 px high, flat at its back, its front standing out by so much in the middle. */
function side(front: number, back = 0, lean = 0) {
  const plane = createPlane(200, 300);
  for (let y = 0; y < 240; y++) {
    const bow = Math.sin((Math.PI * (y + 0.5)) / 240);
    const from = 80 - back * bow + lean * y;
    const to = 90 + front * bow + lean * y;
    for (let x = 0; x < 200; x++) {
      const cover = Math.min(1, Math.max(0, to - x)) - Math.min(1, Math.max(0, from - x));
      plane.data[(y + 30) * 200 + x] = Math.max(0, cover);
    }
  }
  return plane;
}

test.each([4, 12, 30])(
  'a front that stands out by %i of 240 pixels is measured so, a flat back as flat',
  (front) => {
    const { left, right } = sideOutline(side(front))!;
    // The ends are left out, where it stands out a little already.
    expect(right * 240).toBeGreaterThan(front * 0.88);
    expect(right * 240).toBeLessThan(front * 1.03);
    expect(left * 240).toBeLessThan(0.6);
  },
);

test('a packet that leans stands out by as much, and a cushion on both sides', () => {
  const [upright, leaning] = [sideOutline(side(20))!, sideOutline(side(20, 0, 0.12))!];
  expect(Math.abs(upright.right - leaning.right) * 240).toBeLessThan(0.8);
  const cushion = sideOutline(side(16, 16))!;
  expect(cushion.left).toBeCloseTo(cushion.right, 2);
});

test('a face that is hollow stands out by nothing', () => {
  expect(sideOutline(side(-6))!.right * 240).toBeLessThan(0.6);
});

test('nothing, a speck, and what lies on its side are no side view', () => {
  expect(sideOutline(createPlane(50, 50))).toBeNull();
  const speck = createPlane(50, 50);
  for (let y = 10; y < 20; y++) speck.data[y * 50 + 20] = 1;
  expect(sideOutline(speck)).toBeNull();
  const lying = createPlane(100, 60);
  for (let y = 20; y < 50; y++) for (let x = 5; x < 95; x++) lying.data[y * 100 + x] = 1;
  expect(sideOutline(lying)).toBeNull();
});
