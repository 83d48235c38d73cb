import { ByteLimitError, withinBytes } from '@scenograph/core/delivery/byte-budget';
import {
  formatsFor,
  PLAIN_ENCODING,
  type Encoding,
  type FileWords,
} from '@scenograph/core/delivery/encoding';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { FileFacts } from '@scenograph/core/spec/checks/check';
import type { Format, Slot } from '@scenograph/core/spec/slot';
import sharp, { type Sharp } from 'sharp';
import { escapeXml } from './xml';

export interface EncodedPicture {
  bytes: Uint8Array;
  format: Format;
  /** Quality of a lossy file, colours of a palette; null where nothing is lost. */
  quality: number | null;
}

export interface EncodeOptions {
  maxBytes?: number;
  /** Pixels an inch, written into the file. */
  density?: number | null;
  /** The file's ICC profile; pixels are taken to be sRGB and converted. */
  colourSpace?: Slot['colourSpace'];
  encoding?: Encoding;
  words?: FileWords;
}

const rawPixels = (image: Rgba) =>
  sharp(Buffer.from(image.data.buffer, image.data.byteOffset, image.data.byteLength), {
    raw: { width: image.width, height: image.height, channels: 4 },
  });

/**
 * Encodes painted pixels in a format, at the quality that is asked for or else the highest whose file stays within
 * `maxBytes`. PNG is lossless, then with a palette of fewer and fewer colours. Profile, density, alternative text and
 * copyright are written as ICC, EXIF and XMP (IPTC Photo Metadata 2021: Alt Text Accessibility). Throws ByteLimitError
 * when nothing fits.
 */
export async function encodePicture(
  image: Rgba,
  format: Format,
  options: EncodeOptions = {},
): Promise<EncodedPicture> {
  const { maxBytes = Infinity, encoding = PLAIN_ENCODING } = options;
  const raw = () => withWords(rawPixels(image), options);
  const { quality, chroma, progressive, lossless, colours } = encoding;
  const lossy = async (encode: (quality: number) => Promise<Uint8Array>, highest: number) => ({
    ...(await withinBytes(encode, maxBytes, quality ?? highest, Math.min(quality ?? 100, 40))),
    format,
  });
  if (format === 'jpeg')
    return lossy(
      (q) =>
        raw()
          .flatten({ background: '#ffffff' })
          .jpeg({ quality: q, chromaSubsampling: chroma ?? (q >= 90 ? '4:4:4' : '4:2:0'), progressive })
          .toBuffer(),
      92,
    );
  if (format !== 'png' && lossless) {
    const bytes = await (
      format === 'webp'
        ? raw().webp({ lossless: true, effort: 3 })
        : raw().avif({ lossless: true, effort: 3 })
    ).toBuffer();
    if (bytes.length <= maxBytes) return { bytes, format, quality: null };
    throw tooLarge(
      `Without loss the ${format.toUpperCase()} has`,
      bytes.length,
      maxBytes,
      'Allow loss, or use a plainer backdrop',
    );
  }
  if (format === 'webp') return lossy((q) => raw().webp({ quality: q, effort: 3 }).toBuffer(), 92);
  if (format === 'avif')
    return lossy(
      (q) =>
        raw()
          .avif({ quality: q, effort: 3, chromaSubsampling: chroma ?? '4:4:4' })
          .toBuffer(),
      70,
    );
  const palette = (count: number) =>
    raw().png({ palette: true, colours: count, dither: 0.8, effort: 4, compressionLevel: 9 }).toBuffer();
  if (!colours) {
    const bytes = await raw().png({ compressionLevel: 9 }).toBuffer();
    if (bytes.length <= maxBytes) return { bytes, format, quality: null };
  }
  let last = 0;
  for (const count of [256, 128, 64].map((n) => Math.min(n, colours ?? n))) {
    const bytes = await palette(count);
    if (bytes.length <= maxBytes) return { bytes, format, quality: count };
    last = bytes.length;
  }
  throw tooLarge(
    `As PNG, even with ${Math.min(64, colours ?? 64)} colours, the picture has`,
    last,
    maxBytes,
    'Let the slot take JPEG, or use a plainer backdrop',
  );
}

