import { checkArea, EDGE_POINTS, type PrintArea } from './area';
import { fitRound, roundFaces, roundPoint, rotationOf, type RoundBody } from './fit-round';
import { planePose, type PlanePose } from './plane-pose';
import { carry, homography, inverseHomography, type Pair } from './homography';

/** A print area as a surface: from places on it to places in the picture. */
export interface AreaSurface {
  area: PrintArea;
  /** u from the left, v from the top, 0..1 on the area and a little beyond; pixels of the picture. */
  at(u: number, v: number): Pair;
  /** The way back where it has a closed form (flat areas). */
  back: ((x: number, y: number) => Pair) | null;
  /** Whether the surface faces the camera there. */
  faces(u: number, v: number): boolean;
  /** How far the measured edges lie from the surface, root mean square in pixels; null where nothing is fitted. */
  error: number | null;
  body: RoundBody | null;
}

export interface PictureView {
  width: number;
  height: number;
  /** The camera's focal length in pixels of the picture where the survey knows it. */
  focal: number | null;
}

/** A fitted body further off than this share of the picture's side is not believed; the edges themselves are. */
const BELIEVED = 0.004;

/**
 * The surface of a print area. Flat: the homography of its corners. Cylinder and cone: the round body fitted to its
 * edges, so that the perspective along it is right. Bulge: the plane of its corners with its middle standing
 * out, carried by Coons' patch (Coons 1967) onto the bent edges. Throws SurveyError where the corners make no area.
 */
export function areaSurface(area: PrintArea, view: PictureView): AreaSurface {
  checkArea(area);
  if (area.shape === 'flat' || !area.edges) return flat(area);
  if (area.shape !== 'bulge') {
    const round = roundSurface(area, view);
    if (round) return round;
  }
  return bulge(area, view);
}

const UNIT: Pair[] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

function flat(area: PrintArea): AreaSurface {
  const there = homography(UNIT, area.corners);
  const back = inverseHomography(there);
  return {
    area,
    at: (u, v) => {
      const [x, y] = carry(there, u, v);
      return [x, y];
    },
    back: (x, y) => {
      const [u, v] = carry(back, x, y);
      return [u, v];
    },
    // Beyond the vanishing line of the plane nothing shows.
    faces: (u, v) => carry(there, u, v)[2] > 0.02,
    error: null,
    body: null,
  };
}

function roundSurface(area: PrintArea, view: PictureView): AreaSurface | null {
  const edges = area.edges!;
  const last = EDGE_POINTS - 1;
  const numbered = (points: Pair[]) => points.map((at, i) => ({ u: i / last, at }));
  const side = Math.max(view.width, view.height);
  const fit = fitRound({
    top: numbered(edges.top),
    bottom: numbered(edges.bottom),
    widthMm: area.widthMm,
    heightMm: area.heightMm,
    wrapDeg: area.wrapDeg,
    cylinder: area.shape === 'cylinder',
    centre: [view.width / 2, view.height / 2],
    focal: view.focal,
    side,
  });
  if (!fit || fit.error > BELIEVED * side) return null;
  const { body } = fit;
  const r = rotationOf(body.turn);
  return {
    area,
    at: (u, v) => roundPoint(body, u, v, r) ?? [NaN, NaN],
    back: null,
    faces: (u, v) => roundFaces(body, u, v, r),
    error: fit.error,
    body,
  };
}

function bulge(area: PrintArea, view: PictureView): AreaSurface {
  const { top, bottom, left, right } = area.edges!;
  const base = standingOut(area, view);
  // What the measured edges add to it, blended inward (Coons' patch on the differences).
  const T = difference(spline(top), (t) => base(t, 0));
  const B = difference(spline(bottom), (t) => base(t, 1));
  const L = left && difference(spline(left), (t) => base(0, t));
  const R = right && difference(spline(right), (t) => base(1, t));
  const hold = (t: number) => Math.min(1, Math.max(0, t));
  return {
    area,
    at: (u, v) => {
      let [x, y] = base(u, v);
      const [tx, ty] = T(u);
      const [bx, by] = B(u);
      x += (1 - v) * tx + v * bx;
      y += (1 - v) * ty + v * by;
      const w = hold(v);
      for (const [side, share, end] of [
        [L, 1 - u, 0],
        [R, u, 1],
      ] as const) {
        if (!side) continue;
        const [sx, sy] = side(w);
        const [ex, ey] = [T(end), B(end)];
        x += share * (sx - (1 - w) * ex[0] - w * ey[0]);
        y += share * (sy - (1 - w) * ex[1] - w * ey[1]);
      }
      return [x, y];
    },
    back: null,
    faces: () => true,
    error: null,
    body: null,
  };
}

