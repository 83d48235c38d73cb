import { blur } from '../raster/blur';
import { createPlane, type Plane } from '../raster/pixels';
import { spanAt, type Body, type Layer } from './body';
import { shadowFalls, type Light } from './light';

/** A shadow as it lies on the plane: 0..1 of the light taken, in a grid of millimetres about the product's base. */
export interface GroundShadow {
  plane: Plane;
  /** Where the grid begins: left, and nearest to the camera. Rows run away from the camera. */
  x0: number;
  y0: number;
  mmPerPx: number;
  /** The hard shadow by each point of the light, 0..255 in the same grid, for what is upright behind its ground. */
  each?: { falls: { x: number; y: number; cover: Uint8Array }[]; height: number };
}

export interface CastOptions {
  light: Light;
  /** How far the body floats above the plane, in mm. */
  lift?: number;
  /** Times the length that the light gives. */
  length?: number;
  /** Points of the light that are tried; few for a shadow while dragging. */
  samples?: number;
  /** Long side of the grid's cells that span the body's width. */
  cells?: number;
  /** Whether the shadow by each point of the light is kept. */
  each?: boolean;
}

/** A shadow is cut off at so many heights of its body. */
const LONGEST = 4.5;
/** Most cells of a grid's side. */
const MOST = 420;

/**
 * The shadow that a body casts on the plane under an area light: for each of several points of the light the
 * levels' shapes fall by their height, their union is one hard shadow, and all are averaged. Penumbrae thus widen
 * in proportion to the height that casts them (area light sampling, Cook, Porter and Carpenter 1984).
 */
export function castShadow(body: Body, options: CastOptions): GroundShadow {
  const { light, lift = 0, length = 1, samples = 28, cells = 72, each = false } = options;
  const hard: Uint8Array[] = [];
  const falls = shadowFalls(light, samples, length).map(({ x, y }) => {
    const far = Math.hypot(x, y);
    return far > LONGEST ? { x: (x * LONGEST) / far, y: (y * LONGEST) / far } : { x, y };
  });
  const layers = [...body.layers, ...(body.clear ?? [])];
  const groups = byOpacity(layers);
  const { left, right, near, far } = reach(layers, falls, lift);
  if (!(right > left)) return { plane: createPlane(1, 1), x0: 0, y0: 0, mmPerPx: 1 };
  const span = Math.max(...layers.map((l) => l.right)) - Math.min(...layers.map((l) => l.left));
  const mmPerPx = Math.max(span / cells, (right - left) / MOST, (far - near) / MOST, 0.05);
  const pad = 3;
  const x0 = left - pad * mmPerPx;
  const y0 = near - pad * mmPerPx;
  const width = Math.ceil((right - left) / mmPerPx) + 2 * pad;
  const height = Math.ceil((far - near) / mmPerPx) + 2 * pad;
  const sum = createPlane(width, height);
  const grid = { x0, y0, mmPerPx, width, height };
  const scratch = { ends: new Float32Array((width + 2) * height), one: new Float32Array(width * height) };
  for (const fall of falls) {
    const one = hardShadow(body, groups, { x: fall.x, y: fall.y, lift }, grid, scratch);
    for (let i = 0; i < one.length; i++) sum.data[i] += one[i];
    if (each) hard.push(Uint8Array.from(one, (v) => v * 255));
  }
  for (let i = 0; i < sum.data.length; i++) sum.data[i] /= falls.length;
  const tall = layers.reduce((most, l) => Math.max(most, l.z), 0) + lift;
  // Each point stands for a part of the light: what lies between two of their shadows is smooth.
  const between = (apart(falls) * tall * 0.6) / mmPerPx;
  return {
    plane: blur(sum, 0.7),
    x0,
    y0,
    mmPerPx,
    ...(each && {
      each: {
        falls: falls.map((fall, i) => ({ ...fall, cover: soft(hard[i], width, height, between) })),
        height: tall,
      },
    }),
  };
}

interface Grid {
  x0: number;
  y0: number;
  mmPerPx: number;
  width: number;
  height: number;
}

