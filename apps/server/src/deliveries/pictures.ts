import type { CallOf } from '@scenograph/contract';
import { judgeMeasures, withWaivers, type Waiver } from '@scenograph/core/spec/checks/index';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { readSlot, type Slot } from '@scenograph/core/spec/slot';
import { and, asc, eq, gte, sql } from 'drizzle-orm';
import type { BoardService } from '../board/board.service';
import type { Database } from '../database/database';
import { deliveryCells, orderParts, paintings } from '../database/schema';

/** The part of a delivery for one marketplace or listing. */
export type DeliveryPart = CallOf<'GET /api/deliveries/:id/zip'>['query'];

export interface DeliveredPicture {
  cell: typeof deliveryCells.$inferSelect;
  painting: typeof paintings.$inferSelect;
  /** The slot as it was when the delivery was ordered; null of deliveries from before that was kept. */
  slot: Slot | null;
  /** Judged by that slot, with what was waived; null where nothing was measured. */
  checks: CheckResult[] | null;
}

/** Reads a delivery's pictures page by page in their order, each judged by its own slot. */
export function picturesOf(db: Database, boards: BoardService, id: string, part: DeliveryPart = {}) {
  const waivers = new Map<string, Waiver[]>();
  const slots = new Map<string, Slot>();
  return async (from: number, limit: number): Promise<DeliveredPicture[]> => {
    const rows = await db
      .select({ cell: deliveryCells, painting: paintings, body: orderParts.body })
      .from(deliveryCells)
      .innerJoin(paintings, eq(paintings.key, deliveryCells.key))
      .leftJoin(orderParts, eq(orderParts.hash, deliveryCells.slotPart))
      .where(
        and(
          eq(deliveryCells.deliveryId, id),
          gte(deliveryCells.n, from),
          part.marketplace ? eq(deliveryCells.marketplace, part.marketplace) : sql`true`,
          part.listing ? eq(deliveryCells.listing, part.listing) : sql`true`,
        ),
      )
      .orderBy(asc(deliveryCells.n))
      .limit(limit);
    const pictures: DeliveredPicture[] = [];
    for (const { cell, painting, body } of rows) {
      if (!waivers.has(cell.listingId)) waivers.set(cell.listingId, await boards.waivers(cell.listingId));
      if (body && !slots.has(cell.slotPart)) slots.set(cell.slotPart, readSlot(JSON.parse(body)));
      const slot = slots.get(cell.slotPart) ?? null;
      const { measures } = painting;
      const checks =
        measures && slot
          ? withWaivers(
              judgeMeasures(measures, slot),
              waivers.get(cell.listingId)!,
              cell.slotKey,
              cell.variantId,
            )
          : null;
      pictures.push({ cell, painting, slot, checks });
    }
    return pictures;
  };
}
