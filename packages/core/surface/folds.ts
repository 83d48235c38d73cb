import { blur } from '../raster/blur';
import { createPlane } from '../raster/pixels';
import { resizePlane } from '../raster/resample';
import { shiftedMap, type UvMap } from './uv-map';
import type { LightSplit } from './light-split';

/** Folds are as wide as this share of the part's side; a full fold carries the design so far. */
const FOLD_SHARE = 0.02;
const CARRY_SHARE = 0.012;

/**
 * The map bent by the surface's own relief: light that changes over the width of a fold is taken for slope, and the
 * design is carried along it (displacement mapping; Cook 1984), most where a fold is steepest.
 * @param amount 0..1
 */
export function bendByFolds(map: UvMap, split: LightSplit, amount: number): UvMap {
  if (amount <= 0) return map;
  const { width, height } = map;
  const side = Math.sqrt(width * height);
  const k = Math.max(1, Math.floor((side * FOLD_SHARE) / 3));
  const log = createPlane(Math.ceil(width / k), Math.ceil(height / k));
  for (let y = 0; y < log.height; y++)
    for (let x = 0; x < log.width; x++)
      log.data[y * log.width + x] = Math.log(
        split.smooth[Math.min(height - 1, y * k) * width + Math.min(width - 1, x * k)] + 0.01,
      );
  const sigma = (side * FOLD_SHARE) / k;
  // Log light is above zero nowhere and zero around: differences of two blurs need the same border.
  const mean = log.data.reduce((s, v) => s + v, 0) / log.data.length;
  for (let i = 0; i < log.data.length; i++) log.data[i] -= mean;
  const near = blur(log, sigma * 0.5);
  const far = blur(log, sigma * 3);
  const band = createPlane(log.width, log.height);
  let strongest = 0;
  for (let i = 0; i < band.data.length; i++) {
    band.data[i] = near.data[i] - far.data[i];
    strongest += band.data[i] ** 2;
  }
  const spread = Math.sqrt(strongest / band.data.length);
  // A surface without folds stays as it is: below a few percent of light nothing is a fold.
  const sure = Math.min(1, Math.max(0, (spread - 0.01) / 0.04));
  if (sure <= 0) return map;
  const reach = (CARRY_SHARE * side * amount * sure) / Math.max(0.03, spread * 2);
  const dx = createPlane(log.width, log.height);
  const dy = createPlane(log.width, log.height);
  for (let y = 0; y < log.height; y++)
    for (let x = 0; x < log.width; x++) {
      const i = y * log.width + x;
      const l = band.data[y * log.width + Math.max(0, x - 1)];
      const r = band.data[y * log.width + Math.min(log.width - 1, x + 1)];
      const t = band.data[Math.max(0, y - 1) * log.width + x];
      const b = band.data[Math.min(log.height - 1, y + 1) * log.width + x];
      dx.data[i] = ((r - l) / 2) * sigma * reach;
      dy.data[i] = ((b - t) / 2) * sigma * reach;
    }
  return shiftedMap(map, resizePlane(dx, width, height).data, resizePlane(dy, width, height).data);
}
