/** The fonts that ship with the application (SIL Open Font License, see fonts/OFL.txt). */
export interface FontEntry {
  id: string;
  family: string;
  style: string;
  character: 'grotesque' | 'humanist' | 'geometric' | 'serif' | 'slab' | 'condensed' | 'script' | 'your own';
  /** Files in type/fonts, in the order in which a character is looked for. */
  files: string[];
}

const entry = (
  slug: string,
  family: string,
  weight: number,
  style: string,
  character: FontEntry['character'],
): FontEntry => ({
  id: `${slug}-${weight}`,
  family,
  style,
  character,
  files: [`${slug}-latin-${weight}-normal.woff`, `${slug}-latin-ext-${weight}-normal.woff`],
});

export const FONTS: readonly FontEntry[] = [
  entry('hanken-grotesk', 'Hanken Grotesk', 400, 'Regular', 'grotesque'),
  entry('hanken-grotesk', 'Hanken Grotesk', 600, 'Semibold', 'grotesque'),
  entry('hanken-grotesk', 'Hanken Grotesk', 800, 'Extra bold', 'grotesque'),
  entry('bricolage-grotesque', 'Bricolage Grotesque', 700, 'Bold', 'grotesque'),
  entry('alegreya-sans', 'Alegreya Sans', 500, 'Medium', 'humanist'),
  entry('alegreya-sans', 'Alegreya Sans', 800, 'Extra bold', 'humanist'),
  entry('outfit', 'Outfit', 500, 'Medium', 'geometric'),
  entry('outfit', 'Outfit', 700, 'Bold', 'geometric'),
  entry('fraunces', 'Fraunces', 400, 'Regular', 'serif'),
  entry('fraunces', 'Fraunces', 600, 'Semibold', 'serif'),
  entry('bitter', 'Bitter', 500, 'Medium', 'slab'),
  entry('bitter', 'Bitter', 800, 'Extra bold', 'slab'),
  entry('barlow-condensed', 'Barlow Condensed', 600, 'Semibold', 'condensed'),
  entry('barlow-condensed', 'Barlow Condensed', 800, 'Extra bold', 'condensed'),
  entry('caveat', 'Caveat', 700, 'Bold', 'script'),
];

/** Fonts that help out with characters the chosen one lacks; each is asked for only where a text has such characters. */
const HELPERS: { id: string; files: string[]; characters: RegExp }[] = [
  {
    id: 'helper-arabic',
    files: ['noto-sans-arabic-arabic-600-normal.woff'],
    characters: /\p{Script=Arabic}/u,
  },
  {
    id: 'helper-hebrew',
    files: ['noto-sans-hebrew-hebrew-600-normal.woff'],
    characters: /\p{Script=Hebrew}/u,
  },
  {
    id: 'helper-devanagari',
    files: ['noto-sans-devanagari-devanagari-600-normal.woff'],
    characters: /\p{Script=Devanagari}/u,
  },
  {
    id: 'helper-european',
    files: ['cyrillic', 'cyrillic-ext', 'greek', 'vietnamese', 'latin-ext'].map(
      (s) => `noto-sans-${s}-600-normal.woff`,
    ),
    characters: /\p{Script=Cyrillic}|\p{Script=Greek}|\p{Mark}|[\u0100-\u024f\u1e00-\u1eff]/u,
  },
  {
    id: 'helper-emoji',
    files: ['noto-emoji-emoji-500-normal.woff'],
    characters: /\p{Extended_Pictographic}|\p{Regional_Indicator}|\u20e3/u,
  },
];

export const DEFAULT_FONT = 'hanken-grotesk-600';

const OWN = /^own-([0-9a-f]{64})$/;

/** The id under which a font file of one's own is named: by its content hash. */
export const ownFontId = (hash: string) => `own-${hash}`;

/** The content hash in the id of a font of one's own; null for a shipped font. */
export const ownFontHash = (id: string): string | null => OWN.exec(id)?.[1] ?? null;

/** The ids of the fonts that a text needs: its own, and those that help out with its other characters. */
export function fontsFor(font: string, text: string): string[] {
  return [font, ...HELPERS.filter((h) => h.characters.test(text)).map((h) => h.id)];
}

/** The files of a shipped font or helper. Throws a sentence for an unknown id. */
export function fontFiles(id: string): string[] {
  const found = FONTS.find((f) => f.id === id) ?? HELPERS.find((h) => h.id === id);
  if (!found)
    throw new Error(`There is no font "${id}". The fonts at hand are ${FONTS.map((f) => f.id).join(', ')}.`);
  return found.files;
}
