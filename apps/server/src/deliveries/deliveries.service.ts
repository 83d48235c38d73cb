import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { fileName, uniqueNames } from '@scenograph/core/delivery/file-name';
import { and, asc, count, desc, eq, inArray, sql } from 'drizzle-orm';
import type pg from 'pg';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { DATABASE, POOL, WORKSPACE, type Database } from '../database/database';
import { deliveries, deliveryCells, listings, type CellOrder } from '../database/schema';
import { announce } from '../events/events';
import { QUEUE, type Queue } from '../jobs/queue';
import { ListingsService, slotsOf } from '../listings/listings.service';

@Injectable()
export class DeliveriesService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(QUEUE) private readonly queue: Queue,
    @Inject(BLOBS) readonly store: BlobStore,
    @Inject(ListingsService) private readonly listings: ListingsService,
  ) {}

  /** Orders the pictures of the chosen slots (all that are fed, unless named) for the chosen variants (all). */
  async order(listingId: string, body: { slots?: string[]; variants?: string[] }) {
    const { listing, variants, sheets, shots } = await this.listings.one(listingId);
    const wanted = slotsOf(listing.sheets, sheets).filter((s) => !body.slots || body.slots.includes(s.key));
    if (body.slots && wanted.length < body.slots.length)
      throw new NotFoundException('One of the chosen slots does not belong to this listing.');
    const chosen = variants.filter((v) => !body.variants || body.variants.includes(v.id));
    const cells: Omit<typeof deliveryCells.$inferInsert, 'deliveryId' | 'n' | 'fileName'>[] = [];
    const names: string[] = [];
    for (const variant of chosen) {
      if (!variant.data.cutout) continue;
      wanted.forEach(({ key, slot, sheet }, i) => {
        const shot = shots.find((s) => s.feeds.includes(key));
        if (!shot) return;
        try {
          names.push(
            fileName(slot.fileName, {
              sku: variant.data.sku,
              listing: listing.title,
              marketplace: sheet.marketplace,
              slot: slot.id,
              variant: variant.data.variant,
              shot: shot.title,
              n: i + 1,
            }),
          );
        } catch (error) {
          throw new UnprocessableEntityException((error as Error).message);
        }
        const order: CellOrder = { shot: shot.document, slot, data: variant.data };
        cells.push({
          shotTitle: shot.title,
          variant: variant.data.variant,
          sku: variant.data.sku,
          marketplace: sheet.marketplace,
          slotKey: key,
          order,
        });
      });
    }
    if (!cells.length)
      throw new UnprocessableEntityException(
        'There is nothing to deliver: no chosen slot has a shot, or no variant has a cutout. Assign a shot to a slot first.',
      );
    const unique = uniqueNames(names);
    const delivery = await this.db.transaction(async (tx) => {
      const [made] = await tx
        .insert(deliveries)
        .values({ workspaceId: WORKSPACE, listingId, title: listing.title })
        .returning();
      await tx
        .insert(deliveryCells)
        .values(cells.map((cell, n) => ({ ...cell, n, fileName: unique[n], deliveryId: made.id })));
      return made;
    });
    await this.queue.deliver({ deliveryId: delivery.id });
    await announce(this.pool, { topic: 'delivery', id: delivery.id });
    return this.one(delivery.id);
  }

  async list() {
    const rows = await this.db
      .select()
      .from(deliveries)
      .where(eq(deliveries.workspaceId, WORKSPACE))
      .orderBy(desc(deliveries.createdAt))
      .limit(200);
    const counts = await this.counts(rows.map((r) => r.id));
    return rows.map((r) => ({ ...r, ...counts(r.id) }));
  }

  async one(id: string) {
    const [delivery] = await this.db
      .select()
      .from(deliveries)
      .where(and(eq(deliveries.id, id), eq(deliveries.workspaceId, WORKSPACE)));
    if (!delivery) throw new NotFoundException('This delivery is not here any more.');
    const cells = await this.db
      .select()
      .from(deliveryCells)
      .where(eq(deliveryCells.deliveryId, id))
      .orderBy(asc(deliveryCells.n));
    const counts = await this.counts([id]);
    return {
      ...delivery,
      ...counts(id),
      cells: cells.map(({ order, ...cell }) => ({
        ...cell,
        width: order.slot.width,
        height: order.slot.height,
      })),
    };
  }

  async cancel(id: string) {
    await this.one(id);
    // A delivery that no worker has begun ends at once; a running one at its next picture.
    await this.db
      .update(deliveries)
      .set({ state: 'cancelled', cancelAsked: true, finishedAt: sql`now()` })
      .where(and(eq(deliveries.id, id), eq(deliveries.state, 'queued')));
    await this.db
      .update(deliveries)
      .set({ cancelAsked: true })
      .where(and(eq(deliveries.id, id), eq(deliveries.state, 'running')));
    await announce(this.pool, { topic: 'delivery', id });
    return this.one(id);
  }

  async zip(id: string) {
    const delivery = await this.one(id);
    if (!delivery.zip) throw new NotFoundException('This delivery has no ZIP yet; wait until it is done.');
    const [listing] = await this.db.select().from(listings).where(eq(listings.id, delivery.listingId));
    const name = fileName('{listing}', {
      listing: listing?.title ?? delivery.title,
      sku: '',
      marketplace: '',
      slot: '',
      variant: '',
      shot: '',
      n: 1,
    });
    return { name: `${name}.zip`, hash: delivery.zip, size: delivery.zipBytes! };
  }

  private async counts(ids: string[]) {
    const rows = ids.length
      ? await this.db
          .select({ id: deliveryCells.deliveryId, state: deliveryCells.state, n: count() })
          .from(deliveryCells)
          .where(inArray(deliveryCells.deliveryId, ids))
          .groupBy(deliveryCells.deliveryId, deliveryCells.state)
      : [];
    return (id: string) => {
      const of = (state?: string) =>
        rows.filter((r) => r.id === id && (!state || r.state === state)).reduce((s, r) => s + r.n, 0);
      return { total: of(), made: of('done'), failed: of('failed') };
    };
  }
}
