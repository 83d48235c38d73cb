import Joi from 'joi';
import { HEX_COLOUR } from '@scenograph/core/raster/colour';
import { CONTENT_HASH } from '@scenograph/core/raster/schemas';

/**
 * A Joi schema that knows the type of what it lets through (`Out`) and of what may be given to it (`In`): a date is given
 * as a `Date` and arrives as text, a value with a default may be left out.
 */
export interface Schema<Out = unknown, In = Out> {
  readonly joi: Joi.Schema;
  /** Never there: it carries the types. */
  readonly types?: (() => { out: Out; in: In }) | undefined;
}

type Types<S> = S extends { readonly types?: (() => infer T) | undefined } ? T : never;
/** What a schema lets through. */
export type Out<S> = Types<S> extends { out: infer T } ? T : never;
/** What may be given to a schema. */
export type In<S> = Types<S> extends { in: infer T } ? T : never;

const as = <O, I = O>(joi: Joi.Schema): Schema<O, I> => ({ joi });

/** A value whose schema another room holds, or that is checked where it is used. */
export const of = <T>(joi: Joi.Schema = Joi.any()): Schema<T> => as<T>(joi);

export interface TextRules {
  max?: number;
  min?: number;
  /** Nothing may be written. */
  empty?: boolean;
  /** White space at its ends is taken off. */
  trim?: boolean;
  pattern?: RegExp;
}

export function text({ max, min, empty, trim, pattern }: TextRules = {}): Schema<string> {
  let joi = Joi.string();
  if (trim) joi = joi.trim();
  if (min !== undefined) joi = joi.min(min);
  if (max !== undefined) joi = joi.max(max);
  if (pattern) joi = joi.pattern(pattern);
  return as(empty ? joi.allow('') : joi);
}

export interface NumberRules {
  min?: number;
  max?: number;
  above?: number;
}

export function number({ min, max, above }: NumberRules = {}): Schema<number> {
  let joi = Joi.number();
  if (min !== undefined) joi = joi.min(min);
  if (max !== undefined) joi = joi.max(max);
  if (above !== undefined) joi = joi.greater(above);
  return as(joi);
}

export const integer = (rules: NumberRules = {}): Schema<number> =>
  as((number(rules).joi as Joi.NumberSchema).integer());

export const flag = (): Schema<boolean> => as(Joi.boolean());

export const id = (): Schema<string> => as(Joi.string().uuid());

/** A stored file, by the SHA-256 of its bytes. */
export const hash = (): Schema<string> => as(Joi.string().pattern(CONTENT_HASH, 'SHA-256'));

export const colour = (): Schema<string> => as(Joi.string().pattern(HEX_COLOUR, 'colour'));

/** A moment, ISO 8601; JSON makes it of a date. */
export const moment = (): Schema<string, string | Date> => as(Joi.string().isoDate());

export const oneOf = <const T extends string>(...values: readonly T[]): Schema<T> =>
  as(Joi.string().valid(...values));

export const nullable = <O, I>({ joi }: Schema<O, I>): Schema<O | null, I | null> => as(joi.allow(null));

/** May be left out. */
export const optional = <O, I>({ joi }: Schema<O, I>): Schema<O | undefined, I | undefined> =>
  as(joi.optional());

/** Has a value of its own where it is left out. */
export const usually = <O, I>({ joi }: Schema<O, I>, value: O): Schema<O, I | undefined> =>
  as(joi.default(value as Joi.BasicType));

export const either = <A, B, C = A, D = B>(a: Schema<A, C>, b: Schema<B, D>): Schema<A | B, C | D> =>
  as(Joi.alternatives(a.joi, b.joi));

export interface ListRules {
  min?: number;
  max?: number;
  unique?: boolean;
}

export function list<O, I>(
  { joi: item }: Schema<O, I>,
  { min, max, unique }: ListRules = {},
): Schema<O[], I[]> {
  let joi = Joi.array().items(item);
  if (min !== undefined) joi = joi.min(min);
  if (max !== undefined) joi = joi.max(max);
  return as(unique ? joi.unique() : joi);
}

/** Values by name. */
export const record = <O, I>(
  { joi }: Schema<O, I>,
  { names, max }: { names?: Schema<string>; max?: number } = {},
): Schema<Record<string, O>, Record<string, I>> => {
  const values = Joi.object().pattern(names?.joi ?? /./, joi);
  return as(max === undefined ? values : values.max(max));
};

type Fields = Record<string, Schema>;
type Flat<T> = { [K in keyof T]: T[K] };
/** Fields whose value may be undefined may be left out. */
type Shaped<F> = Flat<
  { [K in keyof F as undefined extends F[K] ? never : K]: F[K] } & {
    [K in keyof F as undefined extends F[K] ? K : never]?: F[K];
  }
>;
type Outs<F extends Fields> = Shaped<{ [K in keyof F]: Out<F[K]> }>;
type Ins<F extends Fields> = Shaped<{ [K in keyof F]: In<F[K]> }>;

const isOptional = (joi: Joi.Schema): boolean => {
  const { flags = {} } = joi.describe() as { flags?: Record<string, unknown> };
  return flags.presence === 'optional' || 'default' in flags;
};

/** An object of these fields and no others; all are needed unless `optional` or `usually` says otherwise. */
export function shape<F extends Fields>(fields: F): Schema<Outs<F>, Ins<F>> {
  const keys = Object.entries(fields).map(
    ([key, { joi }]) => [key, isOptional(joi) ? joi : joi.required()] as const,
  );
  return as(Joi.object(Object.fromEntries(keys)));
}

/** An object of some of these fields, at least one. */
export function some<F extends Fields>(fields: F): Schema<Partial<Outs<F>>, Partial<Ins<F>>> {
  return as(Joi.object(Object.fromEntries(Object.entries(fields).map(([k, f]) => [k, f.joi]))).min(1));
}

/** A schema that OpenAPI lists by name. */
export const named = <O, I>(name: string, { joi }: Schema<O, I>): Schema<O, I> =>
  as(joi.description(`${NAMED}${name}`));

/** Marks the description of a named schema. */
export const NAMED = 'schema:';
