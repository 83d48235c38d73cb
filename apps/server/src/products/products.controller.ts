import {
  Body,
  Controller,
  Get,
  Inject,
  NotFoundException,
  Param,
  Patch,
  Post,
  Query,
  Res,
} from '@nestjs/common';
import {
  currencySchema,
  fieldsSchema,
  inkSchema,
  LIMITS,
  priceSchema,
  skuSchema,
} from '@scenograph/core/table/variant-row';
import { and, asc, count, eq, getTableColumns, sql } from 'drizzle-orm';
import type { Response } from 'express';
import Joi from 'joi';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { products, variants } from '../database/schema';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { brandApart, variantsOf } from './product-data';
import { VariantsService, type DataChange, type NewVariant, type VariantPatch } from './variants.service';

const millimetres = Joi.number().greater(0).max(20000).allow(null);

const productPatch = Joi.object({
  title: Joi.string().trim().min(1).max(200),
  widthMm: millimetres,
  heightMm: millimetres,
  depthMm: millimetres,
  pose: Joi.string().valid('stand', 'flat'),
}).min(1);

const title = Joi.string().trim().allow('').max(LIMITS.title);
const id = Joi.string().uuid().allow(null);
const own = {
  price: priceSchema,
  currency: currencySchema,
  fields: fieldsSchema,
  photoId: id,
  artworkId: id,
  ink: inkSchema,
};
const variantPatch = Joi.object({ title, sku: skuSchema.optional(), ...own }).min(1);
const newVariant = Joi.object({
  title: title.default(''),
  sku: skuSchema,
  ...own,
  price: priceSchema.default(null),
  currency: currencySchema.default('GBP'),
});
const batch = Joi.object({
  label: Joi.string().trim().min(1).max(120).required(),
  set: Joi.array()
    .items(Joi.object({ id: Joi.string().uuid().required(), patch: variantPatch.required() }))
    .max(LIMITS.variants)
    .default([]),
  add: Joi.array().items(newVariant).max(LIMITS.variants).default([]),
  remove: Joi.array().items(Joi.string().uuid()).max(LIMITS.variants).default([]),
});
const page = Joi.object({
  limit: Joi.number().integer().min(1).max(2000).default(100),
  search: Joi.string().trim().max(100).allow('').default(''),
});
const way = Joi.object({ way: Joi.string().valid('undo', 'redo').required() });

/** Products whose title, or the SKU of one of whose variants, holds some words. */
const matching = (search: string) =>
  search
    ? sql`(${products.title} ilike ${`%${search}%`} or exists (select 1 from ${variants} where ${variants.productId} = ${products.id} and ${variants.sku} ilike ${`%${search}%`}))`
    : undefined;

/** Variants of each product that are sent with the list of all. */
const LISTED = 12;

@Controller('api')
export class ProductsController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(VariantsService) private readonly data: VariantsService,
  ) {}

  /** Products in pages, with their first variants; the brand comes once beside them. */
  @Get('products')
  async list(@Query(validated(page)) { limit, search }: { limit: number; search: string }) {
    const found = and(eq(products.workspaceId, WORKSPACE), matching(search));
    const [rows, [{ total }]] = await Promise.all([
      this.db
        .select({
          ...getTableColumns(products),
          // In what is selected from one table Drizzle leaves the tables' names out, so they stand here.
          count: sql<number>`(select count(*)::int from variants v where v.product_id = products.id)`,
        })
        .from(products)
        .where(found)
        .orderBy(asc(products.createdAt))
        .limit(limit),
      this.db.select({ total: count() }).from(products).where(found),
    ]);
    const ids = rows.map((p) => p.id);
    const { brand, variants: all } = brandApart(await variantsOf(this.db, ids, LISTED));
    const own = new Map<string, typeof all>(ids.map((id) => [id, []]));
    for (const v of all) own.get(v.productId)!.push(v);
    return { brand, total, products: rows.map((p) => ({ ...p, variants: own.get(p.id)! })) };
  }

  /** All products by name only. */
  @Get('products/titles')
  titles() {
    return this.db
      .select({ id: products.id, title: products.title })
      .from(products)
      .where(eq(products.workspaceId, WORKSPACE))
      .orderBy(asc(products.createdAt));
  }

  @Patch('products/:id')
  async change(
    @Param('id', IdPipe) id: string,
    @Body(validated(productPatch)) patch: Partial<typeof products.$inferInsert>,
  ) {
    const [changed] = await this.db
      .update(products)
      .set(patch)
      .where(and(eq(products.id, id), eq(products.workspaceId, WORKSPACE)))
      .returning();
    if (!changed) throw new NotFoundException('This product is not here any more.');
    return changed;
  }

  @Get('products/:id')
  one(@Param('id', IdPipe) id: string) {
    return this.data.product(id);
  }

  @Post('products/:id/variants')
  async add(@Param('id', IdPipe) id: string, @Body(validated(newVariant)) body: NewVariant) {
    const { added } = await this.data.change(id, {
      label: 'Add a variant',
      set: [],
      add: [body],
      remove: [],
    });
    return added[0];
  }

  @Patch('variants/:id')
  async changeVariant(@Param('id', IdPipe) id: string, @Body(validated(variantPatch)) patch: VariantPatch) {
    const variant = await this.data.variant(id);
    const set = [{ id, patch }];
    await this.data.change(variant.productId, { label: 'Change a variant', set, add: [], remove: [] });
    return this.data.variant(id);
  }

  /** Many changes of a product's variants as one step: all or none. */
  @Post('products/:id/variants/batch')
  batch(@Param('id', IdPipe) id: string, @Body(validated(batch)) body: DataChange) {
    return this.data.change(id, body);
  }

  @Post('products/:id/turn')
  turn(@Param('id', IdPipe) id: string, @Body(validated(way)) body: { way: 'undo' | 'redo' }) {
    return this.data.turn(id, body.way);
  }

  @Get('products/:id/table.csv')
  async table(@Param('id', IdPipe) id: string, @Res() response: Response) {
    const { name, text } = await this.data.table(id);
    response
      .set({
        'Content-Type': 'text/csv; charset=utf-8',
        'Content-Disposition': `attachment; filename="${name}"`,
      })
      .send(text);
  }
}
