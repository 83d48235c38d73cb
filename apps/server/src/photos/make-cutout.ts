import { cutOut } from '@scenograph/core/cutout/index';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { Plane, Rgba } from '@scenograph/core/raster/pixels';
import { encodeGreyPng, encodePng } from '@scenograph/host-node/encode';
import { decodeGrey } from '@scenograph/host-node/read-picture';
import type { BlobStore } from '../blobs/blob-store';
import type { CutoutRecord } from '../database/schema';

/** Carries out a recipe on a photo's pixels at full size and stores what comes of it. Throws NoProductError. */
export async function makeCutout(store: BlobStore, photo: Rgba, recipe: CutoutRecipe): Promise<CutoutRecord> {
  const outlines = new Map<string, Plane>();
  for (const step of recipe.steps)
    if (step.kind === 'outline' && step.on && (await store.info(step.matte)))
      outlines.set(step.matte, await decodeGrey(await store.get(step.matte)));
  const started = performance.now();
  const { image, base, bounds, matte, confidence, shadow } = cutOut(photo, recipe, outlines);
  const milliseconds = Math.round(performance.now() - started);
  const [picture, mattePicture, shadowPicture] = await Promise.all([
    encodePng(image).then((bytes) => store.put(bytes, 'image/png')),
    encodeGreyPng(matte).then((bytes) => store.put(bytes, 'image/png')),
    shadow && encodePng(shadow.image).then((bytes) => store.put(bytes, 'image/png')),
  ]);
  return {
    picture,
    matte: mattePicture,
    width: image.width,
    height: image.height,
    bounds,
    base,
    confidence,
    milliseconds,
    shadow:
      shadow && shadowPicture
        ? {
            picture: shadowPicture,
            x: (shadow.bounds.x - bounds.x) / bounds.width,
            y: (shadow.bounds.y - bounds.y) / bounds.height,
            width: shadow.bounds.width / bounds.width,
            height: shadow.bounds.height / bounds.height,
          }
        : null,
  };
}
