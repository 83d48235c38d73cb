import { BadRequestException, Controller, Inject, Req, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Intake } from '@scenograph/host-node/sandbox/operations';
import { asc, eq } from 'drizzle-orm';
import type { Request, Response } from 'express';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { takeIn } from '../blobs/take-in';
import { remove } from '../bin/bin';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { listed, shown } from '../database/rows';
import { effectSettings, pictures } from '../database/schema';
import { Call, On } from '../http/route';
import { INTAKE, receive } from '../http/incoming';
import { ScenesService, type Mask } from './scenes.service';

/** Scenes, the pictures that are laid over shots, and kept effects. */
@Controller()
export class LibraryController {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) readonly store: BlobStore,
    @Inject(INTAKE) readonly intake: Intake,
    @Inject(ScenesService) private readonly scenesService: ScenesService,
  ) {}

  @On('GET /api/scenes')
  async scenes() {
    return (await this.scenesService.list()).map(listed);
  }

  @On('GET /api/scenes/export.zip')
  async exportScenes(
    @Call() { query: { id } }: CallOf<'GET /api/scenes/export.zip'>,
    @Res() response: Response,
  ) {
    const zip = await this.scenesService.exportZip(id ? [id] : null);
    response.attachment('scenes.zip').type('application/zip').end(zip);
  }

  @On('POST /api/scenes/import')
  async importScenes(
    @Call() { query: { name } }: CallOf<'POST /api/scenes/import'>,
    @Req() request: Request,
  ) {
    return receive(request, name, (file) => this.scenesService.importZip(file));
  }

  @On('POST /api/scenes')
  async takeScene(@Call() { query: { name } }: CallOf<'POST /api/scenes'>, @Req() request: Request) {
    return listed(await receive(request, name, (file) => this.scenesService.take(file)));
  }

  @On('GET /api/scenes/:id')
  async scene(@Call() { params }: CallOf<'GET /api/scenes/:id'>) {
    return shown(await this.scenesService.one(params.id));
  }

  @On('PUT /api/scenes/:id')
  async changeScene(@Call() { params, body }: CallOf<'PUT /api/scenes/:id'>) {
    return listed(await this.scenesService.change(params.id, body));
  }

  @On('DELETE /api/scenes/:id')
  removeScene(@Call() { params: { id }, by }: CallOf<'DELETE /api/scenes/:id'>) {
    return this.scenesService.remove(id, by);
  }

  @On('POST /api/scenes/:id/mask/:mask')
  async mask(
    @Call() { params, query: { name }, by }: CallOf<'POST /api/scenes/:id/mask/:mask'>,
    @Req() request: Request,
  ) {
    const mask = maskOf(params.mask);
    return listed(
      await receive(request, name, (file) => this.scenesService.setMask(params.id, mask, file, by)),
    );
  }

  @On('POST /api/scenes/:id/mask/:mask/:photo')
  async maskFromPhoto(@Call() { params, by }: CallOf<'POST /api/scenes/:id/mask/:mask/:photo'>) {
    const mask = maskOf(params.mask);
    return listed(await this.scenesService.maskFromPhoto(params.id, mask, params.photo, by));
  }

  @On('POST /api/scenes/:id/mended')
  async mended(@Call() { params }: CallOf<'POST /api/scenes/:id/mended'>, @Req() request: Request) {
    return receive(request, 'mended.png', (file) => this.scenesService.setMended(params.id, file));
  }

  @On('GET /api/pictures')
  async pictures() {
    const rows = await this.db
      .select()
      .from(pictures)
      .where(eq(pictures.workspaceId, WORKSPACE))
      .orderBy(asc(pictures.createdAt));
    return rows.map(shown);
  }

  @On('POST /api/pictures')
  async take(@Call() { query: { name } }: CallOf<'POST /api/pictures'>, @Req() request: Request) {
    const { taken, original, working } = await receive(request, name, (file) =>
      takeIn(this, file, ['svg', 'png', 'webp', 'jpeg']),
    );
    const [made] = await this.db
      .insert(pictures)
      .values({
        workspaceId: WORKSPACE,
        title: name.replace(/\.[^.]+$/, ''),
        original,
        picture: working,
        width: taken.width,
        height: taken.height,
      })
      .returning();
    return shown(made);
  }

  @On('DELETE /api/pictures/:id')
  removePicture(@Call() { params }: CallOf<'DELETE /api/pictures/:id'>) {
    return remove(this.db, 'picture', params.id);
  }

  @On('GET /api/effects')
  async effects() {
    const rows = await this.db
      .select()
      .from(effectSettings)
      .where(eq(effectSettings.workspaceId, WORKSPACE))
      .orderBy(asc(effectSettings.createdAt));
    return rows.map(shown);
  }

  @On('POST /api/effects')
  async keepEffects(@Call() { body }: CallOf<'POST /api/effects'>) {
    const [made] = await this.db
      .insert(effectSettings)
      .values({ workspaceId: WORKSPACE, ...body })
      .returning();
    return shown(made);
  }

  @On('DELETE /api/effects/:id')
  forgetEffects(@Call() { params: { id } }: CallOf<'DELETE /api/effects/:id'>) {
    return remove(this.db, 'effects', id);
  }
}

function maskOf(word: string): Mask {
  if (word === 'occluder' || word === 'outline') return word;
  throw new BadRequestException(`A scene has the masks "occluder" and "outline", not "${word}".`);
}
