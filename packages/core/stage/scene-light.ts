import { LINEAR, linearFromOklab } from '../raster/colour';
import type { Rect, Rgba } from '../raster/pixels';
import type { Light } from './light';
import type { ToneMeasure } from './tone-match';

/** Linear light, red, green and blue; 1 shows a white surface just white. */
export type Linear = [number, number, number];

/** Right, away from the camera and up; of length 1. */
export type Direction = [number, number, number];

/** The light that falls on what stands at a place of a scene. */
export interface SceneLight {
  /** Toward the light: right, away, up; of length 1. */
  to: Direction;
  /** Away from the ground. */
  up: Direction;
  /** Sine of half the angle under which the light is seen. */
  size: number;
  key: Linear;
  /** From all over above. */
  sky: Linear;
  /** Thrown back by the ground. */
  bounce: Linear;
}

const RADIAN = Math.PI / 180;

/** What a white surface shows that faces the light, and the share that comes from all over the sky, linear. */
const KEY = 1.25;
const SKY = 0.15;
/** Shares of the tint that near-neutral parts show, and of the ground's own colour in what it throws back. */
const TINT = 0.29;
const SKY_TINT = 0.5;
const BOUNCE_TINT = 0.32;
/** How much of what the ground shows reaches the product from below: some of it lies in the product's own shade. */
const BOUNCE = 0.83;

/**
 * The light at a place, in the exposure of the scene's picture. A scene is taken for exposed by what its light falls on
 * squarely, whatever its height and softness: a white surface that faces it shows a little over white, and a seventh of
 * that comes from all over the sky. The light's tint follows from what is near neutral in the scene, a third of the way,
 * since what is taken for neutral may have a colour. What the ground throws back is seen in the picture, nearly as bright
 * as it is and a good deal greyer: it reaches the product from all over, and mixed with what is not seen.
 * The constants were fitted to products truly rendered in scenes (`npm run bench -- truth`, without the held-out ones).
 * @param ground mean linear colour of the ground around the foot
 * @param tone the whole scene's tone
 */
export function sceneLight(light: Light, ground: Linear, tone: ToneMeasure | null): SceneLight {
  const azimuth = light.azimuthDeg * RADIAN;
  const elevation = Math.max(4, light.elevationDeg) * RADIAN;
  const tint = tintOf(tone);
  const grey = 0.2126 * ground[0] + 0.7152 * ground[1] + 0.0722 * ground[2];
  return {
    to: [
      Math.sin(azimuth) * Math.cos(elevation),
      -Math.cos(azimuth) * Math.cos(elevation),
      Math.sin(elevation),
    ],
    up: [0, 0, 1],
    size: Math.sin((1 + 26 * light.softness) * RADIAN),
    key: tint.map((t) => t * KEY) as Linear,
    sky: tint.map((t) => (1 + (t - 1) * SKY_TINT) * SKY) as Linear,
    bounce: ground.map((v) => (grey + (v - grey) * BOUNCE_TINT) * BOUNCE) as Linear,
  };
}

/**
 * The same light as a picture sees it that is shown turned: turned back by as much, about the line of sight.
 * @param degrees clockwise
 * @param pitchDeg how steeply the camera looks down
 */
export function lightOnTurned(light: SceneLight, degrees: number, pitchDeg: number): SceneLight {
  const [c, s] = [Math.cos(degrees * RADIAN), Math.sin(degrees * RADIAN)];
  const [cos, sin] = [Math.cos(pitchDeg * RADIAN), Math.sin(pitchDeg * RADIAN)];
  const back = ([x, y, z]: Direction): Direction => {
    const up = y * sin + z * cos;
    const toward = z * sin - y * cos;
    const [right, raised] = [x * c - up * s, x * s + up * c];
    return [right, raised * sin - toward * cos, raised * cos + toward * sin];
  };
  return { ...light, to: back(light.to), up: back(light.up) };
}

/** The colour of a scene's light, 1 in luminance. */
function tintOf(tone: ToneMeasure | null): Linear {
  if (!tone) return [1, 1, 1];
  const out = new Float64Array(3);
  const hold = (v: number) => Math.max(-0.09, Math.min(0.09, v)) * TINT;
  linearFromOklab(0.8, hold(tone.a) * 0.8, hold(tone.b) * 0.8, out);
  const luma = 0.2126 * out[0] + 0.7152 * out[1] + 0.0722 * out[2];
  return [out[0] / luma, out[1] / luma, out[2] / luma];
}

/** The mean linear colour of a part of a picture; its darkest and brightest tenths, which are no ground, are left out. */
export function meanLinear(picture: Rgba, part: Rect): Linear {
  const { width, height, data } = picture;
  const x0 = Math.max(0, Math.floor(part.x));
  const y0 = Math.max(0, Math.floor(part.y));
  const x1 = Math.min(width, Math.ceil(part.x + part.width));
  const y1 = Math.min(height, Math.ceil(part.y + part.height));
  const count = Math.max(0, x1 - x0) * Math.max(0, y1 - y0);
  if (!count) return [0.3, 0.3, 0.3];
  const luma = new Float32Array(count);
  for (let y = y0, n = 0; y < y1; y++)
    for (let x = x0; x < x1; x++, n++) {
      const j = (y * width + x) * 4;
      luma[n] = 0.2126 * LINEAR[data[j]] + 0.7152 * LINEAR[data[j + 1]] + 0.0722 * LINEAR[data[j + 2]];
    }
  const sorted = Float32Array.from(luma).sort();
  const least = sorted[Math.floor(count * 0.1)];
  const most = sorted[Math.max(0, Math.ceil(count * 0.9) - 1)];
  const sum: Linear = [0, 0, 0];
  let kept = 0;
  for (let y = y0, n = 0; y < y1; y++)
    for (let x = x0; x < x1; x++, n++) {
      if (luma[n] < least || luma[n] > most) continue;
      kept++;
      for (let c = 0; c < 3; c++) sum[c] += LINEAR[data[(y * width + x) * 4 + c]];
    }
  return sum.map((v) => v / kept) as Linear;
}
