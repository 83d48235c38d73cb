import fc from 'fast-check';
import { uprightBounds } from './box';
import { decoration, DECORATIONS } from './decorations';
import { ICONS, iconPath, svgPath } from './icons';
import {
  ellipse,
  mappedPath,
  pathBounds,
  placedPath,
  polygon,
  polyline,
  roundedRectangle,
  shrunk,
  star,
  turnedPath,
  type PathCommand,
} from './outline';

const near = (value: number, want: number, by = 1e-6) => expect(Math.abs(value - want)).toBeLessThan(by);
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const points = (path: readonly PathCommand[]) =>
  path.flatMap((c) => (c.type === 'Z' ? [] : [{ x: c.x, y: c.y }]));

/** A point of a cubic at t. */
const cubic = (t: number, a: number, b: number, c: number, d: number) =>
  (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t * t * c + t ** 3 * d;

/** Twice the area of an outline whose curves are cut into short lines. */
function area(path: readonly PathCommand[]): number {
  let [x, y, sum] = [0, 0, 0];
  const to = (nx: number, ny: number) => {
    sum += x * ny - nx * y;
    [x, y] = [nx, ny];
  };
  for (const c of path) {
    if (c.type === 'M') [x, y] = [c.x, c.y];
    else if (c.type === 'L') to(c.x, c.y);
    else if (c.type === 'C') {
      const [sx, sy] = [x, y];
      for (let i = 1; i <= 200; i++)
        to(cubic(i / 200, sx, c.x1, c.x2, c.x), cubic(i / 200, sy, c.y1, c.y2, c.y));
    }
  }
  return Math.abs(sum) / 2;
}

describe('boxes', () => {
  test('the upright rectangle around a turned box holds its corners and no more, about the same middle', () => {
    fc.assert(
      fc.property(
        number(-500, 500),
        number(1, 900),
        number(1, 900),
        number(-360, 360),
        (x, width, height, rotation) => {
          const box = { x, y: 2 * x, width, height, rotation };
          const b = uprightBounds(box);
          const [cx, cy] = [x + width / 2, 2 * x + height / 2];
          near(b.x + b.width / 2, cx);
          near(b.y + b.height / 2, cy);
          const corners = polygon([
            { x, y: 2 * x },
            { x: x + width, y: 2 * x },
            { x: x + width, y: 2 * x + height },
            { x, y: 2 * x + height },
          ]);
          const around = pathBounds(turnedPath(corners, rotation, { x: cx, y: cy }))!;
          near(around.width, b.width, 1e-5);
          near(around.height, b.height, 1e-5);
        },
      ),
    );
  });

  test('a box that is not turned is its own rectangle', () => {
    expect(uprightBounds({ x: 3, y: 4, width: 50, height: 60, rotation: 0 })).toEqual({
      x: 3,
      y: 4,
      width: 50,
      height: 60,
    });
  });

  test('a rectangle made smaller never comes to nothing', () => {
    expect(shrunk({ x: 0, y: 0, width: 10, height: 40 }, 8)).toEqual({ x: 8, y: 8, width: 1, height: 24 });
  });
});

describe('outlines', () => {
  test('turned there and back they are where they were; turned by quarters they keep their size', () => {
    fc.assert(
      fc.property(number(-360, 360), number(-100, 100), number(-100, 100), (degrees, x, y) => {
        const path = ellipse(10, 20, 30, 40);
        const about = { x, y };
        const back = turnedPath(turnedPath(path, degrees, about), -degrees, about);
        points(back).forEach((p, i) => {
          near(p.x, points(path)[i].x, 1e-6);
          near(p.y, points(path)[i].y, 1e-6);
        });
        const quarter = pathBounds(turnedPath(path, 90, about))!;
        near(quarter.width, 80);
        near(quarter.height, 60);
      }),
    );
  });

  test('scaling by two factors scales the area by their product, mirrored ones too', () => {
    fc.assert(
      fc.property(number(0.1, 5), number(-5, -0.1), (kx, ky) => {
        const path = roundedRectangle({ x: 1, y: 2, width: 30, height: 20 }, 4);
        near(area(placedPath(path, kx, ky, 7, -9)) / (area(path) * kx * -ky), 1, 1e-6);
      }),
    );
  });

  test('an affine map is applied to handles and ends alike', () => {
    const path: PathCommand[] = [
      { type: 'M', x: 0, y: 0 },
      { type: 'Q', x1: 1, y1: 0, x: 1, y: 1 },
      { type: 'C', x1: 2, y1: 1, x2: 3, y2: 2, x: 4, y: 4 },
      { type: 'Z' },
    ];
    expect(mappedPath(path, [2, 0, 0, 3, 1, -1])).toEqual([
      { type: 'M', x: 1, y: -1 },
      { type: 'Q', x1: 3, y1: -1, x: 3, y: 2 },
      { type: 'C', x1: 5, y1: 2, x2: 7, y2: 5, x: 9, y: 11 },
      { type: 'Z' },
    ]);
  });

  test('an ellipse is round within a thousandth, with the area of one', () => {
    const path = ellipse(0, 0, 50);
    let [x, y] = [50, 0];
    for (const c of path)
      if (c.type === 'C') {
        for (let t = 0; t <= 1; t += 0.1)
          near(Math.hypot(cubic(t, x, c.x1, c.x2, c.x), cubic(t, y, c.y1, c.y2, c.y)), 50, 0.05);
        [x, y] = [c.x, c.y];
      }
    near(area(ellipse(5, 5, 30, 20)) / (Math.PI * 600), 1, 1e-3);
  });

  test('a rounded rectangle loses its corners and nothing else; a radius too large makes it a pill', () => {
    const box = { x: 10, y: 10, width: 100, height: 60 };
    expect(pathBounds(roundedRectangle(box, 12))).toEqual(box);
    near(area(roundedRectangle(box, 12)), 6000 - (4 - Math.PI) * 144, 0.5);
    near(area(roundedRectangle(box, 0)), 6000);
    near(area(roundedRectangle(box, 1e6)), area(roundedRectangle(box, 30)));
  });

  test('a star has as many tips as asked, on the outer radius, the first on top', () => {
    for (const n of [3, 5, 12]) {
      const tips = points(star({ x: 0, y: 0 }, { x: 40, y: 40 }, n, 0.5)).filter(
        (p) => Math.abs(Math.hypot(p.x, p.y) - 40) < 1e-9,
      );
      expect(tips).toHaveLength(n);
      near(tips[0].y, -40);
    }
    const rounded = pathBounds(star({ x: 0, y: 0 }, { x: 40, y: 40 }, 8, 0.8, true))!;
    expect(rounded.width).toBeLessThanOrEqual(80 + 1e-9);
  });

  test('an empty outline has no bounds; a point has some of no size', () => {
    expect(pathBounds([])).toBeNull();
    expect(pathBounds([{ type: 'Z' }])).toBeNull();
    expect(pathBounds(polyline([{ x: 3, y: 4 }]))).toEqual({ x: 3, y: 4, width: 0, height: 0 });
  });
});

describe('path data', () => {
  test('relative, horizontal, smooth and arc commands become absolute ones', () => {
    expect(svgPath('m10 10 h5 v5 l-5 -5 z')).toEqual([
      { type: 'M', x: 10, y: 10 },
      { type: 'L', x: 15, y: 10 },
      { type: 'L', x: 15, y: 15 },
      { type: 'L', x: 10, y: 10 },
      { type: 'Z' },
    ]);
    const circle = svgPath('M 10 0 A 10 10 0 1 1 -10 0 A 10 10 0 1 1 10 0 Z');
    near(area(circle) / (Math.PI * 100), 1, 2e-3);
    expect(svgPath('M0 0 C 1 9 2 9 3 3 S 5 -5 6 6').map((c) => c.type)).toEqual(['M', 'C', 'C']);
  });
});

describe('drawings', () => {
  test.each(ICONS.map((name) => [name]))('the icon "%s" lies in its square of 24', (name) => {
    const b = pathBounds(iconPath(name))!;
    // Handles of curves may reach a little beyond what is drawn.
    expect(b.x).toBeGreaterThanOrEqual(-1);
    expect(b.y).toBeGreaterThanOrEqual(-1);
    expect(b.x + b.width).toBeLessThanOrEqual(25);
    expect(b.y + b.height).toBeLessThanOrEqual(25);
    expect(Math.max(b.width, b.height)).toBeGreaterThan(10);
    for (const p of points(iconPath(name))) expect(Number.isFinite(p.x + p.y)).toBe(true);
  });

  test.each(DECORATIONS.map((name) => [name]))(
    'the decoration "%s" fills its box, the same again from the same seed',
    (name) => {
      const drawn = decoration(name, 300, 200, 9, 42);
      expect(decoration(name, 300, 200, 9, 42)).toEqual(drawn);
      const all = [...drawn.first, ...drawn.second];
      const b = pathBounds(all)!;
      expect(b.width).toBeGreaterThan(60);
      expect(b.x).toBeGreaterThan(-150);
      expect(b.x + b.width).toBeLessThan(450);
      for (const p of points(all)) expect(Number.isFinite(p.x + p.y)).toBe(true);
    },
  );

  test('another seed scatters otherwise', () => {
    const scattered = DECORATIONS.filter(
      (name) =>
        JSON.stringify(decoration(name, 300, 200, 9, 1)) !== JSON.stringify(decoration(name, 300, 200, 9, 2)),
    );
    expect(scattered.length).toBeGreaterThan(0);
  });

  test('names that are not there are refused with those that are', () => {
    expect(() => iconPath('unicorn')).toThrow(/no icon "unicorn".*leaf/);
    expect(() => decoration('unicorn', 1, 1, 1, 1)).toThrow(/no decoration "unicorn"/);
  });
});
