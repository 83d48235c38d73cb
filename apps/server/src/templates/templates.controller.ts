import { Body, Controller, Delete, Get, Inject, NotFoundException, Param, Post } from '@nestjs/common';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { PURPOSES, SEASONS, type Purpose, type Season } from '@scenograph/core/templates/template';
import { desc, eq } from 'drizzle-orm';
import Joi from 'joi';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { templates } from '../database/schema';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { readOrRefuse } from '../listings/listings.service';

const newTemplate = Joi.object({
  title: Joi.string().trim().min(1).max(120).required(),
  purpose: Joi.string()
    .valid(...PURPOSES)
    .allow(null)
    .required(),
  season: Joi.string()
    .valid(...SEASONS)
    .allow(null)
    .required(),
  document: Joi.object().unknown(true).required(),
});

/** Templates: the designs that ship, and one's own. */
@Controller('api/templates')
export class TemplatesController {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  @Get()
  async list() {
    const own = await this.db
      .select()
      .from(templates)
      .where(eq(templates.workspaceId, WORKSPACE))
      .orderBy(desc(templates.createdAt));
    return [...own.map((t) => ({ ...t, own: true })), ...DESIGNS.map((t) => ({ ...t, own: false }))];
  }

  @Post()
  async keep(
    @Body(validated(newTemplate))
    body: {
      title: string;
      purpose: Purpose | null;
      season: Season | null;
      document: unknown;
    },
  ) {
    const [made] = await this.db
      .insert(templates)
      .values({ ...body, workspaceId: WORKSPACE, document: readOrRefuse(body.document) })
      .returning();
    return { ...made, own: true };
  }

  @Delete(':id')
  async remove(@Param('id', IdPipe) id: string) {
    const [gone] = await this.db.delete(templates).where(eq(templates.id, id)).returning();
    if (!gone) throw new NotFoundException('This template is not here any more.');
    return { removed: id };
  }
}
