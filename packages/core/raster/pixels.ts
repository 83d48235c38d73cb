/** Pixel buffers: plain typed arrays with a size, row by row from the top left. */

/** 8-bit sRGB picture with straight (not premultiplied) alpha; `data` holds width*height*4 bytes. */
export interface Rgba {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

/** One float a pixel; the unit is the caller's (0..1 for mattes). */
export interface Plane {
  width: number;
  height: number;
  data: Float32Array;
}

/** A rectangle in pixels: left, top, width, height. */
export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

export function createRgba(width: number, height: number): Rgba {
  return { width, height, data: new Uint8ClampedArray(width * height * 4) };
}

export function createPlane(width: number, height: number, fill = 0): Plane {
  const data = new Float32Array(width * height);
  if (fill !== 0) data.fill(fill);
  return { width, height, data };
}

/** The alpha of a picture as a plane of 0..1. */
export function alphaPlane(image: Rgba): Plane {
  const out = createPlane(image.width, image.height);
  for (let i = 0, j = 3; i < out.data.length; i++, j += 4) out.data[i] = image.data[j] / 255;
  return out;
}

/** The green channel of a grey picture as a plane of 0..1. */
export function greyPlane(image: Rgba): Plane {
  const out = createPlane(image.width, image.height);
  for (let i = 0, j = 1; i < out.data.length; i++, j += 4) out.data[i] = image.data[j] / 255;
  return out;
}

/** The alpha of a picture as a plane of 0..1, each `factor` x `factor` pixels averaged to one; a rest at the far edges is averaged too. */
export function reducedAlpha(image: Rgba, factor: number): Plane {
  const width = Math.ceil(image.width / factor);
  const height = Math.ceil(image.height / factor);
  const out = createPlane(width, height);
  for (let y = 0; y < image.height; y++) {
    const row = Math.floor(y / factor) * width;
    for (let x = 0, j = y * image.width * 4 + 3; x < image.width; x++, j += 4)
      out.data[row + Math.floor(x / factor)] += image.data[j];
  }
  for (let y = 0; y < height; y++) {
    const tall = Math.min(factor, image.height - y * factor);
    for (let x = 0; x < width; x++)
      out.data[y * width + x] /= 255 * tall * Math.min(factor, image.width - x * factor);
  }
  return out;
}

/** The part of `image` inside `rect`, which must lie within the picture. */
export function crop(image: Rgba, rect: Rect): Rgba {
  const out = createRgba(rect.width, rect.height);
  const row = rect.width * 4;
  for (let y = 0; y < rect.height; y++) {
    const from = ((rect.y + y) * image.width + rect.x) * 4;
    out.data.set(image.data.subarray(from, from + row), y * row);
  }
  return out;
}

/** A rectangle in a picture of another scale: whole pixels, and none beyond it. */
export function scaledWithin(
  rect: Rect,
  scale: number,
  { width, height }: { width: number; height: number },
): Rect {
  const x = Math.min(width - 1, Math.max(0, Math.round(rect.x * scale)));
  const y = Math.min(height - 1, Math.max(0, Math.round(rect.y * scale)));
  return {
    x,
    y,
    width: Math.max(1, Math.min(width - x, Math.round(rect.width * scale))),
    height: Math.max(1, Math.min(height - y, Math.round(rect.height * scale))),
  };
}

/** The smallest rectangle around all values above `threshold`, or null when there is none. */
export function boundsAbove(
  plane: { width: number; height: number; data: ArrayLike<number> },
  threshold: number,
): Rect | null {
  const { width, height, data } = plane;
  let left = width;
  let right = -1;
  let top = -1;
  let bottom = -1;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let first = -1;
    for (let x = 0; x < width; x++) {
      if (data[row + x] > threshold) {
        first = x;
        break;
      }
    }
    if (first < 0) continue;
    let last = first;
    for (let x = width - 1; x > first; x--) {
      if (data[row + x] > threshold) {
        last = x;
        break;
      }
    }
    if (top < 0) top = y;
    bottom = y;
    if (first < left) left = first;
    if (last > right) right = last;
  }
  return top < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}
