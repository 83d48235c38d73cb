import { parseAmount } from '@scenograph/core/data/product-data';
import { nameFinder } from '@scenograph/core/table/plan-import';
import type { Artwork, Photo, Variant } from '../../api/client';
import { HEX_COLOUR } from '@scenograph/core/raster/colour';
import { msg } from '../../language/language';

export type VariantPatch = Record<string, unknown>;

/** One column of the data grid. */
export interface Column {
  id: string;
  title: string;
  width: number;
  field?: boolean;
  text(v: Variant): string;
  /** The change that a written text makes, or a sentence that says why it cannot. */
  read(text: string, v: Variant): VariantPatch | string;
}

/** The columns every product has, then its own fields. */
// eslint-disable-next-line max-lines-per-function -- a table, one entry a column
export function columnsOf(fields: string[], photos: Photo[], artworks: Artwork[]): Column[] {
  const photoByName = new Map(photos.map((p) => [p.name, p]));
  const artworkByTitle = new Map(artworks.map((a) => [a.title, a]));
  const photo = nameFinder(photos.map((p) => p.name));
  const artwork = nameFinder(artworks.map((a) => a.title));
  const photoName = new Map(photos.map((p) => [p.id, p.name]));
  const artworkTitle = new Map(artworks.map((a) => [a.id, a.title]));
  return [
    {
      id: 'sku',
      title: 'SKU',
      width: 150,
      text: (v) => v.data.sku,
      read: (t) => (t.trim() ? { sku: t.trim() } : msg('A variant needs a SKU.')),
    },
    {
      id: 'title',
      title: msg('Variant'),
      width: 150,
      text: (v) => v.data.variant,
      read: (t) => ({ title: t.trim() }),
    },
    {
      id: 'price',
      title: msg('Price'),
      width: 84,
      text: (v) => (v.data.price === null ? '' : String(v.data.price)),
      read(t) {
        const amount = t.trim() ? parseAmount(t) : null;
        return t.trim() && amount === null
          ? msg('"{t}" is no price. Write a number such as 12.50.', { t: t.trim() })
          : { price: amount };
      },
    },
    {
      id: 'currency',
      title: msg('Currency'),
      width: 78,
      text: (v) => v.data.currency,
      read: (t) =>
        /^[A-Za-z]{3}$/.test(t.trim())
          ? { currency: t.trim().toUpperCase() }
          : msg('"{t}" is no currency code. Write three letters such as GBP.', { t }),
    },
    {
      id: 'photo',
      title: msg('Photo'),
      width: 190,
      text: (v) => (v.photoId && photoName.get(v.photoId)) || '',
      read(t) {
        if (!t.trim()) return { photoId: null };
        const found = photo(t.trim());
        return found
          ? { photoId: photoByName.get(found)!.id }
          : msg('There is no photo "{t}". Import it under Photos.', { t: t.trim() });
      },
    },
    {
      id: 'artwork',
      title: msg('Artwork'),
      width: 140,
      text: (v) => (v.artworkId && artworkTitle.get(v.artworkId)) || '',
      read(t) {
        if (!t.trim()) return { artworkId: null };
        const found = artwork(t.trim());
        return found
          ? { artworkId: artworkByTitle.get(found)!.id }
          : msg('There is no artwork "{t}" in the library.', { t: t.trim() });
      },
    },
    {
      id: 'ink',
      title: msg('Ink'),
      width: 92,
      text: (v) => v.data.ink ?? '',
      read: (t) =>
        !t.trim()
          ? { ink: null }
          : HEX_COLOUR.test(t.trim())
            ? { ink: t.trim().toLowerCase() }
            : msg('"{t}" is no ink. Write a colour as #rrggbb.', { t }),
    },
    ...fields.map((name): Column => ({
      id: `field-${name}`,
      title: name,
      width: 150,
      field: true,
      text: (v) => v.data.fields?.[name] ?? '',
      read(t, v) {
        const { [name]: _, ...others } = v.data.fields ?? {};
        return { fields: t === '' ? others : { ...others, [name]: t } };
      },
    })),
  ];
}
