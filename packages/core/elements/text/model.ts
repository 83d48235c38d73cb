import { panelled } from '../panelled';
import Joi from 'joi';
import { bindText } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

/** Words over the picture. `text` may hold ICU placeholders such as {title}; its size is fitted to its box. */
export interface TextElement extends ElementBase {
  kind: 'text';
  text: string;
  font: string;
  /** Largest and smallest size in frame pixels. */
  size: number;
  smallest: number;
  /** Texts with the same tie are all set at the size of the smallest of them; null goes by itself. */
  tied: string | null;
  leading: number;
  tracking: number;
  capitals: boolean;
  align: 'start' | 'left' | 'centre' | 'right';
  vertical: 'top' | 'middle' | 'bottom';
  colour: string;
  /** A filled panel behind the text, or null. Padding and radius in frame pixels. */
  plate: Plate | null;
}

export interface Plate {
  colour: string;
  opacity: number;
  padding: number;
  radius: number;
}

export const plateSchema = Joi.object({
  colour: colourSchema.required(),
  opacity: Joi.number().min(0).max(1).required(),
  padding: Joi.number().min(0).max(2000).required(),
  radius: Joi.number().min(0).max(2000).required(),
})
  .allow(null)
  .required();

export const scaledPlate = (plate: Plate | null, k: number) =>
  plate && { ...plate, padding: plate.padding * k, radius: plate.radius * k };

export const textKind: ElementKind<TextElement> = {
  kind: 'text',
  title: 'Text',
  role: 'overlay',
  weight: 7,
  standingOut: (element, to) => panelled('colour', element, to),
  // Words that come from the product's data are not cut for one product: they may be set smaller here.
  shortened: (written, element, most) =>
    written.text.includes('{')
      ? { smallest: written.smallest * 0.6 }
      : { text: shortenedText(element.text, most) },
  asPlace: (element) => ({ expects: 'text', hint: element.name, required: false, area: null }),
  isOpen: (element) => element.text.trim() === '',
  schema: {
    text: Joi.string().max(4000).allow('').required(),
    font: Joi.string().max(80).required(),
    size: Joi.number().greater(0).max(5000).required(),
    smallest: Joi.number().greater(0).max(5000).required(),
    tied: Joi.string().max(60).allow(null).required(),
    leading: Joi.number().min(0.5).max(4).required(),
    tracking: Joi.number().min(-200).max(1000).required(),
    capitals: Joi.boolean().required(),
    align: Joi.string().valid('start', 'left', 'centre', 'right').required(),
    vertical: Joi.string().valid('top', 'middle', 'bottom').required(),
    colour: colourSchema.required(),
    plate: plateSchema,
  },
  needs: (element) => ({ pictures: [], fonts: fontsFor(element.font, element.text) }),
  scaled: (element, factor) => ({
    ...element,
    size: element.size * factor,
    smallest: element.smallest * factor,
    plate: scaledPlate(element.plate, factor),
  }),
  bind(element, data, missing) {
    const bound = bindText(element.text, data);
    bound.missing.forEach((name) => missing.add(name));
    return { ...element, text: bound.text };
  },
  wraps: ({ text, size, leading, plate }) => (plate ? null : { text, size, leading }),
};

/** A text of so many characters at most, cut between words, with an ellipsis. */
function shortenedText(text: string, most: number): string {
  const kept = text.slice(0, Math.max(1, most - 1));
  const whole = kept.replace(/\s+\S*$/, '');
  return `${(whole || kept).trimEnd()}…`;
}

export const isText = (element: { kind: string }): element is TextElement => element.kind === 'text';
