import {
  ConflictException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
} from '@nestjs/common';
import type { By, CallOf } from '@scenograph/contract';
import { extension, plainName, uniqueNames } from '@scenograph/core/spec/file-name';
import type { PlannedCell } from '@scenograph/core/delivery/plan';
import { and, count, desc, eq, inArray, sql } from 'drizzle-orm';
import type pg from 'pg';
import { remove } from '../bin/bin';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { BoardService } from '../board/board.service';
import type { ListingPlan } from '../board/plan';
import type { CellStanding, CellState } from '../board/states';
import { DATABASE, POOL, WORKSPACE, type Database, type Transaction } from '../database/database';
import { shown } from '../database/rows';
import { deliveries, deliveryCells, madeCells, paintings, uploads } from '../database/schema';
import { announce } from '../events/events';
import { Page } from '../http/route';
import { endDeliveries, orderPaintings, paintingRates, partsOf } from '../paintings/paintings';
import { standInDesk } from './upload-desk';
import { picturesOf, type DeliveryPart } from './pictures';
import { deliveryZip } from './zip';

/** all: every picture that is fed. changed: never made or out of date. */
export type DeliveryChoice = CallOf<'POST /api/deliveries'>['body'];
type Which = DeliveryChoice['which'];

const WANTED: Record<Which, (state: CellState) => boolean> = {
  all: () => true,
  changed: (s) => s === 'never' || s === 'stale' || s === 'failed',
  stale: (s) => s === 'stale',
  failed: (s) => s === 'failed' || s === 'stop',
  never: (s) => s === 'never',
};

interface ChosenCell {
  plan: ListingPlan;
  cell: PlannedCell;
  standing: CellStanding;
  variant: ListingPlan['variants'][number];
  slot: ListingPlan['slots'][number];
}

