import Joi from 'joi';
import { effectsSchema, type Effects } from './effects';
import type { Canvas2D, PaintEnvironment } from '../paint/environment';
import type { ProductData } from '../shot/data';
import type { Bounds, PathCommand } from '../vector/outline';
import type { ShotElement } from './index';

/** A place in the frame: top left corner and size before turning, in frame pixels; `rotation` in degrees clockwise about the centre. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
  rotation: number;
}

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

/**
 * One kind of shot element. A kind is registered once (elements/index.ts); nothing else names it.
 * `role` decides how it follows a slot's frame: a ground covers it, subjects keep together and whole,
 * overlays keep to their nearest edge or corner.
 */
export interface ElementKind<E extends ElementBase = ElementBase> {
  kind: E['kind'];
  title: string;
  role: 'ground' | 'subject' | 'overlay';
  /** The kind's own keys, without those of ElementBase. */
  schema: Record<string, Joi.Schema>;
  needs(element: E): Needs;
  /** What it enlarges, where that is not its pictures to its box: 1 shows a source at its own pixels. */
  enlarged?(element: E, sizes: ReadonlyMap<string, { width: number; height: number }>): Enlarged[];
  /** Paints what of a ground is the product itself, on a clear ground, to measure where it is. */
  paintItem?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** Letters and signs in it that must be read. */
  words?(element: E, environment: PaintEnvironment): Words[];
  /** How far it paints, where that is more than its box. */
  extent?(element: E, environment: PaintEnvironment): Bounds;
  /** What its own painting takes from elsewhere, such as the ground it has chosen its colours by. */
  depends?(element: E, environment: PaintEnvironment): unknown;
  /** Effects as they are painted, where they depend on what lies beneath. */
  effects?(element: E, environment: PaintEnvironment): Effects;
  /** The element with its texts and pictures filled from product and brand; adds the names of what is missing. */
  bind?(element: E, data: ProductData | null, missing: Set<string>): E;
  /** Its place in the frame, where that follows from the other elements. */
  attached?(element: E, elements: readonly ShotElement[], missing: Set<string>): E;
  /** What changes when it is dragged, where its place follows from others. */
  moved?(element: E, dx: number, dy: number): Partial<E>;
  /** Words that may break into other lines when sizes are arranged; kinds without it keep their shape. */
  wraps?(element: E): { text: string; size: number; leading: number } | null;
  /** Points at a place of the product and so moves with it. */
  pointsAtProduct?(element: E): boolean;
  /** How important it is unless the user says otherwise: 1 is dropped first when room is short, 9 last. */
  weight: number;
  /** The element with all lengths of its own (not its box) multiplied by `factor`. */
  scaled(element: E, factor: number): E;
  /** What lies on the ground under all products: shadows, reflections. In the frame's pixels, not turned. */
  paintUnder?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** Draws the element with its box in the frame's pixels; the canvas is already scaled to the wanted size. */
  paint(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
}

export const colourSchema = Joi.string()
  .pattern(/^#[0-9a-f]{6}$/i)
  .messages({ 'string.pattern.base': '{{#label}} must be a colour written as #rrggbb' });

export const hashSchema = Joi.string()
  .pattern(/^[0-9a-f]{64}$/)
  .messages({ 'string.pattern.base': '{{#label}} must be a SHA-256 content hash (64 hexadecimal digits)' });

const length = Joi.number().min(-100000).max(100000);

export const boxSchema = Joi.object({
  x: length.required(),
  y: length.required(),
  width: Joi.number().greater(0).max(100000).required(),
  height: Joi.number().greater(0).max(100000).required(),
  rotation: Joi.number().min(-360).max(360).required(),
});

export const baseSchema: Record<string, Joi.Schema> = {
  id: Joi.string().max(60).required(),
  kind: Joi.string().required(),
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

/** The upright rectangle around a turned box. */
export function uprightBounds(box: Box): { x: number; y: number; width: number; height: number } {
  const a = (box.rotation * Math.PI) / 180;
  const width = Math.abs(box.width * Math.cos(a)) + Math.abs(box.height * Math.sin(a));
  const height = Math.abs(box.width * Math.sin(a)) + Math.abs(box.height * Math.cos(a));
  return { x: box.x + (box.width - width) / 2, y: box.y + (box.height - height) / 2, width, height };
}
