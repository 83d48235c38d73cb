import Joi from 'joi';

export type Format = 'jpeg' | 'png' | 'webp';

/** One picture that a marketplace takes, with its specification. Shares are 0..1. */
export interface Slot {
  id: string;
  title: string;
  /** Exact pixel size. */
  width: number;
  height: number;
  /** Accepted formats, the preferred first. */
  formats: Format[];
  maxBytes: number;
  background: {
    kind: 'white' | 'any';
    /** How far a channel may be from 255 and still count as white. */
    tolerance: number;
    /** Share of the background's pixels that must be white. */
    minShare: number;
  };
  /** Longer side of the products' bounds as a share of the frame's side; null is not limited. */
  coverage: { min: number | null; max: number | null; wanted: number | null };
  /** Clear space around the products, as a share of the frame's shorter side. */
  marginShare: number;
  /** Space at the frame's edge that overlays keep clear, as a share of the shorter side. */
  safeShare: number;
  overlays: 'allowed' | 'forbidden';
  /** How far sources may be enlarged; 1 is their own resolution. */
  maxEnlargement: number;
  required: boolean;
  /** File name without extension; {sku}, {listing}, {marketplace}, {slot}, {variant}, {shot}, {n}. */
  fileName: string;
  note?: string;
}

/** A marketplace's list of slots. */
export interface SpecSheet {
  id: string;
  marketplace: string;
  about: string;
  version: number;
  slots: Slot[];
}

const share = Joi.number().min(0).max(1);

export const slotSchema = Joi.object({
  id: Joi.string()
    .pattern(/^[a-z0-9-]+$/)
    .max(60)
    .required(),
  title: Joi.string().max(80).required(),
  width: Joi.number().integer().min(16).max(12000).required(),
  height: Joi.number().integer().min(16).max(12000).required(),
  formats: Joi.array()
    .items(Joi.string().valid('jpeg', 'png', 'webp'))
    .min(1)
    .unique()
    .required(),
  maxBytes: Joi.number().integer().min(1024).required(),
  background: Joi.object({
    kind: Joi.string().valid('white', 'any').required(),
    tolerance: Joi.number().min(0).max(64).default(0),
    minShare: share.default(0.995),
  }).required(),
  coverage: Joi.object({
    min: share.allow(null).default(null),
    max: share.allow(null).default(null),
    wanted: share.allow(null).default(null),
  }).default({ min: null, max: null, wanted: null }),
  marginShare: share.max(0.4).default(0),
  safeShare: share.max(0.4).default(0.03),
  overlays: Joi.string().valid('allowed', 'forbidden').default('allowed'),
  maxEnlargement: Joi.number().min(0.1).max(10).default(1.2),
  required: Joi.boolean().default(true),
  fileName: Joi.string().max(200).default('{sku}_{slot}'),
  note: Joi.string().max(400),
});

export const specSheetSchema = Joi.object({
  id: Joi.string()
    .pattern(/^[a-z0-9-]+$/)
    .max(60)
    .required(),
  marketplace: Joi.string().max(80).required(),
  about: Joi.string().max(400).allow('').default(''),
  version: Joi.number().integer().min(1).default(1),
  slots: Joi.array().items(slotSchema).min(1).max(80).unique('id').required(),
});

/** Reads a slot's specification; throws a sentence that says which rule is wrong. */
export function readSlot(value: unknown): Slot {
  const { value: slot, error } = slotSchema.validate(value);
  if (error) throw new Error(`This is not a slot's specification: ${error.message}.`);
  return slot as Slot;
}

export function readSpecSheet(value: unknown): SpecSheet {
  const { value: sheet, error } = specSheetSchema.validate(value);
  if (error) throw new Error(`This is not a spec sheet: ${error.message}.`);
  return sheet as SpecSheet;
}

/** The name under which a slot's fit is kept: sheet and slot. */
export function slotKey(sheet: SpecSheet, slot: Slot): string {
  return `${sheet.id}/${slot.id}`;
}
