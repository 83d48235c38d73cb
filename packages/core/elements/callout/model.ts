import { panelled } from '../panelled';
import Joi from 'joi';
import { bindText } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { type Point } from '../../vector/outline';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { LEADERS, productOf, spotOn, type Leader } from '../spot';
import { plateSchema, scaledPlate, type Plate } from '../text/model';

/** Words about a spot of the product, with a leader to it. The box holds the words. */
export interface CalloutElement extends ElementBase {
  kind: 'callout';
  of: string | null;
  /** Shares of the product's box. */
  spot: Point;
  text: string;
  font: string;
  size: number;
  smallest: number;
  leading: number;
  align: 'start' | 'left' | 'centre' | 'right';
  ink: string;
  plate: Plate | null;
  leader: Leader;
  line: number;
  lineColour: string;
  dot: 'filled' | 'ring' | 'none';
  /** The spot in the frame, filled when the shot is resolved. */
  target: Point | null;
}

export const calloutKind: ElementKind<CalloutElement> = {
  kind: 'callout',
  title: 'Callout',
  role: 'overlay',
  weight: 3,
  standingOut: (element, to) => panelled('ink', element, to),
  schema: {
    of: Joi.string().max(60).allow(null).required(),
    spot: Joi.object({
      x: Joi.number().min(-1).max(2).required(),
      y: Joi.number().min(-1).max(2).required(),
    }).required(),
    text: Joi.string().max(4000).allow('').required(),
    font: Joi.string().max(80).required(),
    size: Joi.number().greater(0).max(2000).required(),
    smallest: Joi.number().greater(0).max(2000).required(),
    leading: Joi.number().min(0.5).max(4).required(),
    align: Joi.string().valid('start', 'left', 'centre', 'right').required(),
    ink: colourSchema.required(),
    plate: plateSchema,
    leader: Joi.string()
      .valid(...LEADERS)
      .required(),
    line: Joi.number().min(0).max(200).required(),
    lineColour: colourSchema.required(),
    dot: Joi.string().valid('filled', 'ring', 'none').required(),
    target: Joi.object({ x: Joi.number(), y: Joi.number() }).allow(null).required(),
  },
  pointsAtProduct: () => true,
  needs: (e) => ({ pictures: [], fonts: fontsFor(e.font, e.text) }),
  scaled: (e, k) => ({
    ...e,
    size: e.size * k,
    smallest: e.smallest * k,
    line: e.line * k,
    plate: scaledPlate(e.plate, k),
  }),
  bind(e, data, missing) {
    const bound = bindText(e.text, data);
    bound.missing.forEach((name) => missing.add(name));
    return { ...e, text: bound.text };
  },
  attached(e, elements) {
    const product = productOf(e.of, elements);
    return { ...e, target: product ? spotOn(product, e.spot) : null };
  },
};
