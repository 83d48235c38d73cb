import { outerContour } from '../raster/contours';
import { blur } from '../raster/blur';
import { components } from '../raster/components';
import { oklabOf } from '../raster/colour';
import { grow } from '../raster/distance';
import { createPlane, type Plane, type Rgba } from '../raster/pixels';
import { groundPixels } from './ground-pixels';
import type { SceneSurvey } from './survey';

type Outline = [number, number][];

/** Shade and light are two groups where the groups explain so much of what differs, and lie so far apart in lightness. */
const SPLIT = 0.62;
const APART = 0.09;
const VALLEY = 0.75;
/** Either group holds at least such a share of the ground. */
const LEAST_SHARE = 0.04;
/** How far the colour, for its lightness, may lie off that of the lit ground: skylight is bluer than the sun. */
const SAME_SURFACE = 0.06;
/** A shade covers at least such a share of the picture; so many are told, of so many points. */
const LEAST_AREA = 0.0012;
const MOST = 12;
const POINTS = 60;

/**
 * The shade that lies on a scene's ground: where the ground's lightness falls into two groups (Otsu 1979), the darker one,
 * as far as the colour stays that of the same surface.
 * @param picture the scene's, a few hundred pixels
 * @returns outlines in the survey's pixels, the largest first; none where no shade is seen
 */
export function findShade(picture: Rgba, survey: SceneSurvey): Outline[] {
  const { width, height } = picture;
  const k = width / survey.width;
  const ground = groundPixels(survey, { width, height, k });
  const lab = labPlanes(picture);
  const light = lab.L.data;
  const level = splitOf(light, ground);
  if (level === null) return [];
  const lit = meanColour(lab, (i) => ground[i] > 0 && light[i] >= level);
  let shade: Uint8Array = new Uint8Array(width * height);
  for (let i = 0; i < shade.length; i++) {
    if (!ground[i] || light[i] >= level) continue;
    // Less light of the same colour makes all of OKLab less by the same factor.
    const k = lit.L / Math.max(0.05, light[i]);
    if (Math.hypot(lab.a.data[i] * k - lit.a, lab.b.data[i] * k - lit.b) < SAME_SURFACE * lit.L) shade[i] = 1;
  }
  // Lines between boards are no shade.
  const round = Math.max(1, width / 200);
  shade = grow(grow(shade, width, height, -round), width, height, round);
  const { labels, list } = components(shade, width, height);
  return list
    .filter(({ area }) => area >= LEAST_AREA * width * height)
    .sort((a, b) => b.area - a.area)
    .slice(0, MOST)
    .map(({ label }) => outlineOf(labels, label, { width, height }))
    .filter((outline) => outline.length >= 3)
    .map((outline) =>
      outline.map(([x, y]): [number, number] => [
        Math.round((x / k) * 10) / 10,
        Math.round((y / k) * 10) / 10,
      ]),
    );
}

/** A picture in OKLab, without the grain of its surface. */
function labPlanes({ width, height, data }: Rgba): Record<'L' | 'a' | 'b', Plane> {
  const [L, a, b] = [0, 1, 2].map(() => createPlane(width, height));
  const lab = new Float64Array(3);
  for (let i = 0; i < L.data.length; i++) {
    oklabOf(data[i * 4], data[i * 4 + 1], data[i * 4 + 2], lab);
    [L.data[i], a.data[i], b.data[i]] = lab;
  }
  const sigma = Math.max(0.8, width / 320);
  return { L: blur(L, sigma), a: blur(a, sigma), b: blur(b, sigma) };
}

/** The lightness that parts the ground's two groups; null where it is no two. */
function splitOf(light: Float32Array, ground: Uint8Array): number | null {
  const BINS = 128;
  const bins = new Float64Array(BINS);
  light.forEach((v, i) => ground[i] && bins[Math.max(0, Math.min(BINS - 1, Math.floor(v * BINS)))]++);
  const count = bins.reduce((sum, n) => sum + n, 0);
  if (!count) return null;
  const mean = bins.reduce((sum, n, i) => sum + n * i, 0) / count;
  const variance = bins.reduce((sum, n, i) => sum + n * (i - mean) ** 2, 0) / count;
  let [below, weight] = [0, 0];
  let best = { between: 0, at: 0, share: 0, apart: 0 };
  bins.forEach((n, i) => {
    weight += n;
    below += n * i;
    const share = weight / count;
    if (!(share > 0 && share < 1)) return;
    const apart = (mean * count - below) / (count - weight) - below / weight;
    const between = share * (1 - share) * apart * apart;
    if (between > best.between) best = { between, at: i, share, apart };
  });
  const { between, at, share, apart } = best;
  if (!variance || between / variance < SPLIT || apart / BINS < APART) return null;
  // Two groups have fewer between them; what falls off evenly has as many everywhere.
  const often = (bin: number) => bins.slice(Math.max(0, bin - 3), bin + 4).reduce((sum, n) => sum + n, 0);
  const peak = (from: number, to: number) =>
    Math.max(...Array.from({ length: Math.max(1, to - from) }, (_, i) => often(from + i)));
  if (often(at) > VALLEY * Math.min(peak(0, at), peak(at + 1, BINS))) return null;
  return Math.min(share, 1 - share) < LEAST_SHARE ? null : (at + 1) / BINS;
}

function meanColour(lab: Record<'L' | 'a' | 'b', Plane>, holds: (i: number) => boolean) {
  let n = 0;
  const sum = { L: 0, a: 0, b: 0 };
  for (let i = 0; i < lab.L.data.length; i++) {
    if (!holds(i)) continue;
    n++;
    sum.L += lab.L.data[i];
    sum.a += lab.a.data[i];
    sum.b += lab.b.data[i];
  }
  return { L: sum.L / n, a: sum.a / n, b: sum.b / n };
}

/** The outer outline of one group. */
function outlineOf(
  labels: Int32Array,
  label: number,
  { width, height }: { width: number; height: number },
): Outline {
  const own = createPlane(width, height);
  labels.forEach((l, i) => l === label && (own.data[i] = 1));
  return outerContour(own, POINTS, 0.7);
}
