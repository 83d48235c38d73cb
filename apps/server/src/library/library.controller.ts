import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  Inject,
  Param,
  Post,
  Put,
  Query,
  Req,
  Res,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { asc, eq } from 'drizzle-orm';
import Joi from 'joi';
import { surveySchema } from '@scenograph/core/stage/survey';
import { effectsSchema, type Effects } from '@scenograph/core/raster/effects';
import { MIME } from '@scenograph/host-node/read-picture';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { effectSettings, pictures } from '../database/schema';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { readBody, takeOrRefuse } from '../photos/photos.service';
import { ScenesService, type Mask, type SceneChange } from './scenes.service';

const named = Joi.object({ name: Joi.string().max(255).required() });
const masked = Joi.object({ mask: Joi.string().valid('occluder', 'outline').required() }).unknown(true);
const sceneChange = Joi.object({
  title: Joi.string().max(120).required(),
  survey: surveySchema.required(),
  palette: Joi.array()
    .items(Joi.string().pattern(/^#[0-9a-f]{6}$/i))
    .max(24)
    .required(),
  season: Joi.string().max(60).allow(null).required(),
});
const effectSetting = Joi.object({
  title: Joi.string().max(120).required(),
  effects: effectsSchema.required(),
});

/** Scenes, the pictures that are laid over shots, and kept effects. */
@Controller('api')
export class LibraryController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(ScenesService) private readonly scenesService: ScenesService,
  ) {}

  @Get('scenes')
  scenes() {
    return this.scenesService.list();
  }

  @Get('scenes/export.zip')
  @Header('Content-Type', 'application/zip')
  async exportScenes(@Query('id') id: string | undefined, @Res() response: Response) {
    const zip = await this.scenesService.exportZip(id ? [id] : null);
    response.setHeader('Content-Disposition', 'attachment; filename="scenes.zip"');
    response.end(zip);
  }

  @Post('scenes/import')
  async importScenes(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    return this.scenesService.importZip(name, await readBody(request, name));
  }

  @Post('scenes')
  async takeScene(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    return this.scenesService.take(name, await readBody(request, name));
  }

  @Get('scenes/:id')
  scene(@Param('id', IdPipe) id: string) {
    return this.scenesService.one(id);
  }

  @Put('scenes/:id')
  changeScene(@Param('id', IdPipe) id: string, @Body(validated(sceneChange)) change: SceneChange) {
    return this.scenesService.change(id, change);
  }

  @Delete('scenes/:id')
  async removeScene(@Param('id', IdPipe) id: string) {
    await this.scenesService.remove(id);
    return { removed: id };
  }

  @Post('scenes/:id/mask/:mask')
  async mask(
    @Param('id', IdPipe) id: string,
    @Param(validated(masked)) { mask }: { mask: Mask },
    @Query(validated(named)) { name }: { name: string },
    @Req() request: Request,
  ) {
    return this.scenesService.setMask(id, mask, name, await readBody(request, name));
  }

  @Post('scenes/:id/mask/:mask/:photo')
  maskOf(
    @Param('id', IdPipe) id: string,
    @Param(validated(masked)) { mask }: { mask: Mask },
    @Param('photo', IdPipe) photo: string,
  ) {
    return this.scenesService.maskFromPhoto(id, mask, photo);
  }

  @Post('scenes/:id/mended')
  async mended(@Param('id', IdPipe) id: string, @Req() request: Request) {
    return this.scenesService.setMended(id, await readBody(request, 'mended.png'));
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

  @Get('effects')
  effects() {
    return this.db
      .select()
      .from(effectSettings)
      .where(eq(effectSettings.workspaceId, WORKSPACE))
      .orderBy(asc(effectSettings.createdAt));
  }

  @Post('effects')
  async keepEffects(@Body(validated(effectSetting)) { title, effects }: { title: string; effects: Effects }) {
    const [made] = await this.db
      .insert(effectSettings)
      .values({ workspaceId: WORKSPACE, title, effects })
      .returning();
    return made;
  }

  @Delete('effects/:id')
  async forgetEffects(@Param('id', IdPipe) id: string) {
    await this.db.delete(effectSettings).where(eq(effectSettings.id, id));
    return { removed: id };
  }
}
