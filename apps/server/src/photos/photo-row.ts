import { mapRecipe, storedRecipe } from '@scenograph/core/cutout/recipe';
import type { IncomingFile } from '@scenograph/host-node/sandbox/operations';
import type { StoredPicture } from '../blobs/take-in';
import { shown } from '../database/rows';
import type { photos } from '../database/schema';
import { recipeKey } from './make-cutout';

export type Photo = typeof photos.$inferSelect;
export type SizedFile = IncomingFile & { size: number };

/** What a photo has of the picture that came in. */
export const pictureOf = (file: SizedFile, { taken, original, working }: StoredPicture) => ({
  name: file.name,
  format: taken.format,
  bytes: file.size,
  width: taken.width,
  height: taken.height,
  original,
  working,
  notes: taken.notes,
});

/** What a photo is with another picture in its place: its corrections are in that one's pixels. */
export function replaced(old: Photo, file: SizedFile, picture: StoredPicture) {
  const { width, height } = picture.taken;
  const [kx, ky] = [width / old.width, height / old.height];
  const recipe =
    old.recipe && mapRecipe(storedRecipe(old.recipe), (x, y) => [x * kx, y * ky], Math.sqrt(kx * ky));
  if (recipe?.tidy.crop) {
    const { crop } = recipe.tidy;
    recipe.tidy = {
      ...recipe.tidy,
      crop: {
        x: Math.round(crop.x * kx),
        y: Math.round(crop.y * ky),
        width: Math.max(8, Math.round(crop.width * kx)),
        height: Math.max(8, Math.round(crop.height * ky)),
      },
    };
  }
  return {
    ...pictureOf(file, picture),
    recipe,
    // Steps back would be in the old picture's pixels.
    recipeHistory: null,
    recipeRevision: old.recipeRevision + 1,
    accepted: false,
  };
}

/** A photo as it is sent: its corrections and their history are the desk's. */
export function shownPhoto(photo: Photo) {
  const {
    recipe: _,
    recipeHistory: _history,
    cutoutLease: _lease,
    cutoutClaim: _claim,
    cutoutTries: _tries,
    recipeRevision: revision,
    ...rest
  } = shown(photo);
  return { ...rest, revision, inUse: inUse(photo) };
}

/** The full-size cutout was made by the recipe as it stands; older cutouts do not say, and are taken to be. */
export function inUse(photo: Pick<Photo, 'recipe' | 'cutout'>): boolean {
  const key = photo.cutout?.recipeKey;
  return !key || key === recipeKey(storedRecipe(photo.recipe));
}
