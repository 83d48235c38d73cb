import type { Variant } from '@scenograph/contract/types';
import type { BrandKit } from '@scenograph/core/brand/kit';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Database } from '../database/database';
import { kitOf } from '../brand/brand.service';
import { artworks, photos, products, variants } from '../database/schema';

export type VariantWithData = Variant;

/**
 * Products' variants with what shots may be bound to, in their order.
 * @param most how many of each product
 */
export async function variantsOf(
  db: Database,
  productIds: string[],
  most?: number,
): Promise<VariantWithData[]> {
  if (!productIds.length) return [];
  const rows = await db
    .select({
      variant: variants,
      product: products,
      cutout: photos.cutout,
      accepted: photos.accepted,
      photo: { picture: photos.working, width: photos.width, height: photos.height },
      artwork: { picture: artworks.picture, width: artworks.width, height: artworks.height },
    })
    .from(variants)
    .innerJoin(products, eq(products.id, variants.productId))
    .leftJoin(photos, eq(photos.id, variants.photoId))
    .leftJoin(artworks, eq(artworks.id, variants.artworkId))
    .where(
      and(
        inArray(variants.productId, productIds),
        most
          ? sql`${variants.id} in (select id from (select id, row_number() over (partition by product_id order by position) as n from variants) numbered where n <= ${most})`
          : undefined,
      ),
    )
    .orderBy(asc(variants.position), asc(variants.id));
  const { kit: brand } = await kitOf(db);
  return rows.map(({ variant, product, cutout, accepted, photo, artwork }) => ({
    id: variant.id,
    productId: product.id,
    photoId: variant.photoId,
    artworkId: variant.artworkId,
    pose: product.pose,
    cutoutConfidence: accepted || !cutout ? null : cutout.confidence,
    data: {
      id: variant.id,
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
      artwork,
      ink: variant.ink,
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

/** Variants to be sent, with the brand they share once beside them. */
export function brandApart(list: VariantWithData[]): { variants: VariantWithData[]; brand: BrandKit | null } {
  const brand = list[0]?.data.brand ?? null;
  return { brand, variants: list.map((v) => ({ ...v, data: { ...v.data, brand: undefined } })) };
}
