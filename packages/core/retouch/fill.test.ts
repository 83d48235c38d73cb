import { psnr } from '../raster/compare';
import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
import { seededRandom } from '../raster/random';
import { copyAlong } from './copy';
import { fillHole } from './fill';
import { mendPicture, type MendStep } from './mend';

const same = (a: Rgba, b: Rgba) => Buffer.from(a.data).equals(Buffer.from(b.data));

/** Planks with grain, darker to the right. */
function planks(width = 260, height = 200): Rgba {
  const image = createRgba(width, height);
  for (let y = 0, j = 0; y < height; y++)
    for (let x = 0; x < width; x++, j += 4) {
      const grain = 14 * Math.sin(y * 0.9 + 0.6 * Math.sin(x * 0.03)) + (y % 40 < 2 ? -50 : 0);
      const v = (190 + grain) * (1 - 0.3 * (x / width));
      image.data.set([v, v * 0.8, v * 0.6, 255], j);
    }
  return image;
}

function disc(width: number, height: number, cx: number, cy: number, r: number): Plane {
  const mask = createPlane(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (Math.hypot(x - cx, y - cy) < r) mask.data[y * width + x] = 1;
  return mask;
}

function part(image: Rgba, x0: number, y0: number, w: number, h: number): Rgba {
  const out = createRgba(w, h);
  for (let y = 0; y < h; y++)
    out.data.set(
      image.data.subarray(((y0 + y) * image.width + x0) * 4, ((y0 + y) * image.width + x0 + w) * 4),
      y * w * 4,
    );
  return out;
}

test('a hole in planks is filled with their grain, joints and shading; the rest is untouched', () => {
  const truth = planks();
  const marked = planks();
  const mask = disc(260, 200, 130, 100, 32);
  for (let i = 0; i < mask.data.length; i++) if (mask.data[i]) marked.data.set([20, 60, 200, 255], i * 4);
  const filled = fillHole(marked, mask, { seed: 2 });
  // Nothing blue is left, and it is near to what was hidden.
  expect(psnr(part(filled, 98, 68, 64, 64), part(truth, 98, 68, 64, 64))).toBeGreaterThan(24);
  expect(part(filled, 0, 0, 60, 200).data).toEqual(part(marked, 0, 0, 60, 200).data);
  expect(same(fillHole(marked, mask, { seed: 2 }), filled)).toBe(true);
});

test('the likeliest filling errs less than a crisp one, and more of its texture is made up the more is asked', () => {
  const truth = planks();
  const random = seededRandom(5);
  for (let j = 0; j < truth.data.length; j += 4) {
    const grain = 40 * (random() - 0.5);
    for (let c = 0; c < 3; c++) truth.data[j + c] += grain;
  }
  const mask = disc(260, 200, 130, 100, 30);
  const marked = { ...truth, data: new Uint8ClampedArray(truth.data) };
  for (let i = 0; i < mask.data.length; i++) if (mask.data[i]) marked.data.set([0, 0, 0, 255], i * 4);
  const [likely, half, crisp] = [0, 0.5, 1].map((texture) => fillHole(marked, mask, { texture }));
  const hidden = (image: Rgba) => part(image, 110, 80, 40, 40);
  const err = (image: Rgba) => psnr(hidden(image), hidden(truth));
  expect(err(likely)).toBeGreaterThan(err(crisp) + 0.3);
  const busy = (image: Rgba) => {
    const { data } = hidden(image);
    let sum = 0;
    for (let j = 4; j < data.length; j += 4) sum += Math.abs(data[j] - data[j - 4]);
    return sum;
  };
  expect(busy(likely)).toBeLessThan(busy(half));
  expect(busy(half)).toBeLessThan(busy(crisp));
  // Crisp: as busy as what was there, or nearly.
  expect(busy(crisp)).toBeGreaterThan(busy(truth) * 0.7);
});

test('a crisp filling takes away the rim in which a thing and its ground mix; the likeliest changes what is marked alone', () => {
  const picture = planks();
  const mask = disc(260, 200, 130, 100, 24);
  // A dark thing whose border is soft two pixels beyond its mark.
  const soft = (i: number) =>
    Math.max(0, Math.min(1, (26 - Math.hypot((i % 260) - 130, Math.floor(i / 260) - 100)) / 2));
  for (let i = 0; i < mask.data.length; i++)
    for (let c = 0; c < 3; c++) picture.data[i * 4 + c] *= 1 - 0.8 * soft(i);
  const [likely, crisp] = [0, 1].map((texture) => fillHole(picture, mask, { texture }));
  const truth = planks();
  let [left, taken] = [0, 0];
  for (let i = 0; i < mask.data.length; i++) {
    if (mask.data[i]) continue;
    expect([...likely.data.subarray(i * 4, i * 4 + 3)]).toEqual([...picture.data.subarray(i * 4, i * 4 + 3)]);
    if (soft(i) < 0.3) continue;
    left += truth.data[i * 4] - likely.data[i * 4];
    taken += truth.data[i * 4] - crisp.data[i * 4];
  }
  expect(left).toBeGreaterThan(0);
  expect(Math.abs(taken)).toBeLessThan(left * 0.4);
});

test('filling tells how far it is, can be broken off, and refuses what it cannot do', () => {
  const picture = planks();
  const mask = disc(260, 200, 130, 100, 20);
  const told: number[] = [];
  fillHole(picture, mask, { onProgress: (s) => told.push(s) });
  expect(told[told.length - 1]).toBeCloseTo(1, 6);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  const stop = () => {
    throw new Error('cancelled');
  };
  expect(() => fillHole(picture, mask, { onProgress: stop })).toThrow('cancelled');
  expect(() => fillHole(picture, createPlane(10, 10, 1))).toThrow(/of one size/);
  expect(() => fillHole(picture, createPlane(260, 200, 1))).toThrow(/Almost nothing is left/);
});

test('copying takes what lies at the offset, softly; steps run in order and can be switched off', () => {
  const picture = planks();
  const stroke = { points: [[60, 60], [90, 60]] as [number, number][], radius: 8, softness: 0 }; // prettier-ignore
  const out = copyAlong(picture, stroke, [40, 23]);
  expect([...out.data.subarray((60 * 260 + 75) * 4, (60 * 260 + 75) * 4 + 3)]).toEqual([
    ...picture.data.subarray((83 * 260 + 115) * 4, (83 * 260 + 115) * 4 + 3),
  ]);
  const step: MendStep = { id: 'a', name: '', kind: 'copy', hidden: false, offset: [40, 23], ...stroke };
  expect(same(mendPicture(picture, [step]), out)).toBe(true);
  expect(same(mendPicture(picture, [{ ...step, hidden: true }]), picture)).toBe(true);
});
