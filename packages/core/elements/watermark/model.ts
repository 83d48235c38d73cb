import Joi from 'joi';
import { bindText } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

/** A sign of ownership over the picture, as strong on every ground: each mark measures what it lies on. */
export interface WatermarkElement extends ElementBase {
  kind: 'watermark';
  mark: 'logo' | 'words';
  light: string | null;
  dark: string | null;
  text: string;
  font: string;
  pattern: 'single' | 'diagonal' | 'tiled';
  /** Width of one mark in frame pixels. */
  size: number;
  /** Space between marks as a share of a mark's width. */
  gap: number;
  angleDeg: number;
  /** Change of lightness it makes, in L* of CIELAB: 6 is shy, 25 is plain to see. */
  strength: number;
}

export const watermarkKind: ElementKind<WatermarkElement> = {
  kind: 'watermark',
  title: 'Watermark',
  role: 'overlay',
  weight: 2,
  mark: true,
  schema: {
    mark: Joi.string().valid('logo', 'words').required(),
    light: hashSchema.allow(null).required(),
    dark: hashSchema.allow(null).required(),
    text: Joi.string().max(200).allow('').required(),
    font: Joi.string().max(80).required(),
    pattern: Joi.string().valid('single', 'diagonal', 'tiled').required(),
    size: Joi.number().greater(0).max(20000).required(),
    gap: Joi.number().min(0).max(5).required(),
    angleDeg: Joi.number().min(-90).max(90).required(),
    strength: Joi.number().min(1).max(60).required(),
  },
  needs: (e) => ({
    pictures: e.mark === 'logo' ? [e.light ?? e.dark].filter((p): p is string => p !== null) : [],
    fonts: e.mark === 'words' ? fontsFor(e.font, e.text) : [],
  }),
  scaled: (e, k) => ({ ...e, size: e.size * k }),
  bind(e, data, missing) {
    if (e.mark === 'logo') {
      if (!e.light && !e.dark) missing.add('logo in the brand kit');
      return e;
    }
    const bound = bindText(e.text, data);
    bound.missing.forEach((name) => missing.add(name));
    return { ...e, text: bound.text };
  },
};
