import { Controller, Inject, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { and, asc, count, eq, getTableColumns, sql } from 'drizzle-orm';
import type { Response } from 'express';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { containing, shown } from '../database/rows';
import { products, variants } from '../database/schema';
import { Call, On } from '../http/route';
import { brandApart, variantsOf } from './product-data';
import { VariantsService } from './variants.service';

/** Products whose title, or the SKU of one of whose variants, holds some words. */
const matching = (search: string) =>
  search
    ? sql`(${products.title} ilike ${containing(search)} or exists (select 1 from ${variants} where ${variants.productId} = ${products.id} and ${variants.sku} ilike ${containing(search)}))`
    : undefined;

/** Variants of each product that are sent with the list of all. */
const LISTED = 12;

@Controller()
export class ProductsController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(VariantsService) private readonly data: VariantsService,
  ) {}

  /** Products in pages, with their first variants; the brand comes once beside them. */
  @On('GET /api/products')
  async list(@Call() { query: { from, limit, search } }: CallOf<'GET /api/products'>) {
    const found = and(eq(products.workspaceId, WORKSPACE), matching(search));
    const [rows, [{ total }]] = await Promise.all([
      this.db
        .select({
          ...getTableColumns(products),
          // In what is selected from one table Drizzle leaves the tables' names out, so they stand here.
          count: sql<number>`(select count(*)::int from variants v where v.product_id = products.id)`,
          revision: sql<number>`coalesce((select s.revision from scopes s where s.scope = 'data:' || products.id), 1)`,
        })
        .from(products)
        .where(found)
        .orderBy(asc(products.createdAt), asc(products.id))
        .offset(from)
        .limit(limit),
      this.db.select({ total: count() }).from(products).where(found),
    ]);
    const ids = rows.map((p) => p.id);
    const { brand, variants: all } = brandApart(await variantsOf(this.db, ids, LISTED));
    const own = new Map<string, typeof all>(ids.map((id) => [id, []]));
    for (const v of all) own.get(v.productId)!.push(v);
    return { brand, total, products: rows.map((p) => ({ ...shown(p), variants: own.get(p.id)! })) };
  }

  /** All products by name only. */
  @On('GET /api/products/titles')
  titles() {
    return this.db
      .select({ id: products.id, title: products.title })
      .from(products)
      .where(eq(products.workspaceId, WORKSPACE))
      .orderBy(asc(products.createdAt));
  }

  @On('PATCH /api/products/:id')
  async change(@Call() { params, body, by }: CallOf<'PATCH /api/products/:id'>) {
    return shown(await this.data.describe(params.id, body, by));
  }

  @On('DELETE /api/products/:id')
  remove(@Call() { params, by }: CallOf<'DELETE /api/products/:id'>) {
    return this.data.remove(params.id, by);
  }

  @On('GET /api/products/:id')
  async one(@Call() { params, by }: CallOf<'GET /api/products/:id'>) {
    return shown(await this.data.product(params.id, by.editor));
  }

  @On('POST /api/products/:id/variants')
  async add(@Call() { params, body, by }: CallOf<'POST /api/products/:id/variants'>) {
    const step = { label: 'Add a variant', set: [], add: [body], remove: [] };
    const { added } = await this.data.change(params.id, step, by);
    return added[0];
  }

  @On('PATCH /api/variants/:id')
  async changeVariant(@Call() { params: { id }, body: patch, by }: CallOf<'PATCH /api/variants/:id'>) {
    const variant = await this.data.variant(id);
    const step = { label: 'Change a variant', set: [{ id, patch }], add: [], remove: [] };
    const { revision } = await this.data.change(variant.productId, step, by);
    return { ...(await this.data.variant(id)), revision };
  }

  /** Many changes of a product's variants as one step: all or none. */
  @On('POST /api/products/:id/variants/batch')
  batch(@Call() { params, body, by }: CallOf<'POST /api/products/:id/variants/batch'>) {
    return this.data.change(params.id, body, by);
  }

  @On('POST /api/products/:id/turn')
  turn(@Call() { params, body, by }: CallOf<'POST /api/products/:id/turn'>) {
    return this.data.turn(params.id, body.way, by);
  }

  @On('GET /api/products/:id/table.csv')
  async table(@Call() { params }: CallOf<'GET /api/products/:id/table.csv'>, @Res() response: Response) {
    const { name, text } = await this.data.table(params.id);
    response
      .set({
        'Content-Type': 'text/csv; charset=utf-8',
        'Content-Disposition': `attachment; filename="${name}"`,
      })
      .send(text);
  }
}