/** The shadow by one point of the light: what light its rays lose in every kind of levels that they pass, 0..1. */
function hardShadow(
  body: Body,
  groups: [opacity: number, layers: Layer[]][],
  fall: { x: number; y: number; lift: number },
  { x0, y0, mmPerPx, width, height }: Grid,
  { ends, one }: { ends: Float32Array; one: Float32Array },
): Float32Array {
  one.fill(0);
  for (const [opacity, layers] of groups) {
    // Spans of a row are noted by their ends, with the share of the cell they cover; their running sum is the cover.
    ends.fill(0);
    for (const layer of layers) {
      const h = layer.z + fall.lift;
      const cx = (layer.left + layer.right) / 2 + fall.x * h;
      const cy = fall.y * h;
      const b = Math.max(layer.halfDepth, mmPerPx * 0.55);
      const first = Math.max(0, Math.ceil((cy - b - y0) / mmPerPx - 0.5));
      const last = Math.min(height - 1, Math.floor((cy + b - y0) / mmPerPx - 0.5));
      for (let y = first; y <= last; y++) {
        const span = spanAt(body, layer, (y + 0.5) * mmPerPx + y0 - cy, mmPerPx * 0.55);
        if (!span) continue;
        const from = (cx + span[0] - x0) / mmPerPx;
        const to = (cx + span[1] - x0) / mmPerPx;
        if (to <= 0 || from >= width) continue;
        begin(ends, y * (width + 2), from, 1, width);
        begin(ends, y * (width + 2), to, -1, width);
      }
    }
    for (let y = 0; y < height; y++) {
      let cover = 0;
      const row = y * (width + 2);
      for (let x = 0; x < width; x++) {
        cover += ends[row + x];
        if (cover <= 0.001) continue;
        const i = y * width + x;
        one[i] = 1 - (1 - one[i]) * (1 - opacity * Math.min(1, cover));
      }
    }
  }
  return one;
}

/** Levels by how much of the light they keep, in steps of a sixteenth. */
function byOpacity(layers: Layer[]): [opacity: number, layers: Layer[]][] {
  const groups = new Map<number, Layer[]>();
  for (const layer of layers) {
    const opacity = Math.max(1, Math.round((layer.opacity ?? 1) * 16)) / 16;
    const alike = groups.get(opacity);
    if (alike) alike.push(layer);
    else groups.set(opacity, [layer]);
  }
  return [...groups];
}

/** How far the shadows of all levels reach on the plane. */
function reach(layers: Body['layers'], falls: { x: number; y: number }[], lift: number) {
  let [left, right, near, far] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const fall of falls)
    for (const layer of layers) {
      const h = layer.z + lift;
      left = Math.min(left, layer.left + fall.x * h);
      right = Math.max(right, layer.right + fall.x * h);
      near = Math.min(near, fall.y * h - layer.halfDepth);
      far = Math.max(far, fall.y * h + layer.halfDepth);
    }
  return { left, right, near, far };
}

/** How far apart the falls of neighbouring points of the light lie, for each unit of height: they fill an ellipse evenly. */
function apart(falls: { x: number; y: number }[]): number {
  const n = falls.length;
  const [mx, my] = [falls.reduce((s, f) => s + f.x, 0) / n, falls.reduce((s, f) => s + f.y, 0) / n];
  let [xx, yy, xy] = [0, 0, 0];
  for (const { x, y } of falls) {
    xx += (x - mx) ** 2 / n;
    yy += (y - my) ** 2 / n;
    xy += ((x - mx) * (y - my)) / n;
  }
  return Math.sqrt((4 * Math.PI * Math.sqrt(Math.max(0, xx * yy - xy * xy))) / n);
}

/** A cover meaned over a square of so many cells, along its rows and then its columns. */
function soft(cover: Uint8Array, width: number, height: number, side: number): Uint8Array {
  const radius = Math.round(side / 2);
  if (radius < 1) return cover;
  const rows = new Uint8Array(cover.length);
  const out = new Uint8Array(cover.length);
  const along = (from: Uint8Array, to: Uint8Array, start: number, step: number, count: number) => {
    const all = 1 / (2 * radius + 1);
    let sum = 0;
    for (let i = 0; i < Math.min(radius, count); i++) sum += from[start + i * step];
    for (let i = 0, at = start; i < count; i++, at += step) {
      if (i + radius < count) sum += from[at + radius * step];
      if (i - radius - 1 >= 0) sum -= from[at - (radius + 1) * step];
      to[at] = sum * all + 0.5;
    }
  };
  for (let y = 0; y < height; y++) along(cover, rows, y * width, 1, width);
  for (let x = 0; x < width; x++) along(rows, out, x, width, height);
  return out;
}

