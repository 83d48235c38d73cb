import { LINEAR } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import { reduceTo } from '../raster/resample';
import type { BodyNormals } from './body-normals';
import { smoothed, type LightChange } from './relight';
import type { Linear, SceneLight } from './scene-light';

/** What a shiny product mirrors of the place where it stands. */
export interface Surroundings {
  /** Puts the linear light that comes from a direction (right, away, up) into `out`, with a share of what shines. */
  from(right: number, away: number, up: number, shine: number, out: Float64Array): void;
}

/** The studio's windows that a photo shows on a product, at the size of its normals. */
export interface Windows {
  /** 1 within one and close beside it, 0 elsewhere. */
  near: Float32Array;
  /** The paint under it: linear, three numbers a pixel. */
  paint: Float32Array;
  /** How much each place is of the paint on which they were found, 0..1: the rest may be matte. */
  shiny: Float32Array;
}

const RADIAN = Math.PI / 180;
/** Reflectance of glaze, lacquer and plastic seen squarely. */
const SQUARELY = 0.04;
/** Normals at the very rim are not believed: no more is mirrored there. */
const MOST = 0.15;
/** What a studio shows on a product: its white sweep behind and below, the darker room before it. */
const SWEEP = 0.9;
const ROOM = 0.4;
/** A light is mirrored over at least this angle, in degrees: no glaze is a perfect mirror. */
const LEAST_LOBE = 5;
/** A mirrored light is no brighter than so many whites. */
const BRIGHTEST = 14;

/** The share that is mirrored (Schlick 1994), of a surface seen at a cosine. */
export const mirrored = (cosine: number) =>
  Math.min(MOST, SQUARELY + (1 - SQUARELY) * (1 - Math.max(0, Math.min(1, cosine))) ** 5);

