import { blur } from '../raster/blur';
import { grow, squaredDistance } from '../raster/distance';
import {
  boundsAbove,
  createPlane,
  createRgba,
  crop,
  type Plane,
  type Rect,
  type Rgba,
} from '../raster/pixels';
import { evenSeam } from './even-seam';
import { CHANNELS, depthOf, matchPatches, vote, type PatchField, type PatchTask } from './patch-match';

/** Said when a hole cannot be filled; the message is fit to be shown. */
export class FillError extends Error {}

export interface FillOptions {
  seed?: number;
  /** Called with 0..1; throwing from it breaks off. */
  onProgress?(share: number): void;
}

/** Half a patch's side. */
const HALF = 3;
/** Surroundings that are looked through, in sides of the hole. */
const AROUND = 0.8;
const MOST_AROUND = 320;

/** The marked part is grown so far: its rim holds a mixture of what is to go and what stays. */
const RIM = 2;

/**
 * Fills a hole from its surroundings, with their texture, grain and shading: by patches from around, from coarse to
 * fine (Wexler, Shechtman and Irani 2007, "Space-time completion of video", with the search of Barnes et al. 2009,
 * "PatchMatch"), each as much lighter or darker as its new place asks for (HaCohen et al. 2011), begun from a
 * membrane across the hole (Laplace's equation).
 * @param mask 0..1 at the picture's size: what is to be filled
 */
export function fillHole(picture: Rgba, mask: Plane, { seed = 1, onProgress }: FillOptions = {}): Rgba {
  const { width, height } = picture;
  if (mask.width !== width || mask.height !== height)
    throw new FillError(
      `The mask is ${mask.width} x ${mask.height} pixels, the picture ${width} x ${height}; they must be of one size.`,
    );
  const hole = boundsAbove(mask, 0.02);
  const out = createRgba(width, height);
  out.data.set(picture.data);
  if (!hole) return out;
  const rect = surroundings(hole, picture);
  const n = rect.width * rect.height;
  const marked = new Uint8Array(n);
  for (let y = 0, i = 0; y < rect.height; y++)
    for (let x = 0; x < rect.width; x++, i++)
      marked[i] = mask.data[(rect.y + y) * width + rect.x + x] > 0.02 ? 1 : 0;
  const inside = grow(marked, rect.width, rect.height, RIM);
  const known = inside.reduce((sum, v) => sum + 1 - v, 0);
  if (known < (2 * HALF + 1) ** 2 * 4)
    throw new FillError('Almost nothing is left around to fill from. Mark a smaller part.');
  const part = crop(picture, rect);
  const texture = textureOf(part, inside);
  const task = { width: rect.width, height: rect.height, texture, inside };
  const filled = complete(task, seed, onProgress);
  evenSeam(filled, inside, rect.width, rect.height, CHANNELS, depthOf(task));
  for (let y = 0, i = 0; y < rect.height; y++) {
    let j = ((rect.y + y) * width + rect.x) * 4;
    for (let x = 0; x < rect.width; x++, i++, j += 4)
      if (inside[i]) for (let c = 0; c < 3; c++) out.data[j + c] = filled[i * CHANNELS + c];
  }
  return out;
}

/** Busyness is told in so many levels for one level of change from pixel to pixel. */
const BUSY = 4;
const BUSY_SIGMA = 5;

function textureOf({ width, height, data }: Rgba, inside: Uint8Array): Float32Array {
  const out = new Float32Array(width * height * CHANNELS);
  const across = createPlane(width, height);
  const down = createPlane(width, height);
  const seen = createPlane(width, height);
  const grey = (i: number) => data[i * 4] * 0.3 + data[i * 4 + 1] * 0.6 + data[i * 4 + 2] * 0.1;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (inside[i]) continue;
      for (let c = 0; c < 3; c++) out[i * CHANNELS + c] = data[i * 4 + c];
      if (x + 1 >= width || y + 1 >= height || inside[i + 1] || inside[i + width]) continue;
      seen.data[i] = 1;
      across.data[i] = Math.abs(grey(i + 1) - grey(i));
      down.data[i] = Math.abs(grey(i + width) - grey(i));
    }
  const weight = blur(seen, BUSY_SIGMA).data;
  [across, down].forEach((plane, k) => {
    const mean = blur(plane, BUSY_SIGMA).data;
    for (let i = 0; i < mean.length; i++)
      if (!inside[i] && weight[i] > 1e-4) out[i * CHANNELS + 3 + k] = (BUSY * mean[i]) / weight[i];
  });
  return out;
}

