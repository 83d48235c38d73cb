import { blur } from '../raster/blur';
import { fromLinear, LINEAR, toLinear } from '../raster/colour';
import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
import { depthAt, movedCamera, onPlane, type Camera } from './camera';
import { groundPixels } from './ground-pixels';
import { sceneCamera, type SceneSurvey } from './survey';

/** How sharp a scene is at a depth: a thin lens blurs by how far the inverse depth lies off that of its focus. */
export interface Focus {
  /** The inverse of the depth in focus, in 1/mm along the line of sight. */
  inverse: number;
  /** Standard deviation of the blur, in widths of the scene's picture, for each 1/mm off the focus. */
  slope: number;
}

/** A focus as a picture shows it, with the range of inverse depths over which it does. */
export interface SeenFocus extends Focus {
  seen: [number, number];
}

/** Haze that grows with the depth: the share of its colour at a depth d is 1 - exp(-density d), d in mm. */
export interface Haze {
  density: number;
  colour: string;
}

/** The focus that a survey gives; null where it gives none, or its places have no depth or the same. */
export function surveyedFocus(survey: SceneSurvey): Focus | null {
  const camera = survey.focus && sceneCamera(survey);
  if (!survey.focus || !camera) return null;
  const { sharp, soft, blurPx } = survey.focus;
  const [inverse, other] = [inverseDepth(camera, ...sharp), inverseDepth(camera, ...soft)];
  if (inverse === null || other === null || Math.abs(other - inverse) < 1e-9) return null;
  return { inverse, slope: blurPx / survey.width / Math.abs(other - inverse) };
}

/** The haze that a survey gives; null where it gives none, or its place has no depth. */
export function surveyedHaze(survey: SceneSurvey): Haze | null {
  const camera = survey.haze && sceneCamera(survey);
  if (!survey.haze || !camera) return null;
  const { at, share, colour } = survey.haze;
  const inverse = inverseDepth(camera, ...at);
  return inverse === null ? null : { density: -Math.log(1 - share) * inverse, colour };
}

/** The share of the haze's colour at an inverse depth, 0..1. */
export const hazeAt = ({ density }: Haze, at: number): number => 1 - Math.exp(-density / at);

/**
 * A picture with haze over it: light from it is weakened, the haze's is added, in linear light.
 * @param share of the haze, 0..1
 */
export function hazed(picture: Rgba, share: number, [r, g, b]: readonly [number, number, number]): Rgba {
  const tables = [r, g, b].map((over) =>
    Uint8Array.from({ length: 256 }, (_, v) =>
      Math.round(fromLinear(LINEAR[v] * (1 - share) + toLinear(over) * share)),
    ),
  );
  const data = new Uint8ClampedArray(picture.data);
  for (let i = 0; i < data.length; i += 4) for (let c = 0; c < 3; c++) data[i + c] = tables[c][data[i + c]];
  return { ...picture, data };
}

/** Pixels of room that a picture gets on each side when it is blurred. */
export const defocusRoom = (sigma: number): number => Math.ceil(sigma * 2.6);

/**
 * A picture out of focus, with room around it: its colours and its matte spread over its edge alike.
 * @param sigma of the blur, in its pixels
 * @returns the picture, larger by `defocusRoom` on each side
 */
export function defocused({ width, height, data }: Rgba, sigma: number): Rgba {
  const room = defocusRoom(sigma);
  const out = createRgba(width + 2 * room, height + 2 * room);
  // Premultiplied, so that what is transparent has no colour to spread.
  const planes = [0, 1, 2, 3].map((c) => {
    const plane = createPlane(out.width, out.height);
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0, j = (y + room) * out.width + room; x < width; x++, i += 4, j++)
        plane.data[j] = c < 3 ? (LINEAR[data[i + c]] * data[i + 3]) / 255 : data[i + 3] / 255;
    return blur(plane, sigma).data;
  });
  const alpha = planes[3];
  for (let j = 0; j < alpha.length; j++) {
    if (alpha[j] < 1 / 510) continue;
    for (let c = 0; c < 3; c++) out.data[j * 4 + c] = fromLinear(planes[c][j] / alpha[j]);
    out.data[j * 4 + 3] = alpha[j] * 255;
  }
  return out;
}

