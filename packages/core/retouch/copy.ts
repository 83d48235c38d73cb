import { strokeCover } from '../raster/footprint';
import { createRgba, type Rgba } from '../raster/pixels';

/**
 * A stroke that covers what lies under it with what lies `offset` pixels further: the source moves along with the
 * stroke, both taken from the picture as it was before it. Beyond the picture nothing is copied.
 */
export function copyAlong(
  picture: Rgba,
  stroke: { points: readonly [number, number][]; radius: number; softness: number },
  [dx, dy]: readonly [number, number],
): Rgba {
  const { width, height, data } = picture;
  const out = createRgba(width, height);
  out.data.set(data);
  const view = { width, height, left: 0, top: 0, k: 1 };
  const cover = strokeCover(view, stroke.points, stroke.radius, stroke.softness).data;
  const [ox, oy] = [Math.round(dx), Math.round(dy)];
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const a = cover[i];
      if (a <= 0) continue;
      const [sx, sy] = [x + ox, y + oy];
      if (sx < 0 || sy < 0 || sx >= width || sy >= height) continue;
      const j = i * 4;
      const s = (sy * width + sx) * 4;
      for (let c = 0; c < 3; c++) out.data[j + c] = data[j + c] + (data[s + c] - data[j + c]) * a;
    }
  return out;
}
