import { unzlibSync } from 'fflate';

const WOFF = 0x774f4646;
const HEADER = 44;
/** Bytes of a font's tables unpacked, in all; the largest typefaces of East Asian scripts have some thirty million. */
const MOST_BYTES = 64_000_000;

/**
 * The plain OpenType font inside a WOFF file; other files are given back as they are.
 * Throws where the file is cut short, a table does not unpack, or they would unpack to more than 64 MB.
 * Source: W3C, WOFF File Format 1.0, section 4 and 5.
 */
export function unwrapWoff(bytes: ArrayBuffer): ArrayBuffer {
  const file = new DataView(bytes);
  if (bytes.byteLength < HEADER || file.getUint32(0) !== WOFF) return bytes;
  if (file.getUint32(8) > bytes.byteLength) throw new Error('the font file is cut short');
  const count = file.getUint16(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = HEADER + i * 20;
    const [offset, packed, length] = [4, 8, 12].map((o) => file.getUint32(at + o));
    return { tag: file.getUint32(at), offset, packed, length, checksum: file.getUint32(at + 16) };
  });
  const size = tables.reduce((sum, t) => sum + pad(t.length), 12 + 16 * count);
  if (size > MOST_BYTES) throw new Error('the font file unpacks to more than 64 MB');
  const out = new Uint8Array(size);
  const view = new DataView(out.buffer);
  const power = 2 ** Math.floor(Math.log2(Math.max(1, count)));
  view.setUint32(0, file.getUint32(4));
  view.setUint16(4, count);
  view.setUint16(6, power * 16);
  view.setUint16(8, Math.log2(power));
  view.setUint16(10, count * 16 - power * 16);
  let at = 12 + 16 * count;
  tables.forEach((t, i) => {
    const packed = new Uint8Array(bytes, t.offset, t.packed);
    // Told how much there is, it unpacks no more.
    const plain = t.packed < t.length ? unzlibSync(packed, { out: new Uint8Array(t.length) }) : packed;
    if (plain.length !== t.length) throw new Error('a table of the font is cut short');
    const entry = 12 + 16 * i;
    view.setUint32(entry, t.tag);
    view.setUint32(entry + 4, t.checksum);
    view.setUint32(entry + 8, at);
    view.setUint32(entry + 12, t.length);
    out.set(plain, at);
    at += pad(t.length);
  });
  return out.buffer;
}

const pad = (n: number) => (n + 3) & ~3;
