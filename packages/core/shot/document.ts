import Joi from 'joi';
import { baseSchema } from '../elements/base';
import { elementKinds, isKnown, type ShotElement } from '../elements/index';
import { migrate } from './migrations';
import { LEAST_SIDE, MOST_SIDE, trimSchema, type Trim } from './trim';

/** What a shot does differently for one slot: only what differs, the rest follows the base. */
export interface SlotFit {
  /** The slot's size when the differences were made; boxes are in its pixels and scale when the slot changes. */
  frame: { width: number; height: number };
  /** By element id: any of the element's own keys; `box` in the slot's pixels. */
  elements: Record<string, Partial<ShotElement>>;
}

/** A line that a person has drawn from a ruler, across the picture (`y`) or down it (`x`), in pixels of the shot's frame. */
export interface ShotGuide {
  axis: 'x' | 'y';
  at: number;
}

/** So many are enough for any layout. */
export const MOST_GUIDES = 60;

/** One composed picture. Elements are listed back to front; lengths in pixels of `frame`. */
export interface Shot {
  version: number;
  frame: { width: number; height: number };
  elements: ShotElement[];
  /** By slot key (`sheet/slot`). */
  fits: Record<string, SlotFit>;
  /** Ids of elements, the most important first; what is not named comes after, by its kind. */
  importance: string[];
  /** Lines to lay things along; they are never painted. */
  guides?: ShotGuide[];
  /** What its own picture is to be on paper; left out where it is pixels alone. */
  trim?: Trim;
}

/** The document version this code writes. */
export const SHOT_VERSION = 10;

const side = Joi.number().integer().min(LEAST_SIDE).max(MOST_SIDE).required();

const elementSchema = Joi.alternatives().conditional('.kind', {
  switch: elementKinds().map((kind) => ({
    is: kind.kind,
    then: Joi.object({ ...baseSchema, ...kind.schema }),
  })),
  // One of a newer version is kept as it came, as long as it has what every element has.
  otherwise: Joi.object(baseSchema).unknown(true),
});

const frameSchema = Joi.object({ width: side, height: side }).required();

/** The schema that server, web and command line share. */
export const shotSchema = Joi.object({
  version: Joi.number().valid(SHOT_VERSION).required(),
  frame: frameSchema,
  elements: Joi.array().items(elementSchema).max(400).unique('id').required(),
  fits: Joi.object()
    .pattern(
      Joi.string().max(200),
      Joi.object({
        frame: frameSchema,
        elements: Joi.object().pattern(Joi.string().max(60), Joi.object().unknown(true)).required(),
      }),
    )
    .required(),
  importance: Joi.array().items(Joi.string().max(60)).max(400).unique().required(),
  guides: Joi.array()
    .items(Joi.object({ axis: Joi.valid('x', 'y').required(), at: Joi.number().required() }))
    .max(MOST_GUIDES),
  trim: trimSchema,
});

/**
 * Reads a shot of any known version and gives the present form. Throws an Error whose message says which part
 * of the document is wrong and what was expected.
 */
export function readShot(value: unknown): Shot {
  const { value: shot, error } = shotSchema.validate(migrate(value), { abortEarly: true, convert: false });
  if (error) throw new Error(`This is not a shot that can be opened: ${error.message}.`);
  for (const [slot, fit] of Object.entries((shot as Shot).fits)) {
    for (const [id, patch] of Object.entries(fit.elements)) {
      const base = (shot as Shot).elements.find((e) => e.id === id);
      if (!base) continue;
      const merged = elementSchema.validate({ ...base, ...patch }, { convert: false });
      if (merged.error)
        throw new Error(`The difference kept for ${slot} cannot be used: ${merged.error.message}.`);
    }
  }
  return shot as Shot;
}

/**
 * A shot as `readShot` reads it, all of whose elements can be painted.
 * @throws with a sentence where one is of a kind that this version does not know
 */
export function readKnownShot(value: unknown): Shot {
  const shot = readShot(value);
  const unknown = shot.elements.find((e) => !isKnown(e));
  if (!unknown) return shot;
  const kinds = elementKinds().map((k) => k.kind);
  throw new Error(
    `"${unknown.name}" is of an unknown kind ("${unknown.kind}"); the kinds are ${kinds.join(', ')}.`,
  );
}

export function emptyShot(width: number, height: number): Shot {
  return { version: SHOT_VERSION, frame: { width, height }, elements: [], fits: {}, importance: [] };
}
