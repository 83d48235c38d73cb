import { createHash } from 'node:crypto';
import { cutOut } from '@scenograph/core/cutout/index';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { Plane, Rgba } from '@scenograph/core/raster/pixels';
import { encodeGreyPng, encodePng } from '@scenograph/host-node/encode';
import { decodeGrey } from '@scenograph/host-node/read-picture';
import { loadSegmentationModel } from '@scenograph/host-node/segmentation-model';
import type { BlobStore } from '../blobs/blob-store';
import type { CutoutRecord } from '@scenograph/contract/types';

/** Names what a cutout is made by: two recipes that give the same cutout have the same key. */
export function recipeKey({ steps, ...recipe }: CutoutRecipe): string {
  const active = steps.filter((s) => s.on).map(({ id: _id, name: _name, ...step }) => step);
  return createHash('sha256')
    .update(inOrder([recipe, active]))
    .digest('hex')
    .slice(0, 32);
}

/** JSON with its keys in order: the database keeps them in an order of its own. */
function inOrder(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
}

/** Carries out a recipe on a photo's pixels at full size and stores what comes of it. Throws NoProductError. */
export async function makeCutout(store: BlobStore, photo: Rgba, recipe: CutoutRecipe): Promise<CutoutRecord> {
  const outlines = new Map<string, Plane>();
  for (const step of recipe.steps)
    if (step.kind === 'outline' && step.on && (await store.info(step.matte)))
      outlines.set(step.matte, await decodeGrey(await store.get(step.matte)));
  const started = performance.now();
  const { image, base, bounds, matte, confidence, doubts, shadow } = await cutOut(
    photo,
    recipe,
    await loadSegmentationModel(),
    outlines,
  );
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
    doubts,
    recipeKey: recipeKey(recipe),
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
