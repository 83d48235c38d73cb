import type { Light } from './light';
import { edgeHeights } from './edge-heights';
import { relativeLuminance } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import { areaPose, areaSurface, pillow, type PictureView } from '../surface/area-surface';
import type { Pair } from '../surface/homography';
import type { PlanePose } from '../surface/plane-pose';
import { isBent, type AreaEdges, type PrintArea } from '../surface/area';

/** How far a bulging area stands out, in mm. */
export interface Bulge {
  /** Its middle, beyond what its edges do. */
  bulgeMm: number;
  /** The middles of its left and right edge out of the plane of its corners. */
  sideMm: number;
  /** Between these the middle may as well stand out: what the picture shows tells no more. */
  fromMm: number;
  toMm: number;
}

/** The camera that saw an area, and the light there. */
export interface BulgeView extends PictureView {
  light: Light;
  /** How far the camera looks down; 0 where it is not known. */
  pitchDeg: number;
}

/** Shares of light from all around that are tried: how much there is shows in the shading too. */
const AMBIENTS = Array.from({ length: 11 }, (_, i) => 0.1 + 0.04 * i);
/** How far the sides stand out for each mm of the middle, as a print area inside a packet's rim does; tried in turn. */
const SIDES = [0, 0.2, 0.4, 0.6, 0.8];
const GRID = 20;
/** Heights that are tried, up to this share of the area's smaller side. */
const HEIGHTS = 60;
const HIGHEST = 0.3;
/** A bulge explains the shading by at least so much better than none, or none is told. */
const GAIN = 0.85;
/** Heights that explain it nearly as well as the best may be as true. */
const AS_GOOD = 1.15;

/**
 * How far the middle of a bulging area stands out beyond what its edges do, from its own shading: of pillows of several
 * heights between those edges, lit by the surveyed light, the one whose shading is most like the picture's, whatever
 * share of the light comes from all around (shape from shading with a surface of two parameters; after Horn 1975). The
 * edges' own heights follow from where their points are seen (edge-heights.ts); side edges that are not given are
 * estimated with the middle. Null where the picture shows no such shading.
 * @param picture any size; areas are in the pixels of `view`
 */
export function estimateBulge(picture: Rgba, area: PrintArea, view: BulgeView): Bulge | null {
  if (area.shape !== 'bulge' || !area.edges) return null;
  const { places, seen } = shading(picture, area, view);
  if (seen.length < GRID * 4) return null;
  const pose = areaPose(area, view);
  const heights = edgeHeights(area, pose, view);
  const slopes = slopesOf(area, heights, places);
  const light = inArea(view, pose);
  const given = sidesAreDrawn(area.edges);
  const highest = Math.min(area.widthMm, area.heightMm) * HIGHEST;
  const none = misfit(seen, slopes, light, 0, 0);
  const tried = (given ? [0] : SIDES).flatMap((side) =>
    Array.from({ length: HEIGHTS }, (_, i) => {
      const height = (highest * (i + 1)) / HEIGHTS;
      return { height, side, error: misfit(seen, slopes, light, height, side) };
    }),
  );
  const best = tried.reduce((a, b) => (b.error < a.error ? b : a));
  if (best.error >= none * GAIN) return null;
  // What stands out of the middle of both: a lower middle between higher sides is as high.
  const whole = (t: { height: number; side: number }) => t.height * (1 + t.side);
  const asGood = tried
    .filter((t) => t.error <= best.error * AS_GOOD)
    .map((t) => whole(t) - best.height * best.side);
  const round = (mm: number) => Math.round(mm * 10) / 10;
  return {
    bulgeMm: round(best.height),
    sideMm: round(best.height * best.side),
    fromMm: round(Math.max(0, Math.min(...asGood))),
    toMm: round(Math.max(...asGood)),
  };
}

/** Whether the side edges say how far they stand out: those that are straight are as they were begun. */
export function sidesAreDrawn({ left, right }: AreaEdges): boolean {
  return [left, right].some((edge) => edge !== null && isBent(edge));
}

