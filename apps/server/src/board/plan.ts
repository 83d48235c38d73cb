import { setImmediate } from 'node:timers/promises';
import { planner, type PlannedCell, type PlannedShot } from '@scenograph/core/delivery/plan';
import type { Slot, SpecSheet } from '@scenograph/core/spec/slot';
import { asc, eq } from 'drizzle-orm';
import { NotFoundException } from '@nestjs/common';
import { and } from 'drizzle-orm';
import { WORKSPACE, type Database } from '../database/database';
import { cellFeeds, listings, shots } from '../database/schema';
import { slotsOf } from '../listings/slots-of';
import { sha256 } from '../paintings/paintings';
import { variantsOf, type VariantWithData } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { refusalOf } from '../http/refusals';

export interface ListingPlan {
  listing: typeof listings.$inferSelect;
  variants: VariantWithData[];
  slots: { key: string; slot: Slot; sheet: SpecSheet }[];
  shots: PlannedShot[];
  /** Cells that are filled by another shot than their slot: by variant and slot key. */
  own: ReadonlyMap<string, string | null>;
  /** One list a variant, in the order of `slots`. */
  cells: PlannedCell[][];
}

export const cellId = (variantId: string, slotKey: string) => `${variantId} ${slotKey}`;

/** Milliseconds of planning after which others get their turn. */
const TURN = 12;

const plans = new Map<string, { signature: string; plan: ListingPlan }>();
const MOST_PLANS = 6;

/**
 * A listing planned cell by cell. The plan is kept until something it depends on changes; planning gives way to other
 * requests in between.
 */
export async function planListing(db: Database, id: string): Promise<ListingPlan> {
  const [listing] = await db
    .select()
    .from(listings)
    .where(and(eq(listings.id, id), eq(listings.workspaceId, WORKSPACE)));
  if (!listing) throw new NotFoundException('This listing is not here any more.');
  const [variants, sheets, rows, feeds] = await Promise.all([
    variantsOf(db, [listing.productId]),
    allSheets(db),
    db
      .select({
        id: shots.id,
        title: shots.title,
        alt: shots.alt,
        document: shots.document,
        revision: shots.revision,
        feeds: shots.feeds,
      })
      .from(shots)
      .where(eq(shots.listingId, id))
      .orderBy(asc(shots.position), asc(shots.createdAt)),
    db.select().from(cellFeeds).where(eq(cellFeeds.listingId, id)),
  ]);
  const slots = slotsOf(listing.sheets, sheets);
  const brand = variants[0]?.data.brand ?? null;
  const signature = sha256(
    JSON.stringify([
      listing,
      brand,
      variants.map(({ cutoutConfidence, data: { brand: _, ...data } }) => [cutoutConfidence, data]),
      slots,
      rows.map(({ document: _, ...row }) => row),
      feeds,
    ]),
  );
  const kept = plans.get(id);
  if (kept?.signature === signature) return kept.plan;

  const own = new Map(feeds.map((f) => [cellId(f.variantId, f.slotKey), f.shotId]));
  const bySlot = new Map(rows.flatMap((r) => r.feeds.map((key) => [key, r] as const)));
  const byId = new Map(rows.map((r) => [r.id, r]));
  const plan = planner({
    listing: listing.title,
    slots,
    encodings: listing.encodings,
    digest: sha256,
    shotFor(slotKey, variantId) {
      const mine = own.get(cellId(variantId, slotKey));
      return (mine === undefined ? bySlot.get(slotKey) : mine && byId.get(mine)) || null;
    },
  });
  const cells: PlannedCell[][] = [];
  let turn = Date.now();
  try {
    for (const variant of variants) {
      cells.push(plan(variant));
      if (Date.now() - turn > TURN) {
        await setImmediate();
        turn = Date.now();
      }
    }
  } catch (error) {
    throw refusalOf(error, 'The board');
  }
  const made: ListingPlan = { listing, variants, slots, shots: rows, own, cells };
  plans.delete(id);
  plans.set(id, { signature, plan: made });
  if (plans.size > MOST_PLANS) plans.delete(plans.keys().next().value!);
  return made;
}
