import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import type { By, CallOf } from '@scenograph/contract';
import type { Encoding } from '@scenograph/core/delivery/encoding';
import { cellFitKey } from '@scenograph/core/shot/resolve';
import { judgeMeasures, withWaivers, type Waiver } from '@scenograph/core/spec/checks/index';
import { feedByRule } from '@scenograph/core/spec/feed-by-rule';
import { and, asc, eq } from 'drizzle-orm';
import type pg from 'pg';
import { remove } from '../bin/bin';
import { DATABASE, POOL, type Database } from '../database/database';
import { paintings, shots, waivers } from '../database/schema';
import { change, editState, revisionOf, turn } from '../edits/edits';
import { announce } from '../events/events';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { boardScope, boardScopeName, Draft } from './board-scope';
import { cellId, planListing } from './plan';
import { standings, type CellState } from './states';

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
  async board(listingId: string, editor: string | null) {
    // Read first: what is changed meanwhile is shown with an older revision, and not lost to a change based on it.
    const revision = await revisionOf(this.db, boardScopeName(listingId));
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
      edits: await editState(this.db, boardScopeName(listingId), editor),
      revision,
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
  async assign(listingId: string, choice: CellChoice[], shotId: string | null, by: By) {
    const plan = await planListing(this.db, listingId);
    if (shotId && shotId !== 'slot' && !plan.shots.some((s) => s.id === shotId))
      throw new NotFoundException('This shot does not belong to the listing.');
    const slots = new Set(plan.slots.map((s) => s.key));
    const variantIds = new Set(plan.variants.map((v) => v.id));
    const bySlot = new Map<string, Set<string>>();
    for (const { slotKey, variantId } of choice) {
      if (!slots.has(slotKey)) throw new NotFoundException(`This listing has no slot "${slotKey}".`);
      if (!variantIds.has(variantId))
        throw new NotFoundException('A chosen variant does not belong to the listing any more.');
      bySlot.set(slotKey, (bySlot.get(slotKey) ?? new Set()).add(variantId));
    }
    const title = plan.shots.find((s) => s.id === shotId)?.title;
    const label = shotId === 'slot' ? 'Follow the slot' : title ? `Fill from ${title}` : 'Empty cells';
    return this.edit(listingId, label, by, (draft) => {
      for (const [slotKey, chosen] of bySlot) {
        const whole = chosen.size === plan.variants.length;
        for (const variantId of chosen)
          draft.feedCell(variantId, slotKey, shotId === 'slot' || whole ? undefined : shotId);
        if (whole && shotId !== 'slot') draft.feedSlot(slotKey, shotId);
      }
    });
  }

  /** Gives a whole slot to a shot or to none; cells that say otherwise keep to it. */
  async feed(listingId: string, slotKey: string, shotId: string | null, by: By) {
    const plan = await planListing(this.db, listingId);
    if (!plan.slots.some((s) => s.key === slotKey))
      throw new NotFoundException(`This listing has no slot "${slotKey}".`);
    const shot = plan.shots.find((s) => s.id === shotId);
    if (shotId && !shot) throw new NotFoundException('This shot does not belong to the listing.');
    return this.edit(listingId, shot ? `Fill from ${shot.title}` : 'Empty a slot', by, (draft) =>
      draft.feedSlot(slotKey, shotId),
    );
  }

  /** Gives several slots to shots at once, as one step. */
  async feedAll(listingId: string, feeds: ReadonlyMap<string, string>, label: string, by: By) {
    return this.edit(listingId, label, by, (draft) => {
      for (const [slotKey, shotId] of feeds) draft.feedSlot(slotKey, shotId);
    });
  }

  /** Gives every slot that nothing fills to the shot that suits its rules best. @returns how many were filled */
  async fill(listingId: string, by: By) {
    const plan = await planListing(this.db, listingId);
    const rows = await this.db
      .select({ id: shots.id, feeds: shots.feeds })
      .from(shots)
      .where(eq(shots.listingId, listingId));
    const fed = new Set(rows.flatMap((r) => r.feeds));
    const empty = plan.slots.filter((s) => !fed.has(s.key));
    const chosen = feedByRule(empty, plan.shots);
    const revision = await this.edit(listingId, 'Fill empty slots', by, (draft) => {
      // One that somebody has filled meanwhile is theirs.
      for (const [slotKey, shotId] of chosen) if (!draft.isFed(slotKey)) draft.feedSlot(slotKey, shotId);
    });
    return { filled: chosen.size, left: empty.length - chosen.size, revision };
  }

  /** How a slot's pictures are written; null leaves it to the slot again. */
  async encode(listingId: string, slotKey: string, encoding: Encoding | null, by: By) {
    const plan = await planListing(this.db, listingId);
    const found = plan.slots.find((s) => s.key === slotKey);
    if (!found) throw new NotFoundException(`This listing has no slot "${slotKey}".`);
    if (encoding?.format && !found.slot.formats.includes(encoding.format))
      throw new UnprocessableEntityException(
        `"${found.slot.title}" takes ${found.slot.formats.join(', ')}, not ${encoding.format}.`,
      );
    return this.edit(listingId, `Encoding of ${found.slot.title}`, by, (draft) =>
      draft.encode(slotKey, encoding),
    );
  }

  /** Changes a listing's name, or the spec sheets that it is made for. */
  async describe(listingId: string, patch: { title?: string; sheets?: string[] }, by: By) {
    await planListing(this.db, listingId);
    const known = new Set((await allSheets(this.db)).map((s) => s.id));
    const unknown = patch.sheets?.find((id) => !known.has(id));
    if (unknown) throw new UnprocessableEntityException(`There is no spec sheet "${unknown}".`);
    const label = patch.title === undefined ? 'Spec sheets of the listing' : 'Name of the listing';
    return this.edit(listingId, label, by, (draft) => draft.describe(patch));
  }

  /** Changes a shot's name, or the alternative text of its pictures. */
  async describeShot(
    listingId: string,
    shotId: string,
    patch: { title?: string; alt?: string },
    by: By,
  ): Promise<number> {
    const label = patch.title === undefined ? 'Alternative text of a shot' : 'Name of a shot';
    return this.edit(listingId, label, by, (draft) => draft.describeShot(shotId, patch));
  }

  async remove(listingId: string, { revision }: By) {
    const done = await remove(this.db, 'listing', listingId, revision);
    await announce(this.pool, { topic: 'listing', id: listingId });
    return done;
  }

  async turn(listingId: string, way: 'undo' | 'redo', by: By) {
    await planListing(this.db, listingId);
    const done = await turn(this.db, boardScope(listingId), by, way);
    if (done.label) await announce(this.pool, { topic: 'listing', id: listingId });
    return done;
  }

  async waive(
    listingId: string,
    body: { slotKey: string; variantId: string | null; check: string; reason: string },
    by: By,
  ) {
    await planListing(this.db, listingId);
    const id = crypto.randomUUID();
    const revision = await this.edit(listingId, `Waive ${body.check}`, by, (draft) =>
      draft.waive({ id, ...body }),
    );
    const [made] = await this.db.select().from(waivers).where(eq(waivers.id, id));
    if (!made) throw new NotFoundException('This waiver was withdrawn at the same moment.');
    return { ...made, revision };
  }

  async withdrawWaiver(listingId: string, id: string, by: By) {
    const [waiver] = await this.db
      .select()
      .from(waivers)
      .where(and(eq(waivers.id, id), eq(waivers.listingId, listingId)));
    if (!waiver) throw new NotFoundException('This waiver is not here any more.');
    const revision = await this.edit(listingId, `Withdraw the waiver of ${waiver.check}`, by, (draft) =>
      draft.withdraw(waiver),
    );
    return { removed: id, revision };
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

  private async edit(
    listingId: string,
    label: string,
    by: By,
    make: (draft: Draft) => void,
  ): Promise<number> {
    const revision = await change(this.db, boardScope(listingId), by, label, (now) => {
      const draft = new Draft(now);
      make(draft);
      return draft.pieces;
    });
    await announce(this.pool, { topic: 'listing', id: listingId });
    return revision;
  }
}