/** Luminance at places spread over an area that the picture holds. */
function shading(picture: Rgba, area: PrintArea, view: PictureView): { places: Pair[]; seen: number[] } {
  const flat = areaSurface({ ...area, bulgeMm: 0 }, view);
  const k = picture.width / view.width;
  const seen: number[] = [];
  const places: Pair[] = [];
  for (let j = 1; j < GRID; j++)
    for (let i = 1; i < GRID; i++) {
      const [u, v] = [i / GRID, j / GRID];
      const [x, y] = flat.at(u, v);
      const value = meanAround(picture, x * k, y * k, Math.max(2, picture.width / 200));
      if (value === null) continue;
      places.push([u, v]);
      seen.push(value);
    }
  return { places, seen };
}

/** Slopes across and down at each place: those of the edges' surface, and what a mm of the middle and of the sides adds. */
type Slopes = { own: Pair; middle: Pair; sides: Pair }[];

function slopesOf(
  { widthMm: W, heightMm: H }: PrintArea,
  heights: ReturnType<typeof edgeHeights>,
  places: Pair[],
): Slopes {
  const { top, bottom, left, right } = heights;
  const edges = (u: number, v: number) =>
    4 * u * (1 - u) * ((1 - v) * top + v * bottom) + 4 * v * (1 - v) * ((1 - u) * left + u * right);
  const e = 0.01;
  const slope = (out: (u: number, v: number) => number, [u, v]: Pair): Pair => [
    (out(u + e, v) - out(u - e, v)) / (2 * e * W),
    (out(u, v + e) - out(u, v - e)) / (2 * e * H),
  ];
  return places.map((at) => ({
    own: slope(edges, at),
    middle: slope(pillow, at),
    sides: slope((_, v) => pillow(0.5, v), at),
  }));
}

/** How unlike the picture's shading that of a bulge is, at the share of light from all around that suits it best. */
function misfit(
  seen: readonly number[],
  slopes: Slopes,
  light: readonly number[],
  height: number,
  side: number,
): number {
  const [lx, ly, lz] = light;
  const direct = slopes.map(({ own, middle, sides }) => {
    const [dx, dy] = [0, 1].map((c) => own[c] + height * (middle[c] + side * sides[c]));
    return Math.max(0, (-dx * lx - dy * ly + lz) / Math.hypot(dx, dy, 1));
  });
  return Math.min(
    ...AMBIENTS.map((ambient) => {
      const shades = direct.map((v) => ambient + (1 - ambient) * v);
      // One brightness for the whole surface.
      const gain = seen.reduce((s, v, i) => s + v * shades[i], 0) / shades.reduce((s, v) => s + v * v, 0);
      return seen.reduce((s, v, i) => s + Math.min(0.02, (v / gain - shades[i]) ** 2), 0);
    }),
  );
}

/** Toward the light in an area's own axes: right, down, out of it. */
function inArea(
  { light: { azimuthDeg, elevationDeg }, pitchDeg }: BulgeView,
  { r1, r2, r3 }: PlanePose,
): number[] {
  const [a, e, p] = [azimuthDeg, elevationDeg, pitchDeg].map((deg) => (deg * Math.PI) / 180);
  const [right, up, ahead] = [Math.sin(a) * Math.cos(e), Math.sin(e), -Math.cos(a) * Math.cos(e)];
  // In the camera's axes: right, down, forward.
  const toward = [right, -(up * Math.cos(p) + ahead * Math.sin(p)), ahead * Math.cos(p) - up * Math.sin(p)];
  return [r1, r2, r3.map((v) => -v)].map((axis) => axis.reduce((s, v, i) => s + v * toward[i], 0));
}

function meanAround({ width, height, data }: Rgba, x: number, y: number, r: number): number | null {
  let sum = 0;
  let n = 0;
  for (let yy = Math.floor(y - r); yy <= y + r; yy++)
    for (let xx = Math.floor(x - r); xx <= x + r; xx++) {
      if (xx < 0 || yy < 0 || xx >= width || yy >= height) continue;
      const j = (yy * width + xx) * 4;
      sum += relativeLuminance(data[j], data[j + 1], data[j + 2]);
      n++;
    }
  return n ? sum / n : null;
}
