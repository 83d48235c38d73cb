import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Encoding } from '@scenograph/core/delivery/encoding';
import { cellFitKey } from '@scenograph/core/shot/resolve';
import { judgeMeasures, withWaivers, type Waiver } from '@scenograph/core/spec/checks/index';
import { feedByRule } from '@scenograph/core/spec/feed-by-rule';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type pg from 'pg';
import { DATABASE, POOL, type Database, type Transaction } from '../database/database';
import { cellFeeds, listings, paintings, shots, waivers } from '../database/schema';
import { editState, keepEdit, turnEdit } from '../edits/edits';
import { announce } from '../events/events';
import { cellId, planListing } from './plan';
import { standings, type CellState } from './states';

/** What of a board can be taken back: which shots fill what, and how files are written. */
interface BoardState {
  feeds: Record<string, string[]>;
  cells: { variantId: string; slotKey: string; shotId: string | null }[];
  encodings: Record<string, Encoding>;
}

type CellChoice = CallOf<'GET /api/listings/:id/cell'>['query'];

/** One letter a state, so that twenty thousand cells are a short answer. */
const LETTERS: Record<CellState, string> = {
  'no-shot': 'o',
  'no-cutout': 'c',
  never: 'n',
  stale: 's',
  waiting: 'w',
  failed: 'f',
  pass: 'p',
  look: 'l',
  stop: 'x',
};

