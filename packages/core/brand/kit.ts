import Joi from 'joi';
import { colourSchema, hashSchema } from '../raster/schemas';
import { effectsSchema, type Effects } from '../raster/effects';

/** A logo of a brand: one picture for light ground, one for dark, where there are both. */
export interface BrandLogo {
  id: string;
  title: string;
  light: LogoPicture | null;
  dark: LogoPicture | null;
}

export interface LogoPicture {
  picture: string;
  width: number;
  height: number;
}

/** What a brand always looks and sounds like. Shots name its entries by id, so that a change reaches them all. */
export interface BrandKit {
  title: string;
  /** BCP 47 language tag by which prices and numbers are written. */
  locale: string;
  colours: { id: string; title: string; colour: string }[];
  fonts: { id: string; title: string; font: string }[];
  texts: { id: string; title: string; text: string }[];
  logos: BrandLogo[];
  effects: { id: string; title: string; effects: Effects }[];
}

const id = Joi.string()
  .pattern(/^[a-z0-9-]+$/)
  .max(60)
  .required();
const title = Joi.string().trim().min(1).max(80).required();
const side = Joi.number().integer().min(1).max(100_000).required();
const logo = Joi.object({ picture: hashSchema.required(), width: side, height: side }).allow(null).required();
const list = (entry: Joi.PartialSchemaMap) =>
  Joi.array()
    .items(Joi.object({ id, title, ...entry }))
    .max(60)
    .unique('id')
    .required();

export const brandKitSchema = Joi.object({
  title,
  locale: Joi.string()
    .max(35)
    .required()
    .custom((value: string, helpers) => {
      try {
        return Intl.getCanonicalLocales(value)[0];
      } catch {
        return helpers.error('any.invalid');
      }
    })
    .messages({ 'any.invalid': '{{#label}} must be a language tag such as en-GB or de-DE' }),
  colours: list({ colour: colourSchema.required() }),
  fonts: list({ font: Joi.string().max(80).required() }),
  texts: list({ text: Joi.string().max(4000).allow('').required() }),
  logos: list({ light: logo, dark: logo }),
  effects: list({ effects: effectsSchema.required() }),
});

export const EMPTY_KIT: BrandKit = {
  title: 'Brand',
  locale: 'en-GB',
  colours: [],
  fonts: [],
  texts: [],
  logos: [],
  effects: [],
};

/** The element with everything it takes from the kit as the kit has it now; what the kit lacks stays as it was. */
export function applyBrand<E extends { brand: Record<string, string> }>(
  element: E,
  kit: BrandKit | null | undefined,
): E {
  const entries = Object.entries(element.brand);
  if (!kit || !entries.length) return element;
  return entries.reduce<E>((e, [path, id]) => {
    const value = entryOf(kit, path, id);
    return value === undefined ? e : withValue(e, path.split('.'), value);
  }, element);
}

function entryOf(kit: BrandKit, path: string, id: string): unknown {
  const find = <T extends { id: string }>(list: T[]) => list.find((entry) => entry.id === id);
  if (path === 'logo') return find(kit.logos);
  if (path === 'effects') return find(kit.effects)?.effects;
  const colour = find(kit.colours)?.colour;
  if (colour && !/font|text$/i.test(path)) return colour;
  if (/font$/i.test(path)) return find(kit.fonts)?.font;
  return find(kit.texts)?.text;
}

function withValue<T extends object>(target: T, [key, ...rest]: string[], value: unknown): T {
  const at = (target as Record<string, unknown>)[key];
  if (rest.length) {
    // A part that the element does not have (a panel taken away) takes nothing.
    if (typeof at !== 'object' || at === null) return target;
    return { ...target, [key]: withValue(at, rest, value) };
  }
  // A logo's two pictures are taken as they are; an element that has none of them keeps its own.
  if (key === 'logo') {
    const { light, dark } = value as BrandLogo;
    return { ...target, light: light?.picture ?? null, dark: dark?.picture ?? null };
  }
  return { ...target, [key]: value };
}
