import Joi from 'joi';
import { strokeCover } from '../raster/footprint';
import { fromLinear, toLinear } from '../raster/colour';
import { createPlane, type Plane, type Rgba } from '../raster/pixels';

/** A soft stroke of dark or light painted over an item, kept as a stroke; places and radius in the picture's pixels. */
export interface ShadeStroke {
  id: string;
  points: [number, number][];
  radius: number;
  /** 0..1: how much of the radius fades. */
  softness: number;
  /** -1 dark to 1 light. */
  amount: number;
  hidden: boolean;
}

const point = Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2);

export const shadeSchema = Joi.object({
  id: Joi.string().max(60).required(),
  points: Joi.array().items(point).min(1).max(4000).required(),
  radius: Joi.number().greater(0).max(5000).required(),
  softness: Joi.number().min(0).max(1).required(),
  amount: Joi.number().min(-1).max(1).required(),
  hidden: Joi.boolean().required(),
});

/**
 * What all strokes do to the light, as stops (powers of two) a pixel; a stroke's own overlap does not add up, several
 * strokes do.
 * @param scale pixels of the plane per pixel of the surveyed picture
 */
export function shadeStops(
  strokes: readonly ShadeStroke[],
  width: number,
  height: number,
  scale: number,
): Plane | null {
  const seen = strokes.filter((s) => !s.hidden && s.amount !== 0);
  if (!seen.length) return null;
  const out = createPlane(width, height);
  const view = { width, height, left: 0, top: 0, k: 1 / scale };
  for (const stroke of seen) {
    const cover = strokeCover(view, stroke.points, stroke.radius, stroke.softness).data;
    for (let i = 0; i < cover.length; i++) {
      const c = cover[i];
      // A smooth slope, without a crease where it begins.
      if (c > 0) out.data[i] += stroke.amount * 1.6 * c * c * (3 - 2 * c);
    }
  }
  return out;
}

/** Darkens and lightens a picture by stops, inside the outline where there is one. Changes the picture. */
export function shadePicture(picture: Rgba, stops: Plane, outline: Plane | null): void {
  const { data } = picture;
  for (let i = 0, j = 0; i < stops.data.length; i++, j += 4) {
    const s = stops.data[i];
    if (s === 0) continue;
    const inside = outline ? outline.data[i] : 1;
    if (inside <= 0) continue;
    const k = 2 ** (s * inside);
    for (let c = 0; c < 3; c++) {
      const v = toLinear(data[j + c]) * k;
      // Light rolls off before it clips.
      data[j + c] = fromLinear(v > 0.8 ? 0.8 + 0.2 * (1 - Math.exp((0.8 - v) / 0.2)) : v);
    }
  }
}