/** The picture is blurred once more by this many pixels, after it was smoothed a little. */
const AGAIN = 3;
const SMOOTH = 1;
/** Slices of the ground by depth; each needs so many edges, and so many of them must have them. */
const SLICES = 14;
const EDGES = 24;
const LEAST = 6;
/** The blur that must be told between the sharpest and the softest slice, in pixels, and how well the lens explains it. */
const SEEN = 0.9;
const EXPLAINED = 0.4;

/**
 * The focus of a scene from its picture: along the ground, whose depth the survey knows, the sharpest edges of each slice
 * tell its blur (re-blur ratio, Zhuo and Sim 2011), and a thin lens is fitted to the slices.
 * @param picture the scene's, about a thousand pixels wide
 * @returns null where the whole ground is as sharp, or where too little shows
 */
export function sceneFocus(picture: Rgba, survey: SceneSurvey): SeenFocus | null {
  const own = sceneCamera(survey);
  if (!own) return null;
  const { width, height } = picture;
  const k = width / survey.width;
  const camera = movedCamera(own, k, 0, 0);
  const ground = groundPixels(survey, { width, height, k });
  const edges = groundEdges(picture, (x, y) => (ground[y * width + x] ? inverseDepth(camera, x, y) : null));
  const slices = slicesOf(edges);
  return slices.length < LEAST ? null : fitted(slices, picture.width);
}

/** The focus that a scene's picture shows, as two places of its ground in the survey's pixels; null where it shows none. */
export function seenFocus(picture: Rgba, survey: SceneSurvey): NonNullable<SceneSurvey['focus']> | null {
  const focus = sceneFocus(picture, survey);
  const camera = focus && sceneCamera(survey);
  if (!focus || !camera) return null;
  const { width, height } = survey;
  // Down the middle of the picture, where its ground was seen.
  let [sharp, soft] = [
    { y: 0, blur: Infinity },
    { y: 0, blur: -1 },
  ];
  for (let n = 0; n <= 40; n++) {
    const y = height * (0.2 + (0.76 * n) / 40);
    const inverse = inverseDepth(camera, width / 2, y);
    if (inverse === null || inverse < focus.seen[0] || inverse > focus.seen[1]) continue;
    const blur = blurAt(focus, inverse) * width;
    if (blur < sharp.blur) sharp = { y, blur };
    if (blur > soft.blur) soft = { y, blur };
  }
  // The ground that was seen may lie all beside the middle.
  if (soft.blur <= 0) return null;
  const whole = (v: number) => Math.round(v * 10) / 10;
  return {
    sharp: [whole(width / 2), whole(sharp.y)],
    soft: [whole(width / 2), whole(soft.y)],
    blurPx: whole(Math.min(width / 40, soft.blur)),
  };
}

/** The blur at an inverse depth, in widths of the scene's picture. */
export const blurAt = ({ inverse, slope }: Focus, at: number): number => slope * Math.abs(at - inverse);

/** The inverse depth, in 1/mm, of what the plane shows at a place; null above the horizon. */
export function inverseDepth(camera: Camera, x: number, y: number): number | null {
  const p = onPlane(camera, { x, y });
  if (!p) return null;
  const depth = depthAt(camera, p);
  return depth > 0 ? 1 / depth : null;
}

/** Edges with how blurred they are, in pixels, and their inverse depth. */
function groundEdges(
  { width, height, data }: Rgba,
  inverseAt: (x: number, y: number) => number | null,
): { at: number; sigma: number; strength: number }[] {
  const luma = createPlane(width, height);
  for (let i = 0; i < luma.data.length; i++)
    luma.data[i] = (0.2126 * data[i * 4] + 0.7152 * data[i * 4 + 1] + 0.0722 * data[i * 4 + 2]) / 255;
  const once = blur(luma, SMOOTH);
  const twice = blur(once, AGAIN);
  const out: { at: number; sigma: number; strength: number }[] = [];
  const margin = 6;
  for (let y = margin; y < height - margin; y++)
    for (let x = margin; x < width - margin; x++) {
      const [gx, gy] = slopeAt(once, x, y);
      const strength = Math.hypot(gx, gy);
      if (strength < 0.006) continue;
      // Only the ridge of an edge tells its blur.
      const [sx, sy] = Math.abs(gx) > Math.abs(gy) ? [1, 0] : [0, 1];
      const beside = Math.max(
        Math.hypot(...slopeAt(once, x + sx, y + sy)),
        Math.hypot(...slopeAt(once, x - sx, y - sy)),
      );
      if (beside > strength) continue;
      const ratio = strength / Math.max(1e-6, Math.hypot(...slopeAt(twice, x, y)));
      if (ratio < 1.02) continue;
      const at = inverseAt(x, y);
      if (at !== null) out.push({ at, sigma: AGAIN / Math.sqrt(ratio * ratio - 1), strength });
    }
  return out;
}

