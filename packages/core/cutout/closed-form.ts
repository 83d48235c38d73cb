import type { Rgba } from '../raster/pixels';

/** Variance in bytes squared below which a window counts as flat: more follows the outline, less the colours. */
const EPSILON = 6;

/**
 * Solves the matte of the unknown pixels so that in every 3x3 window it is as nearly as can be an affine
 * function of the colour, near the wished values by their weights (Levin, Lischinski and Weiss 2008, "A
 * closed-form solution to natural image matting", with a data term), by conjugate gradients without forming the
 * matrix: the Laplacian times a matte is the sum, over the windows around a pixel, of what the window's own
 * ridge regression on colour leaves over.
 * @param alpha in and out: 0..1 everywhere; changed for `unknown` only
 * @param wish wished value and its weight, one for each of `unknown`
 */
export function solveClosedForm(
  image: Rgba,
  alpha: Float32Array,
  unknown: Int32Array,
  wish: Float32Array,
  weight: Float32Array,
  iterations: number,
): void {
  const { width, height } = image;
  if (!unknown.length || width < 3 || height < 3) return;
  const windows = windowsOf(image, unknown);
  const count = unknown.length;
  const full = new Float32Array(width * height);
  const residual = new Float32Array(count);
  addLaplacian(windows, alpha, full);
  for (let k = 0; k < count; k++) residual[k] = weight[k] * (wish[k] - alpha[unknown[k]]) - full[unknown[k]];
  const direction = Float32Array.from(residual);
  const spread = new Float32Array(width * height);
  let rho = 0;
  for (let k = 0; k < count; k++) rho += residual[k] * residual[k];
  const enough = rho * 1e-6;
  for (let round = 0; round < iterations && rho > enough && rho > 1e-9; round++) {
    for (const m of windows.middles) for (const offset of windows.offsets) full[m + offset] = 0;
    for (let k = 0; k < count; k++) spread[unknown[k]] = direction[k];
    addLaplacian(windows, spread, full);
    let bend = 0;
    for (let k = 0; k < count; k++) bend += direction[k] * (full[unknown[k]] + weight[k] * direction[k]);
    const step = rho / bend;
    let next = 0;
    for (let k = 0; k < count; k++) {
      const p = unknown[k];
      alpha[p] += step * direction[k];
      residual[k] -= step * (full[p] + weight[k] * direction[k]);
      next += residual[k] * residual[k];
    }
    const turn = next / rho;
    rho = next;
    for (let k = 0; k < count; k++) direction[k] = residual[k] + turn * direction[k];
  }
  for (const p of unknown) alpha[p] = alpha[p] < 0 ? 0 : alpha[p] > 1 ? 1 : alpha[p];
}

/** 3x3 windows with the statistics of their colours. */
interface Windows {
  /** RGBA bytes. */
  data: Rgba['data'];
  /** Index of each window's middle pixel, and from there to its nine pixels. */
  middles: number[];
  offsets: number[];
  /** Mean colour, three a window. */
  mean: Float32Array;
  /** Upper half of the inverse of the ridged covariance, six a window. */
  inverse: Float32Array;
}

/** The windows that hold an unknown pixel. */
function windowsOf({ width, height, data }: Rgba, unknown: Int32Array): Windows {
  const seen = new Uint8Array(width * height);
  const middles: number[] = [];
  for (const p of unknown) {
    const x = p % width;
    const y = (p - x) / width;
    for (let wy = Math.max(1, y - 1); wy <= Math.min(height - 2, y + 1); wy++)
      for (let wx = Math.max(1, x - 1); wx <= Math.min(width - 2, x + 1); wx++) {
        const m = wy * width + wx;
        if (!seen[m]) {
          seen[m] = 1;
          middles.push(m);
        }
      }
  }
  const offsets = [-width - 1, -width, -width + 1, -1, 0, 1, width - 1, width, width + 1];
  const mean = new Float32Array(middles.length * 3);
  const inverse = new Float32Array(middles.length * 6);
  const windows = { data, middles, offsets, mean, inverse };
  for (let w = 0; w < middles.length; w++) measureWindow(windows, w);
  return windows;
}

function measureWindow({ data, middles, offsets, mean, inverse }: Windows, w: number): void {
  let r = 0, g = 0, b = 0, rr = 0, rg = 0, rb = 0, gg = 0, gb = 0, bb = 0; // prettier-ignore
  for (let k = 0; k < 9; k++) {
    const j = (middles[w] + offsets[k]) * 4;
    const cr = data[j];
    const cg = data[j + 1];
    const cb = data[j + 2];
    r += cr;
    g += cg;
    b += cb;
    rr += cr * cr;
    rg += cr * cg;
    rb += cr * cb;
    gg += cg * cg;
    gb += cg * cb;
    bb += cb * cb;
  }
  r /= 9;
  g /= 9;
  b /= 9;
  mean[w * 3] = r;
  mean[w * 3 + 1] = g;
  mean[w * 3 + 2] = b;
  const A = rr / 9 - r * r + EPSILON;
  const B = rg / 9 - r * g;
  const C = rb / 9 - r * b;
  const D = gg / 9 - g * g + EPSILON;
  const E = gb / 9 - g * b;
  const F = bb / 9 - b * b + EPSILON;
  const c0 = D * F - E * E;
  const c1 = C * E - B * F;
  const c2 = B * E - C * D;
  const det = 1 / (A * c0 + B * c1 + C * c2);
  const o = w * 6;
  inverse[o] = c0 * det;
  inverse[o + 1] = c1 * det;
  inverse[o + 2] = c2 * det;
  inverse[o + 3] = (A * F - C * C) * det;
  inverse[o + 4] = (B * C - A * E) * det;
  inverse[o + 5] = (A * D - B * B) * det;
}

/** out[p] += Laplacian times `values` at all pixels of the windows. */
function addLaplacian(windows: Windows, values: Float32Array, out: Float32Array): void {
  const { data, middles, offsets, mean, inverse } = windows;
  for (let w = 0; w < middles.length; w++) {
    const m = middles[w];
    const mr = mean[w * 3];
    const mg = mean[w * 3 + 1];
    const mb = mean[w * 3 + 2];
    let a = 0;
    let ar = 0;
    let ag = 0;
    let ab = 0;
    for (let k = 0; k < 9; k++) {
      const q = m + offsets[k];
      const v = values[q];
      a += v;
      ar += v * (data[q * 4] - mr);
      ag += v * (data[q * 4 + 1] - mg);
      ab += v * (data[q * 4 + 2] - mb);
    }
    a /= 9;
    ar /= 9;
    ag /= 9;
    ab /= 9;
    const o = w * 6;
    const cr = inverse[o] * ar + inverse[o + 1] * ag + inverse[o + 2] * ab;
    const cg = inverse[o + 1] * ar + inverse[o + 3] * ag + inverse[o + 4] * ab;
    const cb = inverse[o + 2] * ar + inverse[o + 4] * ag + inverse[o + 5] * ab;
    for (let k = 0; k < 9; k++) {
      const q = m + offsets[k];
      out[q] +=
        values[q] - a - cr * (data[q * 4] - mr) - cg * (data[q * 4 + 1] - mg) - cb * (data[q * 4 + 2] - mb);
    }
  }
}
