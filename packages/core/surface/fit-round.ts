import { solveLinear, type Pair } from './homography';

/** A round body (cylinder or cone frustum) with the print area on it, seen by a pinhole camera. */
export interface RoundBody {
  /** Pixels. */
  focal: number;
  cx: number;
  cy: number;
  /** Rotation vector of the body (radians) and its place before the camera, in mm. */
  turn: [number, number, number];
  place: [number, number, number];
  /** The angle the area reaches round, in radians. */
  wrap: number;
  topRadius: number;
  bottomRadius: number;
  /** Between both edges along the axis, in mm. */
  tall: number;
}

export interface RoundFit {
  body: RoundBody;
  /** Root mean square distance of the edge points from the body's, in pixels. */
  error: number;
}

export interface RoundMeasures {
  /** Points along both edges with their place on them, 0..1. */
  top: { u: number; at: Pair }[];
  bottom: { u: number; at: Pair }[];
  widthMm: number;
  heightMm: number;
  /** Degrees; null where it must be found. */
  wrapDeg: number | null;
  /** The same radius above and below. */
  cylinder: boolean;
  /** The picture's middle, pixels. */
  centre: Pair;
  /** The camera's focal length in pixels where it is known. */
  focal: number | null;
  /** The picture's longer side, pixels. */
  side: number;
}

/**
 * Fits a round body to the edges of a print area: camera, pose, wrap and taper by Levenberg-Marquardt on the
 * distances in the picture (Hartley and Zisserman 2004, A6), from several starts. Lengths are held by width and
 * height, which are measured on the surface half-way up. Null where nothing converges.
 */
export function fitRound(measures: RoundMeasures): RoundFit | null {
  const { wrapDeg, side, focal, cylinder } = measures;
  const wraps = wrapDeg ? [wrapDeg] : [60, 100, 140, 170];
  const focals = focal ? [focal] : [1.2 * side, 2.5 * side];
  let best: RoundFit | null = null;
  for (const wrap of wraps)
    for (const f of focals)
      for (const pitch of [-0.35, -0.05, 0.25]) {
        const start = firstGuess(measures, f, (wrap * Math.PI) / 180, pitch);
        if (!start) continue;
        const free = [
          ...(focal ? [] : [0]),
          1,
          2,
          3,
          4,
          5,
          6,
          ...(wrapDeg ? [] : [7]),
          ...(cylinder ? [] : [8]),
        ];
        const found = refine(start, free, measures);
        if (found && (!best || found.error < best.error)) best = found;
        if (best && best.error < 0.05) return best;
      }
  return best;
}

// The parameters in a row: log focal, turn x y z, place x y log z, wrap, log taper (bottom by top radius).
type Parameters = number[];

function bodyOf(p: Parameters, { widthMm, heightMm, centre }: RoundMeasures): RoundBody | null {
  const wrap = p[7];
  if (!(wrap > 0.05 && wrap < 3.5)) return null;
  const mean = widthMm / wrap;
  const taper = Math.exp(p[8]);
  const topRadius = (2 * mean) / (1 + taper);
  const bottomRadius = taper * topRadius;
  const tall2 = heightMm ** 2 - (topRadius - bottomRadius) ** 2;
  if (tall2 <= 0) return null;
  return {
    focal: Math.exp(p[0]),
    cx: centre[0],
    cy: centre[1],
    turn: [p[1], p[2], p[3]],
    place: [p[4], p[5], Math.exp(p[6])],
    wrap,
    topRadius,
    bottomRadius,
    tall: Math.sqrt(tall2),
  };
}

/** Where a place of the area (u from the left, v from the top, 0..1 and beyond) shows; null behind the camera. */
export function roundPoint(body: RoundBody, u: number, v: number, r = rotationOf(body.turn)): Pair | null {
  const angle = (u - 0.5) * body.wrap;
  const radius = body.topRadius + (body.bottomRadius - body.topRadius) * v;
  // The body's axis runs down the picture; its near side faces the camera.
  const x = radius * Math.sin(angle);
  const y = (v - 0.5) * body.tall;
  const z = -radius * Math.cos(angle);
  const Z = r[6] * x + r[7] * y + r[8] * z + body.place[2];
  if (Z < 1) return null;
  return [
    body.cx + (body.focal * (r[0] * x + r[1] * y + r[2] * z + body.place[0])) / Z,
    body.cy + (body.focal * (r[3] * x + r[4] * y + r[5] * z + body.place[1])) / Z,
  ];
}