@Injectable()
export class DeliveriesService {
  private readonly ended = new Map<string, Counts>();

  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(BLOBS) readonly store: BlobStore,
    @Inject(BoardService) private readonly boards: BoardService,
  ) {}

  /** What a delivery would hold, cost and be called, before it is ordered. */
  async estimate(choice: DeliveryChoice) {
    const { chosen, left } = await this.choose(choice);
    const rates = await paintingRates(this.db);
    const done = new Set(chosen.filter((c) => isMade(c.standing.state)).map((c) => c.cell.key!));
    const distinct = new Map(chosen.map((c) => [c.cell.key!, c]));
    const toPaint = [...distinct.values()].filter((c) => !done.has(c.cell.key!));
    const megapixels = (list: ChosenCell[]) =>
      list.reduce((sum, { slot: { slot } }) => sum + (slot.width * slot.height) / 1e6, 0);
    const kept = chosen.reduce((sum, c) => sum + (c.standing.bytes ?? 0), 0);
    const open = chosen.filter((c) => !done.has(c.cell.key!));
    const { names, clashes } = this.names(chosen);
    return {
      pictures: chosen.length,
      toPaint: toPaint.length,
      unchanged: done.size,
      missing: left.missing,
      seconds: rates ? (megapixels(toPaint) * rates.millisecondsPerMegapixel) / 1000 : null,
      bytes: rates ? Math.round(kept + megapixels(open) * rates.bytesPerMegapixel) : null,
      names: names.slice(0, 8).map((n, i) => `${n}.${extension(chosen[i].slot.slot.formats[0])}`),
      clashes,
      doubtful: chosen.filter((c) => c.standing.doubtful).length,
    };
  }

  /** Orders the chosen pictures. Those that are made already cost nothing; identical ones are painted once. */
  async order(choice: DeliveryChoice) {
    const { chosen, left, titles } = await this.choose(choice);
    if (!chosen.length)
      throw new UnprocessableEntityException(
        left.skipped
          ? `Nothing is to be made: none of the ${left.skipped} chosen pictures is ${NOTHING[choice.which]}.`
          : 'There is nothing to deliver: no chosen slot has a shot, or no variant has a cutout. Assign a shot to a slot first.',
      );
    const { names } = this.names(chosen);
    const parts = partsOf();
    const bare = new Map<object, object>();
    const orders = chosen.map(({ cell, variant, slot }) => {
      const { data } = variant;
      let plain = bare.get(data);
      if (!plain) {
        const { brand: _, ...rest } = data;
        bare.set(data, (plain = rest));
      }
      return {
        key: cell.key!,
        shotPart: parts.hash(cell.shot!.document),
        slotPart: parts.hash(slot.slot),
        dataPart: parts.hash(plain),
        brandPart: parts.hash(data.brand ?? null),
        slotKey: cell.slotKey,
        encoding: cell.encoding,
        words: cell.words,
      };
    });
    const id = await this.db.transaction(async (tx) => {
      const [made] = await tx
        .insert(deliveries)
        .values({
          workspaceId: WORKSPACE,
          listingId: choice.listingIds[0],
          title: titles.length > 1 ? `${titles[0]} and ${titles.length - 1} more` : titles[0],
          priority: choice.priority ?? 0,
        })
        .returning();
      await parts.store(tx);
      await orderPaintings(tx, orders);
      const rows = chosen.map(({ plan, cell, variant, slot }, n) => ({
        deliveryId: made.id,
        n,
        key: cell.key!,
        slotPart: parts.hash(slot.slot),
        listingId: plan.listing.id,
        variantId: variant.id,
        listing: plan.listing.title,
        shotTitle: cell.shot!.title,
        variant: variant.data.variant,
        sku: variant.data.sku,
        marketplace: slot.sheet.marketplace,
        slotKey: cell.slotKey,
        fileName: names[n],
      }));
      for (let i = 0; i < rows.length; i += 1000)
        await tx.insert(deliveryCells).values(rows.slice(i, i + 1000));
      await nameMade(tx, made.id);
      return made.id;
    });
    await endDeliveries(this.db);
    await announce(this.pool, { topic: 'delivery', id });
    return this.one(id);
  }

  async list(from: number, limit: number) {
    const rows = await this.db
      .select()
      .from(deliveries)
      .where(eq(deliveries.workspaceId, WORKSPACE))
      .orderBy(desc(deliveries.createdAt), desc(deliveries.id))
      .offset(from)
      .limit(limit);
    const counts = await this.counts(rows);
    const total = await this.db.$count(deliveries, eq(deliveries.workspaceId, WORKSPACE));
    return new Page(
      rows.map((r) => ({ ...shown(r), ...counts(r.id) })),
      total,
    );
  }

  async one(id: string) {
    const [delivery] = await this.db
      .select()
      .from(deliveries)
      .where(and(eq(deliveries.id, id), eq(deliveries.workspaceId, WORKSPACE)));
    if (!delivery) throw new NotFoundException('This delivery is not here any more.');
    const counts = (await this.counts([delivery]))(id);
    const groups = await this.db
      .select({ marketplace: deliveryCells.marketplace, listing: deliveryCells.listing, n: count() })
      .from(deliveryCells)
      .where(eq(deliveryCells.deliveryId, id))
      .groupBy(deliveryCells.marketplace, deliveryCells.listing)
      .orderBy(deliveryCells.marketplace, deliveryCells.listing);
    const answers = await this.db
      .select()
      .from(uploads)
      .where(eq(uploads.deliveryId, id))
      .orderBy(desc(uploads.createdAt));
    const rates = await paintingRates(this.db);
    return { ...shown(delivery), ...counts, groups, uploads: answers, rates };
  }

  /** Some of a delivery's pictures in order, with how each stands. */
  async cells(id: string, from: number, limit: number) {
    const { total } = await this.one(id);
    const rows = await picturesOf(this.db, this.boards, id)(from, limit);
    const items = rows.map(({ cell, painting: p, slot, checks }) => {
      const { deliveryId: _, key: __, slotPart: ___, ...shown } = cell;
      return {
        ...shown,
        width: p.width ?? slot?.width ?? 0,
        height: p.height ?? slot?.height ?? 0,
        state: p.state,
        format: p.format,
        quality: p.quality,
        bytes: p.bytes,
        blob: p.blob,
        reason: p.reason,
        checks,
      };
    });
    return new Page(items, total);
  }

  async change(
    id: string,
    body: { act: 'pause' | 'go-on' | 'cancel' | 'retry' } | { priority: number },
    by: By,
  ) {
    await this.one(id);
    await this.db.transaction(async (tx) => {
      const [delivery] = await tx.select().from(deliveries).where(eq(deliveries.id, id)).for('update');
      if (!delivery) throw new NotFoundException('This delivery is not here any more.');
      if (by.revision !== null && by.revision !== delivery.revision)
        throw new ConflictException({
          message: 'This delivery was changed elsewhere since you saw it. Look at how it stands now first.',
          detail: shown(delivery),
        });
      await this.carryOut(tx, id, body);
      await tx
        .update(deliveries)
        .set({ revision: sql`${deliveries.revision} + 1` })
        .where(eq(deliveries.id, id));
    });
    await endDeliveries(this.db);
    await announce(this.pool, { topic: 'delivery', id });
    return this.one(id);
  }

  remove = async (id: string, { revision }: By) => {
    const done = await remove(this.db, 'delivery', id, revision);
    await announce(this.pool, { topic: 'delivery', id });
    return done;
  };

  private async carryOut(
    tx: Transaction,
    id: string,
    body: { act: 'pause' | 'go-on' | 'cancel' | 'retry' } | { priority: number },
  ): Promise<void> {
    const set = (
      state: 'paused' | 'queued' | 'cancelled',
      from: ('queued' | 'running' | 'paused' | 'done' | 'failed')[],
    ) =>
      tx
        .update(deliveries)
        .set({ state, error: null, finishedAt: state === 'cancelled' ? sql`now()` : null })
        .where(and(eq(deliveries.id, id), inArray(deliveries.state, from)));
    if ('priority' in body)
      await tx.update(deliveries).set({ priority: body.priority }).where(eq(deliveries.id, id));
    else if (body.act === 'pause') await set('paused', ['queued', 'running']);
    else if (body.act === 'go-on') await set('queued', ['paused']);
    else if (body.act === 'cancel') await set('cancelled', ['queued', 'running', 'paused']);
    else {
      await tx.execute(sql`
        update paintings set state = 'waiting', attempts = 0, reason = null
        where state = 'failed' and key in (select key from delivery_pictures where delivery_id = ${id})`);
      await set('queued', ['done', 'failed', 'paused']);
    }
  }

  /** The delivery, or its part for one marketplace or listing, as a ZIP that is streamed while it is made. */
  async zip(id: string, part: DeliveryPart) {
    const delivery = await this.one(id);
    if (delivery.state === 'cancelled' || delivery.state === 'failed')
      throw new NotFoundException(
        delivery.state === 'failed'
          ? 'No picture of this delivery could be made; there is no ZIP.'
          : 'This delivery was cancelled; there is no ZIP of it.',
      );
    const what = [part.listing ?? delivery.title, part.marketplace].filter(Boolean).join(' ');
    return {
      name: `${plainName(what, 'delivery')}.zip`,
      ...(await deliveryZip(this.db, this.store, this.boards, id, part)),
    };
  }

  /** Sends what was made for one marketplace to its test upload; its answers are kept. */
  async upload(id: string, marketplace: string) {
    const delivery = await this.one(id);
    if (delivery.state !== 'done')
      throw new UnprocessableEntityException(
        'Only a finished delivery can be sent. Wait until all its pictures are made.',
      );
    if (!delivery.groups.some((g) => g.marketplace === marketplace))
      throw new NotFoundException(`This delivery has nothing for "${marketplace}".`);
    const answers = await standInDesk(this.db, this.store, id, marketplace);
    const [made] = await this.db.insert(uploads).values({ deliveryId: id, marketplace, answers }).returning();
    await announce(this.pool, { topic: 'delivery', id });
    return made;
  }

  private async choose({ listingIds, slots, variants, which }: DeliveryChoice) {
    const chosen: ChosenCell[] = [];
    const titles: string[] = [];
    let missing = 0;
    let skipped = 0;
    for (const listingId of listingIds) {
      const { plan, rows } = await this.boards.standing(listingId);
      titles.push(plan.listing.title);
      const unknown = slots?.find((key) => !plan.slots.some((s) => s.key === key));
      if (unknown && listingIds.length === 1)
        throw new NotFoundException('One of the chosen slots does not belong to this listing.');
      plan.variants.forEach((variant, v) => {
        if (variants && !variants.includes(variant.id)) return;
        plan.slots.forEach((slot, s) => {
          if (slots && !slots.includes(slot.key)) return;
          const cell = plan.cells[v][s];
          const standing = rows[v][s];
          if (!cell.key) missing++;
          else if (WANTED[which](standing.state)) chosen.push({ plan, cell, standing, variant, slot });
          else skipped++;
        });
      });
    }
    return { chosen, left: { missing, skipped }, titles };
  }

  /** Paths of the pictures, and how many had to be told apart by a number. */
  private names(chosen: ChosenCell[]): { names: string[]; clashes: number } {
    // Each marketplace has a folder of its own where there are several.
    const several = new Set(chosen.map((c) => c.slot.sheet.marketplace)).size > 1;
    const wished = chosen.map(({ cell, slot }) =>
      several ? `${plainName(slot.sheet.marketplace, 'marketplace')}/${cell.fileName}` : cell.fileName,
    );
    const names = uniqueNames(wished);
    return { names, clashes: names.filter((n, i) => n !== wished[i]).length };
  }

  /** How many pictures of each delivery are made and failed, and their bytes. Of those that have ended it is known already. */
  private async counts(rows: (typeof deliveries.$inferSelect)[]): Promise<(id: string) => Counts> {
    const stamp = (d: (typeof rows)[number]) => `${d.id} ${d.finishedAt?.toISOString()}`;
    const open = rows.filter((d) => !d.finishedAt || !this.ended.has(stamp(d)));
    const found = open.length
      ? await this.db
          .select({
            id: deliveryCells.deliveryId,
            total: count(),
            made: sql<number>`count(*) filter (where ${paintings.state} = 'done')::int`,
            failed: sql<number>`count(*) filter (where ${paintings.state} = 'failed')::int`,
            bytes: sql<number>`coalesce(sum(${paintings.bytes}), 0)::float8`,
          })
          .from(deliveryCells)
          .innerJoin(paintings, eq(paintings.key, deliveryCells.key))
          .where(
            inArray(
              deliveryCells.deliveryId,
              open.map((d) => d.id),
            ),
          )
          .groupBy(deliveryCells.deliveryId)
      : [];
    const counts = new Map<string, Counts>(found.map(({ id, ...own }) => [id, own]));
    for (const d of rows) {
      const own = counts.get(d.id) ?? this.ended.get(stamp(d)) ?? NONE;
      counts.set(d.id, own);
      if (d.finishedAt) this.ended.set(stamp(d), own);
    }
    return (id) => counts.get(id)!;
  }
}

interface Counts {
  total: number;
  made: number;
  failed: number;
  bytes: number;
}
const NONE: Counts = { total: 0, made: 0, failed: 0, bytes: 0 };

const NOTHING: Record<Which, string> = {
  all: 'fed',
  changed: 'new or changed',
  stale: 'out of date',
  failed: 'faulty',
  never: 'still to be made for the first time',
};

const isMade = (state: CellState) => state === 'pass' || state === 'look' || state === 'stop';

/** Pictures of a delivery that are there already are the last ones of their cells from now on. */
async function nameMade(tx: Transaction, id: string): Promise<void> {
  await tx.execute(sql`
    insert into ${madeCells} (listing_id, variant_id, slot_key, key)
    select c.listing_id, c.variant_id, c.slot_key, c.key
    from delivery_pictures c join paintings p using (key)
    where c.delivery_id = ${id} and p.state = 'done'
    order by 1, 2, 3
    on conflict (listing_id, variant_id, slot_key) do update set key = excluded.key, made_at = now()`);
}