/** Notes a span's end at a fractional cell. */
function begin(ends: Float32Array, row: number, at: number, sign: number, width: number): void {
  const x = Math.min(width, Math.max(0, at));
  const cell = Math.floor(x);
  const part = 1 - (x - cell);
  ends[row + cell] += sign * part;
  ends[row + cell + 1] += sign * (1 - part);
}

/** A shadow in other units: every length times `k`. */
export function scaledShadow({ plane, x0, y0, mmPerPx, each }: GroundShadow, k: number): GroundShadow {
  return {
    plane,
    x0: x0 * k,
    y0: y0 * k,
    mmPerPx: mmPerPx * k,
    ...(each && { each: { falls: each.falls, height: each.height * k } }),
  };
}

/**
 * The shadow at a place of something upright, right of, away from and above the body's base: the light's rays that end
 * there would have ended on the ground behind it, where the hard shadow of each is known. What the light meets before the
 * body keeps its light.
 */
export function shadowOnUpright(shadow: GroundShadow, x: number, y: number, z: number): number {
  const { plane, x0, y0, mmPerPx, each } = shadow;
  if (!each || z > each.height) return 0;
  const { width, height } = plane;
  let sum = 0;
  for (const fall of each.falls) {
    if (x * fall.x + y * fall.y <= 0) continue;
    const gx = (x + fall.x * z - x0) / mmPerPx - 0.5;
    const gy = (y + fall.y * z - y0) / mmPerPx - 0.5;
    const [u, v] = [Math.floor(gx), Math.floor(gy)];
    if (u < 0 || v < 0 || u + 1 >= width || v + 1 >= height) continue;
    const [du, dv] = [gx - u, gy - v];
    const { cover } = fall;
    const i = v * width + u;
    sum +=
      (cover[i] * (1 - du) + cover[i + 1] * du) * (1 - dv) +
      (cover[i + width] * (1 - du) + cover[i + width + 1] * du) * dv;
  }
  return sum / 255 / each.falls.length;
}

/** A flat thing's shadow: its own outline, moved by its thickness and softened, in the same grid. */
export function castFlatShadow(
  alpha: Plane,
  mmPerPx: { x: number; y: number },
  thickness: number,
  options: CastOptions,
): GroundShadow {
  const { light, lift = 0, length = 1, samples = 16 } = options;
  const falls = shadowFalls(light, samples, length);
  const cell = mmPerPx.x;
  const tall = (alpha.height * mmPerPx.y) / cell;
  const room =
    Math.ceil(Math.max(...falls.map((f) => Math.hypot(f.x, f.y))) * ((thickness + lift) / cell)) + 4;
  const width = alpha.width + 2 * room;
  const height = Math.ceil(tall) + 2 * room;
  const out = createPlane(width, height);
  for (const fall of falls) {
    const dx = (fall.x * (thickness + lift)) / cell;
    const dy = (fall.y * (thickness + lift)) / cell;
    for (let y = 0; y < height; y++) {
      // Rows of the grid run away from the camera, those of the picture toward it.
      const row = Math.floor(alpha.height - ((y - room - dy) * alpha.height) / tall);
      if (row < 0 || row >= alpha.height) continue;
      for (let x = 0; x < width; x++) {
        const column = Math.round(x - room - dx);
        if (column >= 0 && column < alpha.width)
          out.data[y * width + x] += alpha.data[row * alpha.width + column];
      }
    }
  }
  for (let i = 0; i < out.data.length; i++) out.data[i] /= falls.length;
  return {
    plane: blur(out, 0.8),
    x0: -((alpha.width / 2) * cell) - room * cell,
    y0: -((tall / 2) * cell) - room * cell,
    mmPerPx: cell,
  };
}
