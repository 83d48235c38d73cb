import Joi from 'joi';
import { hashSchema } from '../raster/schemas';

/** A multipack: how several of one product, or of several, stand together. */
export interface Arrangement {
  form: 'row' | 'column' | 'rising' | 'falling' | 'staggered';
  count: number;
  /** Gap between neighbours in percent of the product's width; below 0 they overlap. */
  gap: number;
  /** Which stands in front. */
  front: 'first' | 'last';
  /** Other cutouts by content hash, with how wide they are against the first; taken in turn after it. */
  others: { picture: string; width: number; aspect: number }[];
}

export const ARRANGEMENT_FORMS = ['row', 'column', 'rising', 'falling', 'staggered'] as const;
export const MOST_IN_PACK = 24;

export const arrangementSchema = Joi.object({
  form: Joi.string()
    .valid(...ARRANGEMENT_FORMS)
    .required(),
  count: Joi.number().integer().min(1).max(MOST_IN_PACK).required(),
  gap: Joi.number().min(-95).max(300).required(),
  front: Joi.string().valid('first', 'last').required(),
  others: Joi.array()
    .items(
      Joi.object({
        picture: hashSchema.required(),
        width: Joi.number().greater(0).max(50).required(),
        aspect: Joi.number().greater(0).max(50).required(),
      }),
    )
    .max(MOST_IN_PACK)
    .required(),
});

/**
 * Where the copies stand about the pack's middle, in widths of the product: `x` to the right, `away` from the
 * camera along the ground, `up` the picture for forms that are not on the ground. In order of the count.
 */
export function placesOf({ form, count, gap }: Arrangement): { x: number; away: number; up: number }[] {
  const step = 1 + gap / 100;
  const places = Array.from({ length: count }, (_, i) => {
    const t = i - (count - 1) / 2;
    switch (form) {
      case 'row':
        return { x: t * step, away: 0, up: 0 };
      case 'column':
        return { x: 0, away: 0, up: t * step };
      case 'rising':
        return { x: t * step, away: t * step * 0.75, up: 0 };
      case 'falling':
        return { x: t * step, away: -t * step * 0.75, up: 0 };
      case 'staggered':
        return { x: 0, away: 0, up: 0 };
    }
  });
  if (form !== 'staggered') return places;
  // Rows one behind the other, each of one more than the row before it, as skittles stand.
  const rows: number[] = [];
  let left = count;
  for (let n = count > 2 ? 2 : count; left > 0; n++) {
    const take = Math.min(n, left);
    rows.push(take);
    left -= take;
  }
  let i = 0;
  for (const [row, n] of rows.entries())
    for (let k = 0; k < n; k++) {
      places[i] = {
        x: (k - (n - 1) / 2) * step,
        away: (row - (rows.length - 1) / 2) * step * 0.86,
        up: 0,
      };
      i++;
    }
  return places;
}
