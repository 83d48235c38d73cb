/** What lengths are shown and typed in; they are kept in millimetres. */
export type LengthUnit = 'mm' | 'in';

const MM_PER_INCH = 25.4;

export const fromMillimetres = (mm: number, unit: LengthUnit): number =>
  unit === 'in' ? mm / MM_PER_INCH : mm;

export const toMillimetres = (length: number, unit: LengthUnit): number =>
  unit === 'in' ? length * MM_PER_INCH : length;

/** Digits after the point that show an inch about as exactly as a millimetre with `digits`. */
export const digitsOf = (unit: LengthUnit, digits: number): number => (unit === 'in' ? digits + 2 : digits);

/** @returns a length in words, such as "148 mm" or "5.83 in" */
export function writeLength(mm: number, unit: LengthUnit, digits = 0): string {
  return `${Number(fromMillimetres(mm, unit).toFixed(digitsOf(unit, digits)))} ${unit}`;
}

/** @returns a size in words, its unit once: "136.2 x 70.6 mm" */
export function writeSize(width: number, height: number, unit: LengthUnit, digits = 0): string {
  return `${writeLength(width, unit, digits).replace(/ \w+$/, '')} x ${writeLength(height, unit, digits)}`;
}
