import Joi from 'joi';
import type { PaintEnvironment } from '../environment';
import { bindText, localeOf, parseAmount } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { fillPath, strokePath, turnedPath } from '../../vector/outline';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase, Words } from '../base';
import type { ElementKind } from '../element';
import { bestRows, setRows, type Row } from '../rows';
import { paintWords } from '../words';
import { BADGE_FORMS, badgeShape, CORNERS, type BadgeForm, type Corner } from './forms';
import { plainPrice, priceParts, savingText, smallRow, type Price } from './price-rows';

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

const text = (most: number) => Joi.string().max(most).allow('').required();

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
  words: badgeWords,
  paint(e, canvas, environment) {
    const shape = badgeShape(e.form, e.box, e.tips, e.depth, e.corner);
    const alpha = canvas.globalAlpha;
    canvas.globalAlpha = alpha * e.fillOpacity;
    fillPath(canvas, shape.outline, e.fill);
    canvas.globalAlpha = alpha;
    if (e.ring && e.ring.width > 0)
      strokePath(canvas, shape.ring(e.ring.inset), { width: e.ring.width, colour: e.ring.colour });
    paintWords(badgeWords(e, environment), canvas);
  },
};

function badgeWords(e: BadgeElement, environment: PaintEnvironment): Words[] {
  const { inner, inside, turn } = badgeShape(e.form, e.box, e.tips, e.depth, e.corner);
  const fit = (rows: Row[]) => setRows(rows, inner, inside, e.ink, environment)?.size ?? 0;
  const set = setRows(rowsOf(e, fit), inner, inside, e.ink, environment);
  if (!set) return [];
  const about = { x: inner.x + inner.width / 2, y: inner.y + inner.height / 2 };
  return [turn ? { ...set, commands: turnedPath(set.commands, turn, about) } : set];
}

function rowsOf(e: BadgeElement, fit: (rows: Row[]) => number): Row[] {
  if (e.says === 'words') return bestRows(e.text, e.font, 1, fit);
  const amount = parseAmount(e.amount);
  const was = parseAmount(e.was);
  const price: Price = { amount: amount ?? 0, currency: e.currency ?? 'GBP', locale: e.locale ?? 'en-GB' };
  const big: Row = {
    parts:
      amount === null ? [{ text: '‹price›', font: e.font, scale: 0.6 }] : priceParts(price, e.numberFont, 1),
    gap: 0.2,
  };
  const lead = e.lead ? [smallRow(e.lead, e.font)] : [];
  const each = e.each ? [smallRow(e.each, e.font, 0.26)] : [];
  if (e.says === 'price' || amount === null) return [...lead, big, ...each];
  const known = was !== null && was > amount;
  if (e.says === 'was-now') {
    const before = smallRow(known ? plainPrice({ ...price, amount: was }) : '‹was›', e.font, 0.36, known);
    return [before, ...lead, big, ...each];
  }
  const saved = known ? savingText(price, was, e.savingAs) : '‹was›';
  return [...lead, { parts: [{ text: saved, font: e.numberFont, scale: 0.8 }], gap: 0.2 }, ...each];
}
