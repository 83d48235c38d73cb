import Joi from 'joi';
import { blur } from '../raster/blur';
import { fromLinear, toLinear } from '../raster/colour';
import { createPlane, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { reduceTo, samplePlane } from '../raster/resample';
import { colourSchema } from '../raster/schemas';

/** How a photo is tidied before anything else; the photo itself is never altered. */
export interface Tidy {
  /** In photographic stops: +1 doubles the light. */
  exposure: number;
  /** -1..1 around middle grey. */
  contrast: number;
  /** -1..1: contrast of details against their surroundings. */
  localContrast: number;
  /** -1 grey, 0 as it is, 1 doubled. */
  saturation: number;
  /** A colour of the photo that ought to be neutral grey, or null. */
  neutral: string | null;
  /** Degrees by which the picture is turned clockwise, -45..45. */
  straighten: number;
  /** The part that is kept, in pixels of the turned picture, or null for all. */
  crop: Rect | null;
}

export const UNTIDIED: Tidy = {
  exposure: 0,
  contrast: 0,
  localContrast: 0,
  saturation: 0,
  neutral: null,
  straighten: 0,
  crop: null,
};

const unit = Joi.number().min(-1).max(1).required();

export const tidySchema = Joi.object({
  exposure: Joi.number().min(-5).max(5).required(),
  contrast: unit,
  localContrast: unit,
  saturation: unit,
  neutral: colourSchema.allow(null).required(),
  straighten: Joi.number().min(-45).max(45).required(),
  crop: Joi.object({
    x: Joi.number().integer().min(0).required(),
    y: Joi.number().integer().min(0).required(),
    width: Joi.number().integer().min(8).required(),
    height: Joi.number().integer().min(8).required(),
  })
    .allow(null)
    .required(),
});

export function isUntidied(tidy: Tidy): boolean {
  return (Object.keys(UNTIDIED) as (keyof Tidy)[]).every((key) => tidy[key] === UNTIDIED[key]);
}

/** Size of the tidied picture of a photo of this size. A crop that lies outside is held inside. */
export function tidiedSize(width: number, height: number, tidy: Tidy): Rect {
  if (!tidy.crop) return { x: 0, y: 0, width, height };
  const x = Math.min(tidy.crop.x, width - 8);
  const y = Math.min(tidy.crop.y, height - 8);
  return {
    x,
    y,
    width: Math.min(tidy.crop.width, width - x),
    height: Math.min(tidy.crop.height, height - y),
  };
}

/** Where a place of the photo lies in its tidied picture, and back. */
export function tidyMap(width: number, height: number, tidy: Tidy) {
  const { x: left, y: top } = tidiedSize(width, height, tidy);
  const angle = (tidy.straighten * Math.PI) / 180;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const [cx, cy] = [width / 2, height / 2];
  return {
    toTidied: (x: number, y: number): [number, number] => [
      cx + (x - cx) * cos - (y - cy) * sin - left,
      cy + (x - cx) * sin + (y - cy) * cos - top,
    ],
    toPhoto: (x: number, y: number): [number, number] => {
      const dx = x + left - cx;
      const dy = y + top - cy;
      return [cx + dx * cos + dy * sin, cy - dx * sin + dy * cos];
    },
  };
}

/**
 * A plane over the whole photo, of any size, as it lies over the tidied picture; and back. Nothing of the plane
 * is 0. Kept outlines lie over the photo, so that they hold whatever it is turned and cropped to later.
 */
export function tidyPlane(plane: Plane, photo: { width: number; height: number }, tidy: Tidy): Plane {
  const { width, height } = tidiedSize(photo.width, photo.height, tidy);
  if (tidy.straighten === 0 && width === photo.width && height === photo.height) return plane;
  const [kx, ky] = [plane.width / photo.width, plane.height / photo.height];
  const { toPhoto } = tidyMap(photo.width, photo.height, tidy);
  return carried(plane, width, height, (x, y) => {
    const [px, py] = toPhoto(x, y);
    return [px * kx, py * ky];
  });
}

export function untidyPlane(plane: Plane, photo: { width: number; height: number }, tidy: Tidy): Plane {
  if (tidy.straighten === 0 && plane.width === photo.width && plane.height === photo.height) return plane;
  return carried(plane, photo.width, photo.height, tidyMap(photo.width, photo.height, tidy).toTidied);
}

function carried(
  plane: Plane,
  width: number,
  height: number,
  from: (x: number, y: number) => number[],
): Plane {
  const out = createPlane(width, height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const [sx, sy] = from(x + 0.5, y + 0.5);
      if (sx >= 0 && sy >= 0 && sx <= plane.width && sy <= plane.height)
        out.data[i] = samplePlane(plane, sx - 0.5, sy - 0.5);
    }
  return out;
}

/**
 * The tidied picture: turned and cropped, then white balance and exposure in linear light, contrast by a curve
 * around middle grey, local contrast on lightness against a wide blur (unsharp masking with a large radius),
 * saturation around luma. Size and place follow `tidiedSize`.
 */
export function tidyPhoto(photo: Rgba, tidy: Tidy): Rgba {
  const turned = turnAndCrop(photo, tidy);
  const tone =
    tidy.exposure !== 0 ||
    tidy.contrast !== 0 ||
    tidy.saturation !== 0 ||
    tidy.localContrast !== 0 ||
    tidy.neutral !== null;
  if (!tone) return turned;
  const curves = toneCurves(tidy);
  const out: Rgba =
    turned === photo
      ? { width: photo.width, height: photo.height, data: new Uint8ClampedArray(photo.data.length) }
      : turned;
  const { width, height } = turned;
  const local = tidy.localContrast !== 0 ? surroundings(turned, curves) : null;
  const saturation = 1 + tidy.saturation;
  for (let y = 0, j = 0; y < height; y++) {
    for (let x = 0; x < width; x++, j += 4) {
      let r = curves[0][turned.data[j]];
      let g = curves[1][turned.data[j + 1]];
      let b = curves[2][turned.data[j + 2]];
      let luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      if (local) {
        const around = samplePlane(
          local,
          ((x + 0.5) * local.width) / width - 0.5,
          ((y + 0.5) * local.height) / height - 0.5,
        );
        const lift = (luma - around) * tidy.localContrast * 0.8;
        r += lift;
        g += lift;
        b += lift;
        luma += lift;
      }
      out.data[j] = luma + (r - luma) * saturation;
      out.data[j + 1] = luma + (g - luma) * saturation;
      out.data[j + 2] = luma + (b - luma) * saturation;
      out.data[j + 3] = turned.data[j + 3];
    }
  }
  return out;
}

/** One curve a channel, from byte to (unrounded) byte. */
export function toneCurves(tidy: Tidy): [Float32Array, Float32Array, Float32Array] {
  const gain = [1, 1, 1];
  if (tidy.neutral) {
    const linear = [1, 3, 5].map((k) =>
      Math.max(0.002, toLinear(parseInt(tidy.neutral!.slice(k, k + 2), 16))),
    );
    const luminance = 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2];
    linear.forEach((v, c) => (gain[c] = luminance / v));
  }
  const light = 2 ** tidy.exposure;
  const slope = tidy.contrast >= 0 ? 1 + 1.6 * tidy.contrast : 1 + 0.8 * tidy.contrast;
  return gain.map((g) =>
    Float32Array.from({ length: 256 }, (_, byte) => {
      const v = fromLinear(Math.min(1, toLinear(byte) * light * g)) / 255;
      // A curve through black, middle grey and white, steeper or flatter in the middle.
      const d = v < 0.5 ? v * 2 : (1 - v) * 2;
      const bent = d ** slope / 2;
      return 255 * (v < 0.5 ? bent : 1 - bent);
    }),
  ) as [Float32Array, Float32Array, Float32Array];
}

