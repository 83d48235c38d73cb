import { blur } from '../raster/blur';
import { createPlane, type Rgba } from '../raster/pixels';
import type { Light } from './light';

/**
 * A first guess of a scene's light from its picture alone, to be set right by hand. Shading: which side of things is
 * the lighter one, from the left and right slopes of lightness around rounded things (after Pentland 1982, "Finding
 * the illuminant direction": the mean of directional derivatives leans toward the light). Shadows: on the lower part
 * of the picture, on which side of dark things the soft dark flanks lie. A background much lighter than the
 * foreground speaks for light from behind. Height and softness are taken as usual.
 * @param picture a few hundred pixels
 */
export function estimateLight(picture: Rgba): Light {
  const { width, height, data } = picture;
  const luma = createPlane(width, height);
  for (let i = 0; i < luma.data.length; i++)
    luma.data[i] = (0.2126 * data[i * 4] + 0.7152 * data[i * 4 + 1] + 0.0722 * data[i * 4 + 2]) / 255;
  const near = blur(luma, Math.max(1, width / 260));
  const wide = blur(luma, width / 22);
  const ones = blur(createPlane(width, height, 1), width / 22);
  let side = 0;
  let weight = 0;
  let [top, bottom] = [0, 0];
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      const v = near.data[i];
      if (y < height * 0.4) top += v;
      else if (y > height * 0.55) bottom += v;
      const gx = near.data[i + 2] - near.data[i - 2];
      const gy = near.data[i + 2 * width] - near.data[i - 2 * width];
      const slope = Math.hypot(gx, gy);
      // Soft slopes are shading; hard ones are outlines of colour and say nothing.
      if (slope > 0.004 && slope < 0.09) {
        const w = slope * (1 - slope / 0.09);
        side += (gx / (slope + 0.01)) * w * (Math.abs(gx) > Math.abs(gy) * 0.6 ? 1 : 0.3);
        weight += w;
      }
    }
  const lean = weight ? side / weight : 0;
  // A shadow lies on the side of a thing that is away from the light: which way is the nearest hard outline?
  let votes = 0;
  let shades = 0;
  const reach = Math.round(width * 0.09);
  const hard = (x: number, y: number) =>
    Math.abs(near.data[y * width + x + 2] - near.data[y * width + x - 2]) > 0.1;
  for (let y = Math.floor(height * 0.5); y < height - 3; y += 2)
    for (let x = reach + 3; x < width - reach - 3; x += 2) {
      const i = y * width + x;
      const around = wide.data[i] / ones.data[i];
      if (near.data[i] > around * 0.93 || hard(x, y)) continue;
      let [toLeft, toRight] = [reach, reach];
      for (let d = 1; d < reach; d++) {
        if (toLeft === reach && hard(x - d, y)) toLeft = d;
        if (toRight === reach && hard(x + d, y)) toRight = d;
      }
      if (toLeft === toRight) continue;
      votes += toLeft < toRight ? -1 : 1;
      shades++;
    }
  const thrown = shades > 40 ? votes / shades : 0;
  // Where the whole picture is lighter on one side, light comes from there.
  let [left, right] = [0, 0];
  for (let y = Math.floor(height * 0.45); y < height; y++)
    for (let x = 0; x < width; x++)
      if (x < width * 0.3) left += luma.data[y * width + x];
      else if (x > width * 0.7) right += luma.data[y * width + x];
  const tilt = (right - left) / Math.max(1e-6, right + left);
  const toward = Math.max(-1, Math.min(1, lean * 25 + thrown * 1.5 + tilt));
  const behind = top / (height * 0.4) > (bottom / (height * 0.45)) * 1.8;
  const angle = Math.round(Math.asin(toward) * (180 / Math.PI) * 0.85);
  const azimuth = behind ? (angle >= 0 ? 180 - angle : -180 - angle) : angle;
  return {
    azimuthDeg: azimuth,
    elevationDeg: 42,
    softness: 0.6,
  };
}
