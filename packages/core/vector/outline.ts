import type { Canvas2D } from '../raster/canvas';

/** One command of an outline, absolute. */
export type PathCommand =
  | { type: 'M' | 'L'; x: number; y: number }
  | { type: 'Q'; x1: number; y1: number; x: number; y: number }
  | { type: 'C'; x1: number; y1: number; x2: number; y2: number; x: number; y: number }
  | { type: 'Z' };

export interface Point {
  x: number;
  y: number;
}

export interface Bounds {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A rectangle made smaller by so much on every side, never to nothing. */
export function shrunk({ x, y, width, height }: Bounds, by: number): Bounds {
  return { x: x + by, y: y + by, width: Math.max(1, width - 2 * by), height: Math.max(1, height - 2 * by) };
}

/** Puts an outline on a canvas as its current path. */
export function tracePath(canvas: Canvas2D, commands: readonly PathCommand[]): void {
  canvas.beginPath();
  for (const c of commands) {
    if (c.type === 'M') canvas.moveTo(c.x, c.y);
    else if (c.type === 'L') canvas.lineTo(c.x, c.y);
    else if (c.type === 'Q') canvas.quadraticCurveTo(c.x1, c.y1, c.x, c.y);
    else if (c.type === 'C') canvas.bezierCurveTo(c.x1, c.y1, c.x2, c.y2, c.x, c.y);
    else canvas.closePath();
  }
}

export function fillPath(canvas: Canvas2D, commands: readonly PathCommand[], colour: string): void {
  tracePath(canvas, commands);
  canvas.fillStyle = colour;
  canvas.fill();
}

export interface Pen {
  width: number;
  colour: string;
  /** Lengths of dashes and gaps in frame pixels; empty for a whole line. */
  dash?: number[];
  ends?: 'butt' | 'round';
}

export function strokePath(canvas: Canvas2D, commands: readonly PathCommand[], pen: Pen): void {
  if (pen.width <= 0) return;
  tracePath(canvas, commands);
  canvas.strokeStyle = pen.colour;
  canvas.lineWidth = pen.width;
  canvas.lineCap = pen.ends ?? 'round';
  canvas.lineJoin = 'round';
  canvas.setLineDash(pen.dash ?? []);
  canvas.stroke();
  canvas.setLineDash([]);
}

/** An affine map as SVG writes it: x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export function mappedPath(commands: readonly PathCommand[], m: Matrix): PathCommand[] {
  const [a, b, c, d, e, f] = m;
  const x = (px: number, py: number) => a * px + c * py + e;
  const y = (px: number, py: number) => b * px + d * py + f;
  return commands.map((k): PathCommand => {
    if (k.type === 'Z') return k;
    const to = { x: x(k.x, k.y), y: y(k.x, k.y) };
    if (k.type === 'Q') return { type: 'Q', x1: x(k.x1, k.y1), y1: y(k.x1, k.y1), ...to };
    if (k.type === 'C')
      return {
        type: 'C',
        x1: x(k.x1, k.y1),
        y1: y(k.x1, k.y1),
        x2: x(k.x2, k.y2),
        y2: y(k.x2, k.y2),
        ...to,
      };
    return { type: k.type, ...to };
  });
}

/** The outline scaled, then moved. */
export function placedPath(
  commands: readonly PathCommand[],
  kx: number,
  ky: number,
  dx: number,
  dy: number,
): PathCommand[] {
  return mappedPath(commands, [kx, 0, 0, ky, dx, dy]);
}

/** The outline turned about a point, degrees clockwise. */
export function turnedPath(commands: readonly PathCommand[], degrees: number, about: Point): PathCommand[] {
  const a = (degrees * Math.PI) / 180;
  const [s, c] = [Math.sin(a), Math.cos(a)];
  return mappedPath(commands, [
    c, s, -s, c, about.x - c * about.x + s * about.y, about.y - s * about.x - c * about.y,
  ]); // prettier-ignore
}

/** The upright rectangle around all points of an outline, its control points among them; null of an empty one. */
export function pathBounds(commands: readonly PathCommand[]): Bounds | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const take = (x: number, y: number) => {
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  };
  for (const c of commands) {
    if (c.type === 'Z') continue;
    take(c.x, c.y);
    if (c.type === 'Q' || c.type === 'C') take(c.x1, c.y1);
    if (c.type === 'C') take(c.x2, c.y2);
  }
  return right < left ? null : { x: left, y: top, width: right - left, height: bottom - top };
}

