import { ByteLimitError, withinBytes } from '@scenograph/core/delivery/byte-budget';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { Format } from '@scenograph/core/spec/slot';
import sharp from 'sharp';

export interface EncodedPicture {
  bytes: Uint8Array;
  /** Null where the format is lossless. */
  quality: number | null;
}

export interface EncodeOptions {
  /** Pixels an inch, written into the file. */
  density?: number;
}

const rawPixels = (image: Rgba) =>
  sharp(Buffer.from(image.data.buffer, image.data.byteOffset, image.data.byteLength), {
    raw: { width: image.width, height: image.height, channels: 4 },
  });

/**
 * Encodes painted pixels in a format, at the highest quality whose file stays within `maxBytes`. PNG is
 * lossless, then with a palette of fewer and fewer colours. Throws ByteLimitError when nothing fits.
 */
export async function encodePicture(
  image: Rgba,
  format: Format,
  maxBytes = Infinity,
  { density }: EncodeOptions = {},
): Promise<EncodedPicture> {
  const raw = (picture: Rgba) =>
    density ? rawPixels(picture).withMetadata({ density }) : rawPixels(picture);
  if (format === 'jpeg')
    return withinBytes(
      (quality) =>
        raw(image)
          .removeAlpha()
          .jpeg({ quality, chromaSubsampling: quality >= 90 ? '4:4:4' : '4:2:0' })
          .toBuffer(),
      maxBytes,
    );
  if (format === 'webp')
    return withinBytes((quality) => raw(image).webp({ quality, effort: 3 }).toBuffer(), maxBytes);
  const lossless = await raw(image).png({ compressionLevel: 9 }).toBuffer();
  if (lossless.length <= maxBytes) return { bytes: lossless, quality: null };
  for (const colours of [256, 128, 64]) {
    const bytes = await raw(image)
      .png({ palette: true, colours, dither: 0.8, effort: 4, compressionLevel: 9 })
      .toBuffer();
    if (bytes.length <= maxBytes) return { bytes, quality: colours };
  }
  throw new ByteLimitError(
    `As PNG the picture has ${lossless.length.toLocaleString('en-GB')} bytes, and more than ${maxBytes.toLocaleString('en-GB')} even with 64 colours. Let the slot take JPEG, or use a plainer backdrop.`,
  );
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
