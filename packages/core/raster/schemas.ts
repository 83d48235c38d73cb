import Joi from 'joi';
import { HEX_COLOUR } from './colour';

/** The SHA-256 of a stored file's bytes, in hexadecimal digits. */
export const CONTENT_HASH = /^[0-9a-f]{64}$/;

export const colourSchema = Joi.string()
  .pattern(HEX_COLOUR)
  .messages({ 'string.pattern.base': '{{#label}} must be a colour written as #rrggbb' });

export const hashSchema = Joi.string()
  .pattern(CONTENT_HASH)
  .messages({ 'string.pattern.base': '{{#label}} must be a SHA-256 content hash (64 hexadecimal digits)' });
