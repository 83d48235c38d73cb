import type { PrintArea } from '../surface/area';
import type { PictureView } from '../surface/area-surface';
import type { Pair } from '../surface/homography';
import type { PlanePose } from '../surface/plane-pose';

/** How far the middles of an area's edges stand out of the plane of its corners, in mm; 0 for an edge not given. */
export interface EdgeHeights {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

type Which = keyof EdgeHeights;

/** No edge stands out by more than this share of the area's smaller side. */
const MOST = 0.25;
/** Points that crowd by less than this share of their edge are taken as set evenly by hand: they tell nothing. */
const TOLD = 0.003;
/** An edge's points are this uncertain, in pixels: a height that would be told by less is not believed. */
const POINT_ERROR = 0.5;
/** Heights of this share of the area's side are usual. */
const USUAL = 0.1;

/**
 * The heights of a bulging area's edges: of parabolas from corner to corner those on which equal steps along the curve
 * are seen where an edge's points are, across the edge and along it (least squares, with heights of a tenth of the side
 * as what is usual). A packet seen from the side shows them by where the points crowd, one seen from above by how its
 * edges bend.
 */
export function edgeHeights(area: PrintArea, pose: PlanePose, view: PictureView): EdgeHeights {
  const most = MOST * Math.min(area.widthMm, area.heightMm);
  const of = (which: Which) => {
    const points = area.edges?.[which];
    if (!points) return 0;
    const along = crowded(points);
    return lowest((height) => edgeMisfit(area, pose, view, { which, height, along }), -most, most);
  };
  return { top: of('top'), bottom: of('bottom'), left: of('left'), right: of('right') };
}

/** Squared error between an edge's points and equal steps along a parabola of a height, in squared pixels. */
function edgeMisfit(
  area: PrintArea,
  pose: PlanePose,
  view: PictureView,
  { which, height, along }: { which: Which; height: number; along: boolean },
): number {
  const side = Math.min(area.widthMm, area.heightMm);
  const usual = 9 * POINT_ERROR ** 2 * (height / (USUAL * side)) ** 2;
  return offsets(area, pose, view, which, height).reduce(
    (sum, [a, b]) => sum + b * b + (along ? a * a : 0),
    usual,
  );
}

/** Whether an edge's points are set otherwise than evenly in the picture, as those drawn by hand are. */
function crowded(points: readonly Pair[]): boolean {
  const last = points.length - 1;
  const [dx, dy] = [points[last][0] - points[0][0], points[last][1] - points[0][1]];
  const square = dx * dx + dy * dy || 1;
  return points.some(([x, y], i) => {
    const share = ((x - points[0][0]) * dx + (y - points[0][1]) * dy) / square;
    return Math.abs(share - i / last) > TOLD;
  });
}

/** How far an edge's points lie from equal steps along a parabola, along the edge and across it; its ends are held. */
function offsets(
  { edges, widthMm: W, heightMm: H }: PrintArea,
  { focal, r1, r2, r3, t }: PlanePose,
  view: PictureView,
  which: Which,
  height: number,
): Pair[] {
  const level = which === 'top' || which === 'bottom';
  const length = level ? W : H;
  const project = (s: number, Z: number): Pair => {
    const [X, Y] = level ? [s, which === 'top' ? 0 : H] : [which === 'left' ? 0 : W, s];
    const [x, y, z] = [0, 1, 2].map((i) => r1[i] * X + r2[i] * Y - r3[i] * Z + t[i]);
    return [view.width / 2 + (focal * x) / z, view.height / 2 + (focal * y) / z];
  };
  const points = edges![which]!;
  const last = points.length - 1;
  const [dx, dy] = [points[last][0] - points[0][0], points[last][1] - points[0][1]];
  const long = Math.hypot(dx, dy) || 1;
  const off = equalSteps(height / length, last).map(([s, z], i): Pair => {
    const [px, py] = project(s * length, z * length);
    return [points[i][0] - px, points[i][1] - py];
  });
  return off.map((o, i): Pair => {
    const [x, y] = [0, 1].map((c) => o[c] - off[0][c] * (1 - i / last) - off[last][c] * (i / last));
    return [(x * dx + y * dy) / long, (y * dx - x * dy) / long];
  });
}

/** Equal steps along a parabola over 0..1 that is `height` high in its middle: their places and heights. */
function equalSteps(height: number, steps: number): Pair[] {
  const n = 128;
  const fine: Pair[] = Array.from({ length: n + 1 }, (_, i) => [i / n, (4 * height * i * (n - i)) / n ** 2]);
  const lengths = [0];
  for (let i = 1; i <= n; i++)
    lengths.push(lengths[i - 1] + Math.hypot(fine[i][0] - fine[i - 1][0], fine[i][1] - fine[i - 1][1]));
  let i = 1;
  return Array.from({ length: steps + 1 }, (_, k) => {
    const wanted = (lengths[n] * k) / steps;
    while (i < n && lengths[i] < wanted) i++;
    const share = (wanted - lengths[i - 1]) / (lengths[i] - lengths[i - 1]);
    return [0, 1].map((c) => fine[i - 1][c] + share * (fine[i][c] - fine[i - 1][c])) as Pair;
  });
}

/** Where a function of one number is lowest between two others (golden section; Kiefer 1953). */
function lowest(of: (x: number) => number, from: number, to: number): number {
  const share = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [from, to];
  for (let i = 0; i < 24; i++) {
    const [c, d] = [b - share * (b - a), a + share * (b - a)];
    if (of(c) < of(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}
