import { grow } from '../raster/distance';
import { reducedAlpha, type Plane, type Rgba } from '../raster/pixels';
import { boxCorner, type BoxCorner } from './box-corner';

const RADIAN = Math.PI / 180;

/**
 * What a product stands on, as its cutout shows it; lengths as shares of the cutout's width. Photographed from
 * above a round base is an ellipse, of which the lower half is corner.
 */
export interface ProductBase {
  /** The middle of the base, from the left and from the cutout's top. */
  x: number;
  y: number;
  /** Half axes of the base's ellipse. */
  halfWidth: number;
  halfDepth: number;
  /** How much of the picture's height above the base's middle is the top's depth and not height. */
  topDepth: number;
  /** The longest distance between two of the silhouette's points. */
  length: number;
  /** How steeply the camera looked down, in degrees, taking the base for round. */
  pitchDeg: number;
  /** 0..1: how well an ellipse (or a box's corner) explains the lower edge. */
  confidence: number;
  /** The nearest upright edge where it stands on a rectangle and not on an ellipse. */
  corner?: BoxCorner;
}

/** A base for a cutout of which nothing is known. */
export const PLAIN_BASE = (aspect: number): ProductBase => ({
  x: 0.5,
  y: aspect - 0.1,
  halfWidth: 0.4,
  halfDepth: 0.1,
  topDepth: 0.1,
  length: Math.max(1, aspect),
  pitchDeg: 14,
  confidence: 0,
});

/** A camera a few product heights away looks less steeply on the top than on the foot: by about so many degrees. */
const TOP_PITCH = 11;
/** From here on an ellipse was found and its measures are believed. */
const TRUSTED = 0.5;
/** Slope of the lower edge at which the base ends and the wall begins. */
const WALL = 1.25;

/**
 * Finds the base from the silhouette's lower edge: from its lowest part outward until the edge turns into the
 * wall, then the half ellipse that fits best (linear least squares for middle and depth at each of several
 * widths). Threads thinner than a hundredth of the width are left out.
 * @param alpha the trimmed cutout's matte 0..1, about 256 pixels on the long side
 */
// eslint-disable-next-line max-lines-per-function -- the steps of one method in their order
export function measureBase(alpha: Plane): ProductBase {
  const { width: w, height: h } = alpha;
  let solid: Uint8Array = Uint8Array.from(alpha.data, (v) => (v > 0.5 ? 1 : 0));
  const thread = Math.max(0.8, Math.max(w, h) * 0.008);
  const opened = grow(grow(solid, w, h, -thread), w, h, thread);
  if (opened.includes(1)) solid = opened;
  const lower = new Float64Array(w).fill(-1);
  let bottom = -1;
  for (let x = 0; x < w; x++)
    for (let y = h - 1; y >= 0; y--)
      if (solid[y * w + x]) {
        lower[x] = y + 1;
        if (y + 1 > bottom) bottom = y + 1;
        break;
      }
  if (bottom < 0) return PLAIN_BASE(h / w);
  const lowest: number[] = [];
  for (let x = 0; x < w; x++) if (lower[x] >= bottom - 1) lowest.push(x);
  const middle = lowest[lowest.length >> 1];
  const end = (step: -1 | 1): number => {
    let x = middle;
    while (lower[x + step] !== undefined && lower[x + step] >= 0) {
      // The slope across three pixels: one is too coarse for a line that falls by whole pixels.
      const far = lower[Math.min(w - 1, Math.max(0, x + 3 * step))];
      if (far < 0 || (lower[x] - far) / 3 > WALL || bottom - lower[x + step] > w * 0.3) break;
      x += step;
    }
    return x;
  };
  const left = end(-1);
  const right = end(1) + 1;
  const half = (right - left) / 2;
  let cx = (left + right) / 2;
  let best = { error: Infinity, a: half, b: 0, y: bottom };
  for (let stretch = 1.0; stretch <= 1.14; stretch += 0.02) {
    const a = half * stretch + 0.5;
    // y = cy + b sqrt(1 - ((x - cx) / a)^2)
    let n = 0;
    let ss = 0;
    let s1 = 0;
    let sy = 0;
    let y1 = 0;
    const at = (x: number) => Math.sqrt(Math.max(0, 1 - ((x + 0.5 - cx) / a) ** 2));
    for (let x = left; x < right; x++) {
      const s = at(x);
      n++;
      ss += s * s;
      s1 += s;
      sy += s * lower[x];
      y1 += lower[x];
    }
    const det = n * ss - s1 * s1;
    const b = Math.max(0, det > 1e-9 ? (n * sy - s1 * y1) / det : 0);
    const y = (y1 - b * s1) / n;
    let error = 0;
    for (let x = left; x < right; x++) error += (lower[x] - y - b * at(x)) ** 2;
    error = Math.sqrt(error / n);
    if (error < best.error - 1e-6) best = { error, a, b, y };
  }
  const { a, b, y, error } = best;
  let off = 0;
  for (let x = left; x < right; x++)
    off += Math.abs(lower[x] - y - b * Math.sqrt(Math.max(0, 1 - ((x + 0.5 - cx) / a) ** 2)));
  const corner = boxCorner(lower, upperEdge(solid, w, h), [left, right - 1], off / (right - left));
  if (corner) return onCorner(corner, [left / w, right / w], solid, w, h);
  cx = Math.min(w, Math.max(0, cx));
  const pitch = Math.asin(Math.min(1, b / a));
  return {
    x: cx / w,
    y: y / w,
    halfWidth: a / w,
    halfDepth: b / w,
    topDepth: (topHalfWidth(solid, w, h) * Math.sin(Math.max(0, pitch - TOP_PITCH * RADIAN))) / w,
    length: longest(solid, w, h) / w,
    pitchDeg: pitch / RADIAN,
    confidence: Math.max(0, Math.min(1, (1 - error / (0.02 * w)) * Math.min(1, half / (w * 0.15)))),
  };
}

