import { differenceCiede2000 } from 'culori';
import { fromOklab, oklabOf } from '../raster/colour';
import { colourTable, throughTable } from '../raster/colour-table';
import type { Rect, Rgba } from '../raster/pixels';

/** What is measured of a picture's part; OKLab. */
export interface ToneMeasure {
  /** Lightness at the 2nd, 50th and 98th percent. */
  black: number;
  middle: number;
  white: number;
  /** Tint of the light, per unit of lightness. */
  a: number;
  b: number;
  /** Grain: standard deviation of lightness from pixel to pixel. */
  grain: number;
  /** Fine detail's share of coarse detail: high where sharp. */
  sharpness: number;
}

/** A change of tone: lightness by gain and lift, tint added in proportion to lightness. */
export interface ToneChange {
  gain: number;
  lift: number;
  a: number;
  b: number;
  /** Standard deviation of grain added, in lightness. */
  grain: number;
  /** Blur in pixels of the frame. */
  soften: number;
}

export const NO_CHANGE: ToneChange = { gain: 1, lift: 0, a: 0, b: 0, grain: 0, soften: 0 };

/** About so many pixels tell a part's tone. */
const SAMPLES = 5000;

/**
 * Measures the tone of a part of a picture. The light's tint is taken from near-neutral pixels, weighted toward
 * the bright (shades of grey, Finlayson and Trezzi 2004); grain from the Laplacian's absolute mean over the half
 * of the pixels where it is least (after Immerkaer 1996).
 * Only pixels with alpha above a half count.
 */
export function measureTone(picture: Rgba, part: Rect): ToneMeasure | null {
  const { width, height, data } = picture;
  const x0 = Math.max(0, Math.floor(part.x));
  const y0 = Math.max(0, Math.floor(part.y));
  const x1 = Math.min(width, Math.ceil(part.x + part.width));
  const y1 = Math.min(height, Math.ceil(part.y + part.height));
  const stride = Math.max(1, Math.floor(Math.sqrt(((x1 - x0) * (y1 - y0)) / SAMPLES)));
  const lab = new Float64Array(3);
  const light: number[] = [];
  let [wa, wb, weight] = [0, 0, 0];
  const fine: number[] = [];
  let [detail, coarse] = [0, 0];
  const luma = (x: number, y: number) => {
    const j = (y * width + x) * 4;
    return (0.2126 * data[j] + 0.7152 * data[j + 1] + 0.0722 * data[j + 2]) / 255;
  };
  const solid = (x: number, y: number) => data[(y * width + x) * 4 + 3] > 200;
  for (let y = y0; y < y1; y += stride)
    for (let x = x0; x < x1; x += stride) {
      if (data[(y * width + x) * 4 + 3] < 128) continue;
      const j = (y * width + x) * 4;
      oklabOf(data[j], data[j + 1], data[j + 2], lab);
      light.push(lab[0]);
      const chroma = Math.hypot(lab[1], lab[2]);
      const w = lab[0] ** 4 * Math.exp(-((chroma / 0.09) ** 2));
      if (lab[0] > 0.05) {
        wa += (lab[1] / lab[0]) * w;
        wb += (lab[2] / lab[0]) * w;
        weight += w;
      }
      if (x < 3 || y < 3 || x >= width - 3 || y >= height - 3) continue;
      if (!solid(x - 3, y) || !solid(x + 3, y) || !solid(x, y - 3) || !solid(x, y + 3)) continue;
      const c = luma(x, y);
      const near = (luma(x - 1, y) + luma(x + 1, y) + luma(x, y - 1) + luma(x, y + 1)) / 4;
      const wide = (luma(x - 3, y) + luma(x + 3, y) + luma(x, y - 3) + luma(x, y + 3)) / 4;
      fine.push(Math.abs(c - near));
      detail += (c - near) ** 2;
      coarse += (c - wide) ** 2;
    }
  if (light.length < 12) return null;
  light.sort((p, q) => p - q);
  fine.sort((p, q) => p - q);
  const at = (share: number) => light[Math.min(light.length - 1, Math.floor(share * light.length))];
  let quiet = 0;
  const half = fine.length >> 1;
  for (let i = 0; i < half; i++) quiet += fine[i];
  return {
    black: at(0.02),
    middle: at(0.5),
    white: at(0.98),
    a: weight ? wa / weight : 0,
    b: weight ? wb / weight : 0,
    // The quieter half's mean of |N(0, s^2 5/4)| is 0.29 s.
    grain: half ? quiet / half / 0.36 : 0,
    sharpness: coarse > 1e-7 ? detail / coarse : 0,
  };
}

/**
 * How a product is eased toward the place where it stands: its black and white toward the place's, a part of the
 * way only, since a product keeps its own reflectance; the light's tint; grain and sharpness where the place's
 * differ.
 */
export function toneToward(product: ToneMeasure, place: ToneMeasure, scene: ToneMeasure): ToneChange {
  const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
  // How brightly the place is lit, against a well exposed photo.
  const light = clamp(0.5 * (scene.white + place.white), 0.3, 1);
  const exposure = clamp(light / 0.93, 0.6, 1.06);
  // Haze and flare lift a scene's blacks; those of the product follow.
  const black = clamp(Math.min(scene.black, place.black) - product.black, -0.12, 0.16) * 0.6;
  const range = Math.max(0.2, product.white - product.black);
  const white = clamp(product.white * exposure, 0.2, 1);
  const gain = clamp((white - product.black - black) / range, 0.55, 1.2);
  return {
    gain,
    lift: product.black + black - product.black * gain,
    a: clamp(0.6 * place.a + 0.4 * scene.a, -0.05, 0.05) * 0.62,
    b: clamp(0.6 * place.b + 0.4 * scene.b, -0.05, 0.07) * 0.62,
    grain: clamp(Math.sqrt(Math.max(0, scene.grain ** 2 - product.grain ** 2)), 0, 0.03),
    soften:
      product.sharpness > place.sharpness * 1.6 && place.sharpness > 0.01
        ? clamp((product.sharpness / place.sharpness - 1.6) * 0.25, 0, 0.8)
        : 0,
  };
}

