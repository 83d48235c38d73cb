import { strokeCover } from '../raster/footprint';
import type { Rgba } from '../raster/pixels';
import { copyAlong } from './copy';
import { fillHole } from './fill';
import Joi from 'joi';

/** A mark or scratch covered on a picture; places in the picture's pixels. */
export type MendStep = {
  id: string;
  name: string;
  hidden: boolean;
  points: [number, number][];
  radius: number;
  /** 0..1: how much of the radius fades. */
  softness: number;
} & (
  | {
      /** Copied from elsewhere: the source lies so far from what is covered, and moves along. */
      kind: 'copy';
      offset: [number, number];
    }
  | {
      /** Grown from the surroundings. */
      kind: 'fill';
      seed: number;
    }
);

const pair = Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2);

export const mendSchema = Joi.object({
  id: Joi.string().max(60).required(),
  name: Joi.string().max(120).allow('').required(),
  kind: Joi.string().valid('copy', 'fill').required(),
  hidden: Joi.boolean().required(),
  points: Joi.array().items(pair).min(1).max(4000).required(),
  radius: Joi.number().greater(0).max(5000).required(),
  softness: Joi.number().min(0).max(1).required(),
  offset: pair.when('kind', { is: 'copy', then: Joi.required(), otherwise: Joi.forbidden() }),
  seed: Joi.number()
    .integer()
    .min(0)
    .max(999_999)
    .when('kind', { is: 'fill', then: Joi.required(), otherwise: Joi.forbidden() }),
});

/** The picture with all steps that show carried out, in order; the picture itself is not changed. */
export function mendPicture(
  picture: Rgba,
  steps: readonly MendStep[],
  onProgress?: (share: number) => void,
): Rgba {
  const shown = steps.filter((s) => !s.hidden);
  let now = picture;
  shown.forEach((step, i) => {
    const progress = (share: number) => onProgress?.((i + share) / shown.length);
    if (step.kind === 'copy') now = copyAlong(now, step, step.offset);
    else {
      const view = { width: now.width, height: now.height, left: 0, top: 0, k: 1 };
      const mask = strokeCover(view, step.points, step.radius, step.softness * 0.5);
      now = fillHole(now, mask, { seed: step.seed, onProgress: progress });
    }
    progress(1);
  });
  return now;
}
