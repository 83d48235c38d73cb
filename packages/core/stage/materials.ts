/** Materials made from a seed, as functions of a place in millimetres. */

export const MATERIALS = ['plain', 'paper', 'plaster', 'linen', 'wood', 'terrazzo'] as const;
export type Material = (typeof MATERIALS)[number];

/** How a place differs from the material's colour: a factor on lightness and, for chips, a colour of its own. */
export interface Touch {
  light: number;
  /** 0..1 of `colour`. */
  mix: number;
  colour: readonly [number, number, number];
}

/** A whole number's hash as 0..1 (after Jarzynski and Olano 2020, pcg). */
export function chance(x: number, y: number, seed: number): number {
  let h = (Math.imul(x, 747796405) + Math.imul(y, 2891336453) + Math.imul(seed, 277803737)) | 0;
  h = Math.imul(h ^ (h >>> 16), 2246822519);
  h = Math.imul(h ^ (h >>> 13), 3266489917);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Value noise, -1..1, smooth between whole numbers. */
export function noise(x: number, y: number, seed: number): number {
  const ix = Math.floor(x);
  const iy = Math.floor(y);
  const fx = x - ix;
  const fy = y - iy;
  const u = fx * fx * (3 - 2 * fx);
  const v = fy * fy * (3 - 2 * fy);
  const top = chance(ix, iy, seed) * (1 - u) + chance(ix + 1, iy, seed) * u;
  const bottom = chance(ix, iy + 1, seed) * (1 - u) + chance(ix + 1, iy + 1, seed) * u;
  return (top * (1 - v) + bottom * v) * 2 - 1;
}

/** Octaves of noise; those finer than a pixel are left out, so that nothing shimmers in the distance. */
export function octaves(
  x: number,
  y: number,
  seed: number,
  period: number,
  count: number,
  pixel: number,
): number {
  let sum = 0;
  let weight = 1;
  let total = 0;
  for (let i = 0; i < count; i++) {
    const seen = Math.min(1, Math.max(0, period / (2 * pixel) - 0.5));
    if (seen > 0) sum += noise(x / period, y / period, seed + i) * weight * seen;
    total += weight;
    weight *= 0.55;
    period *= 0.5;
  }
  return sum / total;
}

const WHITE: readonly [number, number, number] = [255, 255, 255];
const CHIPS: readonly (readonly [number, number, number])[] = [
  [222, 214, 200],
  [148, 126, 104],
  [96, 104, 98],
  [190, 150, 120],
  [236, 232, 224],
  [120, 90, 74],
];

/** @param pixel millimetres per pixel of the picture at this place */
type Surface = (x: number, y: number, seed: number, pixel: number) => Touch;

const plainly = (light: number): Touch => ({ light, mix: 0, colour: WHITE });
const seen = (period: number, pixel: number) => Math.min(1, Math.max(0, period / (2.2 * pixel) - 0.35));

export const SURFACES: Record<Material, Surface> = {
  plain: () => plainly(1),
  paper: (x, y, seed, pixel) =>
    plainly(1 + 0.016 * octaves(x, y, seed, 1.4, 3, pixel) + 0.012 * octaves(x, y, seed + 9, 160, 2, pixel)),
  plaster(x, y, seed, pixel) {
    // A float drawn over it in arcs: the relief is stretched along them.
    const bend = octaves(x, y, seed + 3, 240, 2, pixel) * 46;
    const relief = octaves((x + bend) * 0.42, y + bend * 0.8, seed, 26, 5, pixel);
    return plainly(1 + 0.07 * relief + 0.035 * octaves(x, y, seed + 7, 190, 2, pixel));
  },
  linen(x, y, seed, pixel) {
    const period = 1.15;
    const sway = 0.32 * noise(x / 9, y / 9, seed);
    const u = x / period + sway + 0.22 * noise(y / 3.1, Math.floor(x / period), seed + 1);
    const v = y / period + sway + 0.22 * noise(x / 3.1, Math.floor(y / period), seed + 2);
    const over = (Math.floor(u) + Math.floor(v)) % 2 === 0;
    const thread = over ? Math.sin((u - Math.floor(u)) * Math.PI) : Math.sin((v - Math.floor(v)) * Math.PI);
    const slub = over ? chance(Math.floor(u), 0, seed) : chance(0, Math.floor(v), seed + 5);
    const close = seen(period * 1.6, pixel);
    return plainly(
      1 +
        close * (0.15 * (thread - 0.62) + 0.07 * (slub - 0.5)) +
        0.03 * octaves(x, y, seed + 4, 130, 3, pixel),
    );
  },
  wood(x, y, seed, pixel) {
    const plank = Math.floor(y / 118);
    const own = chance(plank, 1, seed);
    const along = x * 0.055 + own * 900;
    const across = y + 4 * octaves(along, y * 0.5, seed + plank, 30, 2, pixel * 0.06);
    const rings = across / (6.5 + 5 * own) + 1.6 * noise(along / 7, plank * 3.1 + y * 0.012, seed + 11);
    const ring = rings - Math.floor(rings);
    const grain = ring < 0.8 ? ring / 0.8 : (1 - ring) / 0.2;
    const fibres = octaves(x * 0.06, y, seed + 21, 1.6, 3, pixel);
    const joint = Math.min(1, (Math.abs(y / 118 - Math.round(y / 118)) * 118) / Math.max(0.9, pixel));
    return {
      light:
        (1 - 0.15 * grain * seen(7, pixel) + 0.07 * fibres + 0.14 * (own - 0.5)) *
        (0.62 + 0.38 * Math.min(1, joint)),
      mix: 0,
      colour: WHITE,
    };
  },
  terrazzo(x, y, seed, pixel) {
    const size = 15;
    const [gx, gy] = [Math.floor(x / size), Math.floor(y / size)];
    let best = 1e9;
    let chip = -1;
    for (let j = -1; j <= 1; j++)
      for (let i = -1; i <= 1; i++) {
        const [cx, cy] = [gx + i, gy + j];
        const px = (cx + 0.15 + 0.7 * chance(cx, cy, seed)) * size;
        const py = (cy + 0.15 + 0.7 * chance(cx, cy, seed + 1)) * size;
        const turn = chance(cx, cy, seed + 2) * Math.PI;
        const r = size * (0.12 + 0.36 * chance(cx, cy, seed + 3) ** 1.6);
        const [dx, dy] = [x - px, y - py];
        const u = (dx * Math.cos(turn) + dy * Math.sin(turn)) / r;
        const v = (dy * Math.cos(turn) - dx * Math.sin(turn)) / (r * (0.55 + 0.4 * chance(cx, cy, seed + 4)));
        // Broken stone: straight sides of a few directions.
        const side = Math.max(Math.abs(u), Math.abs(v), Math.abs(u * 0.7 + v * 0.72) * 1.12);
        const d = (side - 1) * r;
        if (d < best) {
          best = d;
          chip = Math.floor(chance(cx, cy, seed + 5) * CHIPS.length);
        }
      }
    const edge = Math.min(1, Math.max(0, 0.5 - best / Math.max(0.35, pixel * 1.2)));
    return {
      light: 1 + 0.03 * octaves(x, y, seed + 8, 4, 3, pixel),
      mix: edge * 0.86 * seen(size, pixel),
      colour: CHIPS[Math.max(0, chip)],
    };
  },
};
