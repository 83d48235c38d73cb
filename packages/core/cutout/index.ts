import { boundsAbove, createPlane, crop, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { tidyPhoto, tidyPlane } from '../retouch/tidy';
import { solve } from './solve';
import { openSource, segmentSource, type CutoutSource } from './source';
import { occupiedView, ownShadowOf, renderView } from './view';
import type { View } from '../raster/footprint';
import { baseOfCutout, withDrawnBase, type ProductBase } from '../stage/base';
import type { OwnShadow } from './own-shadow';
import type { CutoutMeasures, Doubt } from './confidence';
import { PLAIN_RECIPE, type CutoutRecipe } from './recipe';
import type { SegmentationModel } from './segmentation';

/** Bumped whenever the result changes: part of the key under which cutouts are cached. */
export const CUTOUT_VERSION = 3;

export interface Cutout {
  /** The product alone, edge colours cleaned, trimmed to its bounds. */
  image: Rgba;
  /** Where `image` lies in the tidied photo. */
  bounds: Rect;
  /** The matte at the tidied photo's size, 0..1. */
  matte: Plane;
  /** Probability that the outline is right, 0..1, and what it comes from. */
  confidence: number;
  measures: CutoutMeasures | null;
  /** Places that deserve a look, in pixels of the tidied photo. */
  doubts: Doubt[];
  /** What the product stands on. */
  base: ProductBase;
  /** The camera's own shadow where the recipe asks for it and there is one. */
  shadow: OwnShadow | null;
}

/** Said when no product can be found; the message is fit to be shown. */
export class NoProductError extends Error {}

/** The recipe with these of its automatic choices changed. */
export function recipeWith(automatic: Partial<CutoutRecipe['automatic']>): CutoutRecipe {
  return { ...PLAIN_RECIPE, automatic: { ...PLAIN_RECIPE.automatic, ...automatic } };
}

/**
 * Isolates the product in a photo: without any help, or by a recipe. Throws NoProductError when the picture holds
 * nothing that stands off its border.
 * @param photo 8-bit sRGB, straight alpha, at least 8 pixels on each side
 * @param outlines mattes of the saved outlines that the recipe uses, by content hash; they lie over the whole photo
 */
export async function cutOut(
  photo: Rgba,
  recipe: CutoutRecipe,
  model: SegmentationModel | null,
  outlines: ReadonlyMap<string, Plane> = new Map(),
): Promise<Cutout> {
  if (photo.width < 8 || photo.height < 8)
    throw new NoProductError(
      `The photo is ${photo.width} x ${photo.height} pixels; a cutout needs at least 8 on each side.`,
    );
  const source = openSource(tidyPhoto(photo, recipe.tidy));
  for (const [hash, matte] of outlines) source.outlines.set(hash, tidyPlane(matte, photo, recipe.tidy));
  if (model) await segmentSource(source, model, recipe);
  return finish(source, recipe);
}

/** The full-size cutout of an opened photo. Throws NoProductError. */
export function finish(source: CutoutSource, recipe: CutoutRecipe): Cutout {
  const { photo } = source;
  const solved = solve(source, recipe);
  const view = occupiedView(source, solved);
  const { alpha, colours } = renderView(source, solved, view);
  const kept = boundsAbove(alpha, 0.02);
  const bounds = kept && { ...kept, x: kept.x + view.left, y: kept.y + view.top };
  let area = 0;
  for (let i = 0; i < solved.product.length; i++) area += solved.product[i];
  const corrected = recipe.steps.length > 0 || recipe.repairs.length > 0;
  if (!bounds || !kept || (!corrected && area < solved.product.length * 0.0004))
    throw new NoProductError(
      source.given && !bounds
        ? 'This picture is fully transparent; there is no product in it.'
        : corrected
          ? 'These steps leave nothing of the photo. Switch one off, or keep a part with a keep stroke.'
          : 'No product stands off the background of this photo. Use a photo on plain paper, or one in which the product differs more from what is behind it; or draw a keep stroke over it.',
    );
  for (let i = 0; i < alpha.data.length; i++) colours.data[i * 4 + 3] = Math.round(alpha.data[i] * 255);
  const image = crop(colours, kept);
  return {
    image,
    base: recipe.base ? withDrawnBase(baseOfCutout(image), recipe.base, bounds) : baseOfCutout(image),
    bounds,
    matte: placed(alpha, view, photo),
    confidence: solved.confidence,
    measures: solved.measures,
    doubts: solved.doubts,
    shadow: ownShadowOf(source, solved),
  };
}

function placed(alpha: Plane, { left, top }: View, photo: Rgba): Plane {
  if (alpha.width === photo.width && alpha.height === photo.height) return alpha;
  const out = createPlane(photo.width, photo.height);
  for (let y = 0; y < alpha.height; y++)
    out.data.set(alpha.data.subarray(y * alpha.width, (y + 1) * alpha.width), (y + top) * photo.width + left);
  return out;
}
