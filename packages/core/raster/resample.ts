import { createRgba, type Plane, type Rgba, createPlane } from './pixels';

/** For each target sample: the source samples it is made of, held inside the picture, and their weights. */
interface Kernel {
  taps: number;
  /** `taps` a target sample; unused ones have weight zero. */
  source: Int32Array;
  weights: Float32Array;
}

/** Triangle when enlarging, area-proportional triangle when reducing: no ringing on hard cutout edges. */
function kernel(from: number, to: number): Kernel {
  const ratio = from / to;
  const support = Math.max(1, ratio);
  const taps = Math.floor(support * 2) + 1;
  const source = new Int32Array(to * taps);
  const weights = new Float32Array(to * taps);
  for (let i = 0; i < to; i++) {
    const centre = (i + 0.5) * ratio - 0.5;
    const first = Math.floor(centre - support) + 1;
    let sum = 0;
    for (let t = 0; t < taps; t++) {
      const w = Math.max(0, 1 - Math.abs(first + t - centre) / support);
      weights[i * taps + t] = w;
      source[i * taps + t] = Math.min(from - 1, Math.max(0, first + t));
      sum += w;
    }
    for (let t = 0; t < taps; t++) weights[i * taps + t] /= sum;
  }
  return { taps, source, weights };
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
  // Far reductions average whole blocks first: the triangle then meets a ratio between 1.15 and 2.
  const exact = image.width % width === 0 && image.width / width === image.height / height;
  if (exact) return averageBlocks(image, image.width / width);
  const block = Math.floor(Math.min(image.width / width, image.height / height) / 1.15);
  if (block >= 2) return resize(averageBlocks(image, block), width, height);
  return separable(image, width, height);
}

/** Resized across and then down, a row at a time. */
function separable(image: Rgba, width: number, height: number): Rgba {
  const kx = kernel(image.width, width);
  const ky = kernel(image.height, height);
  const out = createRgba(width, height);
  const rowLength = width * 4;
  // Rows already reduced across, kept in a ring just long enough for the vertical window.
  const ring = Array.from({ length: ky.taps + 1 }, () => new Float32Array(rowLength));
  const ringRow = new Int32Array(ky.taps + 1).fill(-1);
  const opaque = isOpaque(image);
  const across = opaque ? opaqueRow : transparentRow;
  const reducedRow = (y: number): Float32Array => {
    const slot = y % ring.length;
    if (ringRow[slot] !== y) {
      ringRow[slot] = y;
      across(image, y, kx, ring[slot]);
    }
    return ring[slot];
  };
  const sum = new Float32Array(rowLength);
  for (let y = 0; y < height; y++) {
    let first = true;
    for (let t = 0; t < ky.taps; t++) {
      const w = ky.weights[y * ky.taps + t];
      if (w === 0) continue;
      const row = reducedRow(ky.source[y * ky.taps + t]);
      if (first) for (let k = 0; k < rowLength; k++) sum[k] = w * row[k];
      else for (let k = 0; k < rowLength; k++) sum[k] += w * row[k];
      first = false;
    }
    writeRow(sum, out.data, y * rowLength, opaque);
  }
  return out;
}

/** One row reduced across: red, green and blue; its fourth values are left alone. */
function opaqueRow(
  { width, data }: Rgba,
  y: number,
  { taps, source, weights }: Kernel,
  row: Float32Array,
): void {
  const base = y * width;
  for (let k = 0, o = 0; k < row.length; k += 4) {
    let r = 0;
    let g = 0;
    let b = 0;
    for (let t = 0; t < taps; t++, o++) {
      const j = (base + source[o]) * 4;
      const w = weights[o];
      r += w * data[j];
      g += w * data[j + 1];
      b += w * data[j + 2];
    }
    row[k] = r;
    row[k + 1] = g;
    row[k + 2] = b;
  }
}

/** One row reduced across, premultiplied. */
function transparentRow(
  { width, data }: Rgba,
  y: number,
  { taps, source, weights }: Kernel,
  row: Float32Array,
): void {
  const base = y * width;
  for (let k = 0, o = 0; k < row.length; k += 4) {
    let r = 0;
    let g = 0;
    let b = 0;
    let a = 0;
    for (let t = 0; t < taps; t++, o++) {
      const j = (base + source[o]) * 4;
      const w = weights[o] * data[j + 3];
      r += w * data[j];
      g += w * data[j + 1];
      b += w * data[j + 2];
      a += w;
    }
    row[k] = r;
    row[k + 1] = g;
    row[k + 2] = b;
    row[k + 3] = a;
  }
}

/** A summed row as bytes, straight alpha; `o` is where it begins. */
function writeRow(sum: Float32Array, data: Uint8ClampedArray, o: number, opaque: boolean): void {
  for (let k = 0; k < sum.length; k += 4) {
    const a = opaque ? 1 : sum[k + 3];
    if (!(a > 0)) continue;
    data[o + k] = sum[k] / a;
    data[o + k + 1] = sum[k + 1] / a;
    data[o + k + 2] = sum[k + 2] / a;
    data[o + k + 3] = opaque ? 255 : a;
  }
}

/** Each `block` x `block` pixels averaged to one, on premultiplied colour; a rest at the far edges is averaged too. */
function averageBlocks(image: Rgba, block: number): Rgba {
  const width = Math.ceil(image.width / block);
  const height = Math.ceil(image.height / block);
  const out = createRgba(width, height);
  const src = image.data;
  const opaque = isOpaque(image);
  const sums = new Float64Array(width * 4);
  for (let y = 0; y < height; y++) {
    sums.fill(0);
    const last = Math.min(image.height, (y + 1) * block);
    for (let sy = y * block; sy < last; sy++) {
      let j = sy * image.width * 4;
      for (let x = 0, k = 0; x < width; x++, k += 4) {
        const end = Math.min(image.width, (x + 1) * block) * 4 + sy * image.width * 4;
        let r = 0;
        let g = 0;
        let b = 0;
        let a = 0;
        if (opaque) {
          for (; j < end; j += 4) {
            r += src[j];
            g += src[j + 1];
            b += src[j + 2];
            a++;
          }
        } else {
          for (; j < end; j += 4) {
            const w = src[j + 3];
            r += src[j] * w;
            g += src[j + 1] * w;
            b += src[j + 2] * w;
            a += w;
          }
        }
        sums[k] += r;
        sums[k + 1] += g;
        sums[k + 2] += b;
        sums[k + 3] += a;
      }
    }
    for (let x = 0, k = 0, o = y * width * 4; x < width; x++, k += 4, o += 4) {
      const a = sums[k + 3];
      if (a === 0) continue;
      out.data[o] = sums[k] / a;
      out.data[o + 1] = sums[k + 1] / a;
      out.data[o + 2] = sums[k + 2] / a;
      out.data[o + 3] = opaque
        ? 255
        : a / ((last - y * block) * (Math.min(image.width, (x + 1) * block) - x * block));
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
