import { differenceCiede2000 } from 'culori';
import { fromLinear, LINEAR } from '../raster/colour';
import { createRgba, type Plane, type Rgba } from '../raster/pixels';
import type { BodyNormals } from './body-normals';
import { shadingAt, type OwnShading } from './own-shading';
import type { SceneLight } from './scene-light';

/** How many times the light of the photo falls on each place: three numbers a pixel, linear. */
export interface LightChange {
  width: number;
  height: number;
  data: Float32Array;
  /** What a shiny surface mirrors besides: linear light, three numbers a pixel; may take away. */
  added?: Float32Array;
  /** Windows of the studio, and the share of them that is taken away: what is brighter than the paint under them. */
  windows?: { near: Float32Array; paint: Float32Array };
}

/** The light on a product in a well exposed photo, on average; 1 shows a white surface just white. */
const PHOTO = 0.75;
/** How much of the light from all over is missing in the corner of product and ground. */
const CREASE = 0.45;
/** How far up that corner reaches, in heights of the product. */
const CREASE_HEIGHT = 0.03;

/**
 * What laying a scene's light on a product in place of its photo's own does to each place of it: the light that falls
 * on the body's normal there (a light of some size, the sky, what the ground throws back, less of both in the corner
 * where the product meets the ground) over the photo's own shading.
 * @param strength 0 leaves the photo's light, 1 lays on the scene's
 * @param footY the row of the base's middle, in pixels of the normals; Infinity where nothing of it is near the ground
 * @param shade the share of the light itself, not of the sky, that the scene keeps from each place; as large as the normals
 */
export function lightChange(
  normals: BodyNormals,
  own: OwnShading,
  scene: SceneLight,
  strength: number,
  footY: number,
  shade: Plane | null = null,
): LightChange {
  const { width, height } = normals;
  const out = new Float32Array(width * height * 3).fill(1);
  const n = normals.data;
  const [lx, ly, lz] = scene.to;
  const [ux, uy, uz] = scene.up;
  for (let y = 0; y < height; y++) {
    // Near the foot the ground is in the product's own shade, and so is the product.
    const rise = footY < Infinity ? Math.max(0, footY - y) / Math.max(1, footY) : 1;
    const open = 1 - CREASE * Math.exp(-rise / CREASE_HEIGHT);
    for (let x = 0; x < width; x++) {
      const j = (y * width + x) * 3;
      const [nx, ny, nz] = [n[j], n[j + 1], n[j + 2]];
      if (!nx && !ny && !nz) continue;
      const lit = shade ? 1 - shade.data[y * width + x] : 1;
      const facing = facingLight(nx * lx + ny * ly + nz * lz, scene.size) * lit;
      const raised = nx * ux + ny * uy + nz * uz;
      const above = ((1 + raised) / 2) * (0.5 + 0.5 * open);
      const below = ((1 - raised) / 2) * open;
      const before = PHOTO * shadingAt(own, nx, ny, nz);
      for (let c = 0; c < 3; c++) {
        const falls = scene.key[c] * facing + scene.sky[c] * above + scene.bounce[c] * below;
        const times = Math.max(0.02, falls / before);
        out[j + c] = strength === 1 ? times : times ** strength;
      }
    }
  }
  extend(out, normals);
  // A box's faces meet in an edge; all else is round, and steps of the grid are none of it.
  return {
    width,
    height,
    data: normals.kind === 'box' ? out : smoothed(smoothed(out, width, height), width, height),
  };
}

const rims = new WeakMap<Float32Array, Int32Array>();

/** Carries what the silhouette's rim has a few pixels beyond it, so that spreading it over the picture leaves no seam. */
function extend(out: Float32Array, normals: BodyNormals): void {
  let rim = rims.get(normals.data);
  if (!rim) rims.set(normals.data, (rim = rimOf(normals)));
  for (let k = 0; k < rim.length; k += 2)
    for (let c = 0; c < 3; c++) out[rim[k] * 3 + c] = out[rim[k + 1] * 3 + c];
}

