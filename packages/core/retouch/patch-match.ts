import { squaredDistance } from '../raster/distance';
import { seededRandom } from '../raster/random';

/** Floats a pixel: red, green, blue, and how busy the picture is there across and down. */
export const CHANNELS = 5;

/** A texture with a hole: CHANNELS floats a pixel; `inside` is 1 where it is to be completed. */
export interface PatchTask {
  width: number;
  height: number;
  texture: Float32Array;
  inside: Uint8Array;
}

/** For every patch that touches the hole, the middle of the patch that is most like it among what is known. */
export interface PatchField {
  width: number;
  height: number;
  sx: Int16Array;
  sy: Int16Array;
  /** How unlike they are; 0 where no patch is. */
  cost: Float32Array;
}

interface Geometry {
  /** Middles of patches that touch the hole, row by row. */
  targets: Int32Array;
  /** 1 where a patch lies wholly among what is known. */
  source: Uint8Array;
  sources: Int32Array;
}

const geometries = new WeakMap<Uint8Array, Geometry>();

/**
 * The nearest patches (approximately) by random search and propagation (Barnes et al. 2009).
 * @param half half a patch's side, pixels
 * @param sweeps how often all patches are gone over; 0 only mends what a given field names wrongly
 * @param reach how far a better match is looked for, pixels
 */
export function matchPatches(
  task: PatchTask,
  half: number,
  seed: number,
  sweeps: number,
  reach: number,
  begin: PatchField | null,
): PatchField {
  const { width, height } = task;
  const { targets, source, sources } = geometryOf(task, half);
  const random = seededRandom(seed);
  const field: PatchField = begin ?? {
    width,
    height,
    sx: new Int16Array(width * height).fill(-1),
    sy: new Int16Array(width * height).fill(-1),
    cost: new Float32Array(width * height),
  };
  const { sx, sy, cost } = field;
  const any = () => sources[Math.floor(random() * sources.length)];
  for (const t of targets) {
    let s = sy[t] * width + sx[t];
    if (sx[t] < 0 || sy[t] < 0 || sx[t] >= width || sy[t] >= height || !source[s]) {
      s = nearestSource(sx[t], sy[t], width, height, source) ?? any();
      sx[t] = s % width;
      sy[t] = (s - sx[t]) / width;
    }
    cost[t] = Math.max(1e-6, patchDistance(task, t, s, half, Infinity));
  }
  for (let sweep = 0; sweep < sweeps; sweep++) {
    const forward = sweep % 2 === 0;
    const step = forward ? -1 : 1;
    for (let n = 0; n < targets.length; n++) {
      const t = targets[forward ? n : targets.length - 1 - n];
      const x = t % width;
      const y = (t - x) / width;
      let best = cost[t];
      let bx = sx[t];
      let by = sy[t];
      const look = (cx: number, cy: number) => {
        if (cx < half || cy < half || cx >= width - half || cy >= height - half) return;
        const s = cy * width + cx;
        if (!source[s] || (cx === bx && cy === by)) return;
        const d = patchDistance(task, t, s, half, best);
        if (d < best) [best, bx, by] = [d, cx, cy];
      };
      // A neighbour's match, moved along.
      const nx = x + step;
      if (nx >= 0 && nx < width && sx[t + step] >= 0 && cost[t + step] > 0)
        look(sx[t + step] - step, sy[t + step]);
      const ny = y + step;
      const tn = t + step * width;
      if (ny >= 0 && ny < height && sx[tn] >= 0 && cost[tn] > 0) look(sx[tn], sy[tn] - step);
      for (let r = reach; r >= 1; r /= 3)
        look(Math.round(bx + (random() * 2 - 1) * r), Math.round(by + (random() * 2 - 1) * r));
      sx[t] = bx;
      sy[t] = by;
      cost[t] = Math.max(1e-6, best);
    }
  }
  return field;
}

