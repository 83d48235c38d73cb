import { checkArea, EDGE_POINTS, type PrintArea } from './area';
import { fitRound, roundFaces, roundPoint, rotationOf, type RoundBody } from './fit-round';
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
 * edges, so that the perspective along it is right. Bulge: Coons' patch (Coons 1967) between the bent edges, with
 * the perspective of the corners along straight sides. Throws SurveyError where the corners make no area.
 */
export function areaSurface(area: PrintArea, view: PictureView): AreaSurface {
  checkArea(area);
  if (area.shape === 'flat' || !area.edges) return flat(area);
  if (area.shape !== 'bulge') {
    const round = roundSurface(area, view);
    if (round) return round;
  }
  return bulge(area);
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

function bulge(area: PrintArea): AreaSurface {
  const { top, bottom, left, right } = area.edges!;
  const T = spline(top);
  const B = spline(bottom);
  const L = left && spline(left);
  const R = right && spline(right);
  const h = homography(UNIT, area.corners);
  const weight = (u: number, v: number) => h[6] * u + h[7] * v + h[8];
  const ratioLeft = weight(0, 1) / weight(0, 0);
  const ratioRight = weight(1, 1) / weight(1, 0);
  const ruled = (u: number, v: number): Pair => {
    // Along a straight line in space, places follow the projective weights of its ends.
    const ratio = ratioLeft + (ratioRight - ratioLeft) * u;
    const k = (ratio * v) / (1 - v + ratio * v);
    const [tx, ty] = T(u);
    const [bx, by] = B(u);
    return [tx + (bx - tx) * k, ty + (by - ty) * k];
  };
  return {
    area,
    at: (u, v) => {
      let [x, y] = ruled(u, v);
      const w = Math.min(1, Math.max(0, v));
      if (L) {
        const [lx, ly] = L(w);
        const [px, py] = ruled(0, w);
        x += (1 - u) * (lx - px);
        y += (1 - u) * (ly - py);
      }
      if (R) {
        const [rx, ry] = R(w);
        const [px, py] = ruled(1, w);
        x += u * (rx - px);
        y += u * (ry - py);
      }
      return [x, y];
    },
    back: null,
    faces: () => true,
    error: null,
    body: null,
  };
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
