import Joi from 'joi';
import { effectsSchema, type Effects } from '../raster/effects';
import { boxSchema, type Box } from '../vector/box';
import type { PathCommand } from '../vector/outline';

/** The W3C blend modes (Compositing and Blending Level 1). */
export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
export type BlendMode = (typeof BLEND_MODES)[number];

/** What every element of a shot has. */
export interface ElementBase {
  id: string;
  kind: string;
  name: string;
  box: Box;
  opacity: number;
  blend: BlendMode;
  hidden: boolean;
  locked: boolean;
  /** Elements with the same link move as one; null moves alone. */
  link: string | null;
  effects: Effects;
  /** What of it comes from the brand kit: the kit's entry by the path of the key it fills. */
  brand: Record<string, string>;
  /** Its part in a template: what is put there; null where it stays as it is. */
  place: Place | null;
  /** Stretches with the frame from edge to edge instead of keeping to its corner. */
  spread: boolean;
}

/** A place in a template, and what it expects. */
export interface Place {
  expects: 'product' | 'text' | 'picture';
  hint: string;
  required: boolean;
  /** Where a product goes: as large as it can be in it, standing at its foot. Null of texts and pictures. */
  area: Box | null;
}

/** Letters or signs that must be read, in the frame's pixels before the element is turned. */
export interface Words {
  text: string;
  commands: PathCommand[];
  colour: string;
  /** Size of the letters (the em), or of the signs. */
  size: number;
  /** Characters left out because they have no room, and characters that no font has. */
  cut: number;
  unprintable: string[];
  /** Shapes, not letters: they need less contrast and may be smaller. */
  sign?: boolean;
}

/** How words are made to stand out: the ink, a panel for it where a panel is needed, and a dark and a light ink. */
export interface StandOut {
  ink: string;
  panel: string;
  dark: string;
  light: string;
}

/** Stands for a picture that is still to be put in. */
export const NO_PICTURE = '0'.repeat(64);

/** Pictures (by content hash) and fonts (by id) that must be at hand before an element can be painted. */
export interface Needs {
  pictures: string[];
  fonts: string[];
}

/** A source with how far it is enlarged. */
export interface Enlarged {
  name: string;
  factor: number;
}

export const baseSchema: Record<string, Joi.Schema> = {
  id: Joi.string().max(60).required(),
  kind: Joi.string().max(60).required(),
  name: Joi.string().max(120).allow('').required(),
  box: boxSchema.required(),
  opacity: Joi.number().min(0).max(1).required(),
  blend: Joi.string()
    .valid(...BLEND_MODES)
    .required(),
  hidden: Joi.boolean().required(),
  locked: Joi.boolean().required(),
  link: Joi.string().max(60).allow(null).required(),
  effects: effectsSchema.required(),
  brand: Joi.object().pattern(Joi.string().max(60), Joi.string().max(60)).required(),
  place: Joi.object({
    expects: Joi.string().valid('product', 'text', 'picture').required(),
    hint: Joi.string().max(200).allow('').required(),
    required: Joi.boolean().required(),
    area: boxSchema.allow(null).required(),
  })
    .allow(null)
    .required(),
  spread: Joi.boolean().required(),
};
