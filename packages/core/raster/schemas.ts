import Joi from 'joi';

export const colourSchema = Joi.string()
  .pattern(/^#[0-9a-f]{6}$/i)
  .messages({ 'string.pattern.base': '{{#label}} must be a colour written as #rrggbb' });

export const hashSchema = Joi.string()
  .pattern(/^[0-9a-f]{64}$/)
  .messages({ 'string.pattern.base': '{{#label}} must be a SHA-256 content hash (64 hexadecimal digits)' });
