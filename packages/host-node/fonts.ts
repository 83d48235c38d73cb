import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fontFiles } from '@scenograph/core/type/catalogue';
import { readTypeface, type Typeface } from '@scenograph/core/type/typeface';

const FOLDER = join(
  dirname(createRequire(import.meta.url).resolve('@scenograph/core/package.json')),
  'type',
  'fonts',
);

const loaded = new Map<string, Promise<Typeface>>();

/** A shipped typeface by its id, read once. Throws a sentence for an unknown id. */
export function loadTypeface(id: string): Promise<Typeface> {
  let face = loaded.get(id);
  if (!face) {
    face = (async () => {
      const files = await Promise.all(fontFiles(id).map((file) => readFile(join(FOLDER, file))));
      return readTypeface(
        id,
        files.map((f) => f.buffer.slice(f.byteOffset, f.byteOffset + f.byteLength)),
      );
    })();
    loaded.set(id, face);
  }
  return face;
}

/** The folder with the shipped font files. */
export const fontFolder = FOLDER;
