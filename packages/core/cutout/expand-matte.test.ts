import { createRgba, type Plane, type Rgba } from '../raster/pixels';
import { resize } from '../raster/resample';
import { solve } from './solve';
import { openSource } from './source';
import { renderView, wholeView } from './view';
import { PLAIN_RECIPE } from './recipe';

const W = 2560;
const H = 1920;

/** A brown disc with bristles on a pale sweep, soft at one side, as a large photo shows it. */
function largePhoto(): Rgba {
  const photo = createRgba(W, H);
  let seed = 5;
  const noise = () => ((seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296 - 0.5) * 9;
  for (let y = 0, j = 0; y < H; y++)
    for (let x = 0; x < W; x++, j += 4) {
      const [dx, dy] = [x - 1280, y - 960];
      const angle = Math.atan2(dy, dx);
      const rim = 560 + 30 * Math.max(0, Math.sin(angle * 60)) ** 6;
      const softness = dx > 0 ? 1.5 : 9;
      const a = Math.min(1, Math.max(0, (rim - Math.hypot(dx, dy)) / softness + 0.5));
      const n = noise();
      photo.data[j] = a * 96 + (1 - a) * (222 - x / 130) + n;
      photo.data[j + 1] = a * 62 + (1 - a) * (219 - x / 130) + n;
      photo.data[j + 2] = a * 40 + (1 - a) * (210 - x / 130) + n;
      photo.data[j + 3] = 255;
    }
  return photo;
}

function reduced(matte: Plane, width: number, height: number): Float32Array {
  const grey = createRgba(matte.width, matte.height);
  for (let i = 0; i < matte.data.length; i++) {
    grey.data.fill(matte.data[i] * 255, i * 4, i * 4 + 3);
    grey.data[i * 4 + 3] = 255;
  }
  const { data } = resize(grey, width, height);
  return Float32Array.from({ length: width * height }, (_, i) => data[i * 4] / 255);
}

test('the full-size cutout is what its preview was: edge band apart by at most 0.001, nothing bitten or added', () => {
  const source = openSource(largePhoto());
  const solved = solve(source, PLAIN_RECIPE);
  const preview = renderView(source, solved, wholeView(source.photo, 1280)).alpha;
  const full = reduced(
    renderView(source, solved, wholeView(source.photo)).alpha,
    preview.width,
    preview.height,
  );
  let squares = 0;
  let band = 0;
  let most = 0;
  for (let i = 0; i < full.length; i++) {
    const [a, b] = [preview.data[i], full[i]];
    most = Math.max(most, Math.abs(a - b));
    if ((a <= 0.01 || a >= 0.99) && (b <= 0.01 || b >= 0.99)) continue;
    squares += (a - b) ** 2;
    band++;
  }
  expect(band).toBeGreaterThan(1500);
  expect(squares / band).toBeLessThan(0.001);
  expect(most).toBeLessThan(0.35);
});