const difference =
  (curve: (t: number) => Pair, base: (t: number) => Pair) =>
  (t: number): Pair => {
    const [x, y] = curve(t);
    const [bx, by] = base(t);
    return [x - bx, y - by];
  };

/** How far a pillow stands out at a place of it, 0 at its border and 1 in its middle. */
export function pillow(u: number, v: number): number {
  const q = (t: number) => Math.pow(Math.max(0, 4 * t * (1 - t)), 0.75);
  return q(u) * q(v);
}

/** The plane of the corners, its middle standing out by the area's bulge, as the camera sees it. */
function standingOut(area: PrintArea, view: PictureView): (u: number, v: number) => Pair {
  const { bulgeMm } = area;
  const at = raised(area, view);
  return (u, v) => at(u, v, bulgeMm ? pillow(u, v) * bulgeMm : 0);
}

/** Places of the plane of an area's corners as the camera sees them, raised out of it by so many mm. */
export function raised(area: PrintArea, view: PictureView): (u: number, v: number, out: number) => Pair {
  const { widthMm: W, heightMm: H } = area;
  const there = homography(UNIT, area.corners);
  let pose: PlanePose | null = null;
  const project = (X: number, Y: number, Z: number): Pair => {
    // A plane that is not raised needs no pose, and may have none.
    pose ??= areaPose(area, view);
    return seenIn(pose, view, X, Y, Z);
  };
  return (u, v, out) => {
    const [x, y] = carry(there, u, v);
    if (!out) return [x, y];
    // Only what standing out changes is taken from the pose; the corners stay where they are.
    const [fx, fy] = project(u * W, v * H, 0);
    const [ox, oy] = project(u * W, v * H, out);
    return [x + ox - fx, y + oy - fy];
  };
}

/** Where a place shows, in mm right of, down from and out of a plane's top left. */
function seenIn({ focal, r1, r2, r3, t }: PlanePose, view: PictureView, X: number, Y: number, Z = 0): Pair {
  const [x, y, z] = [0, 1, 2].map((i) => r1[i] * X + r2[i] * Y - r3[i] * Z + t[i]);
  return [view.width / 2 + (focal * x) / z, view.height / 2 + (focal * y) / z];
}

/** An area's corners on it, in mm. */
const cornersMm = ({ widthMm: W, heightMm: H }: PrintArea): Pair[] => [
  [0, 0],
  [W, 0],
  [W, H],
  [0, H],
];

/** How the plane of an area's corners lies before the camera; mm right and down from its top left. */
export function areaPose(area: PrintArea, { width, height, focal }: PictureView): PlanePose {
  const { widthMm: W, heightMm: H } = area;
  const h = homography(
    cornersMm(area),
    area.corners.map(([x, y]): Pair => [x - width / 2, y - height / 2]),
  );
  return planePose(h, [W / 2, H / 2], Math.max(width, height), focal);
}

/**
 * How far an area's corners lie off a rectangle of its size before the camera: the largest distance in pixels. It grows as
 * corners, width and height contradict one another.
 */
export function cornersOff(area: PrintArea, view: PictureView): number {
  checkArea(area);
  const pose = areaPose(area, view);
  return Math.max(
    ...cornersMm(area).map(([X, Y], i) => {
      const [x, y] = seenIn(pose, view, X, Y);
      return Math.hypot(x - area.corners[i][0], y - area.corners[i][1]);
    }),
  );
}

/** A millimetre of bulge that moves the middle by fewer pixels is not told by it. */
const TOLD = 0.04;

/**
 * How far an area's middle stands out where it shows at a place of the picture: the place on the line along which it
 * moves as it stands out that lies nearest.
 * @returns millimetres, or null where the area is seen so straight on that standing out hardly moves its middle
 */
export function bulgeThrough(area: PrintArea, view: PictureView, [x, y]: Pair): number | null {
  const middle = (bulgeMm: number) => areaSurface({ ...area, bulgeMm }, view).at(0.5, 0.5);
  let found = 0;
  // Perspective bends the line a little: a few steps along its tangent are enough.
  for (let i = 0; i < 4; i++) {
    const [ax, ay] = middle(found);
    const [bx, by] = middle(found + 1);
    const [dx, dy] = [bx - ax, by - ay];
    const long = dx * dx + dy * dy;
    if (long < TOLD * TOLD) return null;
    found += ((x - ax) * dx + (y - ay) * dy) / long;
    found = Math.max(-area.widthMm, Math.min(area.widthMm, found));
  }
  return found;
}