/** Each place's mean with its four neighbours. */
export function smoothed(data: Float32Array, width: number, height: number): Float32Array {
  const out = data.slice();
  const row = width * 3;
  for (let y = 1; y < height - 1; y++)
    for (let j = y * row + 3; j < (y + 1) * row - 3; j++)
      out[j] = (data[j] * 2 + data[j - 3] + data[j + 3] + data[j - row] + data[j + row]) / 6;
  return out;
}

/**
 * Pairs of a pixel at or beyond the silhouette's rim and one beside it that is known by then, outward in rings. The rim's
 * own normals, of pixels half covered, are not believed.
 */
function rimOf({ width, height, data: n }: BodyNormals): Int32Array {
  const has = (i: number) => (n[i * 3] || n[i * 3 + 1] || n[i * 3 + 2] ? 1 : 0);
  const inner = (i: number) => has(i) && has(i - 1) && has(i + 1) && has(i - width) && has(i + width);
  let known = Uint8Array.from({ length: width * height }, (_, i) => (inner(i) ? 1 : 0));
  // What is too thin for an inner pixel keeps its own.
  if (!known.includes(1)) known = known.map((_, i) => has(i));
  const pairs: number[] = [];
  for (let ring = 0; ring < 5; ring++) {
    const before = known.slice();
    for (let i = 0; i < before.length; i++) {
      if (before[i]) continue;
      const x = i % width;
      const beside = [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width];
      const from = beside.find((q) => q >= 0 && q < before.length && before[q]);
      if (from === undefined) continue;
      known[i] = 1;
      pairs.push(i, from);
    }
  }
  return Int32Array.from(pairs);
}

/** How much of a light of some size falls on a surface: its cosine, and a soft end where the light sets behind it. */
function facingLight(cosine: number, size: number): number {
  if (cosine >= size) return cosine;
  if (cosine <= -size) return 0;
  return ((cosine + size) * (cosine + size)) / (4 * size);
}

/** Steps of linear light to bytes: fine where the eye is. */
const BYTES = (() => {
  const table = new Uint8ClampedArray(4097);
  for (let i = 0; i <= 4096; i++) table[i] = Math.round(fromLinear((i / 4096) ** 2));
  return table;
})();

/**
 * A cutout under changed light: linear light times the change, which is spread over the picture; what becomes brighter
 * than white is bent under it.
 */
export function relit(picture: Rgba, change: LightChange): Rgba {
  const { width, height, data } = picture;
  const out = createRgba(width, height);
  const columns = spread(width, change.width);
  const rows = spread(height, change.height);
  const w = change.width * 3;
  const { added, windows } = change;
  for (let y = 0, i = 0; y < height; y++) {
    const top = rows.at[y] * w;
    const bottom = Math.min(change.height - 1, rows.at[y] + 1) * w;
    const v = rows.part[y];
    for (let x = 0; x < width; x++, i += 4) {
      const a = data[i + 3];
      if (!a) continue;
      out.data[i + 3] = a;
      const left = columns.at[x] * 3;
      const right = Math.min(change.width - 1, columns.at[x] + 1) * 3;
      const u = columns.part[x];
      // The nearest place of the grid: a window's paint varies little.
      const nearest = (top + left) / 3 + (u > 0.5 ? 1 : 0) + (v > 0.5 ? change.width : 0);
      const taken = windows ? windows.near[nearest] : 0;
      for (let c = 0; c < 3; c++) {
        const upper = change.data[top + left + c] * (1 - u) + change.data[top + right + c] * u;
        const lower = change.data[bottom + left + c] * (1 - u) + change.data[bottom + right + c] * u;
        let photo = LINEAR[data[i + c]];
        if (taken) {
          const over = photo - windows!.paint[nearest * 3 + c];
          if (over > 0) photo -= taken * over;
        }
        const paint = photo * (upper * (1 - v) + lower * v);
        let light = paint;
        if (added) {
          const above = added[top + left + c] * (1 - u) + added[top + right + c] * u;
          const below = added[bottom + left + c] * (1 - u) + added[bottom + right + c] * u;
          light = Math.max(0.7 * paint, paint + above * (1 - v) + below * v);
        }
        if (light > 0.8) light = 0.8 + 0.2 * (1 - 1 / (1 + (light - 0.8) / 0.2));
        out.data[i + c] = BYTES[(Math.sqrt(light) * 4096) | 0];
      }
    }
  }
  return out;
}

