/** Encodings that are offered by hand, by their names of the WHATWG Encoding Standard. */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'iso-8859-15',
  'shift_jis',
  'gb18030',
] as const;
export type TextEncodingName = (typeof ENCODINGS)[number];

/** A decoder of the host's: browsers and Node.js have it as TextDecoder. */
export type Decode = (bytes: Uint8Array, encoding: string, strict: boolean) => string;

/**
 * The text of a file and its encoding: by its byte order mark, as UTF-8 where it is valid, as UTF-16 where every other
 * byte is zero, otherwise as Windows-1252, in which spreadsheets of Western Europe write. A byte order mark is left out.
 * Throws a sentence where it cannot be in the encoding that is asked for.
 */
export function decodeText(
  bytes: Uint8Array,
  decode: Decode,
  wanted: TextEncodingName | null = null,
): { text: string; encoding: TextEncodingName } {
  const encoding = wanted ?? sniff(bytes, decode);
  try {
    return { text: decode(bytes, encoding, true).replace(/^\ufeff/, ''), encoding };
  } catch {
    throw new Error(`This file is not written in ${encoding}. Choose another encoding.`);
  }
}

function sniff(bytes: Uint8Array, decode: Decode): TextEncodingName {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const head = bytes.subarray(0, 2000);
  const zeros = [0, 0];
  head.forEach((v, i) => v === 0 && zeros[i % 2]++);
  if (zeros[1] > head.length / 4) return 'utf-16le';
  if (zeros[0] > head.length / 4) return 'utf-16be';
  try {
    decode(bytes, 'utf-8', true);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}
