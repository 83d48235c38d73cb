import { createRequire } from 'node:module';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { psnr } from '@scenograph/core/raster/compare';
import {
  boundsAbove,
  createPlane,
  createRgba,
  crop,
  type Plane,
  type Rgba,
} from '@scenograph/core/raster/pixels';
import { ssim } from '@scenograph/core/raster/ssim';
import { fillHole } from '@scenograph/core/retouch/fill';
import { MATERIALS } from '@scenograph/core/stage/materials';
import { NEW_SET, paintSet } from '@scenograph/core/stage/set';
import { decodeGrey, decodePicture } from '@scenograph/host-node/read-picture';

/* eslint-disable @typescript-eslint/no-explicit-any */

/** An OpenCV build that has its photo module; the one used for GrabCut has none. */
export async function loadOpenCv(): Promise<any> {
  const cv = createRequire(import.meta.url)('@techstark/opencv-js');
  if (!cv.Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve));
  return { cv };
}

/** Filling against the hidden truth, next to OpenCV's inpainting of the same hole in the same run. */
export async function benchFill(root: string): Promise<void> {
  console.log(
    '\nFilling a hole. Baseline: OpenCV inpaint (Telea 2004), radius 5, on the same hole in the same run.',
  );
  const { cv } = await loadOpenCv();
  const cases: [string, Rgba, Plane][] = [];
  for (const material of MATERIALS) {
    const picture = paintSet({ ...NEW_SET, material, seed: 11 }, 900, 700, 1);
    cases.push([`generated ${material}`, picture, disc(900, 700, 450, 560, 60)]);
  }
  const bench = await decodePicture(await readFile(join(root, 'demo/assets/scenes/bench-with-jar.jpg')));
  const jar = await decodeGrey(await readFile(join(root, 'demo/assets/scenes/bench-with-jar.mask.png')));
  cases.push(['demo bench, the jar-shaped mask moved onto clean planks', bench, moved(jar, -560, 470)]);
  const terrazzo = await decodePicture(await readFile(join(root, 'demo/assets/scenes/patio-terrazzo.jpg')));
  cases.push(['demo terrazzo table', terrazzo, disc(terrazzo.width, terrazzo.height, 700, 1120, 70)]);
  let better = 0;
  for (const [title, truth, mask] of cases) {
    const marked = blackened(truth, mask);
    const ours = fillHole(marked, mask);
    const theirs = inpaint(cv, marked, mask);
    const rect = boundsAbove(mask, 0.5)!;
    const inside = crop(withAlpha(mask), rect);
    const counts = Uint8Array.from({ length: rect.width * rect.height }, (_, i) => inside.data[i * 4 + 3]);
    const part = (p: Rgba) => crop(p, rect);
    const [a, b] = [ours, theirs].map((p) => ({
      psnr: psnr(part(p), part(truth)),
      ssim: ssim(part(p), part(truth), counts),
    }));
    if (a.ssim > b.ssim) better++;
    console.log(
      `  ${title}: PSNR ${a.psnr.toFixed(1)} dB, OpenCV ${b.psnr.toFixed(1)}; SSIM ${a.ssim.toFixed(3)}, OpenCV ${b.ssim.toFixed(3)}`,
    );
  }
  console.log(`  Higher SSIM than OpenCV in ${better} of ${cases.length}.`);
  const square = createPlane(bench.width, bench.height);
  for (let y = 1050; y < 1350; y++) square.data.fill(1, y * bench.width + 300, y * bench.width + 600);
  const times: number[] = [];
  for (let i = 0; i < 3; i++) {
    const begun = performance.now();
    fillHole(bench, square);
    times.push(performance.now() - begun);
  }
  const begun = performance.now();
  inpaint(cv, bench, square);
  const theirs = performance.now() - begun;
  const ours = times.sort((x, y) => x - y)[1];
  console.log(
    `  A hole of 300 x 300 in ${bench.width} x ${bench.height}: ${ours.toFixed(0)} ms (wanted: at most 3000); OpenCV ${theirs.toFixed(0)} ms, ratio ${(ours / theirs).toFixed(2)}`,
  );
}

function disc(width: number, height: number, cx: number, cy: number, r: number): Plane {
  const mask = createPlane(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (Math.hypot(x - cx, y - cy) < r) mask.data[y * width + x] = 1;
  return mask;
}

function moved(mask: Plane, dx: number, dy: number): Plane {
  const out = createPlane(mask.width, mask.height);
  for (let y = 0; y < mask.height; y++)
    for (let x = 0; x < mask.width; x++) {
      const [sx, sy] = [x - dx, y - dy];
      if (sx >= 0 && sy >= 0 && sx < mask.width && sy < mask.height)
        out.data[y * mask.width + x] = mask.data[sy * mask.width + sx];
    }
  return out;
}

function withAlpha(mask: Plane): Rgba {
  const out = createRgba(mask.width, mask.height);
  for (let i = 0; i < mask.data.length; i++) out.data[i * 4 + 3] = mask.data[i] > 0.5 ? 255 : 0;
  return out;
}

/** What is to be filled holds nothing of the truth. */
export function blackened(picture: Rgba, mask: Plane): Rgba {
  const out = createRgba(picture.width, picture.height);
  out.data.set(picture.data);
  for (let i = 0; i < mask.data.length; i++) if (mask.data[i] > 0) out.data.set([0, 0, 0], i * 4);
  return out;
}

export function inpaint(
  cv: any,
  picture: Rgba,
  mask: Plane,
  method: 'INPAINT_TELEA' | 'INPAINT_NS' = 'INPAINT_TELEA',
): Rgba {
  const rgba = cv.matFromArray(picture.height, picture.width, cv.CV_8UC4, picture.data);
  const rgb = new cv.Mat();
  cv.cvtColor(rgba, rgb, cv.COLOR_RGBA2RGB);
  const marked = cv.matFromArray(
    picture.height,
    picture.width,
    cv.CV_8UC1,
    Uint8Array.from(mask.data, (v) => (v > 0.02 ? 255 : 0)),
  );
  const result = new cv.Mat();
  cv.inpaint(rgb, marked, result, 5, cv[method]);
  const out = createRgba(picture.width, picture.height);
  for (let i = 0; i < picture.width * picture.height; i++)
    out.data.set([result.data[i * 3], result.data[i * 3 + 1], result.data[i * 3 + 2], 255], i * 4);
  for (const mat of [rgba, rgb, marked, result]) mat.delete();
  return out;
}
