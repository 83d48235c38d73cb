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
import { tidySchema, type Tidy } from '@scenograph/core/retouch/tidy';
import type { Request, Response } from 'express';
import Joi from 'joi';
import type { History } from '../database/schema';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { CUTOUT_FORMATS, type CutoutFormat } from './cutout-file';
import { PhotosService, readBody, type PhotoTidy } from './photos.service';

const named = Joi.object({ name: Joi.string().max(255).required() });
const many = { ids: Joi.array().items(Joi.string().uuid()).min(1).max(2000).required() };
const outline = Joi.object({
  name: Joi.string().max(255).required(),
  title: Joi.string().trim().min(1).max(80).required(),
});
const edits = Joi.array()
  .items(
    Joi.object({
      label: Joi.string().max(200).required(),
      forward: Joi.array().required(),
      inverse: Joi.array().required(),
    }),
  )
  .max(200)
  .required();
const format = Joi.string()
  .valid(...CUTOUT_FORMATS)
  .required();
const restoring = Joi.object({
  photos: Joi.array()
    .items(Joi.object({ id: Joi.string().uuid().required(), tidy: tidySchema.required() }))
    .min(1)
    .max(2000)
    .required(),
});
const saving = Joi.object({
  revision: Joi.number().integer().min(1).required(),
  recipe: Joi.object().unknown(true).required(),
  history: Joi.object({ past: edits, future: edits }).required(),
});

@Controller('api/photos')
export class PhotosController {
  constructor(@Inject(PhotosService) private readonly photos: PhotosService) {}

  @Get()
  list() {
    return this.photos.list();
  }

  /** One file a request, its bytes as they are. */
  @Post()
  async take(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    return this.photos.take(name, await readBody(request, name));
  }

  @Post('cutouts')
  cutOut(
    @Body(validated(Joi.object({ ...many, changedOnly: Joi.boolean().default(false) })))
    { ids, changedOnly }: { ids: string[]; changedOnly: boolean },
  ) {
    return changedOnly ? this.photos.cutOutChanged(ids) : this.photos.cutOut(ids);
  }

  @Post('cutouts/cancel')
  cancel() {
    return this.photos.cancel();
  }

  @Post('accepted')
  accept(
    @Body(validated(Joi.object({ ...many, accepted: Joi.boolean().required() })))
    { ids, accepted }: { ids: string[]; accepted: boolean },
  ) {
    return this.photos.accept(ids, accepted);
  }

  @Post('tidy')
  tidy(
    @Body(validated(Joi.object({ ...many, tidy: tidySchema.required() })))
    { ids, tidy }: { ids: string[]; tidy: Tidy },
  ) {
    return this.photos.tidyMany(ids, tidy);
  }

  @Post('tidy/restore')
  restoreTidy(@Body(validated(restoring)) { photos }: { photos: PhotoTidy[] }) {
    return this.photos.restoreTidy(photos);
  }

  /** Many cutouts as one ZIP. */
  @Get('files')
  async files(
    @Query(validated(Joi.object({ ids: Joi.string().required(), format })))
    query: { ids: string; format: CutoutFormat },
    @Res() response: Response,
  ) {
    const ids = query.ids.split(',').filter((id) => /^[0-9a-f-]{36}$/i.test(id));
    response.attachment(`cutouts-${query.format}.zip`);
    (await this.photos.files(ids, query.format)).pipe(response);
  }

  @Get(':id')
  one(@Param('id', IdPipe) id: string) {
    return this.photos.one(id);
  }

  @Get(':id/file')
  async file(
    @Param('id', IdPipe) id: string,
    @Query(validated(Joi.object({ format }))) query: { format: CutoutFormat },
    @Res() response: Response,
  ) {
    const { name, mime, bytes } = await this.photos.file(id, query.format);
    response.attachment(name).type(mime).send(bytes);
  }

  @Get(':id/desk')
  desk(@Param('id', IdPipe) id: string) {
    return this.photos.desk(id);
  }

  @Put(':id/recipe')
  save(
    @Param('id', IdPipe) id: string,
    @Body(validated(saving)) body: { revision: number; recipe: unknown; history: History },
  ) {
    return this.photos.saveRecipe(id, body);
  }

  @Post(':id/outlines')
  async keepOutline(
    @Param('id', IdPipe) id: string,
    @Query(validated(outline)) { name, title }: { name: string; title: string },
    @Req() request: Request,
  ) {
    return this.photos.keepOutline(id, title, name, await readBody(request, name));
  }

  @Get(':id/outlines/:outline/svg')
  @Header('Content-Type', 'image/svg+xml')
  async outlineSvg(
    @Param('id', IdPipe) id: string,
    @Param('outline', IdPipe) outlineId: string,
    @Res() response: Response,
  ) {
    const { title, svg } = await this.photos.outlineSvg(id, outlineId);
    response.attachment(`${title.replace(/[^\w-]+/g, '-')}.svg`).send(svg);
  }

  @Delete(':id/outlines/:outline')
  async removeOutline(@Param('id', IdPipe) id: string, @Param('outline', IdPipe) outlineId: string) {
    await this.photos.removeOutline(id, outlineId);
    return { removed: outlineId };
  }

  @Post(':id/replace')
  async replace(
    @Param('id', IdPipe) id: string,
    @Query(validated(named)) { name }: { name: string },
    @Req() request: Request,
  ) {
    return this.photos.replace(id, name, await readBody(request, name));
  }

  @Delete(':id')
  async remove(@Param('id', IdPipe) id: string) {
    await this.photos.remove(id);
    return { removed: id };
  }
}
