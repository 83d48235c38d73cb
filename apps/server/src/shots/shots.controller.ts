import { Controller, Inject, NotFoundException, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Response } from 'express';
import { shown } from '../database/rows';
import { Call, On } from '../http/route';
import { sendStream } from '../http/send-stream';
import { ShotsService } from './shots.service';

const fileStem = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'shot';

@Controller()
export class ShotsController {
  constructor(@Inject(ShotsService) private readonly shots: ShotsService) {}

  @On('GET /api/shots/:id')
  async one(@Call() { params }: CallOf<'GET /api/shots/:id'>) {
    return shown(await this.shots.one(params.id));
  }

  @On('PUT /api/shots/:id')
  save(@Call() { params, body }: CallOf<'PUT /api/shots/:id'>) {
    return this.shots.save(params.id, body);
  }

  @On('PATCH /api/shots/:id')
  async describe(@Call() { params, body, by }: CallOf<'PATCH /api/shots/:id'>) {
    return shown(await this.shots.describe(params.id, body, by));
  }

  @On('POST /api/shots/:id/trials')
  trials(
    @Call() { params, body }: CallOf<'POST /api/shots/:id/trials'>,
    @Res({ passthrough: true }) response: Response,
  ) {
    return this.shots.trials(params.id, body, response);
  }

  @On('GET /api/shots/tried/:n')
  tried(@Call() { params }: CallOf<'GET /api/shots/tried/:n'>, @Res() response: Response): void {
    const file = this.shots.tried.get(params.n);
    if (!file) throw new NotFoundException('This trial is not kept any more; try again.');
    response
      .set({ 'Content-Type': `image/${file.format}`, 'Cache-Control': 'private, max-age=600' })
      .send(file.bytes);
  }

  @On('GET /api/shots/:id/layers')
  async layers(@Call() { params, query }: CallOf<'GET /api/shots/:id/layers'>, @Res() response: Response) {
    const { title, bytes } = await this.shots.layered(params.id, response, query.slot, query.variant);
    response
      .set({
        'Content-Type': 'image/openraster',
        'Content-Disposition': `attachment; filename="${fileStem(title)}.ora"`,
      })
      .send(bytes);
  }

  @On('POST /api/shots/:id/copy')
  async copy(@Call() { params, body }: CallOf<'POST /api/shots/:id/copy'>) {
    return shown(await this.shots.copy(params.id, body));
  }

  @On('DELETE /api/shots/:id')
  remove(@Call() { params, by }: CallOf<'DELETE /api/shots/:id'>) {
    return this.shots.remove(params.id, by);
  }

  @On('GET /api/shots/:id/picture')
  async picture(@Call() { params, query }: CallOf<'GET /api/shots/:id/picture'>, @Res() response: Response) {
    const bytes = await this.shots.paint(params.id, response, query.slot, query.variant, query.scale);
    response.set('Content-Type', 'image/png').send(bytes);
  }

  @On('GET /api/shots/:id/export')
  async export(@Call() { params, query }: CallOf<'GET /api/shots/:id/export'>, @Res() response: Response) {
    const { name, bytes } = await this.shots.export(params.id, query, response);
    response
      .set({
        'Content-Type': query.format === 'pdf' ? 'application/pdf' : `image/${query.format}`,
        'Content-Disposition': `attachment; filename="${name}"`,
      })
      .send(bytes);
  }

  @On('GET /api/shots/:id/bundle')
  async bundle(@Call() { params }: CallOf<'GET /api/shots/:id/bundle'>, @Res() response: Response) {
    const zip = await this.shots.bundle(params.id);
    response.set({
      'Content-Type': 'application/zip',
      'Content-Disposition': 'attachment; filename="shot.zip"',
    });
    sendStream(zip, response);
  }
}
