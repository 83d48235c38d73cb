import Joi from 'joi';
import { fontsFor } from '../../type/catalogue';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { productOf } from '../spot';

/** A dimension line beside a product that reads its real size. Its place follows the product. */
export interface MeasureElement extends ElementBase {
  kind: 'measure';
  of: string | null;
  side: 'width' | 'height';
  /** Over or under the product, to its left or right. */
  edge: 'before' | 'after';
  /** Distance from the product in frame pixels. */
  offset: number;
  unit: 'mm' | 'cm' | 'in';
  /** Round things are measured by their diameter. */
  diameter: boolean;
  ends: 'ticks' | 'arrows';
  line: number;
  ink: string;
  font: string;
  size: number;
  /** Filled when the shot is resolved: the real length, and the language numbers are written in. */
  lengthMm: number | null;
  locale: string | null;
}

export const measureKind: ElementKind<MeasureElement> = {
  kind: 'measure',
  title: 'Dimension line',
  role: 'overlay',
  weight: 2,
  schema: {
    of: Joi.string().max(60).allow(null).required(),
    side: Joi.string().valid('width', 'height').required(),
    edge: Joi.string().valid('before', 'after').required(),
    offset: Joi.number().min(-5000).max(5000).required(),
    unit: Joi.string().valid('mm', 'cm', 'in').required(),
    diameter: Joi.boolean().required(),
    ends: Joi.string().valid('ticks', 'arrows').required(),
    line: Joi.number().min(0).max(200).required(),
    ink: colourSchema.required(),
    font: Joi.string().max(80).required(),
    size: Joi.number().greater(0).max(2000).required(),
    lengthMm: Joi.number().allow(null).required(),
    locale: Joi.string().max(35).allow(null).required(),
  },
  pointsAtProduct: () => true,
  needs: (e) => ({ pictures: [], fonts: fontsFor(e.font, '') }),
  scaled: (e, k) => ({ ...e, offset: e.offset * k, line: e.line * k, size: e.size * k }),
  bind: (e, data) => ({ ...e, locale: data?.brand?.locale ?? 'en-GB' }),
  attached(e, elements, missing) {
    const product = productOf(e.of, elements);
    if (!product) {
      missing.add('product to measure');
      return { ...e, lengthMm: null };
    }
    const lengthMm = product.millimetres?.[e.side] ?? null;
    if (lengthMm === null) missing.add(e.side);
    const { box } = product;
    // Room for the words over, or beside, the line.
    const deep = e.size * 1.5;
    const across = e.side === 'width';
    const at = (start: number, size: number) =>
      e.edge === 'before' ? start - e.offset - deep / 2 : start + size + e.offset - deep / 2;
    const place = across
      ? { x: box.x, y: at(box.y, box.height), width: box.width, height: deep }
      : { x: at(box.x, box.width), y: box.y, width: deep, height: box.height };
    return { ...e, lengthMm, box: { ...place, rotation: 0 } };
  },
  moved: (e, dx, dy) => ({
    offset: e.offset + (e.side === 'width' ? dy : dx) * (e.edge === 'before' ? -1 : 1),
  }),
};

export const isMeasure = (element: { kind: string }): element is MeasureElement => element.kind === 'measure';
