/** The fonts that ship with the application (SIL Open Font License, see fonts/OFL.txt). */
export interface FontEntry {
  id: string;
  family: string;
  style: string;
  /** Files in type/fonts, in the order in which a character is looked for. */
  files: string[];
}

const entry = (slug: string, family: string, weight: number, style: string): FontEntry => ({
  id: `${slug}-${weight}`,
  family,
  style,
  files: [`${slug}-latin-${weight}-normal.woff`, `${slug}-latin-ext-${weight}-normal.woff`],
});

export const FONTS: readonly FontEntry[] = [
  entry('hanken-grotesk', 'Hanken Grotesk', 400, 'Regular'),
  entry('hanken-grotesk', 'Hanken Grotesk', 600, 'Semibold'),
  entry('hanken-grotesk', 'Hanken Grotesk', 800, 'Extra bold'),
  entry('bricolage-grotesque', 'Bricolage Grotesque', 700, 'Bold'),
  entry('fraunces', 'Fraunces', 400, 'Regular'),
  entry('fraunces', 'Fraunces', 600, 'Semibold'),
];

export const DEFAULT_FONT = 'hanken-grotesk-600';

export function fontEntry(id: string): FontEntry {
  const found = FONTS.find((f) => f.id === id);
  if (!found)
    throw new Error(`There is no font "${id}". The fonts at hand are ${FONTS.map((f) => f.id).join(', ')}.`);
  return found;
}