/** For each of `to` places the one of `from` before it, and how far on it lies. */
function spread(to: number, from: number): { at: Int32Array; part: Float32Array } {
  const at = new Int32Array(to);
  const part = new Float32Array(to);
  for (let i = 0; i < to; i++) {
    const place = Math.max(0, Math.min(from - 1, ((i + 0.5) * from) / to - 0.5));
    at[i] = Math.floor(place);
    part[i] = place - at[i];
  }
  return { at, part };
}

const difference = differenceCiede2000();

const luma = (r: number, g: number, b: number) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/**
 * A change of light whose tint is held back as far as needed for the colour alone to move no further than a limit. The
 * colour alone is what is left once both are seen in equally much light: hue and chroma, and the lightness relative to
 * the light that falls there.
 * @param seen the cutout at the change's size
 * @param limit mean delta E 2000
 */
export function withinColour(
  change: LightChange,
  seen: Rgba,
  limit: number,
): { change: LightChange; drift: number; held: boolean; light: number; tint: number } {
  const light = meanLight(change, seen);
  const drift = colourMove(change, seen);
  if (drift <= limit) return { change, drift, held: false, light, tint: 1 };
  let [low, high] = [0, 1];
  for (let i = 0; i < 7; i++) {
    const middle = (low + high) / 2;
    if (colourMove(tinted(change, middle), seen) <= limit) low = middle;
    else high = middle;
  }
  const held = tinted(change, low);
  return { change: held, drift: colourMove(held, seen), held: true, light, tint: low };
}

/** The same change with a share of its tint. */
export function tinted(change: LightChange, share: number): LightChange {
  const { data } = change;
  const out = new Float32Array(data.length);
  for (let j = 0; j < data.length; j += 3) {
    const level = luma(data[j], data[j + 1], data[j + 2]);
    for (let c = 0; c < 3; c++) out[j + c] = level * (data[j + c] / level) ** share;
  }
  return { ...change, data: out };
}

function meanLight({ data }: LightChange, seen: Rgba): number {
  let [before, after] = [0, 0];
  for (let i = 0; i < seen.width * seen.height; i++) {
    if (seen.data[i * 4 + 3] < 200) continue;
    const [r, g, b] = [0, 1, 2].map((c) => LINEAR[seen.data[i * 4 + c]]);
    before += luma(r, g, b);
    after += luma(r * data[i * 3], g * data[i * 3 + 1], b * data[i * 3 + 2]);
  }
  return before > 0 ? after / before : 1;
}

/** Mean delta E 2000 between a cutout's colours and the same under a change of light, both in equally much light. */
function colourMove({ data }: LightChange, seen: Rgba): number {
  const n = seen.width * seen.height;
  const stride = Math.max(1, Math.floor(n / 900));
  let sum = 0;
  let count = 0;
  for (let i = 0; i < n; i += stride) {
    if (seen.data[i * 4 + 3] < 200) continue;
    const before = [0, 1, 2].map((c) => LINEAR[seen.data[i * 4 + c]]);
    const after = before.map((v, c) => v * data[i * 3 + c]);
    const k = luma(before[0], before[1], before[2]) / Math.max(1e-6, luma(after[0], after[1], after[2]));
    const [p, q] = [before, after.map((v) => Math.min(1, v * k))].map(([r, g, b]) => ({
      mode: 'lrgb' as const,
      r,
      g,
      b,
    }));
    sum += difference(p, q);
    count++;
  }
  return count ? sum / count : 0;
}
