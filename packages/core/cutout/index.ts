import { boundsAbove, crop, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { oklabPixels } from '../raster/colour';
import { reduceTo } from '../raster/resample';
import { solveMatte } from './matte';
import { segment } from './segment';

/** Bumped whenever the result changes: part of the key under which cutouts are cached. */
export const CUTOUT_VERSION = 1;

export interface CutoutOptions {
  /** Keep openings inside the product through which the backdrop shows. Default true. */
  holes?: boolean;
  /** Treat soft shadows on the backdrop as backdrop. Default true. */
  shadows?: boolean;
  /** Long side in pixels of the reduced picture on which the outline is cut. Default 640. */
  workingSize?: number;
}

export interface Cutout {
  /** The product alone, edge colours cleaned, trimmed to its bounds. */
  image: Rgba;
  /** Where `image` lies in the photo. */
  bounds: Rect;
  /** The matte at the photo's size, 0..1. */
  matte: Plane;
  /** 0..1: how clearly the product stands off the backdrop along its outline. */
  confidence: number;
}

/** Said when no product can be found; the message is fit to be shown. */
export class NoProductError extends Error {}

/**
 * Isolates the product in a photo without any help. Throws NoProductError when the picture holds nothing that
 * stands off its border.
 * @param photo 8-bit sRGB, straight alpha, at least 8 pixels on each side
 */
export function cutOut(photo: Rgba, options: CutoutOptions = {}): Cutout {
  const { holes = true, shadows = true, workingSize = 640 } = options;
  if (photo.width < 8 || photo.height < 8)
    throw new NoProductError(
      `The photo is ${photo.width} x ${photo.height} pixels; a cutout needs at least 8 on each side.`,
    );
  const given = givenAlpha(photo);
  if (given) return given;
  const small = reduceTo(photo, workingSize);
  const lab = oklabPixels(small);
  const segmentation = segment(lab, small.width, small.height, { holes, shadows });
  const share = segmentation.product.reduce((s, v) => s + v, 0) / segmentation.product.length;
  if (share < 0.0004)
    throw new NoProductError(
      'No product stands off the background of this photo. Use a photo on plain paper, or one in which the product differs more from what is behind it.',
    );
  const { alpha, cleaned } = solveMatte(photo, small, segmentation);
  const bounds = boundsAbove(alpha, 0.02);
  if (!bounds)
    throw new NoProductError('The outline found in this photo holds no pixels. Try a larger photo.');
  return {
    image: crop(cleaned, bounds),
    bounds,
    matte: alpha,
    confidence: confidenceOf(segmentation.product, segmentation.residual, small.width),
  };
}

/** A photo that comes with transparency around the product is a cutout already: it is trimmed, not cut again. */
function givenAlpha(photo: Rgba): Cutout | null {
  const { width, height, data } = photo;
  let clear = 0;
  for (let j = 3; j < data.length; j += 4) if (data[j] < 8) clear++;
  if (clear < width * height * 0.02) return null;
  const matte: Plane = { width, height, data: new Float32Array(width * height) };
  for (let i = 0; i < matte.data.length; i++) matte.data[i] = data[i * 4 + 3] / 255;
  const bounds = boundsAbove(matte, 0.02);
  if (!bounds) throw new NoProductError('This picture is fully transparent; there is no product in it.');
  return { image: crop(photo, bounds), bounds, matte, confidence: 1 };
}

/** Share of the outline along which the product's side differs clearly from the backdrop. */
function confidenceOf(product: Uint8Array, residual: Float32Array, width: number): number {
  let edge = 0;
  let clear = 0;
  for (let i = width * 2; i < product.length - width * 2; i++) {
    if (!product[i] || (product[i - 1] && product[i + 1] && product[i - width] && product[i + width]))
      continue;
    // Look two pixels inward, past the mixed pixels.
    let best = 0;
    for (const step of [-2, 2, -2 * width, 2 * width])
      if (product[i + step]) best = Math.max(best, residual[i + step]);
    edge++;
    if (best > 4) clear++;
  }
  return edge ? clear / edge : 0;
}