/**
 * The base of a box seen over a corner: the middle of its footprint is the middle of its diagonal, and two sides at right
 * angles tell the camera's pitch (the tangents of their turns, the slopes over its sine, have the product 1).
 */
function onCorner(
  corner: Omit<BoxCorner, 'flatTop'>,
  [from, to]: [number, number],
  solid: Uint8Array,
  w: number,
  h: number,
): ProductBase {
  const fromY = corner.y - corner.left * (corner.x - from);
  const toY = corner.y - corner.right * (to - corner.x);
  const x = (from + to) / 2;
  const y = (fromY + toY) / 2;
  const sine = Math.min(0.9, Math.sqrt(corner.left * corner.right));
  const halfWidth = (to - from) / 2;
  // The far corner of a box's top shows over the middle of the diagonal as far as the near one shows under it.
  const back = { x: Math.round((from + to - corner.x) * w), y: (fromY + toY - corner.y - corner.tall) * w };
  const column = Math.min(w - 1, Math.max(0, back.x));
  let top = 0;
  while (top < h - 1 && !solid[top * w + column]) top++;
  const flatTop = Math.abs(top - back.y) < Math.max(3, h * 0.03);
  const pitch = Math.asin(sine);
  return {
    x,
    y,
    halfWidth,
    halfDepth: Math.max(corner.y - y, 0.004),
    topDepth: flatTop
      ? Math.max(0, y - corner.tall)
      : (topHalfWidth(solid, w, h) * Math.sin(Math.max(0, pitch - TOP_PITCH * RADIAN))) / w,
    length: longest(solid, w, h) / w,
    pitchDeg: pitch / RADIAN,
    confidence: 0.9,
    corner: { ...corner, flatTop },
  };
}

/** A base as it is drawn on the photo: its middle and half axes, in pixels of the tidied photo. */
export interface DrawnBase {
  x: number;
  y: number;
  halfWidth: number;
  halfDepth: number;
}

/**
 * A base that was drawn by hand in place of the one that was found; how steeply the camera looked follows from it.
 * @param bounds where the trimmed cutout lies in the photo
 */
