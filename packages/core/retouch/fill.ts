import { blur } from '../raster/blur';
import { grow } from '../raster/distance';
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
import { extendInward } from './extend';
import { likeliest, localMean } from './likeliest';
import { CHANNELS, depthOf, matchPatches, vote, type PatchField, type PatchTask } from './patch-match';
import { carryDown, enlarged, halved, holeSize, membrane } from './pyramid';

/** Said when a hole cannot be filled; the message is fit to be shown. */
export class FillError extends Error {}

export interface FillOptions {
  seed?: number;
  /**
   * 0..1: how much of the texture that nobody can know is made up. 0 leaves the likeliest picture, which errs least; 1 is
   * as crisp as the surroundings.
   */
  texture?: number;
  /** Called with 0..1; throwing from it breaks off. */
  onProgress?(share: number): void;
}

/** Half a patch's side. */
const HALF = 3;
/** Surroundings that are looked through, in sides of the hole. */
const AROUND = 0.8;
const MOST_AROUND = 320;
/**
 * What is to look right is grown so far: the rim of a mark holds a mixture of what is to go and what stays, which shows
 * as an outline. The likeliest picture leaves everything as it is that is not marked.
 */
const RIM = 2;
/** At least so much of what is looked through is to stay. */
const LEAST_KNOWN = 0.05;

/**
 * Fills a hole from its surroundings, with their texture, grain and shading: by patches from around, from coarse to
 * fine (Wexler, Shechtman and Irani 2007, "Space-time completion of video", with the search of Barnes et al. 2009,
 * "PatchMatch"), each as much lighter or darker as its new place asks for (HaCohen et al. 2011), begun from a
 * membrane across the hole (Laplace's equation). Three such tries are made at half the size; what they agree on is
 * likely (likeliest.ts), and the one nearest to that goes on to full size.
 * @param mask 0..1 at the picture's size: what is to be filled
 */