/**
 * Every pixel of the hole from what the patches over it say, those most alike counting most.
 * @param crisp lets the best patch alone decide, so that grain is not averaged away
 */
export function vote(task: PatchTask, field: PatchField, half: number, crisp: boolean): void {
  const { width, height, texture, inside } = task;
  const { targets } = geometryOf(task, half);
  const distances = Float32Array.from(targets, (t) => field.cost[t]);
  const sorted = Float32Array.from(distances).sort();
  const spread = Math.max(1, sorted[Math.floor(sorted.length * 0.75)] ?? 1);
  const sum = new Float32Array(width * height * CHANNELS);
  const weight = new Float32Array(width * height);
  const depth = depthOf(task);
  // Crisp: a patch counts for its middle and little beside it.
  const wide = crisp ? 1 : half;
  const shift = new Float64Array(3);
  for (let n = 0; n < targets.length; n++) {
    const t = targets[n];
    const x = t % width;
    const y = (t - x) / width;
    levelShift(task, t, field.sy[t] * width + field.sx[t], half, shift);
    // What lies near the border is surer.
    const w = Math.exp(-distances[n] / (2 * spread)) * 1.25 ** -Math.min(24, depth[t]);
    for (let dy = -wide; dy <= wide; dy++) {
      const py = y + dy;
      if (py < 0 || py >= height) continue;
      for (let dx = -wide; dx <= wide; dx++) {
        const px = x + dx;
        if (px < 0 || px >= width) continue;
        const p = py * width + px;
        if (!inside[p]) continue;
        const s = ((field.sy[t] + dy) * width + field.sx[t] + dx) * CHANNELS;
        const q = p * CHANNELS;
        const v = crisp ? w * CRISP[dx * dx + dy * dy] : w;
        sum[q] += v * (texture[s] + shift[0]);
        sum[q + 1] += v * (texture[s + 1] + shift[1]);
        sum[q + 2] += v * (texture[s + 2] + shift[2]);
        sum[q + 3] += v * texture[s + 3];
        sum[q + 4] += v * texture[s + 4];
        weight[p] += v;
      }
    }
  }
  for (let p = 0; p < weight.length; p++)
    if (weight[p] > 0)
      for (let c = 0; c < CHANNELS; c++) texture[p * CHANNELS + c] = sum[p * CHANNELS + c] / weight[p];
}

/** What a patch counts for beside its middle where it is to be crisp, by the squared distance. */
const CRISP = [1, Math.exp(-1.2), Math.exp(-2.4)];

/** A patch may be so many levels lighter or darker than what it is taken for; more counts as unlike. */
const MOST_SHIFT = 12;
/** What a difference in level counts against one in pattern. */
const SHIFT_WEIGHT = 0.08;

/**
 * Squared difference of two patches once their levels are evened out; busyness keeps what is sharp from being taken
 * for what is blurred (Newson et al. 2014, "Video inpainting of complex scenes").
 */
function patchDistance(
  { width, height, texture }: PatchTask,
  t: number,
  s: number,
  half: number,
  limit: number,
): number {
  const tx = t % width;
  const ty = (t - tx) / width;
  const from = Math.max(-half, -tx);
  const to = Math.min(half, width - 1 - tx);
  let [square, r, g, b, n] = [0, 0, 0, 0, 0];
  let d = 0;
  for (let dy = Math.max(-half, -ty); dy <= half && ty + dy < height; dy++) {
    let i = ((ty + dy) * width + tx + from) * CHANNELS;
    let j = (s + dy * width + from) * CHANNELS;
    for (let dx = from; dx <= to; dx++, i += CHANNELS, j += CHANNELS) {
      const dr = texture[i] - texture[j];
      const dg = texture[i + 1] - texture[j + 1];
      const db = texture[i + 2] - texture[j + 2];
      const across = texture[i + 3] - texture[j + 3];
      const down = texture[i + 4] - texture[j + 4];
      square += dr * dr + dg * dg + db * db + across * across + down * down;
      r += dr;
      g += dg;
      b += db;
    }
    n += to - from + 1;
    d = square - evened(r, n) - evened(g, n) - evened(b, n);
    if (d > limit) return d;
  }
  return d;
}