export function withDrawnBase(
  found: ProductBase,
  drawn: DrawnBase,
  bounds: { x: number; y: number; width: number },
): ProductBase {
  const pitch = Math.asin(Math.min(1, drawn.halfDepth / Math.max(1e-6, drawn.halfWidth)));
  const before = Math.max(0, found.pitchDeg - TOP_PITCH) * RADIAN;
  const after = Math.max(0, pitch - TOP_PITCH * RADIAN);
  // What is drawn is an ellipse: a box's corner that was found before says nothing of it.
  const { corner: _, ...round } = found;
  return {
    ...round,
    x: (drawn.x - bounds.x) / bounds.width,
    y: (drawn.y - bounds.y) / bounds.width,
    halfWidth: drawn.halfWidth / bounds.width,
    halfDepth: drawn.halfDepth / bounds.width,
    topDepth: before > 1e-3 ? (found.topDepth * Math.sin(after)) / Math.sin(before) : found.topDepth,
    pitchDeg: pitch / RADIAN,
    confidence: 1,
  };
}

/** A base as it lies on the photo. */
export function drawnOn(base: ProductBase, bounds: { x: number; y: number; width: number }): DrawnBase {
  return {
    x: bounds.x + base.x * bounds.width,
    y: bounds.y + base.y * bounds.width,
    halfWidth: base.halfWidth * bounds.width,
    halfDepth: base.halfDepth * bounds.width,
  };
}

/** The base of a trimmed cutout. */
export function baseOfCutout(image: Rgba): ProductBase {
  const factor = Math.max(1, Math.ceil(Math.max(image.width, image.height) / 256));
  return measureBase(reducedAlpha(image, factor));
}

/** The upper edge of each column, in pixels. */
function upperEdge(solid: Uint8Array, w: number, h: number): Float64Array {
  const out = new Float64Array(w).fill(h);
  for (let x = 0; x < w; x++)
    for (let y = 0; y < h; y++)
      if (solid[y * w + x]) {
        out[x] = y;
        break;
      }
  return out;
}

function longest(solid: Uint8Array, w: number, h: number): number {
  let most = 0;
  for (let d = 0; d < 36; d++) {
    const [cos, sin] = [Math.cos((d * Math.PI) / 36), Math.sin((d * Math.PI) / 36)];
    let low = Infinity;
    let high = -Infinity;
    for (let y = 0, i = 0; y < h; y++)
      for (let x = 0; x < w; x++, i++) {
        if (!solid[i]) continue;
        const at = x * cos + y * sin;
        if (at < low) low = at;
        if (at > high) high = at;
      }
    most = Math.max(most, high - low + 1);
  }
  return most;
}

/** Half the silhouette's width just below its top, where a rim would be; 0 for what ends in a point or a handle. */
function topHalfWidth(solid: Uint8Array, w: number, h: number): number {
  let widest = 0;
  for (let y = 0; y < Math.ceil(h * 0.12); y++) {
    let run = 0;
    let longest = 0;
    for (let x = 0; x < w; x++) {
      run = solid[y * w + x] ? run + 1 : 0;
      if (run > longest) longest = run;
    }
    if (longest > widest) widest = longest;
  }
  return widest / 2;
}

export interface Millimetres {
  width: number;
  height: number;
  depth: number;
}

/**
 * How large a product is in its picture, in pixels a millimetre for a picture `width` wide. A standing one by its
 * height, which is not its picture's: the base's front and the top's depth are taken off; by its width where no
 * base was found. One that lies by its longest side.
 */
export function productPxPerMm(
  base: ProductBase,
  width: number,
  mm: { width?: number; height?: number; depth?: number },
  flat = false,
): number {
  const sides = [mm.width ?? 0, mm.height ?? 0, mm.depth ?? 0];
  if (flat) return (base.length * width) / Math.max(...sides);
  const upright = (base.y - base.topDepth) * width;
  const trusted = base.confidence > TRUSTED && upright > 1;
  if (mm.height && (trusted || !mm.width)) return upright / (mm.height * Math.cos(base.pitchDeg * RADIAN));
  return width / mm.width!;
}