export function fillHole(
  picture: Rgba,
  mask: Plane,
  { seed = 1, texture: made = 1, onProgress }: FillOptions = {},
): Rgba {
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
  const inside = grow(marked, rect.width, rect.height, made > 0 ? RIM : 0);
  const known = inside.reduce((sum, v) => sum + 1 - v, 0);
  if (known < Math.max((2 * HALF + 1) ** 2 * 4, LEAST_KNOWN * n))
    throw new FillError('Almost nothing is left around to fill from. Mark a smaller part.');
  const texture = textureOf(crop(picture, rect), inside);
  const task = { width: rect.width, height: rect.height, texture, inside };
  const filled = complete(task, { seed, texture: made, onProgress });
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

/** The tries' mean and what the border carries inward are compared over so many pixels around a place. */
const NEAR = 8;
/** Tries that differ by a third of what both do give the border half the say. */
const GIVE_WAY = 3;
/** Fillings that are tried: down to half the size at most, and in a large hole to where it has so many pixels. */
const TRIES = 3;
const TRIED = 3000;

/** The task and the same at half the size, and so on, while there is something to be found at that size. */
function levelsOf(task: PatchTask): PatchTask[] {
  const levels = [task];
  for (;;) {
    const last = levels[levels.length - 1];
    if (!(holeSize(last) > 3 * HALF && Math.min(last.width, last.height) > 8 * HALF)) return levels;
    levels.push(halved(last));
  }
}

/** The level down to which fillings are tried. */
function triedAt(levels: readonly PatchTask[]): number {
  const small = (level: PatchTask) => level.inside.reduce((sum, v) => sum + v, 0) <= TRIED;
  const found = levels.findIndex((level, i) => i > 0 && small(level));
  return found < 0 ? levels.length - 1 : found;
}

/**
 * Completes the texture from coarse to fine: several tries down to half the size or less, of which the likeliest
 * picture is made; with `made` above 0 the try nearest to that goes on to full size, and lends so much of its texture.
 */
function complete(
  task: PatchTask,
  { seed, texture: made, onProgress }: Required<Pick<FillOptions, 'seed' | 'texture'>> & FillOptions,
): Float32Array {
  const levels = levelsOf(task);
  const stop = triedAt(levels);
  const crisp = made > 0;
  const sizes = levels.map((l, i) => effort(i, levels.length, crisp, l).rounds * l.width * l.height);
  const coarse = sizes.slice(stop).reduce((a, b) => a + b, 0);
  const all = TRIES * coarse + (crisp ? sizes.slice(0, stop).reduce((a, b) => a + b, 0) : 0);
  let cost = 0;
  const tick = (size: number) => onProgress?.(Math.min(1, (cost += size) / all));
  const at = levels[stop];
  const tries = Array.from({ length: TRIES }, (_, n) => {
    membrane(levels[levels.length - 1]);
    const field = descend(levels, levels.length - 1, stop, {
      seed: seed + n * 101,
      field: null,
      crisp,
      tick,
    });
    return { field, texture: at.texture.slice(), colour: colourOf(at) };
  });
  const likely = likeliest(
    tries.map((t) => t.colour),
    at.inside,
    at.width,
    at.height,
  );
  if (crisp) {
    const best = tries.reduce((a, b) =>
      apart(b.colour, likely.colour) < apart(a.colour, likely.colour) ? b : a,
    );
    at.texture.set(best.texture);
    if (stop > 0) descend(levels, stop - 1, 0, { seed, field: best.field, crisp, tick });
  }
  return mixed(levels, stop, likely, made);
}

/**
 * The likeliest picture, which may be of a smaller level, mixed with what the border carries inward where the tries differ
 * as much as both do, and with so much of the texture of what was completed.
 */
function mixed(
  levels: readonly PatchTask[],
  stop: number,
  likely: { colour: Float32Array; disagreement: Float32Array },
  made: number,
): Float32Array {
  const [task, at] = [levels[0], levels[stop]];
  const { width, height, inside, texture } = task;
  const sharp = made > 0 ? texture.slice() : null;
  for (let i = 0; i < at.inside.length; i++) {
    at.texture.set(likely.colour.subarray(i * 3, i * 3 + 3), i * CHANNELS);
    at.texture[i * CHANNELS + 3] = likely.disagreement[i];
  }
  for (let level = stop; level > 0; level--) carryDown(levels[level], levels[level - 1]);
  const extended = extendInward(texture, width, height, CHANNELS, depthOf(task));
  const apart = localMean(
    task,
    NEAR,
    (j) => (texture[((j / 3) | 0) * CHANNELS + (j % 3)] - extended[j]) ** 2,
  );
  for (let i = 0, j = 0; i < inside.length; i++, j += CHANNELS) {
    if (!inside[i]) continue;
    const gives = 0.5 * Math.min(1, (GIVE_WAY * texture[j + 3]) / (apart[i] + 1e-3));
    for (let c = 0; c < 3; c++) {
      texture[j + c] += gives * (extended[i * 3 + c] - texture[j + c]);
      if (sharp) texture[j + c] += made * (sharp[j + c] - texture[j + c]);
    }
  }
  return texture;
}

/** Goes down from one level to another; `field` holds the matches of the level above. */
function descend(
  levels: readonly PatchTask[],
  from: number,
  to: number,
  {
    seed,
    field: begun,
    crisp,
    tick,
  }: { seed: number; field: PatchField | null; crisp: boolean; tick(size: number): void },
): PatchField {
  let field = begun;
  for (let level = from; level >= to; level--) {
    const at = levels[level];
    const wander = seed * 31 + level;
    if (field) {
      carryDown(levels[level + 1], at);
      // Sharpness comes from the patches of this level, not from what was blurred above.
      field = matchPatches(at, HALF, wander, 0, 0, enlarged(field, at));
      vote(at, field, HALF, true);
    }
    const { rounds, sweeps, reach } = effort(level, levels.length, crisp, at);
    for (let round = 0; round < rounds; round++) {
      field = matchPatches(at, HALF, wander + round * 7, sweeps, reach, field);
      vote(at, field, HALF, level === 0 && round === rounds - 1);
      tick(at.width * at.height);
    }
  }
  return field!;
}

/** Red, green and blue of a level, three floats a pixel. */
function colourOf({ texture, inside }: PatchTask): Float32Array {
  const out = new Float32Array(inside.length * 3);
  for (let i = 0; i < inside.length; i++)
    for (let c = 0; c < 3; c++) out[i * 3 + c] = texture[i * CHANNELS + c];
  return out;
}

/** How far two pictures differ, squared. */
function apart(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let j = 0; j < a.length; j++) sum += (a[j] - b[j]) ** 2;
  return sum;
}

/** How often a level is gone over, how many sweeps each time, and how far they look, in pixels. */
interface Effort {
  rounds: number;
  sweeps: number;
  reach: number;
}

/**
 * Crisp fillings want the best match everywhere. For the likeliest picture poorer ones do as well, since their mean is
 * taken: what a long search makes alike in all tries is not therefore true.
 */
function effort(level: number, levels: number, crisp: boolean, { width, height }: PatchTask): Effort {
  const far = Math.max(width, height) / 2;
  const coarsest = level === levels - 1;
  if (level === 0) return { rounds: 1, sweeps: 1, reach: 3 };
  if (level === 1 && levels > 2) return { rounds: crisp ? 2 : 1, sweeps: crisp ? 2 : 1, reach: 12 };
  return { rounds: coarsest ? 12 : crisp ? 4 : 2, sweeps: crisp ? 3 : 1, reach: far };
}
