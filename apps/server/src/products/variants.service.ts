import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import type { By, CallOf } from '@scenograph/contract';
import { plainName } from '@scenograph/core/spec/file-name';
import { LIMITS, type VariantRow } from '@scenograph/core/table/variant-row';
import { writeTable } from '@scenograph/core/table/write-table';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type pg from 'pg';
import { remove } from '../bin/bin';
import { DATABASE, POOL, WORKSPACE, type Database } from '../database/database';
import { artworks, photos, products, variants } from '../database/schema';
import { change, editState, revisionOf, turn } from '../edits/edits';
import { announce } from '../events/events';
import { dataScope, dataScopeName, variantsIn, withProduct, withVariants } from './data-scope';
import { variantsOf, type VariantWithData } from './product-data';

type Variant = typeof variants.$inferSelect;
type ProductPatch = CallOf<'PATCH /api/products/:id'>['body'];
type DataChange = CallOf<'POST /api/products/:id/variants/batch'>['body'];

/** A product's variants and their data, every change a step that can be taken back. */
@Injectable()
export class VariantsService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
  ) {}

  async product(id: string, editor: string | null = null) {
    // Read first: what is changed meanwhile is shown with an older revision, and not lost to a change based on it.
    const revision = await revisionOf(this.db, dataScopeName(id));
    const [product] = await this.db
      .select()
      .from(products)
      .where(and(eq(products.id, id), eq(products.workspaceId, WORKSPACE)));
    if (!product) throw new NotFoundException('This product is not here any more.');
    const own = await variantsOf(this.db, [id]);
    return {
      ...product,
      revision,
      count: own.length,
      variants: own.map((v): VariantWithData => ({ ...v, data: { ...v.data, brand: undefined } })),
      edits: await editState(this.db, dataScopeName(id), editor),
    };
  }

  async variant(id: string): Promise<Variant> {
    const [found] = await this.db.select().from(variants).where(eq(variants.id, id));
    if (!found) throw new NotFoundException('This variant is not here any more.');
    return found;
  }

  /** Changes a product's name, sizes or pose. */
  async describe(id: string, patch: ProductPatch, by: By) {
    await this.product(id);
    const label = `Change the product's ${Object.keys(patch)
      .map((key) => PARTS[key as keyof ProductPatch])
      .join(', ')}`;
    const revision = await change(this.db, dataScope(id), by, label, (now) => withProduct(now, patch));
    await announce(this.pool, { topic: 'product', id });
    const [product] = await this.db.select().from(products).where(eq(products.id, id));
    return { ...product, revision };
  }

  /** Carries out a step, all of it or nothing. Throws a sentence for what cannot be stored. */
  async change(productId: string, { label, set, add, remove }: DataChange, by: By) {
    await this.product(productId);
    await this.exist(photos, 'photo', [...set.map((s) => s.patch.photoId), ...add.map((a) => a.photoId)]);
    await this.exist(artworks, 'artwork', [
      ...set.map((s) => s.patch.artworkId),
      ...add.map((a) => a.artworkId),
    ]);
    let added: Variant[] = [];
    const revision = await change(this.db, dataScope(productId), by, label, (now) => {
      const present = variantsIn(now, productId);
      const byId = new Map(present.map((v) => [v.id, v]));
      for (const id of [...set.map((s) => s.id), ...remove])
        if (!byId.has(id))
          throw new NotFoundException('A variant that is to be changed is not here any more.');
      let position = Math.max(-1, ...present.map((v) => v.position)) + 1;
      added = add.map((values) => ({
        fields: {},
        photoId: null,
        artworkId: null,
        ink: null,
        ...values,
        id: crypto.randomUUID(),
        productId,
        position: position++,
      }));
      for (const { id, patch } of set) byId.set(id, { ...byId.get(id)!, ...patch });
      for (const id of remove) byId.delete(id);
      for (const variant of added) byId.set(variant.id, variant);
      checkTogether([...byId.values()], new Set([...set.map((s) => s.id), ...added.map((v) => v.id)]));
      return withVariants(now, [...byId.values()]);
    });
    await announce(this.pool, { topic: 'product', id: productId });
    return { changed: set.length, added, removed: remove.length, revision };
  }

  async remove(productId: string, { revision }: By) {
    const done = await remove(this.db, 'product', productId, revision);
    await announce(this.pool, { topic: 'product', id: productId });
    return done;
  }

  async turn(productId: string, way: 'undo' | 'redo', by: By) {
    await this.product(productId);
    const done = await turn(this.db, dataScope(productId), by, way);
    if (done.label) await announce(this.pool, { topic: 'product', id: productId });
    return done;
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

/** What a product's own values are called in the label of a step. */
const PARTS: Record<keyof ProductPatch, string> = {
  title: 'name',
  widthMm: 'width',
  heightMm: 'height',
  depthMm: 'depth',
  pose: 'pose',
};

/** Throws a sentence where the variants of a product do not go together; `changed` names those that are at fault. */
function checkTogether(all: readonly Variant[], changed: ReadonlySet<string>): void {
  if (all.length > LIMITS.variants)
    throw new UnprocessableEntityException(
      `The product would have ${all.length} variants; it takes up to ${LIMITS.variants}.`,
    );
  const bySku = new Map<string, Variant[]>();
  for (const v of all) bySku.set(v.sku, [...(bySku.get(v.sku) ?? []), v]);
  for (const [sku, list] of bySku)
    if (list.length > 1 && list.some((v) => changed.has(v.id)))
      throw new UnprocessableEntityException(
        `Two variants would have the SKU "${sku}". Each needs one of its own.`,
      );
}
