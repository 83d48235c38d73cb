import { BadRequestException, type PipeTransform } from '@nestjs/common';
import type { Schema } from 'joi';

/** Checks a body or query against a schema; what does not fit is answered with a sentence and status 400. */
export function validated(schema: Schema): PipeTransform {
  return {
    transform(value: unknown) {
      const { value: good, error } = schema.validate(value ?? {}, { stripUnknown: false });
      if (error) throw new BadRequestException(`That request cannot be used: ${error.message}.`);
      return good;
    },
  };
}

/** A path's id must be a UUID; anything else is simply not found. */
export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;