/** Whether a place of the body faces the camera. */
export function roundFaces(body: RoundBody, u: number, v: number, r = rotationOf(body.turn)): boolean {
  const angle = (u - 0.5) * body.wrap;
  const radius = body.topRadius + (body.bottomRadius - body.topRadius) * v;
  const lean = (body.topRadius - body.bottomRadius) / body.tall;
  const n = [Math.sin(angle), lean, -Math.cos(angle)];
  const p = [radius * Math.sin(angle), (v - 0.5) * body.tall, -radius * Math.cos(angle)];
  const turned = (a: number[]) => [
    r[0] * a[0] + r[1] * a[1] + r[2] * a[2],
    r[3] * a[0] + r[4] * a[1] + r[5] * a[2],
    r[6] * a[0] + r[7] * a[1] + r[8] * a[2],
  ];
  const N = turned(n);
  const P = turned(p);
  return N[0] * (P[0] + body.place[0]) + N[1] * (P[1] + body.place[1]) + N[2] * (P[2] + body.place[2]) < 0;
}

/** Rodrigues' formula: nine numbers in rows. */
export function rotationOf([x, y, z]: readonly number[]): number[] {
  const angle = Math.hypot(x, y, z);
  if (angle < 1e-9) return [1, -z, y, z, 1, -x, -y, x, 1];
  const [a, b, c] = [x / angle, y / angle, z / angle];
  const s = Math.sin(angle);
  const t = 1 - Math.cos(angle);
  const k = Math.cos(angle);
  return [
    t * a * a + k,
    t * a * b - s * c,
    t * a * c + s * b,
    t * a * b + s * c,
    t * b * b + k,
    t * b * c - s * a,
    t * a * c - s * b,
    t * b * c + s * a,
    t * c * c + k,
  ];
}

function firstGuess(m: RoundMeasures, focal: number, wrap: number, pitch: number): Parameters | null {
  const ends = [m.top[0].at, m.top[m.top.length - 1].at, m.bottom[0].at, m.bottom[m.bottom.length - 1].at];
  const chord =
    (Math.hypot(ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]) +
      Math.hypot(ends[3][0] - ends[2][0], ends[3][1] - ends[2][1])) /
    2;
  if (chord < 1) return null;
  const radius = m.widthMm / wrap;
  const z = (focal * 2 * radius * Math.sin(Math.min(wrap, Math.PI) / 2)) / chord;
  const middle = [0, 1].map((i) => ends.reduce((s, e) => s + e[i], 0) / 4);
  const lean = Math.atan2(ends[1][1] - ends[0][1], ends[1][0] - ends[0][0]);
  const mid = radius * Math.cos(wrap / 2);
  return [
    Math.log(focal),
    pitch,
    0,
    lean,
    ((middle[0] - m.centre[0]) * z) / focal,
    ((middle[1] - m.centre[1]) * z) / focal,
    Math.log(z + mid),
    wrap,
    0,
  ];
}

function residuals(p: Parameters, m: RoundMeasures): number[] | null {
  const body = bodyOf(p, m);
  if (!body) return null;
  const r = rotationOf(body.turn);
  const out: number[] = [];
  for (const [v, points] of [
    [0, m.top],
    [1, m.bottom],
  ] as const)
    for (const { u, at } of points) {
      const q = roundPoint(body, u, v, r);
      if (!q) return null;
      out.push(q[0] - at[0], q[1] - at[1]);
    }
  return out;
}

const sumOfSquares = (a: number[]) => a.reduce((s, v) => s + v * v, 0);

function refine(start: Parameters, free: number[], m: RoundMeasures): RoundFit | null {
  let p = start;
  let now = residuals(p, m);
  if (!now) return null;
  let cost = sumOfSquares(now);
  let damping = 1e-2;
  for (let round = 0; round < 120; round++) {
    const columns = free.map((i) => {
      const step = 1e-5 * Math.max(1, Math.abs(p[i]));
      const up = residuals(
        p.map((v, j) => (j === i ? v + step : v)),
        m,
      );
      return up ? up.map((v, k) => (v - now![k]) / step) : null;
    });
    if (columns.some((c) => !c)) return null;
    const normal = columns.map((a) => columns.map((b) => a!.reduce((s, v, k) => s + v * b![k], 0)));
    const right = columns.map((a) => -a!.reduce((s, v, k) => s + v * now![k], 0));
    let better = false;
    for (let tries = 0; tries < 8 && !better; tries++) {
      const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) + 1e-12 : v)));
      const step = solveLinear(damped, right);
      const next = step && p.map((v, j) => v + (free.includes(j) ? step[free.indexOf(j)] : 0));
      const then = next && residuals(next, m);
      const reached = then ? sumOfSquares(then) : Infinity;
      if (next && then && reached < cost) {
        const gain = cost - reached;
        p = next;
        now = then;
        cost = reached;
        damping = Math.max(1e-9, damping / 5);
        better = true;
        if (gain < 1e-12 * (1 + cost)) round = Infinity;
      } else damping *= 4;
    }
    if (!better) break;
  }
  const body = bodyOf(p, m);
  return body ? { body, error: Math.sqrt(cost / (now.length / 2)) } : null;
}
