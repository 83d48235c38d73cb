import { LINEAR, oklabOf } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import type { BodyNormals } from './body-normals';

/** The light in which a product was photographed, as shading by normal: `level + right x + away y + up z`, 1 on average. */
export interface OwnShading {
  level: number;
  right: number;
  away: number;
  up: number;
}

/** What a photo's light is taken for where nothing tells it: from the front, a little from above. */
export const USUAL_SHADING: OwnShading = { level: 0.78, right: 0, away: -0.26, up: 0.18 };

/** Shading never falls below this: a photo's shadows are filled. */
export const LEAST_SHADING = 0.25;

/** Side of the bins of hue and chroma within which the surface is taken for one colour. */
const BIN = 0.03;
/** How strongly the fit is held to the usual light, in pixels. */
const HOLD = 0.02;

/**
 * Estimates the light of a product's own photo from its shading: pixels of one chromaticity are taken for one paint
 * (changes of chromaticity are changes of reflectance: Land and McCann 1971, "Lightness and retinex theory"), and the
 * luminance within each paint is explained by the body's normals with one first-order light for all (Basri and Jacobs
 * 2003, "Lambertian reflectance and linear subspaces"), held to the usual light of a studio where little is seen.
 * @param picture the cutout at the size of `normals`
 */
export function ownShading(picture: Rgba, normals: BodyNormals): OwnShading {
  const pixels = paints(picture, normals);
  if (pixels.length < 60) return normalised(USUAL_SHADING, pixels);
  let light = USUAL_SHADING;
  for (let round = 0; round < 6; round++) {
    // The brightness of each paint under the light as it is known so far.
    const paint = new Map<number, { seen: number; lit: number }>();
    for (const { bin, luma, n } of pixels) {
      const lit = shadingAt(light, n[0], n[1], n[2]);
      const sum = paint.get(bin) ?? { seen: 0, lit: 0 };
      sum.seen += luma * lit;
      sum.lit += lit * lit;
      paint.set(bin, sum);
    }
    light = fitted(
      pixels.map(({ bin, luma, n }) => {
        const { seen, lit } = paint.get(bin)!;
        return { n, value: luma / Math.max(1e-4, seen / lit) };
      }),
    );
    light = normalised(light, pixels);
  }
  return light;
}

/** Shading of a normal in a photo's light. */
export function shadingAt(light: OwnShading, x: number, y: number, z: number): number {
  return Math.max(LEAST_SHADING, light.level + light.right * x + light.away * y + light.up * z);
}

interface Pixel {
  bin: number;
  luma: number;
  n: [number, number, number];
}

/** The pixels that tell of the light: opaque, no highlight, and of a paint of which more is seen. */
function paints({ data }: Rgba, normals: BodyNormals): Pixel[] {
  const lab = new Float64Array(3);
  const out: Pixel[] = [];
  for (let i = 0, j = 0; i < normals.width * normals.height; i++, j += 4) {
    if (data[j + 3] < 240) continue;
    const n = normals.data;
    if (!n[i * 3] && !n[i * 3 + 1] && !n[i * 3 + 2]) continue;
    const [r, g, b] = [data[j], data[j + 1], data[j + 2]];
    if (Math.max(r, g, b) > 252) continue;
    oklabOf(r, g, b, lab);
    if (lab[0] < 0.08) continue;
    // Chroma over lightness stays as light grows or falls.
    const bin = Math.round(lab[1] / lab[0] / BIN) * 4096 + Math.round(lab[2] / lab[0] / BIN);
    const luma = 0.2126 * LINEAR[r] + 0.7152 * LINEAR[g] + 0.0722 * LINEAR[b];
    out.push({ bin, luma, n: [n[i * 3], n[i * 3 + 1], n[i * 3 + 2]] });
  }
  return out;
}

/** The first-order light that explains relative luminances best: ridge regression toward the usual one, outliers eased. */
function fitted(pixels: { n: [number, number, number]; value: number }[]): OwnShading {
  const usual = [USUAL_SHADING.level, USUAL_SHADING.right, USUAL_SHADING.away, USUAL_SHADING.up];
  let x = usual;
  for (let round = 0; round < 3; round++) {
    const a = Array.from({ length: 4 }, () => new Float64Array(5));
    for (const { n, value } of pixels) {
      const row = [1, n[0], n[1], n[2]];
      const off = value - row.reduce((s, v, k) => s + v * x[k], 0);
      const w = 1 / (1 + (off / 0.2) ** 2);
      for (let p = 0; p < 4; p++) {
        for (let q = 0; q < 4; q++) a[p][q] += w * row[p] * row[q];
        a[p][4] += w * row[p] * value;
      }
    }
    for (let p = 0; p < 4; p++) {
      a[p][p] += HOLD * pixels.length;
      a[p][4] += HOLD * pixels.length * usual[p];
    }
    x = solved(a);
  }
  return { level: x[0], right: x[1], away: x[2], up: x[3] };
}

/** Gauss's elimination with pivots; the matrix holds the right side in its last column. */
function solved(a: Float64Array[]): number[] {
  const n = a.length;
  for (let p = 0; p < n; p++) {
    let most = p;
    for (let r = p + 1; r < n; r++) if (Math.abs(a[r][p]) > Math.abs(a[most][p])) most = r;
    [a[p], a[most]] = [a[most], a[p]];
    for (let r = p + 1; r < n; r++) {
      const f = a[r][p] / a[p][p];
      for (let c = p; c <= n; c++) a[r][c] -= f * a[p][c];
    }
  }
  const x = Array.from({ length: n }, () => 0);
  for (let p = n - 1; p >= 0; p--) {
    let sum = a[p][n];
    for (let c = p + 1; c < n; c++) sum -= a[p][c] * x[c];
    x[p] = sum / a[p][p];
  }
  return x;
}

/** The same light with a mean shading of 1 over what is seen. */
function normalised(light: OwnShading, pixels: Pixel[]): OwnShading {
  if (!pixels.length) return light;
  const mean = pixels.reduce((s, { n }) => s + shadingAt(light, n[0], n[1], n[2]), 0) / pixels.length;
  const k = 1 / Math.max(0.2, mean);
  return { level: light.level * k, right: light.right * k, away: light.away * k, up: light.up * k };
}
