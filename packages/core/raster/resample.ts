import { createRgba, type Plane, type Rgba, createPlane } from './pixels';

/** For each target sample: where its source window starts and the weights of the window. */
interface Kernel {
  start: Int32Array;
  taps: number;
  weights: Float32Array;
}

/** Triangle when enlarging, area-proportional triangle when reducing: no ringing on hard cutout edges. */
function kernel(from: number, to: number): Kernel {
  const ratio = from / to;
  const support = Math.max(1, ratio);
  const taps = Math.ceil(support) * 2 + 1;
  const start = new Int32Array(to);
  const weights = new Float32Array(to * taps);
  for (let i = 0; i < to; i++) {
    const centre = (i + 0.5) * ratio - 0.5;
    const first = Math.ceil(centre - support);
    start[i] = first;
    let sum = 0;
    for (let t = 0; t < taps; t++) {
      const w = Math.max(0, 1 - Math.abs(first + t - centre) / support);
      weights[i * taps + t] = w;
      sum += w;
    }
    for (let t = 0; t < taps; t++) weights[i * taps + t] /= sum;
  }
  return { start, taps, weights };
}

/**
 * Resizes a picture to exactly `width` x `height` pixels with a separable triangle filter widened by the
 * reduction (Heckbert 1989, "Fundamentals of texture mapping"), on premultiplied colour so that hidden
 * colours never bleed in. Throws when a side is below one pixel.
 */
export function resize(image: Rgba, width: number, height: number): Rgba {
  if (!(width >= 1 && height >= 1))
    throw new Error(
      `A picture cannot be resized to ${width} x ${height} pixels; both sides need at least 1.`,
    );
  if (width === image.width && height === image.height) return image;
  const kx = kernel(image.width, width);
  const ky = kernel(image.height, height);
  const src = image.data;
  const out = createRgba(width, height);
  const rowLength = width * 4;
  // Rows already reduced across, kept in a ring just long enough for the vertical window.
  const ring = Array.from({ length: ky.taps + 1 }, () => new Float32Array(rowLength));
  const ringRow = new Int32Array(ky.taps + 1).fill(-1);
  const opaque = isOpaque(image);

  const reduceRow = (y: number): Float32Array => {
    const slot = y % ring.length;
    const row = ring[slot];
    if (ringRow[slot] === y) return row;
    ringRow[slot] = y;
    const base = y * image.width;
    const last = image.width - 1;
    for (let x = 0; x < width; x++) {
      let r = 0;
      let g = 0;
      let b = 0;
      let a = 0;
      const s = kx.start[x];
      const o = x * kx.taps;
      for (let t = 0; t < kx.taps; t++) {
        const w = kx.weights[o + t];
        if (w === 0) continue;
        const sx = s + t;
        const j = (base + (sx < 0 ? 0 : sx > last ? last : sx)) * 4;
        if (opaque) {
          r += w * src[j];
          g += w * src[j + 1];
          b += w * src[j + 2];
        } else {
          const wa = w * src[j + 3];
          r += wa * src[j];
          g += wa * src[j + 1];
          b += wa * src[j + 2];
          a += wa;
        }
      }
      const k = x * 4;
      row[k] = r;
      row[k + 1] = g;
      row[k + 2] = b;
      row[k + 3] = a;
    }
    return row;
  };

  const sum = new Float32Array(rowLength);
  const lastRow = image.height - 1;
  for (let y = 0; y < height; y++) {
    sum.fill(0);
    for (let t = 0; t < ky.taps; t++) {
      const w = ky.weights[y * ky.taps + t];
      if (w === 0) continue;
      const sy = ky.start[y] + t;
      const row = reduceRow(sy < 0 ? 0 : sy > lastRow ? lastRow : sy);
      for (let k = 0; k < rowLength; k++) sum[k] += w * row[k];
    }
    const o = y * rowLength;
    for (let k = 0; k < rowLength; k += 4) {
      if (opaque) {
        out.data[o + k] = sum[k];
        out.data[o + k + 1] = sum[k + 1];
        out.data[o + k + 2] = sum[k + 2];
        out.data[o + k + 3] = 255;
      } else if (sum[k + 3] > 0) {
        out.data[o + k] = sum[k] / sum[k + 3];
        out.data[o + k + 1] = sum[k + 1] / sum[k + 3];
        out.data[o + k + 2] = sum[k + 2] / sum[k + 3];
        out.data[o + k + 3] = sum[k + 3];
      }
    }
  }
  return out;
}

/** The picture no larger than `maxSide` on its long side; itself when it already fits. */
export function reduceTo(image: Rgba, maxSide: number): Rgba {
  const scale = maxSide / Math.max(image.width, image.height);
  if (scale >= 1) return image;
  return resize(
    image,
    Math.max(1, Math.round(image.width * scale)),
    Math.max(1, Math.round(image.height * scale)),
  );
}

/** Bilinear resize of a float plane, sampled at pixel centres, clamped at the border. */
export function resizePlane(plane: Plane, width: number, height: number): Plane {
  const out = createPlane(width, height);
  for (let y = 0; y < height; y++) {
    const sy = ((y + 0.5) * plane.height) / height - 0.5;
    for (let x = 0; x < width; x++) {
      out.data[y * width + x] = samplePlane(plane, ((x + 0.5) * plane.width) / width - 0.5, sy);
    }
  }
  return out;
}

/** Bilinear value of a plane at a continuous place (pixel centres at whole numbers), clamped at the border. */
export function samplePlane(plane: Plane, x: number, y: number): number {
  const { width, height, data } = plane;
  const cx = x < 0 ? 0 : x > width - 1 ? width - 1 : x;
  const cy = y < 0 ? 0 : y > height - 1 ? height - 1 : y;
  const x0 = Math.floor(cx);
  const y0 = Math.floor(cy);
  const x1 = x0 < width - 1 ? x0 + 1 : x0;
  const y1 = y0 < height - 1 ? y0 + 1 : y0;
  const fx = cx - x0;
  const fy = cy - y0;
  const top = data[y0 * width + x0] * (1 - fx) + data[y0 * width + x1] * fx;
  const bottom = data[y1 * width + x0] * (1 - fx) + data[y1 * width + x1] * fx;
  return top * (1 - fy) + bottom * fy;
}

export function isOpaque(image: Rgba): boolean {
  for (let j = 3; j < image.data.length; j += 4) if (image.data[j] !== 255) return false;
  return true;
}
