import simplify from 'simplify-js';
import type { Plane } from './pixels';

type Point = [number, number];

/**
 * The half-way contours of a matte as closed rings of points between pixels (marching squares, Lorensen and
 * Cline 1987, in two dimensions), simplified to `tolerance` pixels. Pixel (x, y) has its middle at (x + 0.5, y + 0.5).
 */
export function contours(matte: Plane, tolerance = 0.35): Point[][] {
  const { width, height } = matte;
  const at = (x: number, y: number) =>
    x < 0 || y < 0 || x >= width || y >= height ? 0 : matte.data[y * width + x];
  const cross = (a: number, b: number) => (0.5 - a) / (b - a);
  // Each cell gives up to two segments; segments are keyed by where they start.
  const next = new Map<string, [string, Point][]>();
  const key = ([x, y]: Point) => `${Math.round(x * 1024)},${Math.round(y * 1024)}`;
  const add = (from: Point, to: Point) => {
    const list = next.get(key(from)) ?? [];
    list.push([key(to), to]);
    next.set(key(from), list);
  };
  const starts: Point[] = [];
  for (let y = -1; y < height; y++) {
    for (let x = -1; x < width; x++) {
      const [a, b, c, d] = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)];
      const code = (a >= 0.5 ? 8 : 0) | (b >= 0.5 ? 4 : 0) | (c >= 0.5 ? 2 : 0) | (d >= 0.5 ? 1 : 0);
      if (code === 0 || code === 15) continue;
      const [ox, oy] = [x + 0.5, y + 0.5];
      const top = (): Point => [ox + cross(a, b), oy];
      const right = (): Point => [ox + 1, oy + cross(b, c)];
      const bottom = (): Point => [ox + cross(d, c), oy + 1];
      const left = (): Point => [ox, oy + cross(a, d)];
      const put = (from: Point, to: Point) => {
        add(from, to);
        starts.push(from);
      };
      // The inside lies to the right of each segment.
      switch (code) {
        case 1: put(bottom(), left()); break; // prettier-ignore
        case 2: put(right(), bottom()); break; // prettier-ignore
        case 3: put(right(), left()); break; // prettier-ignore
        case 4: put(top(), right()); break; // prettier-ignore
        case 5: put(top(), left()); put(bottom(), right()); break; // prettier-ignore
        case 6: put(top(), bottom()); break; // prettier-ignore
        case 7: put(top(), left()); break; // prettier-ignore
        case 8: put(left(), top()); break; // prettier-ignore
        case 9: put(bottom(), top()); break; // prettier-ignore
        case 10: put(left(), bottom()); put(right(), top()); break; // prettier-ignore
        case 11: put(right(), top()); break; // prettier-ignore
        case 12: put(left(), right()); break; // prettier-ignore
        case 13: put(bottom(), right()); break; // prettier-ignore
        case 14: put(left(), bottom()); break; // prettier-ignore
      }
    }
  }
  const rings: Point[][] = [];
  for (const start of starts) {
    let from = key(start);
    if (!next.get(from)?.length) continue;
    const ring: Point[] = [start];
    for (;;) {
      const step = next.get(from)?.pop();
      if (!step) break;
      from = step[0];
      if (from === key(start)) break;
      ring.push(step[1]);
    }
    if (ring.length < 3) continue;
    const simple = simplify(
      [...ring, ring[0]].map(([x, y]) => ({ x, y })),
      tolerance,
      true,
    ).map(({ x, y }): Point => [x, y]);
    simple.pop();
    if (simple.length >= 3) rings.push(simple);
  }
  return rings;
}

/** The largest contour of a matte, ever coarser (from `tolerance` pixels) until it has `most` points; none where it is empty. */
export function outerContour(matte: Plane, most: number, tolerance: number): Point[] {
  for (let coarse = tolerance; ; coarse *= 1.4) {
    const [outer = []] = contours(matte, coarse).sort((a, b) => sizeOf(b) - sizeOf(a));
    if (outer.length <= most) return outer;
  }
}

const sizeOf = (ring: Point[]) =>
  Math.abs(
    ring.reduce((sum, [x, y], i) => {
      const [nx, ny] = ring[(i + 1) % ring.length];
      return sum + x * ny - nx * y;
    }, 0),
  );
