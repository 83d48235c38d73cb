import Joi from 'joi';

export const FORMATS = ['jpeg', 'png', 'webp', 'avif'] as const;
export type Format = (typeof FORMATS)[number];

/** stop: the picture is not taken. look: a person decides. off: not looked at. */
export type Severity = 'stop' | 'look' | 'off';

/** A place that the marketplace lays something of its own over, in shares of the frame. */
export interface SafeZone {
  title: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** One picture that a marketplace takes, with its specification. Shares are 0..1. */
export interface Slot {
  id: string;
  title: string;
  /** Pixel size that pictures are made at. */
  width: number;
  height: number;
  /** Pixel sizes that are taken; null takes `width` x `height` only. A side of null is not limited. */
  limits: {
    minWidth: number | null;
    minHeight: number | null;
    maxWidth: number | null;
    maxHeight: number | null;
    /** Width over height. */
    minAspect: number | null;
    maxAspect: number | null;
  } | null;
  /** Accepted formats, the preferred first. */
  formats: Format[];
  maxBytes: number;
  /** Colour space of the file; its ICC profile is written into it. */
  colourSpace: 'srgb' | 'p3' | 'any';
  /** Pixels an inch that must be written in the file; null takes any. */
  density: number | null;
  background: {
    kind: 'white' | 'transparent' | 'any';
    /** How far a channel may be from 255 and still count as white. */
    tolerance: number;
    /** Share of the background's pixels that must be white, or clear. */
    minShare: number;
  };
  /** Longer side of the products' bounds as a share of the frame's side; null is not limited. */
  coverage: { min: number | null; max: number | null; wanted: number | null };
  /** Clear space around the products, as a share of the frame's shorter side. */
  marginShare: number;
  /** The whole product must be seen. */
  whole: boolean;
  /** Space at the frame's edge that overlays keep clear, as a share of the shorter side. */
  safeShare: number;
  /** Further places that overlays keep clear. */
  safeZones: SafeZone[];
  overlays: 'allowed' | 'forbidden';
  /** Share of the frame that text may take; null is not limited. */
  maxTextShare: number | null;
  watermark: 'allowed' | 'forbidden';
  altText: 'required' | 'optional';
  /** How far sources may be enlarged; 1 is their own resolution. */
  maxEnlargement: number;
  required: boolean;
  /** How many pictures of this kind are taken; of a required slot only the first is missing while it has none. */
  count: number;
  /** File name without extension; {sku}, {listing}, {marketplace}, {slot}, {variant}, {shot}, {n}. */
  fileName: string;
  /** How severe a check is here, where that is not the check's own; comes from the sheet. */
  severity: Record<string, Severity>;
  note?: string;
}

/** A marketplace's list of slots, in the order in which it shows their pictures. */
export interface SpecSheet {
  id: string;
  marketplace: string;
  about: string;
  version: number;
  /** By check id. */
  severity: Record<string, Severity>;
  slots: Slot[];
}

const share = Joi.number().min(0).max(1);
const side = Joi.number().integer().min(16).max(12000);
const anySide = side.allow(null).default(null);
const aspect = Joi.number().greater(0).max(50).allow(null).default(null);
const id = Joi.string()
  .pattern(/^[a-z0-9-]+$/)
  .max(60)
  .required()
  .messages({ 'string.pattern.base': '{{#label}} may hold small letters, digits and hyphens only' });
const severity = Joi.object()
  .pattern(Joi.string().max(40), Joi.string().valid('stop', 'look', 'off'))
  .default({});

export const slotSchema = Joi.object({
  id,
  title: Joi.string().trim().min(1).max(80).required(),
  width: side.required(),
  height: side.required(),
  limits: Joi.object({
    minWidth: anySide,
    minHeight: anySide,
    maxWidth: anySide,
    maxHeight: anySide,
    minAspect: aspect,
    maxAspect: aspect,
  })
    .allow(null)
    .default(null),
  formats: Joi.array()
    .items(Joi.string().valid(...FORMATS))
    .min(1)
    .unique()
    .required(),
  maxBytes: Joi.number().integer().min(1024).max(1e9).required(),
  colourSpace: Joi.string().valid('srgb', 'p3', 'any').default('srgb'),
  density: Joi.number().min(1).max(2400).allow(null).default(null),
  background: Joi.object({
    kind: Joi.string().valid('white', 'transparent', 'any').required(),
    tolerance: Joi.number().integer().min(0).max(64).default(0),
    minShare: share.default(0.995),
  }).required(),
  coverage: Joi.object({
    min: share.allow(null).default(null),
    max: share.allow(null).default(null),
    wanted: share.allow(null).default(null),
  }).default({ min: null, max: null, wanted: null }),
  marginShare: share.max(0.4).default(0),
  whole: Joi.boolean().default(false),
  safeShare: share.max(0.4).default(0.03),
  safeZones: Joi.array()
    .items(
      Joi.object({
        title: Joi.string().trim().min(1).max(60).required(),
        x: share.required(),
        y: share.required(),
        width: share.greater(0).required(),
        height: share.greater(0).required(),
      }),
    )
    .max(12)
    .default([]),
  overlays: Joi.string().valid('allowed', 'forbidden').default('allowed'),
  maxTextShare: share.allow(null).default(null),
  watermark: Joi.string().valid('allowed', 'forbidden').default('allowed'),
  altText: Joi.string().valid('required', 'optional').default('optional'),
  maxEnlargement: Joi.number().min(0.1).max(10).default(1.2),
  required: Joi.boolean().default(true),
  count: Joi.number().integer().min(1).max(20).default(1),
  fileName: Joi.string().max(200).default('{sku}_{slot}'),
  severity,
  note: Joi.string().max(400).allow(''),
});

export const specSheetSchema = Joi.object({
  id,
  marketplace: Joi.string().trim().min(1).max(80).required(),
  about: Joi.string().max(400).allow('').default(''),
  version: Joi.number().integer().min(1).default(1),
  severity,
  slots: Joi.array()
    .items(slotSchema)
    .min(1)
    .max(80)
    .unique('id')
    .required()
    .messages({ 'array.unique': '{{#label}} has the same id as another slot' }),
});

/** Reads a slot's specification; throws a sentence that says which rule is wrong. */
export function readSlot(value: unknown): Slot {
  const { value: slot, error } = slotSchema.validate(value);
  if (error) throw new Error(`This is not a slot's specification: ${error.message}.`);
  return slot as Slot;
}

/** The name under which a slot's fit is kept: sheet and slot. */
export function slotKey(sheet: Pick<SpecSheet, 'id'>, slot: Pick<Slot, 'id'>): string {
  return `${sheet.id}/${slot.id}`;
}

/**
 * The sheet as it asks for pictures: a slot that takes several stands once for each (`gallery`, `gallery-2`, ...),
 * and every slot knows how severe its checks are.
 */
export function expandSlots(sheet: SpecSheet): SpecSheet {
  const taken = new Set(sheet.slots.map((s) => s.id));
  const slots = sheet.slots.flatMap((slot) =>
    Array.from({ length: slot.count }, (_, i) => {
      const apart = { ...slot, count: 1, severity: { ...sheet.severity, ...slot.severity } };
      if (i === 0) return apart;
      let id = `${slot.id}-${i + 1}`;
      while (taken.has(id)) id += 'x';
      taken.add(id);
      return { ...apart, id, title: `${slot.title} ${i + 1}`, required: false };
    }),
  );
  return { ...sheet, slots };
}
