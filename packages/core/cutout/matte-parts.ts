import type { Rect, Rgba } from '../raster/pixels';
import type { FineMatte } from './fine-matte';

/** The rectangle within which two outlines differ, or two planes of odds by more than `tolerance`; null where they do not. */
export function changedPart(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  width: number,
  height: number,
  tolerance = 0,
): Rect | null {
  let left = width;
  let right = -1;
  let top = height;
  let bottom = -1;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      if (Math.abs(a[i] - b[i]) > tolerance) {
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < top) top = y;
        bottom = y;
      }
  return right < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

export function grownRect(rect: Rect, scale: number, margin: number, all: Rect): Rect {
  const x = Math.max(0, Math.floor(rect.x * scale) - margin);
  const y = Math.max(0, Math.floor(rect.y * scale) - margin);
  return {
    x,
    y,
    width: Math.min(all.width, Math.ceil((rect.x + rect.width) * scale) + margin) - x,
    height: Math.min(all.height, Math.ceil((rect.y + rect.height) * scale) + margin) - y,
  };
}

export function cropBytes(data: Uint8Array, width: number, rect: Rect): Uint8Array {
  const out = new Uint8Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y) * width + rect.x;
    out.set(data.subarray(from, from + rect.width), y * rect.width);
  }
  return out;
}

export function emptyMatte({ width, height }: Rgba, noise: number): FineMatte {
  const n = width * height;
  return {
    width,
    height,
    zone: new Uint8Array(n),
    alpha: new Float32Array(n),
    front: new Float32Array(n * 3),
    back: new Float32Array(n * 3),
    noise,
  };
}

export function copyMatte(matte: FineMatte): FineMatte {
  return {
    ...matte,
    zone: Uint8Array.from(matte.zone),
    alpha: Float32Array.from(matte.alpha),
    front: Float32Array.from(matte.front),
    back: Float32Array.from(matte.back),
  };
}

/** Puts a part's matte into the whole, less a rim where its own border made itself felt. */
export function pasteMatte(
  solved: { labels: Uint8Array; matte: FineMatte },
  part: Rect,
  rim: number,
  all: Rect,
  labels: Uint8Array,
  into: FineMatte,
): void {
  const left = part.x === 0 ? 0 : rim;
  const top = part.y === 0 ? 0 : rim;
  const right = part.x + part.width === all.width ? part.width : part.width - rim;
  const bottom = part.y + part.height === all.height ? part.height : part.height - rim;
  for (let y = top; y < bottom; y++) {
    const from = y * part.width;
    const to = (part.y + y) * all.width + part.x;
    const put = (target: Float32Array | Uint8Array, data: Float32Array | Uint8Array, n: number) =>
      target.set(data.subarray((from + left) * n, (from + right) * n), (to + left) * n);
    put(labels, solved.labels, 1);
    put(into.zone, solved.matte.zone, 1);
    put(into.alpha, solved.matte.alpha, 1);
    put(into.front, solved.matte.front, 3);
    put(into.back, solved.matte.back, 3);
  }
}

/** A photo's own transparency: whole where no correction dropped it. */
export function givenMatte(fine: Rgba, labels: Uint8Array, corrected: boolean): FineMatte {
  const n = fine.width * fine.height;
  const zone = new Uint8Array(n);
  for (let i = 0; i < n; i++) zone[i] = !corrected || labels[i] ? 1 : 0;
  return {
    width: fine.width,
    height: fine.height,
    zone,
    alpha: Float32Array.from(zone),
    front: new Float32Array(0),
    back: new Float32Array(0),
    noise: 1,
  };
}
