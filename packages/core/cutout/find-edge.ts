import { oklabPixels } from '../raster/colour';
import { components } from '../raster/components';
import { outerContour } from '../raster/contours';
import { grow } from '../raster/distance';
import { polygonCover } from '../raster/footprint';
import { createPlane, type Rgba } from '../raster/pixels';
import { horizonOf } from '../stage/camera';
import { surveyCamera, type SceneSurvey } from '../stage/survey';
import { fitColourModel } from './colour-model';
import { graphCut, smoothness, SURE_ODDS } from './graph-cut';

type Outline = [number, number][];
type Size = { width: number; height: number };

const ROUNDS = 4;
const COLOURS = 5;
/** What is so much less likely than nearly all of the ground (in nats) is none, whatever else it is. */
const UNLIKE = 5;
/** An edge is seen where at least such a share of what could be ground is none. */
const LEAST_BEYOND = 0.04;
const POINTS = 24;

/**
 * Where a scene's standing surface ends: colours of the measured rectangle against those beyond the horizon, parted by
 * minimum cuts with models fitted anew (after Rother, Kolmogorov and Blake 2004, "GrabCut").
 * @param picture the scene's, a few hundred pixels
 * @returns a polygon in the survey's pixels; null where the rectangle was not measured or the surface goes on everywhere
 */
export function findEdge(picture: Rgba, survey: SceneSurvey): Outline | null {
  const { width, height } = picture;
  if (!survey.plane) return null;
  const k = width / survey.width;
  const known = knownSides(survey, { width, height, k });
  const ground = partOf(picture, known);
  if (!ground) return null;
  const possible = known.reduce((n, side) => n + (side >= 0 ? 1 : 0), 0);
  const taken = ground.reduce((n, v, i) => n + (known[i] >= 0 ? v : 0), 0);
  if (possible - taken < LEAST_BEYOND * possible) return null;
  const matte = createPlane(width, height);
  matte.data.set(ground);
  return outerContour(matte, POINTS, 1).map(([x, y]): [number, number] => [
    Math.round((x / k) * 10) / 10,
    Math.round((y / k) * 10) / 10,
  ]);
}

/** 1 where the ground was measured, -1 beyond the horizon, a wall's foot or on a thing, 0 where nothing is known. */
function knownSides(survey: SceneSurvey, view: Size & { k: number }): Int8Array {
  const { width, height, k } = view;
  const cover = (outline: Outline) =>
    polygonCover({ width, height, left: 0, top: 0, k: 1 / k }, outline).data;
  const out = new Int8Array(width * height);
  cover(survey.plane!.corners).forEach((v, i) => v > 0.5 && (out[i] = 1));
  const camera = surveyCamera(survey);
  const far = camera ? horizonOf(camera) : (survey.horizonY ?? 0);
  const beyond = (x: number) => {
    if (!survey.wall) return far;
    const [[ax, ay], [bx, by]] = survey.wall;
    return Math.max(far, ay + ((by - ay) * (x - ax)) / (bx - ax || 1));
  };
  for (let i = 0; i < out.length; i++) {
    const x = i % width;
    if ((i - x) / width < beyond(x / k) * k) out[i] = -1;
  }
  for (const thing of survey.things ?? []) cover(thing).forEach((v, i) => v > 0.5 && (out[i] = -1));
  return out;
}

/** The ground, 1 a pixel; null where there is too little of it or of what lies beyond. */
function partOf(picture: Rgba, known: Int8Array): Uint8Array | null {
  const { width, height } = picture;
  const lab = oklabPixels(picture);
  const weights = smoothness(lab, width, height);
  let ground: Uint8Array = Uint8Array.from(known, (side) => (side > 0 ? 1 : 0));
  let beyond: Uint8Array = Uint8Array.from(known, (side) => (side < 0 ? 1 : 0));
  for (let round = 0; round < ROUNDS; round++) {
    const near = fitColourModel(lab, ground, COLOURS);
    const far = fitColourModel(lab, beyond, COLOURS);
    if (!near) return null;
    const cost = (model: { cost(l: number, a: number, b: number): number }, i: number) =>
      model.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]);
    const most = usual((i) => cost(near, i), ground) + UNLIKE;
    const odds = Float32Array.from(known, (side, i) => {
      if (side) return side * SURE_ODDS;
      const own = cost(near, i);
      const other = far ? Math.min(most, cost(far, i)) : most;
      return Math.max(-SURE_ODDS, Math.min(SURE_ODDS, other - own));
    });
    const labels = graphCut(odds, weights, width, height, null);
    ground = groundOf(labels, known, { width, height });
    beyond = Uint8Array.from(ground, (v) => 1 - v);
  }
  return ground;
}

/** What nearly all that is set costs at most. */
function usual(cost: (i: number) => number, set: Uint8Array): number {
  const stride = Math.max(1, Math.floor(set.length / 20000));
  const costs: number[] = [];
  for (let i = 0; i < set.length; i += stride) if (set[i]) costs.push(cost(i));
  costs.sort((a, b) => a - b);
  return costs[Math.floor(costs.length * 0.98)] ?? Infinity;
}

/** The group that holds the measured rectangle, without threads that hang on it, and with what stands on it. */
function groundOf(labels: Uint8Array, known: Int8Array, { width, height }: Size): Uint8Array {
  const round = Math.max(1, width / 160);
  const open = grow(grow(labels, width, height, -round), width, height, round);
  const { labels: groups } = components(open, width, height);
  const votes = new Map<number, number>();
  known.forEach((side, i) => side > 0 && groups[i] && votes.set(groups[i], (votes.get(groups[i]) ?? 0) + 1));
  const [own] = [...votes].sort((a, b) => b[1] - a[1])[0] ?? [0];
  const rest = Uint8Array.from(groups, (g) => (g === own && own ? 0 : 1));
  const holes = components(rest, width, height);
  const inside = new Set(holes.list.filter((c) => !c.touchesBorder).map((c) => c.label));
  return rest.map((v, i) => (!v || inside.has(holes.labels[i]) ? 1 : 0));
}
