import { contradictions } from './contradictions';
import { specSheetSchema, type SpecSheet } from './slot';

/** Reads a spec sheet; throws a sentence that says which rule is wrong or which rules contradict each other. */
export function readSpecSheet(value: unknown): SpecSheet {
  const { value: sheet, error } = specSheetSchema.validate(value);
  if (error) throw new Error(`This is not a spec sheet: ${error.message}.`);
  const found = (sheet as SpecSheet).slots.flatMap((slot) => contradictions(slot));
  if (found.length) throw new Error(`This spec sheet contradicts itself. ${found.join(' ')}`);
  return sheet as SpecSheet;
}
