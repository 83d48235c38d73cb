import { createWriteStream } from 'node:fs';
import { mkdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import yauzl, { type Entry } from 'yauzl';

/** What a ZIP may hold at most; it is refused with a sentence beyond. */
export const ZIP_LIMITS = {
  entries: 2000,
  /** Bytes of one file, and of all together, unpacked. */
  file: 400 * 1024 * 1024,
  all: 1024 * 1024 * 1024,
  /** A file over 1 MB that packs better than this many times is no picture and no table. */
  ratio: 200,
};

const MB = 1024 * 1024;

export interface UnpackedFile {
  /** Its path within the ZIP. */
  name: string;
  path: string;
}

/**
 * Unpacks a ZIP into a new folder, file by file. Sizes are held to what the ZIP says of itself before anything is unpacked,
 * and again while it is.
 * @throws a sentence where it is no ZIP, is damaged, or holds more than `ZIP_LIMITS`
 */
export async function unpackZip(
  zip: { name: string; path: string },
  folder: string,
): Promise<UnpackedFile[]> {
  const { size } = await stat(zip.path);
  const open = await yauzl.openPromise(zip.path, { lazyEntries: true, autoClose: false }).catch(() => null);
  if (!open) throw new Error(`"${zip.name}" is not a ZIP that can be opened. Export it again.`);
  try {
    if (open.entryCount > ZIP_LIMITS.entries)
      throw new Error(
        `"${zip.name}" holds ${open.entryCount} files; up to ${ZIP_LIMITS.entries} are taken at once. Divide it.`,
      );
    const entries: Entry[] = [];
    for await (const entry of open.eachEntry()) entries.push(entry);
    const files = entries.filter((e) => !e.fileName.endsWith('/'));
    refuseBombs(zip.name, files, size);
    await mkdir(folder, { recursive: true });
    const out: UnpackedFile[] = [];
    for (const [i, entry] of files.entries()) {
      const path = join(folder, String(i));
      // yauzl ends a stream that gives more or less than the ZIP says.
      await pipeline(await open.openReadStreamPromise(entry), createWriteStream(path));
      out.push({ name: entry.fileName, path });
    }
    return out;
  } catch (error) {
    if (/[.]$/.test((error as Error).message)) throw error;
    throw new Error(`"${zip.name}" is damaged and cannot be unpacked. Export or copy it again.`);
  } finally {
    open.close();
  }
}

function refuseBombs(name: string, files: Entry[], size: number): void {
  const sum = (of: (e: Entry) => number) => files.reduce((all, e) => all + of(e), 0);
  const all = sum((e) => e.uncompressedSize);
  if (all > ZIP_LIMITS.all)
    throw new Error(
      `"${name}" holds ${Math.round(all / MB)} MB unpacked; up to ${ZIP_LIMITS.all / MB} are taken at once. Divide it.`,
    );
  // Files that share the same bytes would unpack to more than there is.
  if (sum((e) => e.compressedSize) > size)
    throw new Error(`"${name}" says that it holds more than it has. Export it again.`);
  for (const e of files) {
    if (e.isEncrypted()) throw new Error(`"${name}" is locked by a password. Export it without one.`);
    if (e.uncompressedSize > ZIP_LIMITS.file)
      throw new Error(
        `"${e.fileName}" in "${name}" has ${Math.round(e.uncompressedSize / MB)} MB; a file may have up to ${ZIP_LIMITS.file / MB}.`,
      );
    if (e.uncompressedSize > MB && e.uncompressedSize > ZIP_LIMITS.ratio * e.compressedSize)
      throw new Error(
        `"${e.fileName}" in "${name}" is packed more than ${ZIP_LIMITS.ratio} times, which no picture is. Export it again.`,
      );
  }
}
