import { Body, Controller, Get, Inject, NotFoundException, Param, Patch, Post } from '@nestjs/common';
import { and, asc, eq } from 'drizzle-orm';
import Joi from 'joi';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { photos, products, variants } from '../database/schema';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { variantsOf } from './product-data';

const millimetres = Joi.number().greater(0).max(20000).allow(null);
const price = Joi.number().min(0).max(10_000_000).allow(null);
const currency = Joi.string()
  .pattern(/^[A-Z]{3}$/)
  .messages({ 'string.pattern.base': 'the currency must be a three-letter ISO 4217 code such as GBP' });

/** Names that texts can use as placeholders; the product's own are not to be had twice. */
const fields = Joi.object()
  .pattern(
    Joi.string()
      .pattern(/^[a-zA-Z]\w{0,39}$/)
      .invalid('title', 'variant', 'sku', 'price', 'amount', 'width', 'height', 'depth', 'size', 'brand'),
    Joi.string().max(2000).allow(''),
  )
  .max(60)
  .messages({
    'object.unknown':
      'a field is named by a letter and up to 39 letters, digits or underscores, and not as a value the product has already; {{#label}} is not',
  });

const productPatch = Joi.object({
  title: Joi.string().trim().min(1).max(200),
  widthMm: millimetres,
  heightMm: millimetres,
  depthMm: millimetres,
  pose: Joi.string().valid('stand', 'flat'),
}).min(1);

const variantPatch = Joi.object({
  title: Joi.string().trim().allow('').max(120),
  sku: Joi.string().trim().min(1).max(80),
  price,
  currency,
  fields,
  photoId: Joi.string().uuid().allow(null),
}).min(1);

const newVariant = Joi.object({
  title: Joi.string().trim().allow('').max(120).required(),
  sku: Joi.string().trim().min(1).max(80).required(),
  price: price.default(null),
  currency: currency.default('GBP'),
  photoId: Joi.string().uuid().allow(null).default(null),
});

@Controller('api')
export class ProductsController {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  @Get('products')
  async list() {
    const rows = await this.db
      .select()
      .from(products)
      .where(eq(products.workspaceId, WORKSPACE))
      .orderBy(asc(products.createdAt));
    const all = await variantsOf(
      this.db,
      rows.map((p) => p.id),
    );
    return rows.map((product) => ({ ...product, variants: all.filter((v) => v.productId === product.id) }));
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

  @Post('products/:id/variants')
  async add(
    @Param('id', IdPipe) id: string,
    @Body(validated(newVariant)) body: typeof variants.$inferInsert,
  ) {
    const existing = await variantsOf(this.db, [id]);
    await this.photoExists(body.photoId);
    const [made] = await this.db
      .insert(variants)
      .values({ ...body, productId: id, position: existing.length })
      .returning();
    return made;
  }

  @Patch('variants/:id')
  async changeVariant(
    @Param('id', IdPipe) id: string,
    @Body(validated(variantPatch)) patch: Partial<typeof variants.$inferInsert>,
  ) {
    await this.photoExists(patch.photoId);
    const [changed] = await this.db.update(variants).set(patch).where(eq(variants.id, id)).returning();
    if (!changed) throw new NotFoundException('This variant is not here any more.');
    return changed;
  }

  private async photoExists(id: string | null | undefined) {
    if (!id) return;
    const [photo] = await this.db.select({ id: photos.id }).from(photos).where(eq(photos.id, id));
    if (!photo) throw new NotFoundException('The photo chosen for the variant is not here any more.');
  }
}
