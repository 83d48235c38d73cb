import type { Light } from './light';
import { relativeLuminance } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import { areaPose, areaSurface, pillow, type PictureView } from '../surface/area-surface';
import type { Pair } from '../surface/homography';
import type { PlanePose } from '../surface/plane-pose';
import type { PrintArea } from '../surface/area';

/** Shares of light from all around that are tried: how much there is shows in the shading too. */
const AMBIENTS = Array.from({ length: 21 }, (_, i) => 0.1 + 0.02 * i);
const GRID = 20;

/**
 * How far the middle of a bulging area stands out beyond what its measured edges do, in mm, from its own shading: of
 * pillows of several heights between those edges, lit by the surveyed light, the one whose shading is most like the
 * picture's, whatever share of the light comes from all around (shape from shading with a one-parameter surface; after
 * Horn 1975). The edges' own heights follow from how they bend in the picture. 0 where the picture shows no such
 * shading.
 * @param picture any size; areas are in the pixels of `view`
 */
export function estimateBulge(picture: Rgba, area: PrintArea, light: Light, view: PictureView): number {
  if (area.shape !== 'bulge' || !area.edges) return 0;
  const flat = areaSurface({ ...area, bulgeMm: 0 }, view);
  const k = picture.width / view.width;
  const seen: number[] = [];
  const places: [number, number][] = [];
  for (let j = 1; j < GRID; j++)
    for (let i = 1; i < GRID; i++) {
      const [u, v] = [i / GRID, j / GRID];
      const [x, y] = flat.at(u, v);
      const value = meanAround(picture, x * k, y * k, Math.max(2, picture.width / 200));
      if (value === null) continue;
      places.push([u, v]);
      seen.push(value);
    }
  if (seen.length < GRID * 4) return 0;
  const pose = areaPose(area, view);
  const { r1, r2, r3 } = pose;
  const toward = lightDirection(light);
  const [lx, ly, lz] = [r1, r2, r3.map((v) => -v)].map((axis) =>
    axis.reduce((s, v, i) => s + v * toward[i], 0),
  );
  const { widthMm: W, heightMm: H } = area;
  const e = 0.01;
  const [top, bottom] = edgeHeights(area, pose, view);
  const ruled = (u: number, v: number) => 4 * u * (1 - u) * ((1 - v) * top + v * bottom);
  const facing = (height: number, [u, v]: [number, number]) => {
    const out = (a: number, b: number) => ruled(a, b) + height * pillow(a, b);
    const dx = (out(u + e, v) - out(u - e, v)) / (2 * e * W);
    const dy = (out(u, v + e) - out(u, v - e)) / (2 * e * H);
    const n = Math.hypot(dx, dy, 1);
    return Math.max(0, (-dx * lx - dy * ly + lz) / n);
  };
  const misfit = (height: number) => {
    const direct = places.map((p) => facing(height, p));
    return Math.min(
      ...AMBIENTS.map((ambient) => {
        const shades = direct.map((v) => ambient + (1 - ambient) * v);
        // One brightness for the whole surface.
        const gain = seen.reduce((s, v, i) => s + v * shades[i], 0) / shades.reduce((s, v) => s + v * v, 0);
        return seen.reduce((s, v, i) => s + Math.min(0.02, (v / gain - shades[i]) ** 2), 0);
      }),
    );
  };
  const none = misfit(0);
  let best = 0;
  let least = none;
  const highest = Math.min(W, H) * 0.3;
  for (let i = 1; i <= 60; i++) {
    const height = (highest * i) / 60;
    const m = misfit(height);
    if (m < least) [least, best] = [m, height];
  }
  // Without a clear gain the surface is taken as its edges show it.
  return least < none * 0.85 ? Math.round(best * 10) / 10 : 0;
}

/**
 * How far the middles of the top and the bottom edge stand out of the plane of the corners, in mm: each of an edge's
 * places is a place along the straight edge, raised; what explains them best as parabolas (least squares). An edge that
 * is seen so that raising hardly moves it across takes after the other.
 */
function edgeHeights(area: PrintArea, pose: PlanePose, view: PictureView): [number, number] {
  const [top, bottom] = (['top', 'bottom'] as const).map((which) => bend(area, pose, view, which));
  const rise = top.rise + bottom.rise;
  if (rise < 0.04) return [0, 0];
  const both = (top.bent + bottom.bent) / rise;
  const most = 0.25 * Math.min(area.widthMm, area.heightMm);
  return [top, bottom].map((edge) => {
    const height = (edge.bent + (rise / 2) * both) / (edge.rise + rise / 2);
    return Math.max(-most, Math.min(most, height));
  }) as [number, number];
}

/** The sums of least squares for an edge's height: its bend against what a millimetre's rise makes of it. */
function bend(
  { edges, widthMm: W, heightMm: H }: PrintArea,
  { focal, r1, r2, r3, t }: PlanePose,
  view: PictureView,
  which: 'top' | 'bottom',
): { bent: number; rise: number } {
  const Y = which === 'top' ? 0 : H;
  const project = (X: number, Z: number): Pair => {
    const [x, y, z] = [0, 1, 2].map((i) => r1[i] * X + r2[i] * Y - r3[i] * Z + t[i]);
    return [view.width / 2 + (focal * x) / z, view.height / 2 + (focal * y) / z];
  };
  const points = edges![which];
  const sums = { bent: 0, rise: 0 };
  for (const [i, [px, py]] of points.entries()) {
    const u = i / (points.length - 1);
    // Along the edge a place may lie elsewhere: only what is across it tells of the height.
    const [x, y] = project(u * W, 0);
    const [ax, ay] = project(u * W + 1, 0);
    const [zx, zy] = project(u * W, 1);
    const along = Math.hypot(ax - x, ay - y) || 1;
    const [nx, ny] = [-(ay - y) / along, (ax - x) / along];
    const shape = 4 * u * (1 - u);
    const rise = ((zx - x) * nx + (zy - y) * ny) * shape;
    sums.bent += ((px - x) * nx + (py - y) * ny) * rise;
    sums.rise += rise * rise;
  }
  return sums;
}

/** Toward the light in the camera's axes (right, down, forward), the camera taken as level. */
function lightDirection({ azimuthDeg, elevationDeg }: Light): number[] {
  const a = (azimuthDeg * Math.PI) / 180;
  const e = (elevationDeg * Math.PI) / 180;
  return [Math.sin(a) * Math.cos(e), -Math.sin(e), -Math.cos(a) * Math.cos(e)];
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