function slopeAt({ width, data }: Plane, x: number, y: number): [number, number] {
  const i = y * width + x;
  return [(data[i + 1] - data[i - 1]) / 2, (data[i + width] - data[i - width]) / 2];
}

interface Slice {
  at: number;
  sigma: number;
  weight: number;
}

/** The ground in slices of equal inverse depth, each with the blur of its sharper strong edges. */
function slicesOf(edges: { at: number; sigma: number; strength: number }[]): Slice[] {
  if (!edges.length) return [];
  let [low, high] = [Infinity, -Infinity];
  for (const { at } of edges) [low, high] = [Math.min(low, at), Math.max(high, at)];
  const groups = Array.from({ length: SLICES }, () => [] as typeof edges);
  for (const edge of edges)
    groups[Math.min(SLICES - 1, Math.floor(((edge.at - low) / (high - low || 1)) * SLICES))].push(edge);
  return groups.flatMap((group, n) => {
    const strong = group
      .sort((a, b) => b.strength - a.strength)
      .slice(0, Math.max(EDGES, Math.floor(group.length * 0.3)))
      .map((e) => e.sigma)
      .sort((a, b) => a - b);
    if (strong.length < EDGES) return [];
    const at = low + ((n + 0.5) * (high - low)) / SLICES;
    return [{ at, sigma: strong[Math.floor(strong.length * 0.5)], weight: Math.sqrt(strong.length) }];
  });
}

/** The lens that explains the slices: the squares of their blur are a constant and a parabola in inverse depth. */
function fitted(slices: Slice[], width: number): SeenFocus | null {
  const [low, high] = [slices[0].at, slices[slices.length - 1].at];
  const plain = residual(slices, 0, 0);
  let best = { error: Infinity, inverse: low, square: 0 };
  const STEPS = 60;
  for (let i = 0; i <= STEPS; i++) {
    const inverse = low - (high - low) * 0.5 + ((high - low) * 2 * i) / STEPS;
    const fit = residual(slices, inverse, 1);
    if (fit.error < best.error) best = { error: fit.error, inverse, square: fit.square };
  }
  const slope = Math.sqrt(Math.max(0, best.square));
  const offs = slices.map((s) => slope * Math.abs(s.at - best.inverse));
  const told = Math.max(...offs) - Math.min(...offs);
  return told < SEEN || best.error > EXPLAINED * plain.error
    ? null
    : { inverse: best.inverse, slope: slope / width, seen: [low, high] };
}

/** Weighted least squares of sigma^2 = a + b (at - inverse)^2, with b left out where it is not wanted. */
function residual(slices: Slice[], inverse: number, wanted: 0 | 1): { error: number; square: number } {
  let [n, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (const { at, sigma, weight: w } of slices) {
    const x = wanted * (at - inverse) ** 2;
    const y = sigma * sigma;
    n += w;
    sx += w * x;
    sy += w * y;
    sxx += w * x * x;
    sxy += w * x * y;
  }
  const det = n * sxx - sx * sx;
  const b = wanted && det > 0 ? Math.max(0, (n * sxy - sx * sy) / det) : 0;
  const a = Math.max(0, (sy - b * sx) / n);
  let error = 0;
  // In sigma, not in its square: a far slice that is very soft is not to outweigh all others.
  for (const { at, sigma, weight } of slices)
    error += weight * (sigma - Math.sqrt(a + b * (wanted * (at - inverse) ** 2))) ** 2;
  return { error, square: b };
}
