import Joi from 'joi';
import { FORMATS, type Format, type Slot } from '../spec/slot';

/** How a slot's pictures are written, where that is decided by hand; null leaves it to the slot and the byte limit. */
export interface Encoding {
  format: Format | null;
  /** 1..100; the highest that fits the byte limit where null. Nothing for lossless files. */
  quality: number | null;
  /** Chroma resolution of JPEG and AVIF. */
  chroma: '4:4:4' | '4:2:0' | null;
  /** JPEG that is shown coarse first. */
  progressive: boolean;
  /** WebP and AVIF without loss; PNG always is, unless it has a palette. */
  lossless: boolean;
  /** Colours of a PNG's palette, 2..256; null for all colours. */
  colours: number | null;
}

export const PLAIN_ENCODING: Encoding = {
  format: null,
  quality: null,
  chroma: null,
  progressive: false,
  lossless: false,
  colours: null,
};

export const encodingSchema = Joi.object({
  format: Joi.string()
    .valid(...FORMATS)
    .allow(null)
    .default(null),
  quality: Joi.number().integer().min(1).max(100).allow(null).default(null),
  chroma: Joi.string().valid('4:4:4', '4:2:0').allow(null).default(null),
  progressive: Joi.boolean().default(false),
  lossless: Joi.boolean().default(false),
  colours: Joi.number().integer().min(2).max(256).allow(null).default(null),
});

/** The formats to try for a slot, the preferred first; one chosen by hand only where the slot takes it. */
export function formatsFor(slot: Pick<Slot, 'formats'>, encoding: Encoding): Format[] {
  const { format } = encoding;
  return format && slot.formats.includes(format) ? [format] : slot.formats;
}

/** What is written into a file besides its pixels. */
export interface FileWords {
  /** Alternative text; null writes none. */
  alt: string | null;
  copyright: string | null;
  title: string | null;
}

/** A first alternative text for a shot's pictures: the product, and what the shot is called. */
export const suggestedAlt = (shotTitle: string) =>
  `{title}, ${shotTitle.replace(/[{}]/g, '').replace(/^\p{Lu}(?=\p{Ll})/u, (c) => c.toLowerCase())}`;
