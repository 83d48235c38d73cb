import { fontNames, readTypeface, type FontNames } from '@scenograph/core/type/typeface';
import { unwrapWoff } from '@scenograph/core/type/unwrap-woff';

const WOFF2 = 0x774f4632;

export interface TakenFont extends FontNames {
  /** A plain TTF or OTF file. */
  bytes: Buffer;
}

/**
 * A font file of somebody's (TTF, OTF, WOFF or WOFF2) as a plain font, with the names in it. Rejects with a sentence
 * that names the file where it is no font, is cut short or is larger than 20 MB.
 */
export async function takeFont(name: string, file: Buffer): Promise<TakenFont> {
  if (file.length > 20_000_000)
    throw new Error(`"${name}" has ${Math.round(file.length / 1e6)} MB; a font file may have up to 20.`);
  try {
    const plain = Buffer.from(await unwrap(file));
    const bytes = plain.buffer.slice(plain.byteOffset, plain.byteOffset + plain.byteLength);
    const names = await fontNames(bytes);
    // A font whose letters cannot be drawn is told here, not on the stage.
    const [font] = (await readTypeface(name, [bytes])).fonts;
    font.shape('Ag', 0, 2, false, []).forEach((g) => font.outline(g.id));
    return { bytes: plain, ...names };
  } catch (error) {
    if (/larger|may have/.test((error as Error).message)) throw error;
    throw new Error(
      `"${name}" cannot be used as a font: the file is no font, or a part of it is missing. Send a TTF, OTF, WOFF or WOFF2 file.`,
    );
  }
}

async function unwrap(file: Buffer): Promise<Uint8Array> {
  if (file.length > 4 && file.readUInt32BE(0) === WOFF2) {
    const { decompress } = (await import('wawoff2')).default;
    return decompress(file);
  }
  const bytes = file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer;
  return new Uint8Array(unwrapWoff(bytes));
}