const step = (from: number, to: number, v: number) => {
  const t = Math.max(0, Math.min(1, (v - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

/**
 * What surrounds a place of a scene, as far as its picture tells: behind the product the picture itself, blurred; below
 * it the ground; before it, where no picture was taken, the picture's mean.
 * @param scene the scene's picture, reduced
 * @param ground mean linear colour of the ground around the foot
 * @param pitchDeg how steeply the scene's camera looks down
 * @param focal the camera's focal length, in widths of the picture
 */
export function surroundings(
  scene: Rgba,
  ground: Linear,
  light: SceneLight,
  pitchDeg: number,
  focal: number,
): Surroundings {
  const far = reduceTo(scene, 40);
  const { width, height } = far;
  const seen = linearOf(far);
  const mean = [0, 0, 0];
  for (let j = 0; j < seen.length; j++) mean[j % 3] += seen[j] / (width * height);
  const [sin, cos] = [Math.sin(pitchDeg * RADIAN), Math.cos(pitchDeg * RADIAN)];
  const lobe = Math.max(Math.sin(LEAST_LOBE * RADIAN), light.size / 2);
  const bright = Math.min(BRIGHTEST, 1 / (lobe * lobe));
  const within = Math.sqrt(1 - lobe * lobe);
  const { key } = light;
  const [toRight, toAway, toUp] = light.to;
  const [dim, full] = [within - (1 - within) - 0.01, within + (1 - within) / 2];
  return {
    from(right, away, up, shine, out) {
      const ahead = Math.max(0.15, away * cos - up * sin);
      const raised = away * sin + up * cos;
      const x = Math.max(0, Math.min(width - 1, Math.round(width / 2 + (focal * width * right) / ahead)));
      const y = Math.max(0, Math.min(height - 1, Math.round(height / 2 - (focal * width * raised) / ahead)));
      const at = (y * width + x) * 3;
      const behind = step(-0.25, 0.35, away);
      const below = step(0.1, -0.2, up);
      const toward = right * toRight + away * toAway + up * toUp;
      const lit = shine > 0 && toward > dim ? shine * bright * step(dim, full, toward) : 0;
      for (let c = 0; c < 3; c++) {
        const beside = mean[c] + (seen[at + c] - mean[c]) * behind;
        out[c] = beside + (ground[c] - beside) * below + key[c] * lit;
      }
    },
  };
}

/**
 * A change of light with what a shiny product mirrors: the studio's sweep, room and windows are taken off, the new
 * place's surroundings laid on.
 * @param pitchDeg how steeply the product was photographed
 * @param strength 0 leaves what the photo shows, 1 takes all of it
 */
export function withGloss(
  change: LightChange,
  normals: BodyNormals,
  around: Surroundings,
  windows: Windows | null,
  pitchDeg: number,
  strength: number,
): LightChange {
  const { width, height, data } = change;
  const added = new Float32Array(width * height * 3);
  const [viewAway, viewUp] = [-Math.cos(pitchDeg * RADIAN), Math.sin(pitchDeg * RADIAN)];
  const round = bentOf(normals);
  const comes = new Float64Array(3);
  const n = normals.data;
  for (let i = 0, j = 0; i < width * height; i++, j += 3) {
    const [nx, ny, nz] = [n[j], n[j + 1], n[j + 2]];
    const shiny = windows ? windows.shiny[i] : 1;
    if ((!nx && !ny && !nz) || !shiny) continue;
    const cosine = ny * viewAway + nz * viewUp;
    const away = 2 * cosine * ny - viewAway;
    const up = 2 * cosine * nz - viewUp;
    around.from(2 * cosine * nx, away, up, round[i] * step(0.35, 0.6, cosine), comes);
    const share = strength * shiny * mirrored(cosine);
    const studio = ROOM + (SWEEP - ROOM) * Math.max(step(-0.2, 0.2, away), step(0.1, -0.3, up));
    for (let c = 0; c < 3; c++) added[j + c] = share * (comes[c] - studio * data[j + c]);
  }
  const off = windows && { near: windows.near.map((v) => v * strength), paint: windows.paint };
  const soft = smoothed(smoothed(smoothed(added, width, height), width, height), width, height);
  return { ...change, added: soft, ...(off && { windows: off }) };
}

const bents = new WeakMap<Float32Array, Float32Array>();

/** How bent a surface is, 0..1: a light is mirrored in a spot of what is round; a flat face's sheen is not known. */
function bentOf({ width, height, data: n }: BodyNormals): Float32Array {
  let made = bents.get(n);
  if (made) return made;
  made = new Float32Array(width * height);
  const far = (a: number, b: number) => Math.hypot(n[a] - n[b], n[a + 1] - n[b + 1], n[a + 2] - n[b + 2]);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const j = (y * width + x) * 3;
      made[y * width + x] = step(0.03, 0.05, far(j - 3, j + 3) + far(j - width * 3, j + width * 3));
    }
  bents.set(n, made);
  return made;
}

/** A picture's linear light, three numbers a pixel. */
function linearOf({ width, height, data }: Rgba): Float32Array {
  const out = new Float32Array(width * height * 3);
  for (let i = 0; i < width * height; i++)
    for (let c = 0; c < 3; c++) out[i * 3 + c] = LINEAR[data[i * 4 + c]];
  return out;
}

/** A window adds at least so many times the light of the paint around it, and so much of a white. */
const STANDS_OUT = 0.5;
const LEAST_ADDED = 0.06;
/** What a window adds is neutral within this share: a studio's light is white, and so is what glaze mirrors. */
const NEUTRAL = 0.12;
/** Paint around a window varies by no more than this share. */
const ONE_PAINT = 0.35;
/** Of a product more than this is no window but paint, and less than this is a speck. */
const LARGEST = 0.06;
const SMALLEST = 0.001;
/** Paint of one hue and of another: cosines. Within this of white a place has no hue. */
const SAME_HUE = 0.985;
const OTHER_HUE = 0.95;
const PALE = 0.03;
/** Rounds after which paint under a window is spanned. */
const SPAN_ROUNDS = 60;
/** The ring on which the paint is looked for, in long sides of the product. */
const RING = 0.11;

/**
 * The studio's windows on a product: places that are the paint around them with white light added (the dichromatic model:
 * Shafer 1985, "Using color to separate reflection components"). What is printed there is another paint: white print lacks
 * the paint's own colour, which a window still has. On paint without colour nothing can be told apart, and nothing is taken
 * for a window.
 * @param seen the cutout at the normals' size
 * @returns null where none is found
 */
export function findWindows(seen: Rgba): Windows | null {
  const { width, height, data } = seen;
  const near = new Float32Array(width * height);
  const paints = new Float32Array(width * height * 3);
  const reach = Math.max(4, Math.round(Math.max(width, height) * RING));
  let [area, found] = [0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (data[i * 4 + 3] <= 200) continue;
      area++;
      const paint = paintAround(seen, x, y, reach);
      if (!paint) continue;
      const added = paint.map((v, c) => LINEAR[data[i * 4 + c]] - v);
      const [least, most] = [Math.min(...added), Math.max(...added)];
      const mean = (added[0] + added[1] + added[2]) / 3;
      const level = (paint[0] + paint[1] + paint[2]) / 3;
      if (mean < LEAST_ADDED || mean < STANDS_OUT * level || most - least > 2 * NEUTRAL * mean) continue;
      near[i] = 1;
      paints.set(paint, i * 3);
      found++;
    }
  if (found < area * SMALLEST || found > area * LARGEST) return null;
  const shiny = likePaint(seen, near, paints);
  const grown = widened(whole({ near, paint: paints }, seen, reach), width, height);
  return { ...spanned(grown, seen), shiny };
}

type Found = Pick<Windows, 'near' | 'paint'>;

/** The places right and left of, above and below one, as far as the picture goes. */
function beside(i: number, width: number, height: number): number[] {
  const x = i % width;
  const places = [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width];
  return places.filter((q) => q >= 0 && q < width * height);
}

/** How near each place's hue is to that of the paint under the windows; what has none may be that paint under a sheen. */
function likePaint({ width, height, data }: Rgba, near: Float32Array, paint: Float32Array): Float32Array {
  const mean = [0, 0, 0];
  for (let i = 0; i < near.length; i++) if (near[i]) for (let c = 0; c < 3; c++) mean[c] += paint[i * 3 + c];
  // From white, in the plane of red's and green's shares.
  const fromWhite = ([r, g, b]: number[]) => {
    const all = r + g + b || 1;
    return [r / all - 1 / 3, g / all - 1 / 3];
  };
  const [px, py] = fromWhite(mean);
  const far = Math.hypot(px, py);
  return Float32Array.from({ length: width * height }, (_, i) => {
    const [x, y] = fromWhite([0, 1, 2].map((c) => LINEAR[data[i * 4 + c]]));
    const length = Math.hypot(x, y);
    if (length < PALE) return far < PALE ? 1 : 0;
    return step(OTHER_HUE, SAME_HUE, (x * px + y * py) / (length * far));
  });
}

/** The paint under windows, spanned between what lies around them (Laplace's equation), so that none of it shows. */
function spanned({ near, paint }: Found, { width, height, data }: Rgba): Found {
  const under = [...near.keys()].filter((i) => near[i] > 0);
  const within = new Set(under);
  for (const i of under)
    for (const q of beside(i, width, height))
      if (!within.has(q)) for (let c = 0; c < 3; c++) paint[q * 3 + c] = LINEAR[data[q * 4 + c]];
  for (let round = 0; round < SPAN_ROUNDS; round++)
    for (const i of under) {
      const around = beside(i, width, height).filter((q) => data[q * 4 + 3] > 200);
      if (!around.length) continue;
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (const q of around) sum += paint[q * 3 + c];
        paint[i * 3 + c] = sum / around.length;
      }
    }
  return { near, paint };
}

/** Windows with all that is brighter than their paint beside what was found, which a ring may have missed. */
function whole({ near, paint }: Found, { width, height, data }: Rgba, reach: number): Found {
  let edge = [...near.keys()].filter((i) => near[i]);
  for (let ring = 0; ring < reach; ring++) {
    const next: number[] = [];
    for (const from of edge)
      for (const i of beside(from, width, height)) {
        if (near[i] || data[i * 4 + 3] <= 200) continue;
        const added = [0, 1, 2].map((c) => LINEAR[data[i * 4 + c]] - paint[from * 3 + c]);
        if (Math.min(...added) < LEAST_ADDED / 3 || Math.max(...added) > 2.5 * Math.min(...added)) continue;
        near[i] = 1;
        paint.set(paint.subarray(from * 3, from * 3 + 3), i * 3);
        next.push(i);
      }
    edge = next;
  }
  return { near, paint };
}

/** Windows with two rings of what is beside them: their edges lie between the grid's places. */
function widened({ near, paint }: Found, width: number, height: number): Found {
  for (let ring = 0; ring < 2; ring++) {
    const before = near.slice();
    for (let y = 1; y < height - 1; y++)
      for (let x = 1; x < width - 1; x++) {
        const i = y * width + x;
        if (before[i]) continue;
        const from = [i - 1, i + 1, i - width, i + width].find((q) => before[q]);
        if (from === undefined) continue;
        near[i] = 1;
        paint.set(paint.subarray(from * 3, from * 3 + 3), i * 3);
      }
  }
  return { near, paint };
}

/** The linear colour of the paint on a ring about a place; null where there is no one paint with a colour. */
function paintAround(seen: Rgba, x: number, y: number, reach: number): number[] | null {
  const { width, height, data } = seen;
  const ring: number[] = [];
  for (let k = 0; k < RING_POINTS; k++) {
    const px = Math.round(x + reach * Math.cos((2 * k * Math.PI) / RING_POINTS));
    const py = Math.round(y + reach * Math.sin((2 * k * Math.PI) / RING_POINTS));
    const i = py * width + px;
    if (px >= 0 && py >= 0 && px < width && py < height && data[i * 4 + 3] > 200) ring.push(i);
  }
  if (ring.length < RING_POINTS * 0.6) return null;
  const sorted = [0, 1, 2].map((c) => ring.map((i) => LINEAR[data[i * 4 + c]]).sort((a, b) => a - b));
  const paint = sorted.map((v) => v[v.length >> 1]);
  const spread = sorted.map((v) => v[Math.floor(v.length * 0.75)] - v[Math.floor(v.length * 0.25)]);
  const most = Math.max(...paint);
  const coloured = most > 0.02 && Math.min(...paint) < 0.6 * most;
  return coloured && Math.max(...spread) <= ONE_PAINT * most ? paint : null;
}

const RING_POINTS = 24;
