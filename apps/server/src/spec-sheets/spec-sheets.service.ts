import type { By } from '@scenograph/contract';
import {
  ConflictException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
} from '@nestjs/common';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import { expandSlots, type SpecSheet } from '@scenograph/core/spec/slot';
import { and, asc, desc, eq, max, sql } from 'drizzle-orm';
import type pg from 'pg';
import { remove } from '../bin/bin';
import { DATABASE, POOL, WORKSPACE, type Database, type Transaction } from '../database/database';
import { listings, specSheets, specSheetVersions } from '../database/schema';
import { announce } from '../events/events';
import { refusalOf } from '../http/refusals';

/** Sheets as they were stored are read again, so that rules that came later have their usual values. */
const stored = (sheet: SpecSheet): SpecSheet => readSpecSheet(sheet);

let kept: { text: string; sheets: SpecSheet[] } | null = null;

/** All sheets with their slots apart, as pictures are asked for by them; the same objects until one changes. */
export async function allSheets(db: Database | Transaction): Promise<SpecSheet[]> {
  const rows = await db
    .select({ sheet: specSheets.sheet })
    .from(specSheets)
    .where(eq(specSheets.workspaceId, WORKSPACE))
    .orderBy(asc(specSheets.position));
  const text = JSON.stringify(rows);
  if (kept?.text !== text) kept = { text, sheets: rows.map((r) => expandSlots(stored(r.sheet))) };
  return kept.sheets;
}

@Injectable()
export class SpecSheetsService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
  ) {}

  async one(id: string): Promise<SpecSheet> {
    const [row] = await this.db.select().from(specSheets).where(this.named(id));
    if (!row) throw new NotFoundException(`There is no spec sheet "${id}".`);
    return stored(row.sheet);
  }

  /** A sheet with its earlier versions, the latest first. */
  async history(id: string) {
    const sheet = await this.one(id);
    const versions = await this.db
      .select({
        version: specSheetVersions.version,
        createdAt: specSheetVersions.createdAt,
        sheet: specSheetVersions.sheet,
      })
      .from(specSheetVersions)
      .where(and(eq(specSheetVersions.workspaceId, WORKSPACE), eq(specSheetVersions.id, id)))
      .orderBy(desc(specSheetVersions.version));
    return { sheet, versions: versions.map((v) => ({ ...v, sheet: stored(v.sheet) })) };
  }

  /** A new sheet; its id is made of its name where another has it already. */
  async add(value: unknown): Promise<SpecSheet> {
    const sheet = { ...this.read(value), version: 1 };
    const taken = new Set((await this.db.select({ id: specSheets.id }).from(specSheets)).map((r) => r.id));
    let id = sheet.id;
    for (let n = 2; taken.has(id); n++) id = `${sheet.id}-${n}`;
    const made = { ...sheet, id };
    await this.db.transaction(async (tx) => {
      const [last] = await tx.select({ at: max(specSheets.position) }).from(specSheets);
      await tx
        .insert(specSheets)
        .values({ workspaceId: WORKSPACE, id, position: (last.at ?? 0) + 1, sheet: made });
      await tx.insert(specSheetVersions).values({ workspaceId: WORKSPACE, id, version: 1, sheet: made });
    });
    return made;
  }

  /** Stores a sheet as its next version; refused where it was based on an earlier one. */
  async save(id: string, version: number, value: unknown): Promise<SpecSheet> {
    const sheet = this.read(value);
    const next = { ...sheet, id, version: version + 1 };
    const before = await this.one(id);
    if (JSON.stringify({ ...before, version: 0 }) === JSON.stringify({ ...next, version: 0 })) return before;
    await this.db.transaction(async (tx) => {
      const done = await tx
        .update(specSheets)
        .set({ sheet: next })
        .where(and(this.named(id), sql`(${specSheets.sheet}->>'version')::int = ${version}`))
        .returning({ id: specSheets.id });
      if (!done.length)
        throw new ConflictException({
          message: `"${before.marketplace}" is at version ${before.version} by now; you changed version ${version}. Nothing was saved over it.`,
          detail: { sheet: before },
        });
      await tx
        .insert(specSheetVersions)
        .values({ workspaceId: WORKSPACE, id, version: next.version, sheet: next });
    });
    await announce(this.pool, { topic: 'sheets', id });
    return next;
  }

  /** Takes a sheet away that no listing is made for. */
  async remove(id: string, { revision }: By) {
    const sheet = await this.one(id);
    const [used] = await this.db
      .select({ title: listings.title })
      .from(listings)
      .where(sql`${listings.sheets} ? ${id}`)
      .limit(1);
    if (used)
      throw new UnprocessableEntityException(
        `"${sheet.marketplace}" is still used by "${used.title}". Take it out of its listings first.`,
      );
    const done = await remove(this.db, 'spec sheet', id, revision);
    await announce(this.pool, { topic: 'sheets', id });
    return done;
  }

  private named(id: string) {
    return and(eq(specSheets.workspaceId, WORKSPACE), eq(specSheets.id, id));
  }

  private read(value: unknown): SpecSheet {
    try {
      return readSpecSheet(value);
    } catch (error) {
      throw refusalOf(error, 'The spec sheet');
    }
  }
}
