import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Request, Response } from 'express';
import { Call, On } from '../http/route';
import { sendStream } from '../http/send-stream';
import { shownPhoto } from './photo-row';
import { PhotosService } from './photos.service';
import { receive } from '../http/incoming';

@Controller()
export class PhotosController {
  constructor(@Inject(PhotosService) private readonly photos: PhotosService) {}

  @On('GET /api/photos')
  list(@Call() { query }: CallOf<'GET /api/photos'>) {
    return this.photos.list(query.from, query.limit);
  }

  /** One file a request, its bytes as they are. */
  @On('POST /api/photos')
  async take(@Call() { query: { name } }: CallOf<'POST /api/photos'>, @Req() request: Request) {
    return shownPhoto(await receive(request, name, (file) => this.photos.take(file)));
  }

  @On('POST /api/photos/cutouts')
  cutOut(@Call() { body: { ids, changedOnly } }: CallOf<'POST /api/photos/cutouts'>) {
    return changedOnly ? this.photos.cutOutChanged(ids) : this.photos.cutOut(ids);
  }

  @On('POST /api/photos/cutouts/cancel')
  cancel() {
    return this.photos.cancel();
  }

  @On('POST /api/photos/accepted')
  accept(@Call() { body }: CallOf<'POST /api/photos/accepted'>) {
    return this.photos.accept(body.ids, body.accepted, body.revisions);
  }

  @On('POST /api/photos/tidy')
  tidy(@Call() { body }: CallOf<'POST /api/photos/tidy'>) {
    return this.photos.tidyMany(body.ids, body.tidy, body.revisions);
  }

  @On('POST /api/photos/tidy/restore')
  restoreTidy(@Call() { body }: CallOf<'POST /api/photos/tidy/restore'>) {
    return this.photos.restoreTidy(body.photos);
  }

  @On('GET /api/photos/files')
  async files(@Call() { query }: CallOf<'GET /api/photos/files'>, @Res() response: Response) {
    const ids = query.ids.split(',').filter((id) => /^[0-9a-f-]{36}$/i.test(id));
    response.attachment(`cutouts-${query.format}.zip`);
    sendStream(await this.photos.zip(ids, query.format, response), response);
  }

  @On('GET /api/photos/:id')
  async one(@Call() { params }: CallOf<'GET /api/photos/:id'>) {
    return shownPhoto(await this.photos.one(params.id));
  }

  @On('GET /api/photos/:id/file')
  async file(@Call() { params, query }: CallOf<'GET /api/photos/:id/file'>, @Res() response: Response) {
    const { name, mime, bytes } = await this.photos.file(params.id, query.format, response);
    response.attachment(name).type(mime).send(bytes);
  }

  @On('GET /api/photos/:id/desk')
  desk(@Call() { params }: CallOf<'GET /api/photos/:id/desk'>) {
    return this.photos.desk(params.id);
  }

  @On('PUT /api/photos/:id/recipe')
  save(@Call() { params, body }: CallOf<'PUT /api/photos/:id/recipe'>) {
    return this.photos.saveRecipe(params.id, body);
  }

  @On('POST /api/photos/:id/outlines')
  async keepOutline(
    @Call() { params, query: { name, title } }: CallOf<'POST /api/photos/:id/outlines'>,
    @Req() request: Request,
  ) {
    return receive(request, name, (file) => this.photos.keepOutline(params.id, title, file));
  }

  @On('GET /api/photos/:id/outlines/:outline/svg')
  async outlineSvg(
    @Call() { params }: CallOf<'GET /api/photos/:id/outlines/:outline/svg'>,
    @Res() response: Response,
  ) {
    const { title, svg } = await this.photos.outlineSvg(params.id, params.outline, response);
    response
      .attachment(`${title.replace(/[^\w-]+/g, '-')}.svg`)
      .type('image/svg+xml')
      .send(Buffer.from(svg));
  }

  @On('DELETE /api/photos/:id/outlines/:outline')
  removeOutline(@Call() { params }: CallOf<'DELETE /api/photos/:id/outlines/:outline'>) {
    return this.photos.removeOutline(params.id, params.outline);
  }

  @On('POST /api/photos/:id/replace')
  async replace(
    @Call() { params, query: { name }, by }: CallOf<'POST /api/photos/:id/replace'>,
    @Req() request: Request,
  ) {
    return shownPhoto(await receive(request, name, (file) => this.photos.replace(params.id, file, by)));
  }

  @On('DELETE /api/photos/:id')
  remove(@Call() { params: { id }, by }: CallOf<'DELETE /api/photos/:id'>) {
    return this.photos.remove(id, by);
  }
}
