import { blur } from '../raster/blur';
import { toLinear } from '../raster/colour';
import { createPlane, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { resizePlane, samplePlane } from '../raster/resample';

/** A part of a blank's picture taken apart: what is the surface's own colour, what is light, what is weave. */
export interface LightSplit extends Rect {
  /** The surface's colour where it is well lit; linear light 0..1. */
  base: [number, number, number];
  /** Luminance as it is (linear), without highlights. */
  lit: Float32Array;
  /** The same, smooth: light and folds without weave or grain. */
  smooth: Float32Array;
  /** What highlights add to it. */
  highlight: Float32Array;
  /** What white paint would have in the base's light: its colour is the light's own; linear light, over 1 where it would be brighter than the picture holds. */
  white: [number, number, number];
}

/** Weave and grain are what is finer than this share of the part's side. */
const GRAIN_SHARE = 0.012;
/** Highlights are brighter than their surroundings over this share of the part's side. */
const HIGHLIGHT_SHARE = 0.09;
/** So much a light stock without a colour reflects, and one as saturated as kraft paper in its strongest channel. */
const WHITE_STOCK = 0.76;
const TONED_STOCK = 0.56;
/** Casts up to FAINT_CAST say nothing of the stock; one of OWN_CAST is all its own. Of a faint one so much is the light's. */
const FAINT_CAST = 0.15;
const OWN_CAST = 0.5;
const LIGHTS_SHARE = 0.8;
/** Where light stock is nearly white already, white paint would be brighter than the picture holds, but no more than so. */
const MOST_WHITE = 1.6;

/**
 * Takes a part of a picture apart into base colour, smooth light, grain and highlights, by scale (Retinex in Land and
 * McCann's sense: reflectance of a blank is one colour, so slow changes are light) and, for highlights, by a
 * grey-scale opening (top hat; Serra 1982): what stands out of the smooth light and is smaller than the part.
 * @param inside 0..1 per pixel of `rect`, what belongs to the surface
 */
export function splitLight(
  picture: Rgba,
  rect: Rect,
  inside: Float32Array,
  { stock, glossy }: { stock: 'light' | 'dark'; glossy: boolean },
): LightSplit {
  const { width, height } = rect;
  const n = width * height;
  const luminance = new Float32Array(n);
  for (let y = 0, i = 0; y < height; y++) {
    let j = ((rect.y + y) * picture.width + rect.x) * 4;
    for (let x = 0; x < width; x++, i++, j += 4)
      luminance[i] =
        0.2126 * toLinear(picture.data[j]) +
        0.7152 * toLinear(picture.data[j + 1]) +
        0.0722 * toLinear(picture.data[j + 2]);
  }
  const side = Math.sqrt(n);
  const smoothAll = blurInside(luminance, inside, width, height, Math.max(0.8, side * GRAIN_SHARE));
  const highlight = glossy
    ? topHat(smoothAll, inside, width, height, side * HIGHLIGHT_SHARE)
    : new Float32Array(n);
  const lit = new Float32Array(n);
  const smooth = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    // A highlight takes no more than what is there.
    highlight[i] = Math.min(highlight[i], luminance[i] * 0.9);
    lit[i] = luminance[i] - highlight[i];
    smooth[i] = Math.max(1e-4, smoothAll[i] - highlight[i]);
  }
  const base = baseColour(picture, rect, inside, smooth);
  const white = stock === 'light' ? whiteBeside(base, picture) : whiteOver(base, picture);
  return { ...rect, base, lit, smooth, highlight, white };
}

/**
 * White paint in the light that falls on a light stock: the stock's strongest channel reflects what a stock of its
 * saturation does, or less where the rest of the picture is much lighter. A faint cast of the stock is mostly the
 * light's, a strong one its own.
 */
function whiteBeside(base: readonly number[], picture: Rgba): [number, number, number] {
  const most = Math.max(...base);
  const saturation = 1 - Math.min(...base) / most;
  const toned = Math.min(1, Math.max(0, (saturation - FAINT_CAST) / (OWN_CAST - FAINT_CAST)));
  const usual = most / (WHITE_STOCK + (TONED_STOCK - WHITE_STOCK) * toned);
  const level = Math.min(MOST_WHITE, Math.max(usual, Math.sqrt(usual * brightest(picture) * 0.9)));
  const share = LIGHTS_SHARE * Math.max(0, 1 - saturation / OWN_CAST);
  return base.map((v) => level * (v / most) ** share) as [number, number, number];
}

/** White paint on a dark stock, which tells little of its light: by what else the picture holds. */
function whiteOver(base: readonly number[], picture: Rgba): [number, number, number] {
  const own = 0.2126 * base[0] + 0.7152 * base[1] + 0.0722 * base[2];
  const level = Math.min(0.85, Math.max(0.35, own * 4, brightest(picture) * 0.9));
  return [level, level, level];
}

/** Blurred among what is inside alone, so that the border takes nothing from what lies around. */
function blurInside(
  values: Float32Array,
  inside: Float32Array,
  width: number,
  height: number,
  sigma: number,
): Float32Array {
  const weighted = new Float32Array(values.length);
  for (let i = 0; i < values.length; i++) weighted[i] = values[i] * inside[i];
  // Slow changes need no more than a few thousand pixels.
  const k = Math.max(1, Math.floor(sigma / 3));
  const small = (data: Float32Array): Plane => {
    const plane = { width, height, data };
    return k > 1 ? resizePlane(boxReduced(plane, k), Math.ceil(width / k), Math.ceil(height / k)) : plane;
  };
  const sum = blur(small(weighted), sigma / k);
  const weight = blur(small(inside), sigma / k);
  const out = createPlane(sum.width, sum.height);
  for (let i = 0; i < out.data.length; i++)
    out.data[i] = weight.data[i] > 1e-3 ? sum.data[i] / weight.data[i] : 0;
  const full = k > 1 ? resizePlane(out, width, height).data : out.data;
  for (let i = 0; i < full.length; i++) if (inside[i] <= 0 || full[i] <= 0) full[i] = values[i];
  return full;
}

