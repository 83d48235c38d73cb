import { Controller, Inject } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { desc, eq } from 'drizzle-orm';
import { remove } from '../bin/bin';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { shown } from '../database/rows';
import { templates } from '../database/schema';
import { Call, On } from '../http/route';
import { readOrRefuse } from '../listings/listings.service';

/** Templates: the designs that ship, and one's own. */
@Controller()
export class TemplatesController {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  @On('GET /api/templates')
  async list() {
    const own = await this.db
      .select()
      .from(templates)
      .where(eq(templates.workspaceId, WORKSPACE))
      .orderBy(desc(templates.createdAt));
    return [...own.map((t) => ({ ...shown(t), own: true })), ...DESIGNS.map((t) => ({ ...t, own: false }))];
  }

  @On('POST /api/templates')
  async keep(@Call() { body }: CallOf<'POST /api/templates'>) {
    const [made] = await this.db
      .insert(templates)
      .values({ ...body, workspaceId: WORKSPACE, document: readOrRefuse(body.document) })
      .returning();
    return { ...shown(made), own: true };
  }

  @On('DELETE /api/templates/:id')
  remove(@Call() { params: { id } }: CallOf<'DELETE /api/templates/:id'>) {
    return remove(this.db, 'template', id);
  }
}
