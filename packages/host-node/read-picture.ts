import type { Plane, Rgba } from '@scenograph/core/raster/pixels';
import sharp, { type Metadata, type Sharp } from 'sharp';
import { checkSvg } from './check-svg';

/** A picture file that is refused; the message says what is wrong and what to do. */
export class RefusedPicture extends Error {}

/** Pictures with more pixels than this are refused before they are decoded. */
export const MAX_PIXELS = 60_000_000;
/** Pictures longer than this on a side are refused: 1 x 60,000,000 pixels are no picture. */
export const MAX_SIDE = 30_000;
/** Largest file taken in, in bytes. */
export const MAX_BYTES = 400 * 1024 * 1024;

export type PictureFormat = 'jpeg' | 'png' | 'webp' | 'tiff' | 'avif' | 'svg';

const EXTENSIONS: Record<string, PictureFormat> = {
  jpg: 'jpeg',
  jpeg: 'jpeg',
  jpe: 'jpeg',
  jfif: 'jpeg',
  png: 'png',
  webp: 'webp',
  tif: 'tiff',
  tiff: 'tiff',
  avif: 'avif',
  svg: 'svg',
};

const TITLES: Record<PictureFormat, string> = {
  jpeg: 'JPEG',
  png: 'PNG',
  webp: 'WebP',
  tiff: 'TIFF',
  avif: 'AVIF',
  svg: 'SVG',
};

export const MIME: Record<PictureFormat, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  tiff: 'image/tiff',
  avif: 'image/avif',
  svg: 'image/svg+xml',
};

/** What a file is by its first bytes, whatever its name says. */
export function sniffFormat(bytes: Uint8Array): PictureFormat | null {
  const ascii = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (bytes[0] === 0x89 && ascii(1, 4) === 'PNG') return 'png';
  if (ascii(0, 4) === 'RIFF' && ascii(8, 12) === 'WEBP') return 'webp';
  if (['II*\0', 'MM\0*', 'II+\0', 'MM\0+'].includes(ascii(0, 4))) return 'tiff';
  if (ascii(4, 8) === 'ftyp' && /avi[fs]|mif1/.test(ascii(8, 32))) return 'avif';
  if (
    /^(\uFEFF|ï»¿)?\s*(<\?xml|<!--|<svg|<!DOCTYPE svg)/i.test(ascii(0, 300)) &&
    /<svg[\s>]/i.test(ascii(0, 4096))
  )
    return 'svg';
  return null;
}

/**
 * A picture file to be decoded, everywhere with the same strictness: what was taken in can be opened ever after, and what
 * cannot be opened is not taken in.
 */
export function openPicture(bytes: Uint8Array): Sharp {
  return sharp(bytes, { limitInputPixels: MAX_PIXELS + 1, failOn: 'error' });
}

export interface TakenPicture {
  format: PictureFormat;
  /** Upright size in pixels. */
  width: number;
  height: number;
  hasAlpha: boolean;
  /** An upright 8-bit sRGB copy to work from, or null when the file itself is one. */
  working: { bytes: Buffer; mime: string } | null;
  /** What was converted, in words. */
  notes: string[];
}

/**
 * Takes a picture file in: checks that it is whole and what its name says, and makes an upright 8-bit sRGB
 * copy where it is anything else (EXIF orientation, embedded profile, CMYK, 16 bits, TIFF, AVIF, SVG).
 * Throws RefusedPicture.
 */
export async function takePicture(
  name: string,
  bytes: Buffer,
  accept: PictureFormat[] = ['jpeg', 'png', 'webp', 'tiff', 'avif'],
): Promise<TakenPicture> {
  const format = identifyPicture(name, bytes, accept);
  if (format === 'svg') return takeSvg(name, bytes);
  const meta = await headOf(name, bytes);
  const notes = conversionsOf(meta);
  const asItIs =
    (format === 'jpeg' || format === 'png' || format === 'webp') &&
    notes.length === 0 &&
    meta.space === 'srgb' &&
    (!meta.icc || isSrgb(meta.icc));
  try {
    const source = openPicture(bytes);
    if (asItIs) {
      // Decoding it all is the only proof that a file is whole.
      await source.resize(8, 8, { fit: 'fill', kernel: 'nearest', fastShrinkOnLoad: false }).raw().toBuffer();
      const { width, height } = meta;
      return { format, width, height, hasAlpha: !!meta.hasAlpha, working: null, notes };
    }
    const { data, info } = await source
      .autoOrient()
      .toColourspace('srgb')
      .png({ compressionLevel: 3 })
      .toBuffer({ resolveWithObject: true });
    const { width, height } = info;
    const working = { bytes: data, mime: 'image/png' };
    return { format, width, height, hasAlpha: info.channels === 4, working, notes };
  } catch (error) {
    const truncated =
      /premature|truncat|end of (file|stream)|corrupt|unexpected end|not enough|eof|incomplete/i.test(
        (error as Error).message,
      );
    throw new RefusedPicture(
      truncated
        ? `"${name}" is cut short: the end of the file is missing. Copy or download it again.`
        : `"${name}" is damaged and cannot be decoded. Export or copy the picture again.`,
    );
  }
}

/**
 * What a picture file is, where it is of an accepted kind and what its name says; an SVG has been looked through
 * (`check-svg.ts`) but not drawn. Throws RefusedPicture.
 */