/** A natural cubic spline through equally spaced points, straight on beyond its ends; 0..1 along it. */
function spline(points: readonly Pair[]): (t: number) => Pair {
  const n = points.length - 1;
  const second = [0, 1].map((axis) => {
    const m = new Array<number>(n + 1).fill(0);
    const c = new Array<number>(n + 1).fill(0);
    const d = new Array<number>(n + 1).fill(0);
    for (let i = 1; i < n; i++) {
      const rise = 6 * (points[i + 1][axis] - 2 * points[i][axis] + points[i - 1][axis]);
      const pivot = 4 - c[i - 1];
      c[i] = 1 / pivot;
      d[i] = (rise - d[i - 1]) / pivot;
    }
    for (let i = n - 1; i > 0; i--) m[i] = d[i] - c[i] * m[i + 1];
    return m;
  });
  const value = (axis: 0 | 1, i: number, s: number) => {
    const [a, b] = [points[i][axis], points[i + 1][axis]];
    const [ma, mb] = [second[axis][i], second[axis][i + 1]];
    const r = 1 - s;
    return a * r + b * s + ((r ** 3 - r) * ma + (s ** 3 - s) * mb) / 6;
  };
  const at = (t: number): Pair => {
    const i = Math.min(n - 1, Math.max(0, Math.floor(t * n)));
    const s = t * n - i;
    return [value(0, i, s), value(1, i, s)];
  };
  const edge = 1e-4;
  return (t) => {
    if (t >= 0 && t <= 1) return at(t);
    const end = t < 0 ? 0 : 1;
    const inner = t < 0 ? edge : 1 - edge;
    const [p, q] = [at(end), at(inner)];
    const k = (t - end) / (end - inner);
    return [p[0] + (p[0] - q[0]) * k, p[1] + (p[1] - q[1]) * k];
  };
}

/** Lines of equal millimetres over an area, for showing its mesh: each a row of places in the picture. */
export function areaMesh(
  surface: AreaSurface,
  stepMm: number,
): { lines: { mm: number; along: 'width' | 'height'; points: Pair[] }[] } {
  const { widthMm, heightMm } = surface.area;
  const lines: { mm: number; along: 'width' | 'height'; points: Pair[] }[] = [];
  const fine = 24;
  const walk = (f: (t: number) => Pair) => Array.from({ length: fine + 1 }, (_, i) => f(i / fine));
  const marks = (length: number) => {
    const out = [0];
    for (let mm = stepMm; mm < length - stepMm * 0.2; mm += stepMm) out.push(mm);
    return [...out, length];
  };
  for (const mm of marks(widthMm))
    lines.push({ mm, along: 'height', points: walk((t) => surface.at(mm / widthMm, t)) });
  for (const mm of marks(heightMm))
    lines.push({ mm, along: 'width', points: walk((t) => surface.at(t, mm / heightMm)) });
  return { lines };
}

/** The place of an area (u, v) that shows at a place of the picture, by Newton's method; null where none is found. */
export function placeOn(surface: AreaSurface, x: number, y: number): Pair | null {
  if (surface.back) {
    const [u, v] = surface.back(x, y);
    return surface.faces(u, v) ? [u, v] : null;
  }
  let best: Pair = [0.5, 0.5];
  let nearest = Infinity;
  for (let j = 0; j <= 8; j++)
    for (let i = 0; i <= 8; i++) {
      const [px, py] = surface.at(i / 8, j / 8);
      const d = (px - x) ** 2 + (py - y) ** 2;
      if (d < nearest) [nearest, best] = [d, [i / 8, j / 8]];
    }
  let [u, v] = best;
  const e = 1e-4;
  for (let round = 0; round < 12; round++) {
    const [px, py] = surface.at(u, v);
    const [ux, uy] = surface.at(u + e, v);
    const [vx, vy] = surface.at(u, v + e);
    const [a, b, c, d] = [(ux - px) / e, (vx - px) / e, (uy - py) / e, (vy - py) / e];
    const det = a * d - b * c;
    if (!Number.isFinite(det) || Math.abs(det) < 1e-9) return null;
    const du = ((x - px) * d - (y - py) * b) / det;
    const dv = ((y - py) * a - (x - px) * c) / det;
    u += Math.max(-0.3, Math.min(0.3, du));
    v += Math.max(-0.3, Math.min(0.3, dv));
    if (Math.abs(du) + Math.abs(dv) < 1e-7) break;
  }
  const [px, py] = surface.at(u, v);
  return Math.hypot(px - x, py - y) < 0.5 && surface.faces(u, v) ? [u, v] : null;
}
