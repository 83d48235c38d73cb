import { ellipse, polygon, type PathCommand, type Point } from './outline';
import { seededRandom } from '../raster/random';

/** A decoration's outlines in a box: filled with the first colour, and with the second. */
export interface Decoration {
  first: PathCommand[];
  second: PathCommand[];
}

type Draw = (width: number, height: number, count: number, chance: () => number) => Decoration;

/** Our own set. Each fills a box of any shape; `count` is how many waves, rays, leaves or dots. */
const DRAWINGS: Record<string, Draw> = {
  waves(w, h, count) {
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    const rows = 3;
    for (let r = 0; r < rows; r++) {
      const thick = h / (rows * 2.6);
      const y = ((r + 0.5) * h) / rows;
      const swing = h / (rows * 3.4);
      const line = (at: number, back: boolean): PathCommand[] => {
        const steps = count * 2;
        const dx = w / steps;
        return Array.from({ length: steps }, (_, i) => {
          const k = back ? steps - i : i;
          const way = back ? -1 : 1;
          const x = k * dx;
          const bend = ((k + (back ? 1 : 0)) % 2 ? -1 : 1) * swing * 2;
          return { type: 'Q', x1: x + (way * dx) / 2, y1: at - bend, x: x + way * dx, y: at };
        });
      };
      (r % 2 ? second : first).push(
        { type: 'M', x: 0, y: y - thick / 2 },
        ...line(y - thick / 2, false),
        { type: 'L', x: w, y: y + thick / 2 },
        ...line(y + thick / 2, true),
        { type: 'Z' },
      );
    }
    return { first, second };
  },
  rays(w, h, count) {
    const [cx, cy] = [w / 2, h / 2];
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    const n = Math.max(4, count * 2);
    for (let i = 0; i < n; i++) {
      const a = (i * 2 * Math.PI) / n;
      const half = Math.PI / n / 2.2;
      const ray = [a - half, a + half].map((t) => edgePoint(t, w, h));
      const inner = [a + half, a - half].map((t) => ({
        x: cx + Math.cos(t) * w * 0.1,
        y: cy + Math.sin(t) * h * 0.1,
      }));
      (i % 2 ? second : first).push(...polygon([...ray, ...inner]));
    }
    return { first, second };
  },
  leaves(w, h, count) {
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    const stem = (t: number): Point => ({
      x: t * w,
      y: h * (0.5 + 0.16 * Math.sin(t * Math.PI * 1.5 - 0.4)),
    });
    const thick = Math.min(h, w) * 0.022;
    const top = Array.from({ length: 25 }, (_, i) => stem(i / 24));
    const below = [...top].reverse().map((p, i) => ({ x: p.x, y: p.y + thick * (0.3 + (0.9 * i) / 24) }));
    second.push(...polygon([...top, ...below]));
    for (let i = 0; i < count; i++) {
      const t = 0.06 + (0.9 * i) / Math.max(1, count - 1);
      const at = stem(t);
      const side = i % 2 ? 1 : -1;
      const size = Math.min(h * 0.5, (w / count) * 2.1) * (1 - 0.25 * t);
      first.push(...leaf(at, -0.55 + side * 0.95, size));
    }
    return { first, second };
  },
  dots(w, h, count) {
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    const across = Math.max(2, count);
    const step = w / across;
    const down = Math.max(1, Math.round(h / step));
    for (let j = 0; j < down; j++)
      for (let i = 0; i < across; i++) {
        const fade = 1 - (i + j) / (across + down);
        const r = step * (0.09 + 0.2 * fade);
        ((i + j) % 4 === 3 ? second : first).push(...ellipse((i + 0.5) * step, ((j + 0.5) * h) / down, r));
      }
    return { first, second };
  },
  'brush mark'(w, h, count, chance) {
    // Bristles side by side: each a long thin blade that starts and ends a little elsewhere.
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    const n = Math.max(6, count * 3);
    for (let i = 0; i < n; i++) {
      const y = ((i + 0.5) * h) / n;
      const bow = Math.sin((y / h) * Math.PI);
      const from = w * (0.02 + 0.07 * chance() + 0.06 * (1 - bow));
      const to = w * (0.98 - 0.12 * chance() - 0.1 * (1 - bow));
      const half = (h / n) * (0.75 + 0.6 * chance());
      const sway = h * 0.04 * Math.sin(i);
      const target = chance() > 0.86 ? second : first;
      target.push(
        { type: 'M', x: from, y },
        {
          type: 'C',
          x1: from + w * 0.2,
          y1: y - half * 1.6 + sway,
          x2: to - w * 0.25,
          y2: y - half + sway,
          x: to,
          y: y + sway * 0.5,
        },
        {
          type: 'C',
          x1: to - w * 0.25,
          y1: y + half * 1.4 + sway,
          x2: from + w * 0.2,
          y2: y + half + sway,
          x: from,
          y,
        },
        { type: 'Z' },
      );
    }
    return { first, second };
  },
  flourish(w, h) {
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    for (const side of [-1, 1]) {
      const x = (share: number) => w / 2 + side * w * share;
      const y = (share: number) => h * share;
      first.push(
        { type: 'M', x: x(0.05), y: y(0.5) },
        { type: 'C', x1: x(0.18), y1: y(0.1), x2: x(0.32), y2: y(0.12), x: x(0.48), y: y(0.46) },
        { type: 'C', x1: x(0.34), y1: y(0.24), x2: x(0.2), y2: y(0.3), x: x(0.05), y: y(0.56) },
        { type: 'Z' },
        ...ellipse(x(0.475), y(0.56), Math.min(w * 0.012, h * 0.1)),
      );
      second.push(
        { type: 'M', x: x(0.08), y: y(0.6) },
        { type: 'C', x1: x(0.16), y1: y(0.95), x2: x(0.26), y2: y(0.9), x: x(0.32), y: y(0.62) },
        { type: 'C', x1: x(0.25), y1: y(0.8), x2: x(0.17), y2: y(0.82), x: x(0.08), y: y(0.6) },
        { type: 'Z' },
      );
    }
    second.push(
      ...polygon([
        { x: w / 2, y: h * 0.36 },
        { x: w / 2 + Math.min(w * 0.03, h * 0.16), y: h * 0.53 },
        { x: w / 2, y: h * 0.7 },
        { x: w / 2 - Math.min(w * 0.03, h * 0.16), y: h * 0.53 },
      ]),
    );
    return { first, second };
  },
  confetti(w, h, count, chance) {
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    const size = Math.min(w, h) * 0.035;
    for (let i = 0; i < count * 6; i++) {
      const [x, y, a] = [chance() * w, chance() * h, chance() * Math.PI];
      const [c, s] = [Math.cos(a) * size, Math.sin(a) * size];
      const strip = polygon([
        { x: x - c - s * 0.3, y: y - s + c * 0.3 },
        { x: x + c - s * 0.3, y: y + s + c * 0.3 },
        { x: x + c + s * 0.3, y: y + s - c * 0.3 },
        { x: x - c + s * 0.3, y: y - s - c * 0.3 },
      ]);
      const shape = chance() > 0.6 ? ellipse(x, y, size * 0.5) : strip;
      (chance() > 0.5 ? second : first).push(...shape);
    }
    return { first, second };
  },
  snow(w, h, count, chance) {
    const first: PathCommand[] = [];
    const second: PathCommand[] = [];
    for (let i = 0; i < count * 7; i++) {
      const near = chance();
      const r = Math.min(w, h) * (0.004 + 0.014 * near * near);
      (near > 0.5 ? first : second).push(...ellipse(chance() * w, chance() * h, r));
    }
    return { first, second };
  },
  petals(w, h, count) {
    const first: PathCommand[] = [];
    const n = Math.max(4, count);
    const centre = { x: w / 2, y: h / 2 };
    const size = Math.min(w, h) * 0.46;
    for (let i = 0; i < n; i++) first.push(...leaf(centre, (i * 2 * Math.PI) / n, size));
    return { first, second: ellipse(w / 2, h / 2, Math.min(w, h) * 0.09) };
  },
  underline(w, h) {
    return {
      first: [
        { type: 'M', x: 0, y: h * 0.5 },
        { type: 'C', x1: w * 0.3, y1: h * 0.05, x2: w * 0.7, y2: h * 0.1, x: w, y: h * 0.34 },
        { type: 'C', x1: w * 0.72, y1: h * 0.3, x2: w * 0.32, y2: h * 0.34, x: w * 0.06, y: h * 0.95 },
        { type: 'C', x1: w * 0.1, y1: h * 0.75, x2: w * 0.06, y2: h * 0.62, x: 0, y: h * 0.5 },
        { type: 'Z' },
      ],
      second: [],
    };
  },
};