function surroundings(photo: Rgba, curves: Float32Array[]) {
  const small = reduceTo(photo, 320);
  const plane = createPlane(small.width, small.height);
  const ones = createPlane(small.width, small.height, 1);
  for (let i = 0; i < plane.data.length; i++)
    plane.data[i] =
      0.2126 * curves[0][small.data[i * 4]] +
      0.7152 * curves[1][small.data[i * 4 + 1]] +
      0.0722 * curves[2][small.data[i * 4 + 2]];
  const wide = blur(plane, 9);
  const share = blur(ones, 9);
  for (let i = 0; i < plane.data.length; i++) wide.data[i] /= share.data[i];
  return wide;
}

function turnAndCrop(photo: Rgba, tidy: Tidy): Rgba {
  const { width, height } = tidiedSize(photo.width, photo.height, tidy);
  if (tidy.straighten === 0 && width === photo.width && height === photo.height) return photo;
  const { toPhoto } = tidyMap(photo.width, photo.height, tidy);
  const out: Rgba = { width, height, data: new Uint8ClampedArray(width * height * 4) };
  const [x0, y0] = toPhoto(0.5, 0.5);
  const [x1, y1] = toPhoto(1.5, 0.5);
  const [x2, y2] = toPhoto(0.5, 1.5);
  const { data } = photo;
  const [lastX, lastY] = [photo.width - 1, photo.height - 1];
  for (let y = 0, o = 0; y < height; y++) {
    for (let x = 0; x < width; x++, o += 4) {
      // Beyond the photo its border goes on.
      const sx = Math.min(lastX, Math.max(0, x0 + x * (x1 - x0) + y * (x2 - x0) - 0.5));
      const sy = Math.min(lastY, Math.max(0, y0 + x * (y1 - y0) + y * (y2 - y0) - 0.5));
      const ix = Math.min(lastX, Math.floor(sx));
      const iy = Math.min(lastY, Math.floor(sy));
      const fx = sx - ix;
      const fy = sy - iy;
      const p = (iy * photo.width + ix) * 4;
      const right = ix < lastX ? 4 : 0;
      const down = iy < lastY ? photo.width * 4 : 0;
      for (let c = 0; c < 4; c++)
        out.data[o + c] =
          (data[p + c] * (1 - fx) + data[p + right + c] * fx) * (1 - fy) +
          (data[p + down + c] * (1 - fx) + data[p + down + right + c] * fx) * fy;
    }
  }
  return out;
}
