import type { Plane } from './pixels';
import { createPlane } from './pixels';

type Point = [number, number];

/** A picture's place on the photo: the middle of pixel (x, y) is at photo place ((x + 0.5) * k + left, ...). */
export interface View {
  width: number;
  height: number;
  left: number;
  top: number;
  /** Photo pixels a picture pixel. */
  k: number;
}

/**
 * What a round brush covers along a line of points, 0..1; full up to the radius less its softness, then fading
 * to nothing at the radius (a linear slope), at least over one pixel.
 */
export function strokeCover(view: View, points: readonly Point[], radius: number, softness = 0): Plane {
  const out = createPlane(view.width, view.height);
  alongStroke(view, points, radius, softness, (i, cover) => {
    if (cover > out.data[i]) out.data[i] = cover;
  });
  return out;
}

/** Visits every pixel near a stroke, piece by piece, with what that piece covers of it; pixels may come again. */
export function alongStroke(
  view: View,
  points: readonly Point[],
  radius: number,
  softness: number,
  visit: (pixel: number, cover: number) => void,
): void {
  const r = radius / view.k;
  const fade = Math.max(1, r * softness);
  const at = points.map(([x, y]) => [(x - view.left) / view.k, (y - view.top) / view.k]);
  for (let s = at.length > 1 ? 1 : 0; s < at.length; s++) {
    const [ax, ay] = at[Math.max(0, s - 1)];
    const [bx, by] = at[s];
    const x0 = Math.max(0, Math.floor(Math.min(ax, bx) - r - 1));
    const x1 = Math.min(view.width - 1, Math.ceil(Math.max(ax, bx) + r + 1));
    const y0 = Math.max(0, Math.floor(Math.min(ay, by) - r - 1));
    const y1 = Math.min(view.height - 1, Math.ceil(Math.max(ay, by) + r + 1));
    const dx = bx - ax;
    const dy = by - ay;
    const length2 = dx * dx + dy * dy;
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const px = x + 0.5 - ax;
        const py = y + 0.5 - ay;
        const t = length2 > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy) / length2)) : 0;
        const v = (r + 0.5 - Math.hypot(px - t * dx, py - t * dy)) / fade;
        if (v > 0) visit(y * view.width + x, v < 1 ? v : 1);
      }
  }
}

/** Visits every pixel that a stroke touches once, with the most that any piece of it covers, 0..1. */
export function underStroke(
  view: View,
  points: readonly Point[],
  radius: number,
  softness: number,
  visit: (pixel: number, cover: number) => void,
): void {
  const first = (v: number, from: number) => Math.max(0, Math.floor((v - radius - from) / view.k) - 1);
  const left = first(Math.min(...points.map(([x]) => x)), view.left);
  const top = first(Math.min(...points.map(([, y]) => y)), view.top);
  const right = Math.ceil((Math.max(...points.map(([x]) => x)) + radius - view.left) / view.k) + 1;
  const bottom = Math.ceil((Math.max(...points.map(([, y]) => y)) + radius - view.top) / view.k) + 1;
  const width = Math.min(view.width - 1, right) - left + 1;
  const height = Math.min(view.height - 1, bottom) - top + 1;
  if (width <= 0 || height <= 0) return;
  const part: View = {
    width,
    height,
    left: view.left + left * view.k,
    top: view.top + top * view.k,
    k: view.k,
  };
  strokeCover(part, points, radius, softness).data.forEach((cover, i) => {
    if (!cover) return;
    const x = i % width;
    visit(((i - x) / width + top) * view.width + x + left, cover);
  });
}

/** What a closed polygon covers (even-odd rule), by exact spans on four lines a pixel. */
export function polygonCover(view: View, points: readonly Point[]): Plane {
  const out = createPlane(view.width, view.height);
  const at = points.map(([x, y]) => [(x - view.left) / view.k, (y - view.top) / view.k]);
  const LINES = 4;
  for (let line = 0; line < view.height * LINES; line++) {
    const y = (line + 0.5) / LINES;
    const crossings: number[] = [];
    for (let i = 0, j = at.length - 1; i < at.length; j = i++) {
      const [ax, ay] = at[j];
      const [bx, by] = at[i];
      if (ay <= y !== by <= y) crossings.push(ax + ((y - ay) / (by - ay)) * (bx - ax));
    }
    if (!crossings.length) continue;
    crossings.sort((a, b) => a - b);
    const row = Math.floor(line / LINES) * view.width;
    for (let c = 0; c + 1 < crossings.length; c += 2) {
      const from = Math.max(0, crossings[c]);
      const to = Math.min(view.width, crossings[c + 1]);
      for (let x = Math.floor(from); x < to; x++)
        out.data[row + x] += Math.max(0, Math.min(x + 1, to) - Math.max(x, from)) / LINES;
    }
  }
  return out;
}

/**
 * A closed path of cubic Bézier curves as points. Three points a node: the handle toward the node before, the node,
 * the handle toward the next; a corner has both handles on its node.
 */
export function curveOutline(points: readonly Point[]): Point[] {
  const nodes = Math.floor(points.length / 3);
  const out: Point[] = [];
  for (let i = 0; i < nodes; i++) {
    const [a, b] = [points[i * 3 + 1], points[i * 3 + 2]];
    const next = ((i + 1) % nodes) * 3;
    const [c, d] = [points[next], points[next + 1]];
    const reach = Math.hypot(b[0] - a[0], b[1] - a[1]) + Math.hypot(d[0] - c[0], d[1] - c[1]);
    const parts = reach < 0.5 ? 1 : Math.min(64, Math.max(8, Math.ceil(reach / 3)));
    for (let k = 0; k < parts; k++) {
      const t = k / parts;
      const s = 1 - t;
      const at = (n: 0 | 1) => s ** 3 * a[n] + 3 * s * s * t * b[n] + 3 * s * t * t * c[n] + t ** 3 * d[n];
      out.push([at(0), at(1)]);
    }
  }
  return out;
}

/** The outline of an ellipse or a (rounded) rectangle between two corners, as points. */
export function shapeOutline(shape: 'rectangle' | 'ellipse', [a, b]: readonly Point[], corner = 0): Point[] {
  const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  const arc = (cx: number, cy: number, rx: number, ry: number, from: number, to: number): Point[] =>
    Array.from({ length: 33 }, (_, i) => {
      const t = from + ((to - from) * i) / 32;
      return [cx + rx * Math.cos(t), cy + ry * Math.sin(t)];
    });
  const half = Math.PI / 2;
  if (shape === 'ellipse') {
    const [cx, cy, rx, ry] = [(x0 + x1) / 2, (y0 + y1) / 2, (x1 - x0) / 2, (y1 - y0) / 2];
    return [0, 1, 2, 3].flatMap((q) => arc(cx, cy, rx, ry, q * half, (q + 1) * half).slice(0, 32));
  }
  const r = Math.min(corner, (x1 - x0) / 2, (y1 - y0) / 2);
  if (r <= 0)
    return [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ];
  return [
    ...arc(x1 - r, y0 + r, r, r, -half, 0),
    ...arc(x1 - r, y1 - r, r, r, 0, half),
    ...arc(x0 + r, y1 - r, r, r, half, 2 * half),
    ...arc(x0 + r, y0 + r, r, r, 2 * half, 3 * half),
  ];
}
