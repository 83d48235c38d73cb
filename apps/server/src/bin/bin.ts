import { ConflictException, NotFoundException } from '@nestjs/common';
import { getTableName, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { WORKSPACE, type Database, type Transaction } from '../database/database';
import {
  artworks,
  bin,
  cellFeeds,
  deliveries,
  deliveryCells,
  effectSettings,
  fonts,
  listings,
  madeCells,
  outlines,
  photos,
  pictures,
  products,
  recipeResults,
  recipes,
  scenes,
  shots,
  specSheets,
  specSheetVersions,
  templates,
  uploads,
  variants,
  waivers,
} from '../database/schema';
import { revisionOf } from '../edits/edits';
import { BIN_DAYS } from '../storage/collect';

interface Kind {
  table: PgTable & { id: PgColumn };
  /** Rows that are removed with it, those first that others of them name. */
  parts?: { table: PgTable; where: (id: string) => SQL }[];
  /** Rows that stay and name it, or one of its parts, no longer. */
  links?: { table: PgTable & { id: PgColumn }; by: PgColumn; where: (id: string) => SQL }[];
  /** Its revision, as it is stored. */
  revision?: (tx: Transaction, row: Record<string, unknown>) => Promise<unknown>;
}

const named = (table: PgTable) => sql.identifier(getTableName(table));
const by = (column: PgColumn) => (id: string) => sql`t.${sql.identifier(column.name)} = ${id}`;
const part = (table: PgTable, column: PgColumn) => ({ table, where: by(column) });
const link = (table: PgTable & { id: PgColumn }, column: PgColumn) => ({
  table,
  by: column,
  where: by(column),
});
const column = (name: string) => (_: Transaction, row: Record<string, unknown>) => Promise.resolve(row[name]);

/** What belongs to a listing, or to the listings that a column of theirs finds. */
const ofListings = (found: (id: string) => SQL) => {
  const within = (table: PgTable) => ({ table, where: (id: string) => sql`t.listing_id in (${found(id)})` });
  return {
    parts: [within(shots), within(cellFeeds), within(waivers), within(madeCells)],
    links: [{ table: deliveries, by: deliveries.listingId, where: within(deliveries).where }],
  };
};
const listingItself = ofListings((id) => sql`select ${id}::uuid`);
const listingsOfProduct = ofListings((id) => sql`select id from listings where product_id = ${id}`);

/** What can be removed and brought back. */
const KINDS = {
  photo: {
    table: photos,
    parts: [part(outlines, outlines.photoId)],
    links: [link(variants, variants.photoId)],
    revision: column('recipe_revision'),
  },
  outline: { table: outlines },
  shot: { table: shots, parts: [part(cellFeeds, cellFeeds.shotId)], revision: column('revision') },
  scene: { table: scenes, revision: column('revision') },
  artwork: { table: artworks, links: [link(variants, variants.artworkId)] },
  picture: { table: pictures },
  effects: { table: effectSettings },
  template: { table: templates },
  font: { table: fonts },
  recipe: {
    table: recipes,
    parts: [part(recipeResults, recipeResults.recipeId)],
    revision: column('revision'),
  },
  'spec sheet': {
    table: specSheets,
    parts: [part(specSheetVersions, specSheetVersions.id)],
    revision: async (_, row) => (row.sheet as { version: number }).version,
  },
  listing: {
    table: listings,
    ...listingItself,
    revision: (tx, row) => revisionOf(tx, `board:${row.id as string}`),
  },
  product: {
    table: products,
    parts: [
      part(variants, variants.productId),
      part(listings, listings.productId),
      ...listingsOfProduct.parts,
      part(recipeResults, recipeResults.productId),
    ],
    links: listingsOfProduct.links,
    revision: (tx, row) => revisionOf(tx, `data:${row.id as string}`),
  },
  delivery: {
    table: deliveries,
    parts: [part(deliveryCells, deliveryCells.deliveryId), part(uploads, uploads.deliveryId)],
    revision: column('revision'),
  },
} satisfies Record<string, Kind>;
export type BinKind = keyof typeof KINDS;

/** Rows as JSON, as they are stored; nobody changes them until the transaction ends. */
async function rowsOf(tx: Transaction, table: PgTable, where: SQL): Promise<Record<string, unknown>[]> {
  const { rows } = await tx.execute<{ row: Record<string, unknown> }>(
    sql`select to_jsonb(t) as row from ${named(table)} t where ${where} for update`,
  );
  return rows.map((r) => r.row);
}

/**
 * Removes a thing with all that belongs to it, and keeps it whole so that it can be brought back.
 * @param revision of the thing, as it was seen last; null for any
 * @throws NotFoundException where it is not there
 * @throws ConflictException where it was changed since
 */
export async function remove(
  db: Database,
  kind: BinKind,
  id: string,
  revision: number | null = null,
): Promise<{ removed: string }> {
  const { table, parts = [], links = [], revision: stands }: Kind = KINDS[kind];
  await db.transaction(async (tx) => {
    const [own] = await rowsOf(tx, table, by(table.id)(id));
    if (!own) throw new NotFoundException(`This ${kind} is not here any more.`);
    const now = await stands?.(tx, own);
    if (now !== undefined && revision !== null && now !== revision)
      throw new ConflictException({
        message: `This ${kind} was changed elsewhere since you saw it, and is not removed. Look at it again first.`,
        detail: { revision: now },
      });
    const rows = [{ table: getTableName(table), rows: [own] }];
    for (const { table, where } of parts)
      rows.push({ table: getTableName(table), rows: await rowsOf(tx, table, where(id)) });
    const naming: { table: string; column: string; ids: string[]; value: string }[] = [];
    for (const { table, by, where } of links) {
      const byValue = new Map<string, string[]>();
      for (const row of await rowsOf(tx, table, where(id))) {
        const value = row[by.name] as string;
        byValue.set(value, [...(byValue.get(value) ?? []), row.id as string]);
      }
      for (const [value, ids] of byValue)
        naming.push({ table: getTableName(table), column: by.name, ids, value });
    }
    await tx
      .delete(bin)
      .where(sql`${bin.id} = ${id} or ${bin.createdAt} < now() - ${`${BIN_DAYS} days`}::interval`);
    await tx.insert(bin).values({ id, workspaceId: WORKSPACE, kind, rows, links: naming });
    // What the database does not remove by itself goes first, and what names others before those.
    for (const { table, where } of [...parts].reverse())
      await tx.execute(sql`delete from ${named(table)} t where ${where(id)}`);
    await tx.execute(sql`delete from ${named(table)} t where ${by(table.id)(id)}`);
  });
  return { removed: id };
}

/** PostgreSQL's codes for a row that names nothing, lacks a value, or is there already. */
const UNFIT = ['23502', '23503', '23505'];

/**
 * Brings back what was removed, where it was; what names something else by now goes on doing so.
 * @throws NotFoundException where it is not kept any more
 * @throws ConflictException where what it belongs to is gone
 */
export async function restore(db: Database, id: string): Promise<{ restored: string; kind: string }> {
  try {
    return await db.transaction(async (tx) => {
      const [kept] = await tx
        .delete(bin)
        .where(sql`${bin.id} = ${id} and ${bin.workspaceId} = ${WORKSPACE}`)
        .returning();
      if (!kept) throw new NotFoundException('This is not kept any more, so it cannot be brought back.');
      for (const { table, rows } of kept.rows) {
        const name = sql.identifier(table);
        await tx.execute(
          sql`insert into ${name} select * from jsonb_populate_recordset(null::${name}, ${JSON.stringify(rows)}::jsonb)`,
        );
      }
      for (const { table, column, ids, value } of kept.links) {
        const [name, field] = [sql.identifier(table), sql.identifier(column)];
        await tx.execute(
          sql`update ${name} set ${field} = ${value ?? id} where ${field} is null and id = any(${sql.param(ids)}::uuid[])`,
        );
      }
      return { restored: id, kind: kept.kind };
    });
  } catch (error) {
    const { code } = ((error as Error).cause ?? error) as { code?: string };
    if (code && UNFIT.includes(code))
      throw new ConflictException('This cannot be brought back: what it belonged to was removed meanwhile.');
    throw error;
  }
}
