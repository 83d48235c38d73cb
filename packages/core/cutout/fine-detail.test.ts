import { oklabOf } from '../raster/colour';
import { createRgba } from '../raster/pixels';
import { settleDetail } from './fine-detail';
import type { Analysis } from './segment';

const W = 200;
const H = 160;
const GROUND = [231, 229, 224];

/** Fine detail over a reduced analysis of half the size, in which the model is in doubt all over. */
function settled(
  colour: (x: number, y: number) => readonly number[],
  label: (x: number, y: number) => number,
  options: { probability?: number; openings?: boolean; patterned?: boolean } = {},
): (x: number, y: number) => number {
  const picture = createRgba(W, H);
  const labels = new Uint8Array(W * H);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    picture.data.set([...colour(x, y), 255], i * 4);
    labels[i] = label(x, y);
  }
  const ground = new Float64Array(3);
  oklabOf(GROUND[0], GROUND[1], GROUND[2], ground);
  const analysis = {
    width: W / 2,
    height: H / 2,
    shape: new Float32Array((W * H) / 4).fill(options.probability ?? 0.5),
    patterned: options.patterned ?? false,
    model: {
      sigma: [0.003, 0.002, 0.002],
      at: (_x: number, _y: number, out: Float64Array) => out.set(ground),
    },
  } as unknown as Analysis;
  settleDetail(picture, labels, analysis, { x: 0, y: 0, width: W, height: H }, 0.5, options.openings ?? true);
  return (x, y) => labels[y * W + x];
}

const hole = (x: number, y: number) => Math.abs(x - 60) < 3 && Math.abs(y - 60) < 3;
const wire = (x: number) => x === 150;
const lattice = (x: number, y: number) => (hole(x, y) || (x > 100 && !wire(x)) ? GROUND : [60, 70, 90]);
const inside = (x: number) => (x <= 100 ? 1 : 0);

test('an opening of five pixels and a wire of one are found where the model is in doubt', () => {
  const at = settled(lattice, inside);
  expect(at(60, 60)).toBe(0);
  expect(at(54, 60)).toBe(1);
  expect(at(150, 80)).toBe(1);
  expect(at(148, 80)).toBe(0);
});

test('the shade of the backdrop in an opening is backdrop too', () => {
  const shaded = GROUND.map((v) => v * 0.72);
  const at = settled((x, y) => (hole(x, y) ? shaded : lattice(x, y)), inside);
  expect(at(60, 60)).toBe(0);
});

test('where the model is sure, where openings are not wanted, and before a pattern nothing is opened', () => {
  expect(settled(lattice, inside, { probability: 0.97 })(60, 60)).toBe(1);
  expect(settled(lattice, inside, { openings: false })(60, 60)).toBe(1);
  expect(settled(lattice, inside, { patterned: true })(60, 60)).toBe(1);
});

test('single pixels are grain, and a whole side in the colour of the ground is not a detail', () => {
  const speck = settled(
    (x, y) => (x === 60 && y === 60 ? GROUND : [60, 70, 90]),
    () => 1,
  );
  expect(speck(60, 60)).toBe(1);
  const white = settled(() => GROUND, inside);
  expect(white(50, 80)).toBe(1);
});