function surroundings(hole: Rect, { width, height }: Rgba): Rect {
  const reach = Math.min(MOST_AROUND, Math.max(48, Math.round(Math.max(hole.width, hole.height) * AROUND)));
  const x = Math.max(0, hole.x - reach);
  const y = Math.max(0, hole.y - reach);
  return {
    x,
    y,
    width: Math.min(width, hole.x + hole.width + reach) - x,
    height: Math.min(height, hole.y + hole.height + reach) - y,
  };
}

/** The hole of a coarse level begun from a membrane: Laplace's equation by successive over-relaxation. */
function membrane({ width, height, texture, inside }: PatchTask): void {
  const mean = new Array<number>(CHANNELS).fill(0);
  let known = 0;
  for (let i = 0; i < inside.length; i++)
    if (!inside[i]) {
      for (let c = 0; c < CHANNELS; c++) mean[c] += texture[i * CHANNELS + c];
      known++;
    }
  for (let i = 0; i < inside.length; i++)
    if (inside[i])
      for (let c = 0; c < CHANNELS; c++) texture[i * CHANNELS + c] = mean[c] / Math.max(1, known);
  const right = width > 1 ? CHANNELS : 0;
  const down = height > 1 ? width * CHANNELS : 0;
  for (let round = 0; round < 300; round++) {
    let change = 0;
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++) {
        if (!inside[i]) continue;
        const j = i * CHANNELS;
        const l = x > 0 ? j - CHANNELS : j + right;
        const r = x + 1 < width ? j + CHANNELS : j - right;
        const t = y > 0 ? j - width * CHANNELS : j + down;
        const b = y + 1 < height ? j + width * CHANNELS : j - down;
        for (let c = 0; c < CHANNELS; c++) {
          const value = (texture[l + c] + texture[r + c] + texture[t + c] + texture[b + c]) / 4;
          const step = 1.8 * (value - texture[j + c]);
          texture[j + c] += step;
          change = Math.max(change, Math.abs(step));
        }
      }
    if (change < 0.05) break;
  }
}

/** Completes the texture from coarse to fine. */
function complete(task: PatchTask, seed: number, onProgress?: (share: number) => void): Float32Array {
  const levels = [task];
  while (
    holeSize(levels[levels.length - 1]) > 3 * HALF &&
    Math.min(levels[levels.length - 1].width, levels[levels.length - 1].height) > 8 * HALF
  )
    levels.push(halved(levels[levels.length - 1]));
  membrane(levels[levels.length - 1]);
  let field: PatchField | null = null;
  let cost = 0;
  const all = levels.reduce((s, l, i) => s + rounds(i, levels.length) * l.width * l.height, 0);
  for (let level = levels.length - 1; level >= 0; level--) {
    const at = levels[level];
    const wander = seed * 31 + level;
    if (field) {
      carryDown(levels[level + 1], at);
      // Sharpness comes from the patches of this level, not from what was blurred above.
      field = matchPatches(at, HALF, wander, 0, 0, enlarged(field, at));
      vote(at, field, HALF, true);
    }
    const count = rounds(level, levels.length);
    for (let round = 0; round < count; round++) {
      field = matchPatches(at, HALF, wander + round * 7, ...search(level, levels.length, at), field);
      vote(at, field, HALF, level === 0 && round === count - 1);
      cost += at.width * at.height;
      onProgress?.(cost / all);
    }
  }
  return task.texture;
}

