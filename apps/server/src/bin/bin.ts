import { ConflictException, NotFoundException } from '@nestjs/common';
import { getTableName, sql, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { WORKSPACE, type Database, type Transaction } from '../database/database';
import {
  artworks,
  bin,
  cellFeeds,
  effectSettings,
  fonts,
  outlines,
  photos,
  recipeResults,
  recipes,
  scenes,
  shots,
  specSheets,
  specSheetVersions,
  templates,
  variants,
} from '../database/schema';

/** Days after which what was removed cannot be brought back any more. */
const KEPT_DAYS = 30;

interface Kind {
  table: PgTable & { id: PgColumn };
  /** Rows that are removed with it, by the column that names it. */
  parts?: { table: PgTable; by: PgColumn }[];
  /** Rows that stay and name it no longer. */
  links?: { table: PgTable & { id: PgColumn }; by: PgColumn }[];
}

/** What can be removed and brought back. */
const KINDS = {
  photo: {
    table: photos,
    parts: [{ table: outlines, by: outlines.photoId }],
    links: [{ table: variants, by: variants.photoId }],
  },
  outline: { table: outlines },
  shot: { table: shots, parts: [{ table: cellFeeds, by: cellFeeds.shotId }] },
  scene: { table: scenes },
  artwork: { table: artworks, links: [{ table: variants, by: variants.artworkId }] },
  effects: { table: effectSettings },
  template: { table: templates },
  font: { table: fonts },
  recipe: { table: recipes, parts: [{ table: recipeResults, by: recipeResults.recipeId }] },
  'spec sheet': { table: specSheets, parts: [{ table: specSheetVersions, by: specSheetVersions.id }] },
} satisfies Record<string, Kind>;
export type BinKind = keyof typeof KINDS;

const named = (table: PgTable) => sql.identifier(getTableName(table));

/** Rows as JSON, as they are stored. */
async function rowsOf(tx: Transaction, table: PgTable, where: SQL): Promise<unknown[]> {
  const { rows } = await tx.execute<{ row: unknown }>(
    sql`select to_jsonb(t) as row from ${named(table)} t where ${where}`,
  );
  return rows.map((r) => r.row);
}

const by = (column: PgColumn, id: string) => sql`t.${sql.identifier(column.name)} = ${id}`;

/**
 * Removes a thing with all that belongs to it, and keeps it whole so that it can be brought back.
 * @throws NotFoundException where it is not there
 */
export async function remove(db: Database, kind: BinKind, id: string): Promise<{ removed: string }> {
  const { table, parts = [], links = [] }: Kind = KINDS[kind];
  await db.transaction(async (tx) => {
    const own = await rowsOf(tx, table, by(table.id, id));
    if (!own.length) throw new NotFoundException(`This ${kind} is not here any more.`);
    const rows = [{ table: getTableName(table), rows: own }];
    for (const part of parts)
      rows.push({ table: getTableName(part.table), rows: await rowsOf(tx, part.table, by(part.by, id)) });
    const naming: { table: string; column: string; ids: string[] }[] = [];
    for (const link of links) {
      const linked = (await rowsOf(tx, link.table, by(link.by, id))) as { id: string }[];
      naming.push({
        table: getTableName(link.table),
        column: link.by.name,
        ids: linked.map((row) => row.id),
      });
    }
    await tx
      .delete(bin)
      .where(sql`${bin.id} = ${id} or ${bin.createdAt} < now() - ${`${KEPT_DAYS} days`}::interval`);
    await tx.insert(bin).values({ id, workspaceId: WORKSPACE, kind, rows, links: naming });
    // What the database does not remove by itself goes first.
    for (const part of parts)
      await tx.execute(sql`delete from ${named(part.table)} t where ${by(part.by, id)}`);
    await tx.execute(sql`delete from ${named(table)} t where ${by(table.id, id)}`);
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
      for (const { table, column, ids } of kept.links) {
        const [name, field] = [sql.identifier(table), sql.identifier(column)];
        await tx.execute(
          sql`update ${name} set ${field} = ${id} where ${field} is null and id = any(${sql.param(ids)}::uuid[])`,
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
