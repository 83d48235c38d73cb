import opentype from 'opentype.js';

/** A font made of one or more files; a character is taken from the first file that has it. */
export interface Typeface {
  id: string;
  fonts: opentype.Font[];
}

/** Reads a typeface from its files' bytes (TTF, OTF or WOFF). Throws a sentence when a file is no font. */
export function readTypeface(id: string, files: ArrayBuffer[]): Typeface {
  const fonts = files.map((bytes) => {
    try {
      return opentype.parse(bytes);
    } catch (error) {
      throw new Error(`The font "${id}" cannot be read: ${(error as Error).message}`);
    }
  });
  return { id, fonts };
}
