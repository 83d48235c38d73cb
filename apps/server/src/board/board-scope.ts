import type { Encoding } from '@scenograph/core/delivery/encoding';
import { NotFoundException } from '@nestjs/common';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Transaction } from '../database/database';
import { cellFeeds, listings, shots, variants, waivers } from '../database/schema';
import type { Scope } from '../edits/edits';
import type { Pieces } from '../edits/pieces';

type Waiver = Omit<typeof waivers.$inferSelect, 'createdAt' | 'listingId'>;

/**
 * What of a listing can be changed and taken back, in pieces: which shots fill a slot or a cell, how files are written,
 * which checks are waived, and what listing and shots are called.
 */
const KEYS = {
  slot: (slotKey: string) => `slot:${slotKey}`,
  cell: (variantId: string, slotKey: string) => `cell:${variantId}:${slotKey}`,
  encoding: (slotKey: string) => `encoding:${slotKey}`,
  waiver: ({ slotKey, variantId, check }: Pick<Waiver, 'slotKey' | 'variantId' | 'check'>) =>
    `waiver:${variantId ?? 'all'}:${encodeURIComponent(check)}:${slotKey}`,
  shotTitle: (shotId: string) => `shot-title:${shotId}`,
  shotAlt: (shotId: string) => `shot-alt:${shotId}`,
};
const [TITLE, SHEETS] = ['title', 'sheets'];

export const slotPiece = KEYS.slot;
export const boardScopeName = (listingId: string) => `board:${listingId}`;

/** The part of a key behind its kind, where it is of that kind. */
const rest = (kind: string, key: string) =>
  key.startsWith(`${kind}:`) ? key.slice(kind.length + 1) : undefined;

/** A board as it is changed. */
export class Draft {
  readonly pieces: Record<string, unknown>;

  constructor(now: Pieces) {
    this.pieces = { ...now };
  }

  feedSlot(slotKey: string, shotId: string | null): void {
    this.put(KEYS.slot(slotKey), shotId ? [shotId] : undefined);
  }

  isFed(slotKey: string): boolean {
    return Object.hasOwn(this.pieces, KEYS.slot(slotKey));
  }

  /** `undefined` lets the cell follow its slot. */
  feedCell(variantId: string, slotKey: string, shotId: string | null | undefined): void {
    this.put(KEYS.cell(variantId, slotKey), shotId);
  }

  encode(slotKey: string, encoding: Encoding | null): void {
    this.put(KEYS.encoding(slotKey), encoding ?? undefined);
  }

  waive(waiver: Waiver): void {
    this.put(KEYS.waiver(waiver), waiver);
  }

  withdraw(waiver: Waiver): void {
    this.put(KEYS.waiver(waiver), undefined);
  }

  describe({ title, sheets }: { title?: string; sheets?: string[] }): void {
    if (title !== undefined) this.put(TITLE, title);
    if (sheets) this.put(SHEETS, sheets);
  }

  describeShot(shotId: string, { title, alt }: { title?: string; alt?: string }): void {
    if (title !== undefined) this.put(KEYS.shotTitle(shotId), title);
    if (alt !== undefined) this.put(KEYS.shotAlt(shotId), alt);
  }

  private put(key: string, value: unknown): void {
    if (value === undefined) delete this.pieces[key];
    else this.pieces[key] = value;
  }
}

export const boardScope = (listingId: string): Scope => ({
  name: boardScopeName(listingId),
  word: 'board',
  read: (tx) => readBoard(tx, listingId),
  write: (tx, next, keys) => writeBoard(tx, listingId, next, keys),
});

async function readBoard(tx: Transaction, listingId: string): Promise<Pieces> {
  const [listing] = await tx.select().from(listings).where(eq(listings.id, listingId));
  if (!listing) throw new NotFoundException('This listing is not here any more.');
  const pieces: Record<string, unknown> = { [TITLE]: listing.title, [SHEETS]: listing.sheets };
  for (const [slotKey, encoding] of Object.entries(listing.encodings))
    pieces[KEYS.encoding(slotKey)] = encoding;
  const own = await tx
    .select({ id: shots.id, title: shots.title, alt: shots.alt, feeds: shots.feeds })
    .from(shots)
    .where(eq(shots.listingId, listingId))
    .orderBy(shots.id);
  for (const { id, title, alt, feeds } of own) {
    pieces[KEYS.shotTitle(id)] = title;
    pieces[KEYS.shotAlt(id)] = alt;
    for (const slotKey of feeds) {
      const key = KEYS.slot(slotKey);
      pieces[key] = [...((pieces[key] as string[] | undefined) ?? []), id];
    }
  }
  const cells = await tx.select().from(cellFeeds).where(eq(cellFeeds.listingId, listingId));
  for (const { variantId, slotKey, shotId } of cells) pieces[KEYS.cell(variantId, slotKey)] = shotId;
  for (const { createdAt: _, listingId: __, ...waiver } of await tx
    .select()
    .from(waivers)
    .where(eq(waivers.listingId, listingId)))
    pieces[KEYS.waiver(waiver)] = waiver;
  return pieces;
}