export function polygon(points: readonly Point[]): PathCommand[] {
  return [
    ...points.map((p, i): PathCommand => ({ type: i ? 'L' : 'M', x: p.x, y: p.y })),
    { type: 'Z' as const },
  ];
}

export function polyline(points: readonly Point[]): PathCommand[] {
  return points.map((p, i) => ({ type: i ? 'L' : 'M', x: p.x, y: p.y }));
}

/** How far a cubic's handles stand off for a quarter of a circle. */
const QUARTER = 0.5522847498;

export function ellipse(cx: number, cy: number, rx: number, ry = rx): PathCommand[] {
  const [kx, ky] = [rx * QUARTER, ry * QUARTER];
  const arc = (x1: number, y1: number, x2: number, y2: number, x: number, y: number): PathCommand => ({
    type: 'C', x1: cx + x1, y1: cy + y1, x2: cx + x2, y2: cy + y2, x: cx + x, y: cy + y,
  }); // prettier-ignore
  return [
    { type: 'M', x: cx + rx, y: cy },
    arc(rx, ky, kx, ry, 0, ry),
    arc(-kx, ry, -rx, ky, -rx, 0),
    arc(-rx, -ky, -kx, -ry, 0, -ry),
    arc(kx, -ry, rx, -ky, rx, 0),
    { type: 'Z' },
  ];
}

export function roundedRectangle({ x, y, width, height }: Bounds, radius: number): PathCommand[] {
  const r = Math.max(0, Math.min(radius, width / 2, height / 2));
  const [right, bottom] = [x + width, y + height];
  const k = r * (1 - QUARTER);
  return [
    { type: 'M', x: x + r, y },
    { type: 'L', x: right - r, y },
    { type: 'C', x1: right - k, y1: y, x2: right, y2: y + k, x: right, y: y + r },
    { type: 'L', x: right, y: bottom - r },
    { type: 'C', x1: right, y1: bottom - k, x2: right - k, y2: bottom, x: right - r, y: bottom },
    { type: 'L', x: x + r, y: bottom },
    { type: 'C', x1: x + k, y1: bottom, x2: x, y2: bottom - k, x, y: bottom - r },
    { type: 'L', x, y: y + r },
    { type: 'C', x1: x, y1: y + k, x2: x + k, y2: y, x: x + r, y },
    { type: 'Z' },
  ];
}

/**
 * A star or a scalloped edge: `points` tips on the outer radius, `points` notches on the inner.
 * @param outer radii across and down; `inner` is a share of them
 */
export function star(
  { x: cx, y: cy }: Point,
  outer: Point,
  points: number,
  inner: number,
  rounded = false,
): PathCommand[] {
  const at = (i: number): Point => {
    const a = (Math.PI * i) / points - Math.PI / 2;
    const r = i % 2 ? inner : 1;
    return { x: cx + Math.cos(a) * outer.x * r, y: cy + Math.sin(a) * outer.y * r };
  };
  const list = Array.from({ length: points * 2 }, (_, i) => at(i));
  if (!rounded) return polygon(list);
  // Curves through the middles of the edges, with the tips and notches as handles.
  const middle = (i: number): Point => {
    const [p, q] = [list[i % list.length], list[(i + 1) % list.length]];
    return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  };
  const start = middle(list.length - 1);
  return [
    { type: 'M', ...start },
    ...list.map((p, i): PathCommand => {
      const to = middle(i);
      return { type: 'Q', x1: p.x, y1: p.y, x: to.x, y: to.y };
    }),
    { type: 'Z' },
  ];
}
