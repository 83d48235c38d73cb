import type { Light } from './light';
import { relativeLuminance } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import { areaPose, areaSurface, pillow, type PictureView } from '../surface/area-surface';
import type { PrintArea } from '../surface/area';

/** Light from all around, as a share, by the light's softness. */
const AMBIENT = 0.15;
const GRID = 20;

/**
 * How far the middle of a bulging area stands out, in mm, from its own shading: of pillows of several heights, lit by
 * the surveyed light, the one whose shading is most like the picture's (shape from shading with a one-parameter
 * surface; after Horn 1975). 0 where the picture shows no such shading.
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
  const { r1, r2, r3 } = areaPose(area, view);
  const toward = lightDirection(light);
  const [lx, ly, lz] = [r1, r2, r3.map((v) => -v)].map((axis) =>
    axis.reduce((s, v, i) => s + v * toward[i], 0),
  );
  const ambient = AMBIENT + 0.3 * light.softness;
  const { widthMm: W, heightMm: H } = area;
  const e = 0.01;
  const shadeAt = (height: number, [u, v]: [number, number]) => {
    const dx = ((pillow(u + e, v) - pillow(u - e, v)) / (2 * e * W)) * height;
    const dy = ((pillow(u, v + e) - pillow(u, v - e)) / (2 * e * H)) * height;
    const n = Math.hypot(dx, dy, 1);
    return ambient + (1 - ambient) * Math.max(0, (-dx * lx - dy * ly + lz) / n);
  };
  const misfit = (height: number) => {
    const shades = places.map((p) => shadeAt(height, p));
    // One brightness for the whole surface.
    const gain = seen.reduce((s, v, i) => s + v * shades[i], 0) / shades.reduce((s, v) => s + v * v, 0);
    return seen.reduce((s, v, i) => s + Math.min(0.02, (v / gain - shades[i]) ** 2), 0);
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
