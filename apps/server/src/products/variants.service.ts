import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { plainName } from '@scenograph/core/spec/file-name';
import { LIMITS, type VariantRow } from '@scenograph/core/table/variant-row';
import { writeTable } from '@scenograph/core/table/write-table';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type pg from 'pg';
import { DATABASE, POOL, WORKSPACE, type Database, type Transaction } from '../database/database';
import { artworks, photos, products, variants } from '../database/schema';
import { editState, keepEdit, turnEdit } from '../edits/edits';
import { announce } from '../events/events';
import { variantsOf, type VariantWithData } from './product-data';

type Variant = typeof variants.$inferSelect;
type DataChange = CallOf<'POST /api/products/:id/variants/batch'>['body'];

/** Rows of a step, whole, by variant; null where the variant was not there. */
type Rows = Record<string, Variant | null>;

/** A product's variants and their data, every change a step that can be taken back. */
@Injectable()
export class VariantsService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
  ) {}

  async product(id: string) {
    const [product] = await this.db
      .select()
      .from(products)
      .where(and(eq(products.id, id), eq(products.workspaceId, WORKSPACE)));
    if (!product) throw new NotFoundException('This product is not here any more.');
    const own = await variantsOf(this.db, [id]);
    return {
      ...product,
      count: own.length,
      variants: own.map((v): VariantWithData => ({ ...v, data: { ...v.data, brand: undefined } })),
      edits: await editState(this.db, scopeOf(id)),
    };
  }

  async variant(id: string): Promise<Variant> {
    const [found] = await this.db.select().from(variants).where(eq(variants.id, id));
    if (!found) throw new NotFoundException('This variant is not here any more.');
    return found;
  }

  /** Carries out a step, all of it or nothing. Throws a sentence for what cannot be stored. */
  async change(productId: string, { label, set, add, remove }: DataChange) {
    await this.product(productId);
    await this.exist(photos, 'photo', [...set.map((s) => s.patch.photoId), ...add.map((a) => a.photoId)]);
    await this.exist(artworks, 'artwork', [
      ...set.map((s) => s.patch.artworkId),
      ...add.map((a) => a.artworkId),
    ]);
    const result = await this.db.transaction(async (tx) => {
      const present = await tx
        .select()
        .from(variants)
        .where(eq(variants.productId, productId))
        .orderBy(asc(variants.position))
        .for('update');
      const byId = new Map(present.map((v) => [v.id, v]));
      const before: Rows = {};
      const after: Rows = {};
      for (const id of [...set.map((s) => s.id), ...remove])
        if (!byId.has(id))
          throw new NotFoundException('A variant that is to be changed is not here any more.');
      for (const { id, patch } of set) {
        before[id] ??= byId.get(id)!;
        after[id] = { ...(after[id] ?? byId.get(id)!), ...patch };
      }
      for (const id of remove) {
        before[id] = byId.get(id)!;
        after[id] = null;
      }
      let position = (present.at(-1)?.position ?? -1) + 1;
      const added: Variant[] = add.map((values) => ({
        fields: {},
        photoId: null,
        artworkId: null,
        ink: null,
        ...values,
        id: crypto.randomUUID(),
        productId,
        position: position++,
      }));
      for (const v of added) {
        before[v.id] = null;
        after[v.id] = v;
      }
      const next = [
        ...present.filter((v) => !(v.id in after)),
        ...Object.values(after).filter((v) => v !== null),
      ];
      if (next.length > LIMITS.variants)
        throw new UnprocessableEntityException(
          `The product would have ${next.length} variants; it takes up to ${LIMITS.variants}.`,
        );
      const skus = new Set<string>();
      for (const { sku } of next) {
        if (skus.has(sku) && Object.values(after).some((v) => v?.sku === sku))
          throw new UnprocessableEntityException(
            `Two variants would have the SKU "${sku}". Each needs one of its own.`,
          );
        skus.add(sku);
      }
      await apply(tx, after);
      if (Object.keys(after).length) await keepEdit(tx, scopeOf(productId), label, before, after);
      return { changed: set.length, added, removed: remove.length };
    });
    await announce(this.pool, { topic: 'product', id: productId });
    return result;
  }

  async turn(productId: string, way: 'undo' | 'redo') {
    await this.product(productId);
    const label = await turnEdit(this.db, scopeOf(productId), way, async (tx, state) =>
      apply(tx, await stillThere(tx, state as Rows)),
    );
    if (label) await announce(this.pool, { topic: 'product', id: productId });
    return { label };
  }

  /** The variants as a table that comes back unchanged. */
  async table(productId: string): Promise<{ name: string; text: string }> {
    const { title } = await this.product(productId);
    const rows = await this.db
      .select({ variant: variants, photo: photos.name, artwork: artworks.title })
      .from(variants)
      .leftJoin(photos, eq(photos.id, variants.photoId))
      .leftJoin(artworks, eq(artworks.id, variants.artworkId))
      .where(eq(variants.productId, productId))
      .orderBy(asc(variants.position));
    return {
      name: `${plainName(title, 'product')}.csv`,
      text: writeTable(
        rows.map(({ variant: { sku, title, price, currency, ink, fields }, photo, artwork }): VariantRow => ({
          sku,
          title,
          price,
          currency,
          photo,
          artwork,
          ink,
          fields,
        })),
      ),
    };
  }

  private async exist(
    table: typeof photos | typeof artworks,
    what: string,
    ids: (string | null | undefined)[],
  ): Promise<void> {
    const wanted = [...new Set(ids.filter((id): id is string => !!id))];
    if (!wanted.length) return;
    const found = await this.db.select({ id: table.id }).from(table).where(inArray(table.id, wanted));
    if (found.length < wanted.length)
      throw new NotFoundException(`The ${what} chosen for a variant is not here any more.`);
  }
}

const scopeOf = (productId: string) => `data:${productId}`;

/** Photos and artwork that were removed since are not brought back. */
async function stillThere(tx: Transaction, rows: Rows): Promise<Rows> {
  const list = Object.values(rows).filter((v): v is Variant => v !== null);
  const there = async (table: typeof photos | typeof artworks, ids: (string | null)[]) => {
    const wanted = ids.filter((id): id is string => !!id);
    const found = wanted.length
      ? await tx.select({ id: table.id }).from(table).where(inArray(table.id, wanted))
      : [];
    return new Set(found.map((f) => f.id));
  };
  const [pictures, designs] = [
    await there(
      photos,
      list.map((v) => v.photoId),
    ),
    await there(
      artworks,
      list.map((v) => v.artworkId),
    ),
  ];
  return Object.fromEntries(
    Object.entries(rows).map(([id, v]) => [
      id,
      v && {
        ...v,
        photoId: v.photoId && pictures.has(v.photoId) ? v.photoId : null,
        artworkId: v.artworkId && designs.has(v.artworkId) ? v.artworkId : null,
      },
    ]),
  );
}

async function apply(tx: Transaction, rows: Rows): Promise<void> {
  const gone = Object.entries(rows).flatMap(([id, v]) => (v ? [] : [id]));
  if (gone.length) await tx.delete(variants).where(inArray(variants.id, gone));
  const list = Object.values(rows).filter((v): v is Variant => v !== null);
  for (const v of list)
    await tx
      .insert(variants)
      .values(v)
      .onConflictDoUpdate({ target: variants.id, set: { ...v, id: undefined } });
}
