import type { ImportPlan } from '@scenograph/core/table/plan-import';
import type { VariantRow } from '@scenograph/core/table/variant-row';
import { call, upload, type Artwork, type Photo, type Variant } from '../../api/client';
import { dataOf } from '../../api/revisions';
import type { VariantPatch } from './columns';
import type { Pictures } from './pictures-of';
import { msg } from '../../language/language';

export interface ImportProgress {
  share: number;
  says: string;
}

/** What a table's rows are compared with: the variants as rows, and the names that may be named. */
export function contextOf(variants: Variant[], photos: Photo[], artworks: Artwork[], pictures: string[]) {
  const photoName = new Map(photos.map((p) => [p.id, p.name]));
  const artworkTitle = new Map(artworks.map((a) => [a.id, a.title]));
  const rowOf = ({ data, photoId, artworkId }: Variant): VariantRow => ({
    sku: data.sku,
    title: data.variant,
    price: data.price,
    currency: data.currency,
    photo: (photoId && photoName.get(photoId)) || null,
    artwork: (artworkId && artworkTitle.get(artworkId)) || null,
    ink: data.ink ?? null,
    fields: data.fields ?? {},
  });
  return {
    variants: new Map(variants.map((v) => [v.data.sku, { id: v.id, row: rowOf(v) }])),
    photos: photos.map((p) => p.name),
    artworks: artworks.map((a) => a.title),
    pictures,
  };
}

/** Imports the pictures that rows name, one after the other; gives the photos' ids by the names in the table. */
export async function importPictures(
  names: readonly string[],
  pictures: Pictures,
  signal: AbortSignal,
  onProgress: (progress: ImportProgress) => void,
): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  const unlessStopped = () => {
    if (signal.aborted)
      throw new Error(
        msg('Stopped. The table was not imported; pictures already imported stay under Photos.'),
      );
  };
  for (const [i, name] of names.entries()) {
    unlessStopped();
    onProgress({
      share: i / names.length,
      says: msg('{name} ({i} of {names})', { name, i: i + 1, names: names.length }),
    });
    const photo = await upload('POST /api/photos', {
      query: { name: name.split(/[\\/]/).pop()! },
      file: await pictures.get(name)!(),
      signal,
    });
    ids.set(name, photo.id);
  }
  unlessStopped();
  return ids;
}

/** Stores what a table changes and adds, as one step that can be undone. */
export async function storeTable(
  productId: string,
  fileName: string,
  { changes }: ImportPlan,
  photoIds: ReadonlyMap<string, string>,
  artworkIds: ReadonlyMap<string, string>,
): Promise<void> {
  const patchOf = ({ photo, artwork, ...own }: Partial<VariantRow>): VariantPatch => ({
    ...own,
    ...(photo === undefined ? {} : { photoId: photo && photoIds.get(photo) }),
    ...(artwork === undefined ? {} : { artworkId: artwork && artworkIds.get(artwork) }),
  });
  const body = {
    label: msg('Import {fileName}', { fileName }).slice(0, 120),
    set: changes.flatMap((c) => (c.id ? [{ id: c.id, patch: patchOf(c.set) }] : [])),
    add: changes.filter((c) => !c.id).map((c) => ({ ...patchOf(c.set), sku: c.sku })),
  };
  const sent = { params: { id: productId }, body };
  await call('POST /api/products/:id/variants/batch', sent, { of: dataOf(productId) });
}
