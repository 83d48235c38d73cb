import { grow, squaredDistance } from '../raster/distance';
import { createPlane, type Plane, type Rgba } from '../raster/pixels';
import type { Segmentation } from './segment';
import { spread } from './spread';

/** Matte and edge colours of a photo at its full size. */
export interface Matte {
  alpha: Plane;
  /** The photo with the backdrop taken out of the colours at its edge; alpha is the matte. */
  cleaned: Rgba;
}

/** Half the width of the band in which the matte may be fractional, in pixels of the reduced picture. */
const BAND = 3;

/**
 * From a labelled reduced picture to a fractional matte at full size. In a band around the outline the
 * colours of the product and of the backdrop are spread from either side (so that the backdrop's estimate
 * carries gradients and shadows), and each full-size pixel is placed on the line between the two:
 * alpha = (C - B).(F - B) / |F - B|^2 (Porter and Duff 1984's compositing equation, solved for alpha). Where
 * the two colours are too alike to tell, the outline itself decides. The product's colour follows from the
 * same equation.
 */
export function solveMatte(photo: Rgba, small: Rgba, segmentation: Segmentation): Matte {
  const { width, height } = small;
  const n = width * height;
  const { product, residual } = segmentation;
  const inner = grow(product, width, height, -BAND);
  const outer = grow(product, width, height, BAND + 1);
  const stray = strayFibres(product, residual, width, height);
  const knownProduct = new Float32Array(n);
  const knownBackdrop = new Float32Array(n);
  const colours = new Float32Array(n * 3);
  // Thin parts have no inside left after shrinking: their own core stands for them.
  const core = grow(product, width, height, -1);
  for (let i = 0; i < n; i++) {
    if (inner[i]) knownProduct[i] = 1;
    else if (core[i]) knownProduct[i] = 0.15;
    else if (product[i] && residual[i] > 6) knownProduct[i] = 0.02;
    if (!outer[i] && !stray[i]) knownBackdrop[i] = 1;
    for (let c = 0; c < 3; c++) colours[i * 3 + c] = small.data[i * 4 + c];
  }
  // Pixels just outside the product may hold a little of it: they do not vouch for the backdrop.
  const F = spread(colours, knownProduct, width, height, 3);
  const B = spread(colours, knownBackdrop, width, height, 3);
  const prior = softLabel(product, width, height);

  const noise = Math.max(2.2, segmentation.model.sigma[0] * 255 * 1.5);
  const W = photo.width;
  const H = photo.height;
  const alpha = createPlane(W, H);
  const cleaned: Rgba = { width: W, height: H, data: new Uint8ClampedArray(photo.data) };
  const sx = width / W;
  const sy = height / H;
  const f = new Float64Array(3);
  const b = new Float64Array(3);
  for (let y = 0; y < H; y++) {
    const cy = (y + 0.5) * sy - 0.5;
    const ny = Math.min(height - 1, Math.max(0, Math.round(cy)));
    const y0 = Math.min(height - 1, Math.max(0, Math.floor(cy)));
    const y1 = Math.min(height - 1, y0 + 1);
    const fy = Math.min(1, Math.max(0, cy - y0));
    for (let x = 0; x < W; x++) {
      const cx = (x + 0.5) * sx - 0.5;
      const nx = Math.min(width - 1, Math.max(0, Math.round(cx)));
      const near = ny * width + nx;
      const p = y * W + x;
      const j = p * 4;
      if (inner[near]) {
        alpha.data[p] = photo.data[j + 3] / 255;
        continue;
      }
      if (!outer[near] && !stray[near]) {
        cleaned.data[j + 3] = 0;
        continue;
      }
      const x0 = Math.min(width - 1, Math.max(0, Math.floor(cx)));
      const x1 = Math.min(width - 1, x0 + 1);
      const fx = Math.min(1, Math.max(0, cx - x0));
      const i00 = y0 * width + x0;
      const i10 = y0 * width + x1;
      const i01 = y1 * width + x0;
      const i11 = y1 * width + x1;
      const w00 = (1 - fx) * (1 - fy);
      const w10 = fx * (1 - fy);
      const w01 = (1 - fx) * fy;
      const w11 = fx * fy;
      let dot = 0;
      let length2 = 0;
      for (let c = 0; c < 3; c++) {
        f[c] = F[i00 * 3 + c] * w00 + F[i10 * 3 + c] * w10 + F[i01 * 3 + c] * w01 + F[i11 * 3 + c] * w11;
        b[c] = B[i00 * 3 + c] * w00 + B[i10 * 3 + c] * w10 + B[i01 * 3 + c] * w01 + B[i11 * 3 + c] * w11;
        const d = f[c] - b[c];
        dot += (photo.data[j + c] - b[c]) * d;
        length2 += d * d;
      }
      const outline = prior[i00] * w00 + prior[i10] * w10 + prior[i01] * w01 + prior[i11] * w11;
      const raw = length2 > 1 ? dot / length2 : outline;
      // How much the colours can be trusted against how far the outline has already decided.
      const trust = length2 / (length2 + 30 * noise * noise);
      let a = trust * Math.min(1.15, Math.max(-0.15, raw)) + (1 - trust) * outline;
      // Deep inside, a pixel unlike F is the product's own pattern or highlight; far outside, it is dust or shade.
      if (outline > 0.8) a = Math.max(a, (outline - 0.8) * 5);
      if (outline < 0.04 && !stray[near]) a *= outline / 0.04;
      a = (a - 0.04) / 0.92;
      a = a < 0 ? 0 : a > 1 ? 1 : a;
      a *= photo.data[j + 3] / 255;
      alpha.data[p] = a;
      cleaned.data[j + 3] = a * 255;
      if (a > 0 && a < 1) {
        const certain = a * a;
        for (let c = 0; c < 3; c++) {
          const unmixed = Math.min(255, Math.max(0, (photo.data[j + c] - (1 - a) * b[c]) / a));
          cleaned.data[j + c] = certain * unmixed + (1 - certain) * f[c];
        }
      }
    }
  }
  return { alpha, cleaned };
}

/** The label's share in a small round neighbourhood: a soft outline about two reduced pixels wide. */
function softLabel(product: Uint8Array, width: number, height: number): Float32Array {
  const inside = squaredDistance(
    product.map((v) => (v ? 0 : 1)),
    width,
    height,
  );
  const outside = squaredDistance(product, width, height);
  const out = new Float32Array(product.length);
  for (let i = 0; i < out.length; i++) {
    const d = product[i] ? Math.sqrt(inside[i]) - 0.5 : 0.5 - Math.sqrt(outside[i]);
    out[i] = Math.min(1, Math.max(0, 0.5 + d / 2.4));
  }
  return out;
}

/** Pixels near the product that do not look like backdrop though the cut left them out: fibres, fringes, fine tips. */
function strayFibres(product: Uint8Array, residual: Float32Array, width: number, height: number): Uint8Array {
  const near = grow(product, width, height, BAND * 4);
  const out = new Uint8Array(product.length);
  for (let i = 0; i < out.length; i++) out[i] = near[i] && !product[i] && residual[i] > 3.6 ? 1 : 0;
  return grow(out, width, height, 1);
}
