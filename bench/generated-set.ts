import sharp from 'sharp';
import { blur } from '@scenograph/core/raster/blur';
import { createPlane, createRgba, type Plane, type Rgba } from '@scenograph/core/raster/pixels';
import { decodePicture } from '@scenograph/host-node/read-picture';

export interface Made {
  name: string;
  photo: Rgba;
  truth: Plane;
}

const W = 1000;
const H = 800;

/** A repeatable pseudo-random number generator (mulberry32). */
function random(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const KINDS = [
  'gradient',
  'noise',
  'jpeg',
  'shadow',
  'low contrast',
  'busy',
  'hole',
  'fibres',
  'soft focus',
  'coloured paper',
] as const;

/** Smooth value noise of about `size` pixels, mean 0, range about -1..1. */
function valueNoise(next: () => number, size: number): Plane {
  const plane = createPlane(W, H);
  for (let i = 0; i < plane.data.length; i++) plane.data[i] = next() - 0.5;
  const smooth = blur(plane, size);
  let most = 1e-9;
  for (const v of smooth.data) most = Math.max(most, Math.abs(v));
  for (let i = 0; i < smooth.data.length; i++) smooth.data[i] /= most;
  return smooth;
}

/** True coverage of a shape by 4 x 4 samples a pixel. */
function coverage(inside: (x: number, y: number) => boolean): Plane {
  const out = createPlane(W, H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      let hits = 0;
      for (let s = 0; s < 16; s++) if (inside(x + ((s & 3) + 0.5) / 4, y + ((s >> 2) + 0.5) / 4)) hits++;
      out.data[y * W + x] = hits / 16;
    }
  return out;
}

/** One picture: a wavy shape with texture and shading on a backdrop of its kind, by a known alpha. */
async function make(index: number): Promise<Made> {
  const kind = KINDS[index % KINDS.length];
  const next = random(1000 + index);
  const cx = W * (0.42 + 0.16 * next());
  const cy = H * (0.42 + 0.14 * next());
  const rx = W * (0.17 + 0.1 * next());
  const ry = H * (0.2 + 0.12 * next());
  const waves = Array.from({ length: 4 }, (_, k) => [(next() - 0.5) * (0.22 / (k + 1)), next() * 6.28]);
  const radius = (angle: number) =>
    1 + waves.reduce((s, [size, phase], k) => s + size * Math.sin((k + 2) * angle + phase), 0);
  const handle = next() < 0.5;
  const holed = kind === 'hole' || next() < 0.15;
  let truth = coverage((x, y) => {
    const [dx, dy] = [(x - cx) / rx, (y - cy) / ry];
    const d = Math.hypot(dx, dy);
    let inside = d < radius(Math.atan2(dy, dx));
    if (holed && Math.hypot((x - cx + rx * 0.2) / 0.8, y - cy) < Math.min(rx, ry) * 0.38) inside = false;
    if (handle) {
      const ring = Math.hypot((x - cx - rx) / 0.9, y - cy);
      if (ring < ry * 0.55 && ring > ry * 0.43 && x > cx + rx * 0.7) inside = true;
    }
    return inside;
  });
  if (kind === 'fibres') addFibres(truth, cx, cy, rx, ry, radius, next);
  if (kind === 'soft focus') truth = blur(truth, 2.5 + 2 * next());

  const hue = next() * 6.28;
  const low = kind === 'low contrast';
  const paper =
    kind === 'coloured paper'
      ? [70 + 120 * next(), 70 + 120 * next(), 70 + 120 * next()]
      : low
        ? [214, 212, 208]
        : [222 + 20 * next(), 220 + 20 * next(), 216 + 20 * next()];
  const product = low
    ? [180 + 14 * next(), 176 + 14 * next(), 160 + 14 * next()]
    : [0, 2.1, 4.2].map((o) => 105 + 80 * Math.sin(hue + o));
  const texture = valueNoise(next, 5);
  const clouds = valueNoise(next, 60);
  const fine = valueNoise(next, 2);
  const shadowBase = createPlane(W, H);
  const shadowed = kind === 'shadow' || next() < 0.3;
  if (shadowed)
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        const [dx, dy] = [(x - cx - rx * 0.35) / (rx * 1.3), (y - cy - ry * 0.95) / (ry * 0.22)];
        shadowBase.data[y * W + x] = Math.hypot(dx, dy) < 1 ? 1 : 0;
      }
  const shadow = blur(shadowBase, 14);
  const [gx, gy] = [(next() - 0.5) * 50, (next() - 0.5) * 50];
  const noise = kind === 'noise' ? 9 : 2;
  const planks = 20 + next() * 30;
  const photo = createRgba(W, H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      const a = truth.data[i];
      const shade = 1 - 0.5 * shadow.data[i];
      const light = 1 + 0.28 * (((cx - x) / rx + (cy - y) / ry) / 3) + 0.1 * texture.data[i];
      for (let c = 0; c < 3; c++) {
        let b = (paper[c] + gx * (x / W - 0.5) + gy * (y / H - 0.5)) * shade;
        if (kind === 'busy') {
          const board = Math.sin(y / planks + clouds.data[i] * 3) > 0.96 ? -34 : 0;
          b = (150 - c * 22 + clouds.data[i] * 26 + fine.data[i] * 20 + board) * shade;
        }
        const f = product[c] * light;
        photo.data[i * 4 + c] = a * f + (1 - a) * b + (next() + next() + next() - 1.5) * noise;
      }
      photo.data[i * 4 + 3] = 255;
    }
  const quality = kind === 'jpeg' ? 45 : 92;
  const jpeg = await sharp(Buffer.from(photo.data.buffer), { raw: { width: W, height: H, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality })
    .toBuffer();
  return { name: `${kind} ${Math.floor(index / KINDS.length) + 1}`, photo: await decodePicture(jpeg), truth };
}

/** Short curved hairs around the outline, half a pixel to two pixels thick. */
function addFibres(
  truth: Plane,
  cx: number,
  cy: number,
  rx: number,
  ry: number,
  radius: (angle: number) => number,
  next: () => number,
): void {
  for (let f = 0; f < 160; f++) {
    const angle = next() * 6.28;
    const r = radius(angle);
    let x = cx + Math.cos(angle) * r * rx;
    let y = cy + Math.sin(angle) * r * ry;
    let heading = Math.atan2(Math.sin(angle) * rx, Math.cos(angle) * ry) + (next() - 0.5) * 1.6;
    const bend = (next() - 0.5) * 0.12;
    const thick = 0.5 + next() * 1.2;
    for (let step = 0; step < 12 + next() * 22; step++) {
      x += Math.cos(heading);
      y += Math.sin(heading);
      heading += bend;
      for (let yy = Math.floor(y) - 1; yy <= y + 2; yy++)
        for (let xx = Math.floor(x) - 1; xx <= x + 2; xx++) {
          if (xx < 0 || yy < 0 || xx >= W || yy >= H) continue;
          const cover = Math.min(1, Math.max(0, thick / 2 + 0.5 - Math.hypot(xx + 0.5 - x, yy + 0.5 - y)));
          const i = yy * W + xx;
          truth.data[i] = Math.max(truth.data[i], cover);
        }
    }
  }
}

/** Pictures of ten kinds in turn, each with its true alpha; the same at every run. */
export async function* generatedSet(count = 40): AsyncGenerator<Made> {
  for (let i = 0; i < count; i++) yield make(i);
}