/** The first of a slot's formats in which a picture can be small enough. Throws ByteLimitError with what was tried. */
export async function encodeForSlot(
  image: Rgba,
  slot: Pick<Slot, 'formats' | 'maxBytes' | 'density' | 'colourSpace' | 'background'>,
  encoding: Encoding,
  words: FileWords,
): Promise<EncodedPicture & { facts: FileFacts }> {
  const { maxBytes, density, colourSpace } = slot;
  let last: ByteLimitError | null = null;
  for (const format of formatsFor(slot, encoding)) {
    // JPEG would fill a background that is to stay clear.
    if (format === 'jpeg' && slot.background.kind === 'transparent') continue;
    try {
      const made = await encodePicture(image, format, { maxBytes, density, colourSpace, encoding, words });
      const profile = colourSpace === 'any' ? 'none' : colourSpace;
      // WebP and AVIF have no place for a density.
      const written = format === 'jpeg' || format === 'png' ? density : null;
      return { ...made, facts: { format, bytes: made.bytes.length, density: written, profile } };
    } catch (error) {
      if (!(error instanceof ByteLimitError)) throw error;
      last = error;
    }
  }
  throw last ?? new ByteLimitError('The slot takes no format in which this picture can be written.');
}

function tooLarge(what: string, has: number, takes: number, help: string): ByteLimitError {
  const n = (v: number) => v.toLocaleString('en-GB');
  return new ByteLimitError(`${what} ${n(has)} bytes; the slot takes ${n(takes)}. ${help}.`);
}

/** The picture with its profile, density and words. */
function withWords(picture: Sharp, { density, colourSpace = 'any', words }: EncodeOptions): Sharp {
  let out = picture;
  if (density) out = out.withDensity(density);
  if (colourSpace !== 'any') out = out.withIccProfile(colourSpace === 'p3' ? 'p3' : 'srgb');
  const { alt, copyright, title } = words ?? { alt: null, copyright: null, title: null };
  if (!alt && !copyright && !title) return out;
  // EXIF texts are ASCII; XMP holds the words as they are.
  const ascii = (text: string) =>
    text
      .replace(/©/g, '(c)')
      .normalize('NFKD')
      .replace(/[^\x20-\x7e]/g, '');
  const ifd: Record<string, string> = {};
  if (alt || title) ifd.ImageDescription = ascii(alt ?? title!);
  if (copyright) ifd.Copyright = ascii(copyright);
  return out.withExifMerge({ IFD0: ifd }).withXmp(xmpOf({ alt, copyright, title }));
}

/** Words as XMP (ISO 16684-1) in Dublin Core and the IPTC core schema. */
export function xmpOf({ alt, copyright, title }: FileWords): string {
  const lang = (tag: string, text: string | null) =>
    text
      ? `<${tag}><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(text)}</rdf:li></rdf:Alt></${tag}>`
      : '';
  return `<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?><x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">${lang('dc:title', title)}${lang('dc:rights', copyright)}${lang('Iptc4xmpCore:AltTextAccessibility', alt)}</rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;
}

/** A cutout or matte as PNG; quick rather than small. */
export async function encodePng(image: Rgba): Promise<Buffer> {
  return rawPixels(image).png({ compressionLevel: 6 }).toBuffer();
}

/** A plane of 0..1 as 8-bit grey PNG. */
export async function encodeGreyPng(plane: {
  width: number;
  height: number;
  data: Float32Array;
}): Promise<Buffer> {
  const bytes = Buffer.alloc(plane.data.length);
  for (let i = 0; i < bytes.length; i++) bytes[i] = Math.round(plane.data[i] * 255);
  return sharp(bytes, { raw: { width: plane.width, height: plane.height, channels: 1 } })
    .toColourspace('b-w')
    .png({ compressionLevel: 6 })
    .toBuffer();
}