/** What evening out a sum of differences over n pixels takes off the squares. */
function evened(sum: number, n: number): number {
  const shift = Math.min(MOST_SHIFT, Math.abs(sum / n));
  return (2 * Math.abs(sum) * shift - n * shift * shift) * (1 - SHIFT_WEIGHT);
}

/** By how much a patch is lighter than the one it is taken for, a channel; written to `out`. */
function levelShift(
  { width, height, texture }: PatchTask,
  t: number,
  s: number,
  half: number,
  out: Float64Array,
): void {
  const tx = t % width;
  const ty = (t - tx) / width;
  const from = Math.max(-half, -tx);
  const to = Math.min(half, width - 1 - tx);
  let n = 0;
  out.fill(0);
  for (let dy = Math.max(-half, -ty); dy <= half && ty + dy < height; dy++) {
    let i = ((ty + dy) * width + tx + from) * CHANNELS;
    let j = (s + dy * width + from) * CHANNELS;
    for (let dx = from; dx <= to; dx++, i += CHANNELS, j += CHANNELS, n++)
      for (let c = 0; c < 3; c++) out[c] += texture[i + c] - texture[j + c];
  }
  for (let c = 0; c < 3; c++) out[c] = Math.min(MOST_SHIFT, Math.max(-MOST_SHIFT, out[c] / n));
}

function geometryOf(task: PatchTask, half: number): Geometry {
  let known = geometries.get(task.inside);
  if (known) return known;
  const { width, height, inside } = task;
  const near = new Uint8Array(inside.length);
  // Whether a patch touches the hole: a running count along rows, then columns.
  const rows = new Uint8Array(inside.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      for (let d = Math.max(-half, -x); d <= Math.min(half, width - 1 - x); d++)
        if (inside[i + d]) {
          rows[i] = 1;
          break;
        }
    }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      for (let d = Math.max(-half, -y); d <= Math.min(half, height - 1 - y); d++)
        if (rows[i + d * width]) {
          near[i] = 1;
          break;
        }
    }
  const targets: number[] = [];
  const sources: number[] = [];
  const source = new Uint8Array(inside.length);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (near[i]) targets.push(i);
      else if (x >= half && y >= half && x < width - half && y < height - half) {
        source[i] = 1;
        sources.push(i);
      }
    }
  known = { targets: Int32Array.from(targets), source, sources: Int32Array.from(sources) };
  geometries.set(task.inside, known);
  return known;
}

const depths = new WeakMap<Uint8Array, Float32Array>();

/** Pixels from the hole's border, inward. */
export function depthOf({ inside, width, height }: PatchTask): Float32Array {
  let known = depths.get(inside);
  if (known) return known;
  const outside = new Uint8Array(inside.length);
  for (let i = 0; i < inside.length; i++) outside[i] = inside[i] ? 0 : 1;
  const d = squaredDistance(outside, width, height);
  known = new Float32Array(d.length);
  for (let i = 0; i < d.length; i++) known[i] = Math.sqrt(d[i]);
  depths.set(inside, known);
  return known;
}

/** A known place close to one that is not. */
function nearestSource(
  x: number,
  y: number,
  width: number,
  height: number,
  source: Uint8Array,
): number | null {
  if (x < 0 || y < 0) return null;
  for (let r = 1; r <= 4; r++)
    for (const [dx, dy] of [
      [r, 0],
      [-r, 0],
      [0, r],
      [0, -r],
      [r, r],
      [-r, -r],
    ]) {
      const [px, py] = [x + dx, y + dy];
      if (px >= 0 && py >= 0 && px < width && py < height && source[py * width + px]) return py * width + px;
    }
  return null;
}
