import type { ExportFormat } from '@scenograph/core/delivery/export-name';
import type { Rgba } from '@scenograph/core/raster/pixels';
import sharp from 'sharp';
import { encodePicture } from './encode';

/**
 * One picture as a file of its own: in sRGB with its profile, and with its density (pixels an inch) where the format has
 * a place for it. TIFF is compressed without loss (deflate) and keeps what is transparent.
 */
export async function encodeExport(
  image: Rgba,
  format: Exclude<ExportFormat, 'pdf'>,
  density: number | null,
): Promise<Uint8Array> {
  if (format !== 'tiff') return (await encodePicture(image, format, { density, colourSpace: 'srgb' })).bytes;
  const { width, height, data } = image;
  const raw = { width, height, channels: 4 as const };
  const picture = sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), { raw });
  const dense = density ? picture.withDensity(density) : picture;
  return dense
    .withIccProfile('srgb')
    .tiff({
      compression: 'deflate',
      predictor: 'horizontal',
      ...(density && { xres: density / 25.4, yres: density / 25.4 }),
    })
    .toBuffer();
}
