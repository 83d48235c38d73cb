import { Controller, Get, Inject } from '@nestjs/common';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import { asc, eq } from 'drizzle-orm';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { specSheets } from '../database/schema';

export async function allSheets(db: Database): Promise<SpecSheet[]> {
  const rows = await db
    .select()
    .from(specSheets)
    .where(eq(specSheets.workspaceId, WORKSPACE))
    .orderBy(asc(specSheets.position));
  return rows.map((r) => r.sheet);
}

@Controller('api/spec-sheets')
export class SpecSheetsController {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  @Get()
  list() {
    return allSheets(this.db);
  }
}