/** Puts pieces in place; what they name and is not there any more is left out. */
async function writeBoard(
  tx: Transaction,
  listingId: string,
  next: Pieces,
  keys: ReadonlySet<string>,
): Promise<void> {
  const changed = (kind: string) =>
    [...keys].flatMap((key) => {
      const behind = rest(kind, key);
      return behind === undefined ? [] : [[behind, next[key]] as const];
    });
  const encodings = changed('encoding');
  if (keys.has(TITLE) || keys.has(SHEETS) || encodings.length)
    await tx
      .update(listings)
      .set({
        title: next[TITLE] as string,
        sheets: next[SHEETS] as string[],
        encodings: Object.fromEntries(
          Object.entries(next).flatMap(([key, value]) => {
            const slotKey = rest('encoding', key);
            return slotKey === undefined ? [] : [[slotKey, value as Encoding]];
          }),
        ),
      })
      .where(eq(listings.id, listingId));
  await writeShots(tx, listingId, next, changed('slot'), [...changed('shot-title'), ...changed('shot-alt')]);
  await writeCells(tx, listingId, changed('cell'));
  for (const [key, value] of changed('waiver')) {
    await tx.delete(waivers).where(and(eq(waivers.listingId, listingId), isWaiver(key)));
    if (value) await tx.insert(waivers).values({ listingId, ...(value as Waiver) });
  }
}

function isWaiver(key: string) {
  const [variantId, check] = key.split(':', 2);
  const slotKey = key.slice(variantId.length + check.length + 2);
  return and(
    eq(waivers.slotKey, slotKey),
    eq(waivers.check, decodeURIComponent(check)),
    variantId === 'all' ? sql`${waivers.variantId} is null` : eq(waivers.variantId, variantId),
  );
}

async function writeShots(
  tx: Transaction,
  listingId: string,
  next: Pieces,
  slots: readonly (readonly [string, unknown])[],
  words: readonly (readonly [string, unknown])[],
): Promise<void> {
  if (!slots.length && !words.length) return;
  const fed = new Map(slots.map(([slotKey, ids]) => [slotKey, new Set((ids as string[] | undefined) ?? [])]));
  const described = new Set(words.map(([id]) => id));
  const own = await tx
    .select({ id: shots.id, feeds: shots.feeds })
    .from(shots)
    .where(eq(shots.listingId, listingId))
    .orderBy(shots.id)
    .for('update');
  for (const { id, feeds } of own) {
    const kept = feeds.filter((slotKey) => fed.get(slotKey)?.has(id) ?? true);
    const added = [...fed].filter(([key, ids]) => ids.has(id) && !feeds.includes(key)).map(([key]) => key);
    if (kept.length === feeds.length && !added.length && !described.has(id)) continue;
    const title = next[KEYS.shotTitle(id)] as string | undefined;
    const alt = next[KEYS.shotAlt(id)] as string | undefined;
    await tx
      .update(shots)
      .set({ feeds: [...kept, ...added], title, alt, updatedAt: sql`now()` })
      .where(eq(shots.id, id));
  }
}

async function writeCells(
  tx: Transaction,
  listingId: string,
  cells: readonly (readonly [string, unknown])[],
): Promise<void> {
  if (!cells.length) return;
  const parsed = cells.map(([key, shotId]) => {
    const [variantId] = key.split(':', 1);
    return {
      variantId,
      slotKey: key.slice(variantId.length + 1),
      shotId: shotId as string | null | undefined,
    };
  });
  const [{ productId }] = await tx.select().from(listings).where(eq(listings.id, listingId));
  const idsOf = (rows: { id: string }[]) => new Set(rows.map((r) => r.id));
  const present = idsOf(
    await tx.select({ id: variants.id }).from(variants).where(eq(variants.productId, productId)),
  );
  const own = idsOf(await tx.select({ id: shots.id }).from(shots).where(eq(shots.listingId, listingId)));
  const bySlot = new Map<string, string[]>();
  for (const { variantId, slotKey } of parsed)
    bySlot.set(slotKey, [...(bySlot.get(slotKey) ?? []), variantId]);
  for (const [slotKey, variantIds] of bySlot)
    await tx
      .delete(cellFeeds)
      .where(
        and(
          eq(cellFeeds.listingId, listingId),
          eq(cellFeeds.slotKey, slotKey),
          inArray(cellFeeds.variantId, variantIds),
        ),
      );
  const rows = parsed.flatMap(({ variantId, slotKey, shotId }) =>
    shotId !== undefined && present.has(variantId) && (shotId === null || own.has(shotId))
      ? [{ listingId, variantId, slotKey, shotId }]
      : [],
  );
  for (let i = 0; i < rows.length; i += 1000) await tx.insert(cellFeeds).values(rows.slice(i, i + 1000));
}