@Injectable()
export class BoardService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
  ) {}

  async standing(listingId: string) {
    const plan = await planListing(this.db, listingId);
    return { plan, rows: await standings(this.db, plan, await this.waivers(listingId)) };
  }

  /**
   * The board: a row a variant with a letter a cell for its state, one for its difference (`d` of its slot, `o` of its
   * own, `f` filled by another shot than its slot, `.` none), and the number of its shot.
   */
  async board(listingId: string) {
    const { plan, rows } = await this.standing(listingId);
    const { slots, shots: all, variants, own } = plan;
    const number = new Map(all.map((s, i) => [s.id, i]));
    return {
      slots: slots.map((s) => s.key),
      shots: all.map((s) => s.id),
      rows: rows.map((row, v) => ({
        variantId: variants[v].id,
        states: row.map((c) => LETTERS[c.state]).join(''),
        differs: plan.cells[v]
          .map(({ shot, slotKey, variantId }) =>
            own.has(cellId(variantId, slotKey))
              ? 'f'
              : shot?.document.fits[cellFitKey(slotKey, variantId)]
                ? 'o'
                : shot?.document.fits[slotKey]
                  ? 'd'
                  : '.',
          )
          .join(''),
        fedBy: plan.cells[v].map(({ shot }) => (shot ? number.get(shot.id)! : -1)),
        /** What is wrong first, in a word, for the cells that have something. */
        says: Object.fromEntries(
          row.flatMap((c, i) => {
            const first = c.faults.find((f) => !f.waived && f.verdict === c.state);
            const text = first?.title ?? (c.state === 'failed' ? (c.reason ?? 'failed') : null);
            return text ? [[i, text]] : [];
          }),
        ),
      })),
      edits: await editState(this.db, scopeOf(listingId)),
    };
  }

  /** Everything about one cell: its last picture, all checks, waivers, how it is written. */
  async cell(listingId: string, { variantId, slotKey }: CellChoice) {
    const { plan, rows } = await this.standing(listingId);
    const v = plan.variants.findIndex((x) => x.id === variantId);
    const s = plan.slots.findIndex((x) => x.key === slotKey);
    if (v < 0 || s < 0) throw new NotFoundException('This cell is not on the board any more.');
    const standing = rows[v][s];
    const { shot, words, encoding, fileName, missing } = plan.cells[v][s];
    const key = standing.key ?? standing.last;
    const [now] = key ? await this.db.select().from(paintings).where(eq(paintings.key, key)) : [];
    const shown =
      now?.state === 'done' || !standing.last
        ? now
        : (await this.db.select().from(paintings).where(eq(paintings.key, standing.last)))[0];
    const { slot } = plan.slots[s];
    const known = await this.waivers(listingId);
    const checks = shown?.measures
      ? withWaivers(judgeMeasures(shown.measures, slot), known, slotKey, variantId)
      : [];
    const among = standing.faults.filter((f) => !checks.some((c) => c.check === f.check));
    return {
      ...standing,
      missing,
      shotId: shot?.id ?? null,
      fileName,
      words,
      encoding,
      checks: [...checks, ...among],
      picture: shown?.blob
        ? {
            blob: shown.blob,
            format: shown.format!,
            quality: shown.quality,
            bytes: shown.bytes!,
            width: shown.width!,
            height: shown.height!,
            current: shown.key === standing.key,
          }
        : null,
      waivers: (await this.waiverRows(listingId)).filter(
        (w) => w.slotKey === slotKey && (!w.variantId || w.variantId === variantId),
      ),
    };
  }

  /** How many cells stand how, by marketplace; which checks fail most; bytes by slot. */
  async summary(listingId: string) {
    const { plan, rows } = await this.standing(listingId);
    const marketplaces = new Map<string, Record<string, number>>();
    const checks = new Map<string, { title: string; look: number; stop: number; waived: number }>();
    const slots = plan.slots.map(({ key, slot, sheet }) => ({
      key,
      title: slot.title,
      marketplace: sheet.marketplace,
      limit: slot.maxBytes,
      count: 0,
      total: 0,
      largest: 0,
    }));
    for (const row of rows)
      row.forEach((cell, i) => {
        const { sheet, slot } = plan.slots[i];
        const m = marketplaces.get(sheet.marketplace) ?? {};
        const state = cell.state === 'no-shot' && !slot.required ? 'optional' : cell.state;
        m[state] = (m[state] ?? 0) + 1;
        marketplaces.set(sheet.marketplace, m);
        for (const f of cell.faults) {
          const c = checks.get(f.check) ?? { title: f.title, look: 0, stop: 0, waived: 0 };
          if (f.waived) c.waived++;
          else if (f.verdict === 'stop') c.stop++;
          else c.look++;
          checks.set(f.check, c);
        }
        if (cell.bytes === null) return;
        slots[i].count++;
        slots[i].total += cell.bytes;
        slots[i].largest = Math.max(slots[i].largest, cell.bytes);
      });
    return {
      marketplaces: [...marketplaces].map(([marketplace, states]) => ({ marketplace, states })),
      checks: [...checks]
        .map(([check, counts]) => ({ check, ...counts }))
        .sort((a, b) => b.stop - a.stop || b.look - a.look),
      slots,
    };
  }

  /**
   * Gives cells to a shot, to none (null), or lets them follow their slot again ('slot'). Where every variant of a slot
   * is chosen the slot itself is given, so that variants to come follow it too.
   */
  async assign(listingId: string, choice: CellChoice[], shotId: string | null) {
    const plan = await planListing(this.db, listingId);
    if (shotId && shotId !== 'slot' && !plan.shots.some((s) => s.id === shotId))
      throw new NotFoundException('This shot does not belong to the listing.');
    const bySlot = new Map<string, Set<string>>();
    for (const { slotKey, variantId } of choice) {
      if (!plan.slots.some((s) => s.key === slotKey))
        throw new NotFoundException(`This listing has no slot "${slotKey}".`);
      if (!plan.variants.some((v) => v.id === variantId))
        throw new NotFoundException('A chosen variant does not belong to the listing any more.');
      bySlot.set(slotKey, (bySlot.get(slotKey) ?? new Set()).add(variantId));
    }
    const title = plan.shots.find((s) => s.id === shotId)?.title;
    const label = shotId === 'slot' ? 'Follow the slot' : title ? `Fill from ${title}` : 'Empty cells';
    await this.edit(listingId, label, (state) => {
      for (const [slotKey, variantIds] of bySlot) {
        const mine = (c: CellChoice) => c.slotKey === slotKey && variantIds.has(c.variantId);
        state.cells = state.cells.filter((c) => !mine(c));
        if (shotId === 'slot') continue;
        if (variantIds.size === plan.variants.length) feedSlot(state, slotKey, shotId);
        else for (const variantId of variantIds) state.cells.push({ variantId, slotKey, shotId });
      }
    });
  }

  /** Gives a whole slot to a shot or to none; cells that say otherwise keep to it. */
  async feed(listingId: string, slotKey: string, shotId: string | null) {
    const plan = await planListing(this.db, listingId);
    if (!plan.slots.some((s) => s.key === slotKey))
      throw new NotFoundException(`This listing has no slot "${slotKey}".`);
    const shot = plan.shots.find((s) => s.id === shotId);
    if (shotId && !shot) throw new NotFoundException('This shot does not belong to the listing.');
    await this.edit(listingId, shot ? `Fill from ${shot.title}` : 'Empty a slot', (state) =>
      feedSlot(state, slotKey, shotId),
    );
  }

  /** Gives several slots to shots at once, as one step. */
  async feedAll(listingId: string, feeds: ReadonlyMap<string, string>, label: string) {
    if (feeds.size)
      await this.edit(listingId, label, (state) => {
        for (const [slotKey, shotId] of feeds) feedSlot(state, slotKey, shotId);
      });
  }

  /** Gives every slot that nothing fills to the shot that suits its rules best. @returns how many were filled */
  async fill(listingId: string): Promise<{ filled: number; left: number }> {
    const plan = await planListing(this.db, listingId);
    const rows = await this.db
      .select({ id: shots.id, feeds: shots.feeds })
      .from(shots)
      .where(eq(shots.listingId, listingId));
    const fed = new Set(rows.flatMap((r) => r.feeds));
    const empty = plan.slots.filter((s) => !fed.has(s.key));
    const chosen = feedByRule(empty, plan.shots);
    await this.feedAll(listingId, chosen, 'Fill empty slots');
    return { filled: chosen.size, left: empty.length - chosen.size };
  }

  /** How a slot's pictures are written; null leaves it to the slot again. */
  async encode(listingId: string, slotKey: string, encoding: Encoding | null) {
    const plan = await planListing(this.db, listingId);
    const found = plan.slots.find((s) => s.key === slotKey);
    if (!found) throw new NotFoundException(`This listing has no slot "${slotKey}".`);
    if (encoding?.format && !found.slot.formats.includes(encoding.format))
      throw new UnprocessableEntityException(
        `"${found.slot.title}" takes ${found.slot.formats.join(', ')}, not ${encoding.format}.`,
      );
    await this.edit(listingId, `Encoding of ${found.slot.title}`, (state) => {
      if (encoding) state.encodings[slotKey] = encoding;
      else delete state.encodings[slotKey];
    });
  }

  async turn(listingId: string, way: 'undo' | 'redo') {
    await planListing(this.db, listingId);
    const label = await turnEdit(this.db, scopeOf(listingId), way, (tx, state) =>
      this.apply(tx, listingId, state as BoardState),
    );
    if (label) await announce(this.pool, { topic: 'listing', id: listingId });
    return { label };
  }

  async waive(
    listingId: string,
    body: { slotKey: string; variantId: string | null; check: string; reason: string },
  ) {
    await planListing(this.db, listingId);
    const same = and(
      eq(waivers.listingId, listingId),
      eq(waivers.slotKey, body.slotKey),
      eq(waivers.check, body.check),
      body.variantId ? eq(waivers.variantId, body.variantId) : isNull(waivers.variantId),
    );
    await this.db.delete(waivers).where(same);
    const [made] = await this.db
      .insert(waivers)
      .values({ listingId, ...body })
      .returning();
    await announce(this.pool, { topic: 'listing', id: listingId });
    return made;
  }

  async withdrawWaiver(listingId: string, id: string) {
    await this.db.delete(waivers).where(and(eq(waivers.id, id), eq(waivers.listingId, listingId)));
    await announce(this.pool, { topic: 'listing', id: listingId });
    return { removed: id };
  }

  waiverRows(listingId: string) {
    return this.db
      .select()
      .from(waivers)
      .where(eq(waivers.listingId, listingId))
      .orderBy(asc(waivers.createdAt));
  }

  async waivers(listingId: string): Promise<Waiver[]> {
    return (await this.waiverRows(listingId)).map(({ slotKey, variantId, check, reason }) => ({
      slotKey,
      variantId,
      check,
      reason,
    }));
  }

  private async edit(listingId: string, label: string, change: (state: BoardState) => void): Promise<void> {
    await this.db.transaction(async (tx) => {
      const before = await this.state(tx, listingId);
      const after = structuredClone(before);
      change(after);
      if (JSON.stringify(before) === JSON.stringify(after)) return;
      await this.apply(tx, listingId, after);
      await keepEdit(tx, scopeOf(listingId), label, before, after);
    });
    await announce(this.pool, { topic: 'listing', id: listingId });
  }

  private async state(tx: Transaction, listingId: string): Promise<BoardState> {
    const [listing] = await tx.select().from(listings).where(eq(listings.id, listingId)).for('update');
    const rows = await tx
      .select({ id: shots.id, feeds: shots.feeds })
      .from(shots)
      .where(eq(shots.listingId, listingId));
    const cells = await tx.select().from(cellFeeds).where(eq(cellFeeds.listingId, listingId));
    return {
      feeds: Object.fromEntries(rows.map((r) => [r.id, r.feeds])),
      cells: cells.map(({ variantId, slotKey, shotId }) => ({ variantId, slotKey, shotId })),
      encodings: listing.encodings,
    };
  }

  /** Puts a board's state in place; what it names and is not there any more is left out. */
  private async apply(tx: Transaction, listingId: string, state: BoardState): Promise<void> {
    const now = await this.state(tx, listingId);
    for (const id of Object.keys(now.feeds)) {
      const feeds = state.feeds[id] ?? [];
      if (JSON.stringify(now.feeds[id]) !== JSON.stringify(feeds))
        await tx
          .update(shots)
          .set({ feeds, updatedAt: sql`now()` })
          .where(eq(shots.id, id));
    }
    await tx.update(listings).set({ encodings: state.encodings }).where(eq(listings.id, listingId));
    const present = await tx.execute<{ id: string }>(
      sql`select v.id from variants v join listings l on l.product_id = v.product_id where l.id = ${listingId}`,
    );
    const variantIds = new Set(present.rows.map((r) => r.id));
    const rows = state.cells.filter(
      (c) => variantIds.has(c.variantId) && (c.shotId === null || c.shotId in now.feeds),
    );
    await tx.delete(cellFeeds).where(eq(cellFeeds.listingId, listingId));
    for (let i = 0; i < rows.length; i += 1000)
      await tx.insert(cellFeeds).values(rows.slice(i, i + 1000).map((c) => ({ listingId, ...c })));
  }
}

const scopeOf = (listingId: string) => `board:${listingId}`;

function feedSlot(state: BoardState, slotKey: string, shotId: string | null): void {
  for (const [id, feeds] of Object.entries(state.feeds)) {
    const others = feeds.filter((f) => f !== slotKey);
    state.feeds[id] = id === shotId ? [...others, slotKey] : others;
  }
}