export function identifyPicture(name: string, bytes: Buffer, accept: PictureFormat[]): PictureFormat {
  const list = accept.map((f) => TITLES[f]).join(', ');
  if (bytes.length === 0)
    throw new RefusedPicture(`"${name}" is empty (0 bytes). Export or copy the picture again.`);
  const format = sniffFormat(bytes);
  if (!format || !accept.includes(format))
    throw new RefusedPicture(`"${name}" is not a picture of a kind that can be read here (${list}).`);
  const extension = /\.([^.]+)$/.exec(name)?.[1].toLowerCase();
  const claimed = extension ? EXTENSIONS[extension] : undefined;
  if (extension && claimed !== format)
    throw new RefusedPicture(
      `"${name}" is really a ${TITLES[format]} file under another name. Rename it to end in .${format === 'jpeg' ? 'jpg' : format} and import it again.`,
    );
  if (format === 'svg') {
    try {
      checkSvg(bytes.toString('utf8'));
    } catch (error) {
      throw new RefusedPicture(`"${name}" cannot be taken: ${(error as Error).message}`);
    }
  }
  return format;
}

/** What a file says of itself, where it has a size that can be taken. Throws RefusedPicture. */
async function headOf(name: string, bytes: Buffer): Promise<Metadata> {
  let meta: Metadata;
  try {
    meta = await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw new RefusedPicture(
      `"${name}" is damaged: its header cannot be read. Export or copy the picture again.`,
    );
  }
  if (!meta.width || !meta.height)
    throw new RefusedPicture(`"${name}" has no size; export the picture again.`);
  if (meta.width * meta.height > MAX_PIXELS)
    throw new RefusedPicture(
      `"${name}" has ${((meta.width * meta.height) / 1e6).toFixed(1)} megapixels; up to ${MAX_PIXELS / 1e6} are taken. Make it smaller and import it again.`,
    );
  if (Math.max(meta.width, meta.height) > MAX_SIDE)
    throw new RefusedPicture(
      `"${name}" is ${meta.width} x ${meta.height} pixels; up to ${MAX_SIDE} on a side are taken. Cut it into parts and import them.`,
    );
  return meta;
}

/** What has to be converted for the working copy, in words. */
function conversionsOf(meta: Metadata): string[] {
  const notes: string[] = [];
  if ((meta.orientation ?? 1) > 1) notes.push('turned upright as the camera noted');
  if (meta.space === 'cmyk') notes.push('converted from CMYK');
  else if (meta.icc && !isSrgb(meta.icc)) notes.push('converted from its colour profile to sRGB');
  if (meta.depth && meta.depth !== 'uchar') notes.push('16-bit picture, shown in 8 bits');
  if ((meta.pages ?? 1) > 1) notes.push(`first of ${meta.pages} pages`);
  return notes;
}

/** Vector pictures are drawn once, large, so that every place shows the same pixels. */
async function takeSvg(name: string, bytes: Buffer): Promise<TakenPicture> {
  try {
    const meta = await sharp(bytes).metadata();
    const side = Math.max(meta.width ?? 0, meta.height ?? 0);
    if (!side) throw new Error('no size');
    const density = Math.min(2400, Math.max(72, (72 * 1600) / side));
    const { data, info } = await sharp(bytes, { density, limitInputPixels: MAX_PIXELS })
      .resize({ width: 1600, height: 1600, fit: 'inside' })
      .toColourspace('srgb')
      .ensureAlpha()
      .png()
      .toBuffer({ resolveWithObject: true });
    return {
      format: 'svg',
      width: info.width,
      height: info.height,
      hasAlpha: true,
      working: { bytes: data, mime: 'image/png' },
      notes: ['drawn from SVG'],
    };
  } catch {
    throw new RefusedPicture(
      `"${name}" is an SVG that cannot be drawn; give it a viewBox and save it again.`,
    );
  }
}

function isSrgb(icc: Buffer): boolean {
  return /sRGB/.test(icc.toString('latin1')) || /s\0R\0G\0B/.test(icc.toString('latin1'));
}

/** The pixels of an 8-bit sRGB picture file, straight alpha. */
export async function decodePicture(bytes: Uint8Array): Promise<Rgba> {
  const { data, info } = await openPicture(bytes)
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.byteLength),
  };
}

/** A grey picture file, such as a matte, as 0..1; a picture with transparency gives its alpha. */
export async function decodeGrey(bytes: Uint8Array): Promise<Plane> {
  const picture = openPicture(bytes);
  // A canvas writes an alpha channel even where nothing is clear: then the greys are what counts.
  const { isOpaque } = await picture.stats();
  const single = !isOpaque ? picture.extractChannel('alpha') : picture.flatten().greyscale();
  const { data, info } = await single.toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
  const out: Plane = {
    width: info.width,
    height: info.height,
    data: new Float32Array(info.width * info.height),
  };
  for (let i = 0; i < out.data.length; i++) out.data[i] = data[i * info.channels] / 255;
  return out;
}

/** What an SVG's shapes cover, stretched to a size in pixels, as 0..1. The SVG must have passed takePicture. */
export async function rasterOutline(svg: Buffer, width: number, height: number): Promise<Plane> {
  const meta = await sharp(svg).metadata();
  const density = Math.min(
    2400,
    Math.max(72, (72 * Math.max(width, height)) / Math.max(meta.width, meta.height)),
  );
  const png = await sharp(svg, { density, limitInputPixels: MAX_PIXELS * 4 })
    .ensureAlpha()
    .resize(width, height, { fit: 'fill' })
    .png()
    .toBuffer();
  return decodeGrey(png);
}
