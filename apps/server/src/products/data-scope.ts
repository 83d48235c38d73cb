import { NotFoundException } from '@nestjs/common';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Transaction } from '../database/database';
import { artworks, photos, products, variants } from '../database/schema';
import type { Scope } from '../edits/edits';
import type { Pieces } from '../edits/pieces';

type Variant = typeof variants.$inferSelect;
type Own = Pick<typeof products.$inferSelect, 'title' | 'widthMm' | 'heightMm' | 'depthMm' | 'pose'>;

/**
 * A product's data in pieces: each of its own values under `product:<name>`, that a variant is there under `<variant>`,
 * each value of it under `<variant>:<name>`, and each further field under `<variant>:fields:<name>`.
 */
export const dataScopeName = (productId: string) => `data:${productId}`;

export const dataScope = (productId: string): Scope => ({
  name: dataScopeName(productId),
  word: 'product',
  async read(tx) {
    const [product] = await tx.select().from(products).where(eq(products.id, productId));
    if (!product) throw new NotFoundException('This product is not here any more.');
    const { title, widthMm, heightMm, depthMm, pose } = product;
    const rows = await tx
      .select()
      .from(variants)
      .where(eq(variants.productId, productId))
      .orderBy(asc(variants.id));
    return withVariants(withProduct({}, { title, widthMm, heightMm, depthMm, pose }), rows);
  },
  write: (tx, next, keys) => writeData(tx, productId, next, keys),
});

const OWN = 'product:';
/** Values of a variant that are one piece each. */
const VALUES = ['title', 'sku', 'price', 'currency', 'photoId', 'artworkId', 'ink', 'position'] as const;

export function withProduct(now: Pieces, patch: Partial<Own>): Pieces {
  const next: Record<string, unknown> = { ...now };
  for (const [name, value] of Object.entries(patch)) if (value !== undefined) next[OWN + name] = value;
  return next;
}

/** The pieces with these variants and no others. */
export function withVariants(now: Pieces, rows: readonly Variant[]): Pieces {
  const next: Record<string, unknown> = {};
  for (const key of Object.keys(now)) if (key.startsWith(OWN)) next[key] = now[key];
  for (const row of rows) {
    next[row.id] = true;
    for (const name of VALUES) next[`${row.id}:${name}`] = row[name];
    for (const [name, value] of Object.entries(row.fields)) next[`${row.id}:fields:${name}`] = value;
  }
  return next;
}

/** The variants that pieces hold, in their order. */
export function variantsIn(pieces: Pieces, productId: string): Variant[] {
  const rows = new Map<string, Variant>();
  for (const [key, value] of Object.entries(pieces))
    if (value === true && !key.includes(':')) rows.set(key, { ...EMPTY, id: key, productId, fields: {} });
  for (const [key, value] of Object.entries(pieces)) {
    const [id, name] = key.split(':', 2);
    const row = rows.get(id);
    if (!row || name === undefined) continue;
    if (name === 'fields')
      Object.defineProperty(row.fields, key.slice(id.length + ':fields:'.length), {
        value,
        enumerable: true,
        configurable: true,
        writable: true,
      });
    else Object.assign(row, { [name]: value });
  }
  return [...rows.values()].sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1));
}

const EMPTY = {
  title: '',
  sku: '',
  price: null,
  currency: 'GBP',
  photoId: null,
  artworkId: null,
  ink: null,
  position: 0,
};

async function writeData(
  tx: Transaction,
  productId: string,
  next: Pieces,
  keys: ReadonlySet<string>,
): Promise<void> {
  const own = Object.fromEntries(
    [...keys].flatMap((key) => (key.startsWith(OWN) ? [[key.slice(OWN.length), next[key]]] : [])),
  );
  if (Object.keys(own).length) await tx.update(products).set(own).where(eq(products.id, productId));
  const touched = new Set([...keys].flatMap((key) => (key.startsWith(OWN) ? [] : [key.split(':', 1)[0]])));
  if (!touched.size) return;
  const rows = await stillThere(
    tx,
    variantsIn(next, productId).filter((v) => touched.has(v.id)),
  );
  const gone = [...touched].filter((id) => !rows.some((v) => v.id === id));
  if (gone.length) await tx.delete(variants).where(inArray(variants.id, gone));
  for (const row of rows)
    await tx
      .insert(variants)
      .values(row)
      .onConflictDoUpdate({ target: variants.id, set: { ...row, id: undefined } });
}

/** Photos and artwork that were removed since are not brought back. */
async function stillThere(tx: Transaction, rows: Variant[]): Promise<Variant[]> {
  const there = async (table: typeof photos | typeof artworks, ids: (string | null)[]) => {
    const wanted = ids.filter((id): id is string => !!id);
    const found = wanted.length
      ? await tx.select({ id: table.id }).from(table).where(inArray(table.id, wanted))
      : [];
    const known = new Set(found.map((f) => f.id));
    return (id: string | null) => (id && known.has(id) ? id : null);
  };
  const photo = await there(
    photos,
    rows.map((v) => v.photoId),
  );
  const artwork = await there(
    artworks,
    rows.map((v) => v.artworkId),
  );
  return rows.map((v) => ({ ...v, photoId: photo(v.photoId), artworkId: artwork(v.artworkId) }));
}