export const DECORATIONS: readonly string[] = Object.keys(DRAWINGS);

/** A decoration by name, in a box of so many pixels. Throws a sentence for an unknown name. */
export function decoration(
  name: string,
  width: number,
  height: number,
  count: number,
  seed: number,
): Decoration {
  const draw = DRAWINGS[name];
  if (!draw) throw new Error(`There is no decoration "${name}". At hand are ${DECORATIONS.join(', ')}.`);
  return draw(width, height, count, seededRandom(seed));
}

/** A leaf whose stalk is at a point, growing in a direction (radians). */
function leaf(at: Point, angle: number, size: number): PathCommand[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const p = (u: number, v: number): Point => ({
    x: at.x + (u * c - v * s) * size,
    y: at.y + (u * s + v * c) * size,
  });
  const curve = (a: Point, b: Point, to: Point): PathCommand => ({
    type: 'C', x1: a.x, y1: a.y, x2: b.x, y2: b.y, ...to,
  }); // prettier-ignore
  return [
    { type: 'M', ...p(0, 0) },
    curve(p(0.2, -0.34), p(0.7, -0.36), p(1, 0)),
    curve(p(0.66, 0.2), p(0.26, 0.22), p(0, 0)),
    { type: 'Z' },
  ];
}

/** Where a ray from the middle meets the box's edge. */
function edgePoint(angle: number, w: number, h: number): Point {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const k = Math.min(w / 2 / Math.max(1e-9, Math.abs(c)), h / 2 / Math.max(1e-9, Math.abs(s)));
  return { x: w / 2 + c * k, y: h / 2 + s * k };
}
