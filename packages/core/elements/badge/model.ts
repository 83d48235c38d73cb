import Joi from 'joi';
import { bindText, localeOf, parseAmount } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { BADGE_FORMS, CORNERS, type BadgeForm, type Corner } from './forms';

/** A badge with words or a price. Texts may hold ICU placeholders. */
export interface BadgeElement extends ElementBase {
  kind: 'badge';
  form: BadgeForm;
  /** The corner that a corner band runs across. */
  corner: Corner;
  /** Points of a seal or starburst, and how deep they are cut, as a share of the radius. */
  tips: number;
  depth: number;
  fill: string;
  fillOpacity: number;
  /** A line inside the edge; lengths in frame pixels. */
  ring: { inset: number; width: number; colour: string } | null;
  ink: string;
  font: string;
  numberFont: string;
  says: 'words' | 'price' | 'was-now' | 'saving';
  text: string;
  /** A line before the price ("now") and one after ("each"). */
  lead: string;
  each: string;
  /** Numbers, or placeholders of numbers. */
  amount: string;
  was: string;
  savingAs: 'amount' | 'percent';
  /** Currency code and language tag; null takes the product's and the brand's. */
  currency: string | null;
  locale: string | null;
}

export const text = (most: number) => Joi.string().max(most).allow('').required();

export const badgeKind: ElementKind<BadgeElement> = {
  kind: 'badge',
  title: 'Badge',
  role: 'overlay',
  weight: 6,
  schema: {
    form: Joi.string()
      .valid(...BADGE_FORMS)
      .required(),
    corner: Joi.string()
      .valid(...CORNERS)
      .required(),
    tips: Joi.number().integer().min(5).max(60).required(),
    depth: Joi.number().min(0.01).max(0.6).required(),
    fill: colourSchema.required(),
    fillOpacity: Joi.number().min(0).max(1).required(),
    ring: Joi.object({
      inset: Joi.number().min(0).max(500).required(),
      width: Joi.number().min(0).max(200).required(),
      colour: colourSchema.required(),
    })
      .allow(null)
      .required(),
    ink: colourSchema.required(),
    font: Joi.string().max(80).required(),
    numberFont: Joi.string().max(80).required(),
    says: Joi.string().valid('words', 'price', 'was-now', 'saving').required(),
    text: text(400),
    lead: text(80),
    each: text(80),
    amount: text(80),
    was: text(80),
    savingAs: Joi.string().valid('amount', 'percent').required(),
    currency: Joi.string().uppercase().length(3).allow(null).required(),
    locale: Joi.string().max(35).allow(null).required(),
  },
  needs: (e) => ({
    pictures: [],
    fonts: [...fontsFor(e.font, `${e.text}${e.lead}${e.each}`), ...fontsFor(e.numberFont, '₹')],
  }),
  scaled: (e, k) => ({
    ...e,
    ring: e.ring && { ...e.ring, inset: e.ring.inset * k, width: e.ring.width * k },
  }),
  bind(e, data, missing) {
    const fill = (value: string) => {
      const bound = bindText(value, data);
      bound.missing.forEach((name) => missing.add(name));
      return bound.text;
    };
    const number = (value: string) => {
      const filled = fill(value);
      if (!filled.includes('‹') && parseAmount(filled) === null)
        missing.add(`price that is a number ("${filled}" is none)`);
      return filled;
    };
    const next = {
      ...e,
      currency: e.currency ?? data?.currency ?? 'GBP',
      locale: e.locale ?? localeOf(data),
    };
    if (e.says === 'words') return { ...next, text: fill(e.text) };
    const amount = number(e.amount);
    const was = e.says === 'price' ? e.was : number(e.was);
    const [now, before] = [parseAmount(amount), parseAmount(was)];
    if (e.says !== 'price' && now !== null && before !== null && before <= now)
      missing.add('former price above the present one');
    return { ...next, amount, was, lead: fill(e.lead), each: fill(e.each) };
  },
};