/** A share of a change. */
export function eased(change: ToneChange, share: number): ToneChange {
  return {
    gain: 1 + (change.gain - 1) * share,
    lift: change.lift * share,
    a: change.a * share,
    b: change.b * share,
    grain: change.grain * share,
    soften: change.soften * share,
  };
}

const difference = differenceCiede2000();

/** Mean difference that a change makes to a picture's colours, delta E 2000, on at most 600 of its pixels. */
export function colourDrift(picture: Rgba, change: ToneChange): number {
  const { data } = picture;
  const n = data.length / 4;
  const stride = Math.max(1, Math.floor(n / 1200));
  const out = new Float64Array(3);
  let sum = 0;
  let count = 0;
  for (let i = 0; i < n && count < 600; i += stride) {
    const j = i * 4;
    if (data[j + 3] < 200) continue;
    changed(data[j], data[j + 1], data[j + 2], change, out);
    sum += difference(rgb(data[j], data[j + 1], data[j + 2]), rgb(out[0], out[1], out[2]));
    count++;
  }
  return count ? sum / count : 0;
}

const rgb = (r: number, g: number, b: number) => ({
  mode: 'rgb' as const,
  r: r / 255,
  g: g / 255,
  b: b / 255,
});

/** The largest share of a change, up to `strength`, that keeps the colour drift at or under `limit`. */
export function withinDrift(
  picture: Rgba,
  change: ToneChange,
  strength: number,
  limit: number,
): { change: ToneChange; drift: number; held: boolean } {
  const full = eased(change, strength);
  const drift = colourDrift(picture, full);
  if (drift <= limit) return { change: full, drift, held: false };
  let [low, high] = [0, strength];
  for (let i = 0; i < 9; i++) {
    const mid = (low + high) / 2;
    if (colourDrift(picture, eased(change, mid)) <= limit) low = mid;
    else high = mid;
  }
  // Grain and sharpness are not colour: they keep their full share.
  const held = { ...eased(change, low), grain: full.grain, soften: full.soften };
  return { change: held, drift: colourDrift(picture, held), held: true };
}

const lab = new Float64Array(3);

function changed(r: number, g: number, b: number, change: ToneChange, out: Float64Array): void {
  oklabOf(r, g, b, lab);
  const L = Math.min(1, Math.max(0, lab[0] * change.gain + change.lift));
  const chroma = lab[0] > 0.02 ? Math.min(1.1, L / lab[0]) : 1;
  fromOklab(L, lab[1] * chroma + change.a * L, lab[2] * chroma + change.b * L, out);
  for (let c = 0; c < 3; c++) out[c] = Math.min(255, Math.max(0, out[c]));
}

/** Steps a channel of the table by which a picture's tone is changed. */
const TABLE = 18;

/**
 * A picture with its tone changed; grain is made from each pixel's place, the same everywhere.
 * @param pxPerFrame pixels of the picture a frame pixel, by which grain and softening are scaled
 */
export function changeTone(picture: Rgba, change: ToneChange, pxPerFrame: number): Rgba {
  const table = colourTable(TABLE, (r, g, b, out) => changed(r, g, b, change, out));
  const out = throughTable(picture, table, TABLE);
  const grain = change.grain * 255 * Math.min(1.4, Math.max(0.25, pxPerFrame));
  const { width, height, data } = out;
  if (grain > 0.05)
    for (let y = 0, j = 0; y < height; y++)
      for (let x = 0; x < width; x++, j += 4) {
        if (!data[j + 3]) continue;
        const noise = grainAt(x, y) * grain;
        data[j] += noise;
        data[j + 1] += noise;
        data[j + 2] += noise;
      }
  const soften = change.soften * pxPerFrame;
  return soften > 0.15 ? softened(out, soften) : out;
}

/** About normal noise of standard deviation 1 for a place: the sum of three hashed uniforms. */
function grainAt(x: number, y: number): number {
  let h = (x * 374761393 + y * 668265263) | 0;
  let sum = 0;
  for (let i = 0; i < 3; i++) {
    h = Math.imul(h ^ (h >>> 13), 1274126177);
    h ^= h >>> 16;
    sum += (h >>> 0) / 4294967296;
  }
  return (sum - 1.5) * 2;
}

/** Each pixel mixed with its four neighbours, for a blur under one pixel; premultiplied. */
function softened(image: Rgba, sigma: number): Rgba {
  const { width, height, data } = image;
  const out: Rgba = { width, height, data: new Uint8ClampedArray(data) };
  // A kernel [w, 1 - 2w, w] has variance 2w.
  const w = Math.min(0.25, (sigma * sigma) / 2);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const j = (y * width + x) * 4;
      if (!data[j + 3]) continue;
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        let weight = 0;
        for (const [q, share] of [
          [j, 1 - 4 * w * 0.7],
          [j - 4, w * 0.7],
          [j + 4, w * 0.7],
          [j - width * 4, w * 0.7],
          [j + width * 4, w * 0.7],
        ]) {
          const s = share * data[q + 3];
          sum += data[q + c] * s;
          weight += s;
        }
        out.data[j + c] = sum / weight;
      }
    }
  return out;
}