const rounds = (level: number, levels: number) =>
  level === 0 ? 1 : level === levels - 1 ? 12 : level === 1 ? 2 : 4;

/** Sweeps and how far they look: everywhere where that is cheap, nearby where places are known already. */
function search(level: number, levels: number, { width, height }: PatchTask): [number, number] {
  const far = Math.max(width, height) / 2;
  if (level === 0) return [1, 3];
  if (level === 1 && levels > 2) return [2, 12];
  return [3, far];
}

/** How deep a hole is: the longest way out of it. */
function holeSize({ inside, width, height }: PatchTask): number {
  const outside = new Uint8Array(inside.length);
  for (let i = 0; i < inside.length; i++) outside[i] = inside[i] ? 0 : 1;
  const d = squaredDistance(outside, width, height);
  let most = 0;
  for (let i = 0; i < d.length; i++) if (inside[i]) most = Math.max(most, d[i]);
  return Math.sqrt(most);
}

function halved({ width, height, texture, inside }: PatchTask): PatchTask {
  const w = Math.ceil(width / 2);
  const h = Math.ceil(height / 2);
  const out: PatchTask = {
    width: w,
    height: h,
    texture: new Float32Array(w * h * CHANNELS),
    inside: new Uint8Array(w * h),
  };
  for (let y = 0, o = 0; y < h; y++)
    for (let x = 0; x < w; x++, o++) {
      let n = 0;
      let open = 0;
      for (let dy = 0; dy < 2; dy++)
        for (let dx = 0; dx < 2; dx++) {
          const [px, py] = [x * 2 + dx, y * 2 + dy];
          if (px >= width || py >= height) continue;
          const i = py * width + px;
          if (inside[i]) open++;
          else {
            n++;
            for (let c = 0; c < CHANNELS; c++) out.texture[o * CHANNELS + c] += texture[i * CHANNELS + c];
          }
        }
      out.inside[o] = open ? 1 : 0;
      if (open) out.texture.fill(0, o * CHANNELS, (o + 1) * CHANNELS);
      else for (let c = 0; c < CHANNELS; c++) out.texture[o * CHANNELS + c] /= n;
    }
  return out;
}

/** What a level half as large made of the hole, as this level's beginning. */
function carryDown(from: PatchTask, to: PatchTask): void {
  for (let y = 0, i = 0; y < to.height; y++)
    for (let x = 0; x < to.width; x++, i++) {
      if (!to.inside[i]) continue;
      const sx = Math.min(from.width - 1.001, Math.max(0, (x + 0.5) / 2 - 0.5));
      const sy = Math.min(from.height - 1.001, Math.max(0, (y + 0.5) / 2 - 0.5));
      const k = (Math.floor(sy) * from.width + Math.floor(sx)) * CHANNELS;
      const [fx, fy] = [sx - Math.floor(sx), sy - Math.floor(sy)];
      const below = from.width * CHANNELS;
      for (let c = 0; c < CHANNELS; c++)
        to.texture[i * CHANNELS + c] =
          (from.texture[k + c] * (1 - fx) + from.texture[k + CHANNELS + c] * fx) * (1 - fy) +
          (from.texture[k + below + c] * (1 - fx) + from.texture[k + below + CHANNELS + c] * fx) * fy;
    }
}

/** The field of a level half as large, for this one. */
function enlarged(field: PatchField, { width, height }: PatchTask): PatchField {
  const out: PatchField = {
    width,
    height,
    sx: new Int16Array(width * height),
    sy: new Int16Array(width * height),
    cost: new Float32Array(width * height),
  };
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const k = Math.min(field.height - 1, y >> 1) * field.width + Math.min(field.width - 1, x >> 1);
      out.sx[i] = field.sx[k] * 2 + (x & 1);
      out.sy[i] = field.sy[k] * 2 + (y & 1);
    }
  return out;
}
