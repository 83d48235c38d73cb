import type { ProductData } from '@scenograph/core/shot/data';
import type { Pose } from '@scenograph/core/elements/product/definition';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../database/database';
import { kitOf } from '../brand/brand.service';
import { photos, products, variants } from '../database/schema';

export interface VariantWithData {
  id: string;
  productId: string;
  photoId: string | null;
  pose: Pose;
  data: ProductData;
}

/** A product's variants with what shots may be bound to. */
export async function variantsOf(db: Database, productIds: string[]): Promise<VariantWithData[]> {
  if (!productIds.length) return [];
  const rows = await db
    .select({
      variant: variants,
      product: products,
      cutout: photos.cutout,
      photo: { picture: photos.working, width: photos.width, height: photos.height },
    })
    .from(variants)
    .innerJoin(products, eq(products.id, variants.productId))
    .leftJoin(photos, eq(photos.id, variants.photoId))
    .where(inArray(variants.productId, productIds))
    .orderBy(asc(variants.position));
  const { kit: brand } = await kitOf(db);
  return rows.map(({ variant, product, cutout, photo }) => ({
    id: variant.id,
    productId: product.id,
    photoId: variant.photoId,
    pose: product.pose,
    data: {
      title: product.title,
      variant: variant.title,
      sku: variant.sku,
      price: variant.price,
      currency: variant.currency,
      widthMm: product.widthMm,
      heightMm: product.heightMm,
      depthMm: product.depthMm,
      fields: variant.fields,
      brand,
      photo: photo && cutout && { ...photo, cutout: cutout.bounds },
      cutout: cutout && {
        picture: cutout.picture,
        width: cutout.width,
        height: cutout.height,
        shadow: cutout.shadow ?? null,
        base: cutout.base ?? null,
      },
    },
  }));
}
