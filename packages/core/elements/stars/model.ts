import Joi from 'joi';
import { bindText, parseAmount } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

/** A row of rating stars, the last filled by its fraction, with words beside or under it. */
export interface StarsElement extends ElementBase {
  kind: 'stars';
  /** A number of stars, or a placeholder of one. */
  rating: string;
  of: number;
  colour: string;
  /** Of what is not filled. */
  empty: string;
  /** Between stars, as a share of a star's width. */
  gap: number;
  text: string;
  font: string;
  ink: string;
  textAt: 'right' | 'below';
}

export const starsKind: ElementKind<StarsElement> = {
  kind: 'stars',
  title: 'Rating stars',
  role: 'overlay',
  weight: 5,
  standingOut: (_, { ink }) => ({ colour: ink, ink, brand: {} }),
  schema: {
    rating: Joi.string().max(80).allow('').required(),
    of: Joi.number().integer().min(1).max(10).required(),
    colour: colourSchema.required(),
    empty: colourSchema.required(),
    gap: Joi.number().min(0).max(2).required(),
    text: Joi.string().max(200).allow('').required(),
    font: Joi.string().max(80).required(),
    ink: colourSchema.required(),
    textAt: Joi.string().valid('right', 'below').required(),
  },
  needs: (e) => ({ pictures: [], fonts: fontsFor(e.font, e.text) }),
  scaled: (e) => e,
  bind(e, data, missing) {
    const rating = bindText(e.rating, data);
    const words = bindText(e.text, data);
    for (const name of [...rating.missing, ...words.missing]) missing.add(name);
    const stars = parseAmount(rating.text);
    if (!rating.missing.length && (stars === null || stars < 0 || stars > e.of))
      missing.add(`rating between 0 and ${e.of} ("${rating.text}" is none)`);
    return { ...e, rating: rating.text, text: words.text };
  },
};