/** Every k x k pixels averaged to one. */
function boxReduced(plane: Plane, k: number): Plane {
  const width = Math.ceil(plane.width / k);
  const height = Math.ceil(plane.height / k);
  const out = createPlane(width, height);
  const count = new Float32Array(width * height);
  for (let y = 0, i = 0; y < plane.height; y++) {
    const row = Math.floor(y / k) * width;
    for (let x = 0; x < plane.width; x++, i++) {
      const o = row + Math.floor(x / k);
      out.data[o] += plane.data[i];
      count[o]++;
    }
  }
  for (let i = 0; i < out.data.length; i++) out.data[i] /= count[i];
  return out;
}

function topHat(
  values: Float32Array,
  inside: Float32Array,
  width: number,
  height: number,
  radius: number,
): Float32Array {
  const k = Math.max(1, Math.floor(radius / 6));
  const r = Math.max(1, Math.round(radius / k));
  const small = outward(
    boxReduced({ width, height, data: values }, k),
    boxReduced({ width, height, data: inside }, k),
    2 * r,
  );
  const low = slide(slide(small, r, true, Math.min), r, false, Math.min);
  const open = blur(slide(slide(low, r, true, Math.max), r, false, Math.max), r * 0.4);
  const out = new Float32Array(values.length);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      if (inside[i] > 0.5) {
        const opened = samplePlane(open, (x + 0.5) / k - 0.5 + 2 * r, (y + 0.5) / k - 0.5 + 2 * r);
        out[i] = Math.max(0, values[i] - opened * 1.1);
      }
  return out;
}

/** The plane with `margin` more on every side; outside the surface goes on what its nearest row or column has. */
function outward(plane: Plane, inside: Plane, margin: number): Plane {
  const width = plane.width + 2 * margin;
  const height = plane.height + 2 * margin;
  const out = createPlane(width, height, NaN);
  for (let y = 0; y < plane.height; y++) {
    const row = (y + margin) * width + margin;
    for (let x = 0; x < plane.width; x++)
      if (inside.data[y * plane.width + x] > 0.6) out.data[row + x] = plane.data[y * plane.width + x];
    carryOn(out.data, (y + margin) * width, 1, width);
  }
  for (let x = 0; x < width; x++) carryOn(out.data, x, width, height);
  return out;
}

/** Gaps in a line take the value that comes before them, at its beginning the one that follows. */
function carryOn(data: Float32Array, from: number, step: number, count: number): void {
  for (const way of [1, -1]) {
    let last = NaN;
    for (let n = 0; n < count; n++) {
      const i = from + (way > 0 ? n : count - 1 - n) * step;
      if (Number.isNaN(data[i])) data[i] = last;
      else last = data[i];
    }
  }
}

function slide(plane: Plane, r: number, rows: boolean, pick: (a: number, b: number) => number): Plane {
  const { width, height, data } = plane;
  const out = createPlane(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [from, to] = rows
        ? [Math.max(0, x - r), Math.min(width - 1, x + r)]
        : [Math.max(0, y - r), Math.min(height - 1, y + r)];
      let best = rows ? data[y * width + from] : data[from * width + x];
      for (let t = from + 1; t <= to; t++)
        best = pick(best, rows ? data[y * width + t] : data[t * width + x]);
      out.data[y * width + x] = best;
    }
  return out;
}

/** The colour at the well lit end: the mean of what lies about the 80th percentile of the smooth light. */
function baseColour(
  picture: Rgba,
  rect: Rect,
  inside: Float32Array,
  smooth: Float32Array,
): [number, number, number] {
  const stride = Math.max(1, Math.floor(smooth.length / 20000));
  const levels: number[] = [];
  for (let i = 0; i < smooth.length; i += stride) if (inside[i] > 0.5) levels.push(smooth[i]);
  if (!levels.length) return [0.8, 0.8, 0.8];
  levels.sort((a, b) => a - b);
  const from = levels[Math.floor(levels.length * 0.7)];
  const to = levels[Math.floor(levels.length * 0.9)];
  const sum = [0, 0, 0];
  let count = 0;
  for (let i = 0; i < smooth.length; i += stride) {
    if (inside[i] <= 0.5 || smooth[i] < from || smooth[i] > to) continue;
    const x = i % rect.width;
    const y = (i - x) / rect.width;
    const j = ((rect.y + y) * picture.width + rect.x + x) * 4;
    for (let c = 0; c < 3; c++) sum[c] += toLinear(picture.data[j + c]);
    count++;
  }
  return sum.map((v) => Math.max(0.002, v / Math.max(1, count))) as [number, number, number];
}

/** The 98th percentile of a picture's luminance: about what white would have. */
function brightest({ data }: Rgba): number {
  const stride = 4 * Math.max(1, Math.floor(data.length / 4 / 20000));
  const levels: number[] = [];
  for (let j = 0; j < data.length; j += stride)
    levels.push(0.2126 * toLinear(data[j]) + 0.7152 * toLinear(data[j + 1]) + 0.0722 * toLinear(data[j + 2]));
  levels.sort((a, b) => a - b);
  return levels[Math.floor(levels.length * 0.98)] ?? 0.8;
}
