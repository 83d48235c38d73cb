import Joi from 'joi';
import { bindText } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { type Point } from '../../vector/outline';
import { colourSchema, hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

/** One half of a pair: its picture, the place in it that comes to the middle, and how far it is drawn nearer. */
export interface PairHalf {
  picture: string | null;
  focus: Point;
  zoom: number;
  label: string;
}

/** Two pictures in one frame, before and after. */
export interface PairElement extends ElementBase {
  kind: 'pair';
  before: PairHalf;
  after: PairHalf;
  split: 'vertical' | 'horizontal' | 'diagonal';
  /** Where they meet, as a share of the way across. */
  at: number;
  divider: { width: number; colour: string };
  radius: number;
  /** Both are cropped as the one that comes after. */
  sameCrop: boolean;
  /** How far the tone of the one before is brought to the other's, 0..1. */
  matchTone: number;
  labels: { font: string; size: number; ink: string; plate: string; opacity: number } | null;
}

export const share = Joi.number().min(0).max(1).required();

export const half = Joi.object({
  picture: hashSchema.allow(null).required(),
  focus: Joi.object({ x: share, y: share }).required(),
  zoom: Joi.number().min(1).max(8).required(),
  label: Joi.string().max(80).allow('').required(),
}).required();

export const pairKind: ElementKind<PairElement> = {
  kind: 'pair',
  title: 'Before and after',
  role: 'overlay',
  weight: 6,
  standingOut({ labels, brand: { labels: _, ...brand } }, { dark, light }) {
    return { labels: labels && { ...labels, ink: light, plate: dark, opacity: 1 }, brand };
  },
  asPlace: (element) => ({ expects: 'picture', hint: element.name, required: true, area: null }),
  isOpen: ({ before, after }) => !before.picture || !after.picture,
  schema: {
    before: half,
    after: half,
    split: Joi.string().valid('vertical', 'horizontal', 'diagonal').required(),
    at: Joi.number().min(0.05).max(0.95).required(),
    divider: Joi.object({
      width: Joi.number().min(0).max(200).required(),
      colour: colourSchema.required(),
    }).required(),
    radius: Joi.number().min(0).max(2000).required(),
    sameCrop: Joi.boolean().required(),
    matchTone: share,
    labels: Joi.object({
      font: Joi.string().max(80).required(),
      size: Joi.number().greater(0).max(2000).required(),
      ink: colourSchema.required(),
      plate: colourSchema.required(),
      opacity: share,
    })
      .allow(null)
      .required(),
  },
  needs: (e) => ({
    pictures: [e.before.picture, e.after.picture].filter((p): p is string => p !== null),
    fonts: e.labels ? fontsFor(e.labels.font, e.before.label + e.after.label) : [],
  }),
  enlarged: (e, sizes) =>
    [e.before, e.after].flatMap((h) => {
      const source = h.picture && sizes.get(h.picture);
      if (!source) return [];
      const factor = Math.max(e.box.width / source.width, e.box.height / source.height) * h.zoom;
      return [{ name: `${e.name}, ${h.label}`, factor }];
    }),
  scaled: (e, k) => ({
    ...e,
    radius: e.radius * k,
    divider: { ...e.divider, width: e.divider.width * k },
    labels: e.labels && { ...e.labels, size: e.labels.size * k },
  }),
  bind(e, data, missing) {
    if (!e.before.picture) missing.add('picture of before');
    if (!e.after.picture) missing.add('picture of after');
    const filled = (h: PairHalf) => {
      const bound = bindText(h.label, data);
      bound.missing.forEach((name) => missing.add(name));
      return { ...h, label: bound.text };
    };
    const after = filled(e.after);
    const before = filled(e.before);
    return { ...e, after, before: e.sameCrop ? { ...before, focus: after.focus, zoom: after.zoom } : before };
  },
};
