import { Controller, Get, Inject, Post, Query, Req } from '@nestjs/common';
import type { Request } from 'express';
import { asc, eq } from 'drizzle-orm';
import Joi from 'joi';
import { MIME } from '@scenograph/host-node/read-picture';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { pictures, scenes } from '../database/schema';
import { validated } from '../http/validate';
import { readBody, takeOrRefuse } from '../photos/photos.service';

const named = Joi.object({ name: Joi.string().max(255).required() });

/** Scenes and the pictures that are laid over shots. */
@Controller('api')
export class LibraryController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) private readonly store: BlobStore,
  ) {}

  @Get('scenes')
  scenes() {
    return this.db
      .select()
      .from(scenes)
      .where(eq(scenes.workspaceId, WORKSPACE))
      .orderBy(asc(scenes.createdAt));
  }

  @Get('pictures')
  pictures() {
    return this.db
      .select()
      .from(pictures)
      .where(eq(pictures.workspaceId, WORKSPACE))
      .orderBy(asc(pictures.createdAt));
  }

  @Post('pictures')
  async take(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    const bytes = await readBody(request, name);
    const taken = await takeOrRefuse(name, bytes, ['svg', 'png', 'webp', 'jpeg']);
    const original = await this.store.put(bytes, MIME[taken.format]);
    const picture = taken.working ? await this.store.put(taken.working.bytes, taken.working.mime) : original;
    const [made] = await this.db
      .insert(pictures)
      .values({
        workspaceId: WORKSPACE,
        title: name.replace(/\.[^.]+$/, ''),
        original,
        picture,
        width: taken.width,
        height: taken.height,
      })
      .returning();
    return made;
  }
}
