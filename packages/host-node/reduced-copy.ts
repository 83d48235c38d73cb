import { openPicture } from './read-picture';

/** From a copy of this size desks paint: its colours are kept at full resolution, and cutouts without loss. */
export const WORKING_SIDE = 2048;

/**
 * A copy of a picture no larger than `side` on its long side: WebP to be looked at, PNG or JPEG to be worked on.
 * @returns null where the picture is small enough to be worked on itself
 */
export async function reducedCopy(
  bytes: Buffer,
  side: number,
): Promise<{ bytes: Buffer; mime: string } | null> {
  const picture = openPicture(bytes);
  const { width, height, hasAlpha } = await picture.metadata();
  if (side === WORKING_SIDE && width <= side && height <= side) return null;
  const small = picture.resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true });
  if (side < WORKING_SIDE)
    return { bytes: await small.webp({ quality: 82, alphaQuality: 95 }).toBuffer(), mime: 'image/webp' };
  return hasAlpha
    ? { bytes: await small.png({ compressionLevel: 6 }).toBuffer(), mime: 'image/png' }
    : {
        bytes: await small.jpeg({ quality: 96, chromaSubsampling: '4:4:4' }).toBuffer(),
        mime: 'image/jpeg',
      };
}
