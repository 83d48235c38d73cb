import {
  Body,
  Controller,
  Delete,
  Get,
  Inject,
  NotFoundException,
  Param,
  Patch,
  Post,
  Put,
  Query,
  Res,
} from '@nestjs/common';
import { extension } from '@scenograph/core/spec/file-name';
import { encodingSchema } from '@scenograph/core/delivery/encoding';
import { encodePicture } from '@scenograph/host-node/encode';
import type { Response } from 'express';
import Joi from 'joi';
import type { History } from '../database/schema';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import type { ExportRequest } from './export';
import { ShotsService, type TrialsRequest } from './shots.service';

const patches = Joi.array().items(
  Joi.object({
    op: Joi.string().valid('add', 'remove', 'replace').required(),
    path: Joi.array().items(Joi.string(), Joi.number()).required(),
    value: Joi.any(),
  }),
);
const edits = Joi.array()
  .items(
    Joi.object({
      label: Joi.string().max(120).required(),
      forward: patches.required(),
      inverse: patches.required(),
    }),
  )
  .max(300)
  .required();
const save = Joi.object({
  revision: Joi.number().integer().min(1).required(),
  document: Joi.object().unknown(true).required(),
  history: Joi.object({ past: edits, future: edits }).required(),
});
const copy = Joi.object({ title: Joi.string().trim().min(1).max(120), document: Joi.object().unknown(true) });
const describe = Joi.object({
  title: Joi.string().trim().min(1).max(120),
  alt: Joi.string().max(1000).allow(''),
}).min(1);
const trials = Joi.object({
  slot: Joi.string().max(200).required(),
  variant: Joi.string().uuid(),
  trials: Joi.array()
    .items(Joi.object({ encoding: encodingSchema.required(), limited: Joi.boolean().default(false) }))
    .min(1)
    .max(8)
    .required(),
});
const cell = Joi.object({ slot: Joi.string().max(200), variant: Joi.string().uuid() });
const render = Joi.object({
  slot: Joi.string().max(200),
  variant: Joi.string().uuid(),
  scale: Joi.number().min(0.01).max(1).default(1),
});

const exporting = Joi.object({
  slot: Joi.string().max(200),
  variant: Joi.string().uuid(),
  width: Joi.number().integer().min(16).max(20_000).required(),
  density: Joi.number().min(10).max(2400).default(72),
  format: Joi.string().valid('jpeg', 'png', 'webp').default('jpeg'),
});

const fileStem = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'shot';

@Controller('api/shots')
export class ShotsController {
  constructor(@Inject(ShotsService) private readonly shots: ShotsService) {}

  @Get(':id')
  one(@Param('id', IdPipe) id: string) {
    return this.shots.one(id);
  }

  @Put(':id')
  save(
    @Param('id', IdPipe) id: string,
    @Body(validated(save)) body: { revision: number; document: unknown; history: History },
  ) {
    return this.shots.save(id, body);
  }

  @Patch(':id')
  describe(
    @Param('id', IdPipe) id: string,
    @Body(validated(describe)) body: { title?: string; alt?: string },
  ) {
    return this.shots.describe(id, body);
  }

  @Post(':id/trials')
  trials(@Param('id', IdPipe) id: string, @Body(validated(trials)) body: TrialsRequest) {
    return this.shots.trials(id, body);
  }

  @Get('tried/:n')
  tried(@Param('n') n: string, @Res() response: Response) {
    const file = this.shots.tried.get(Number(n));
    if (!file) throw new NotFoundException('This trial is not kept any more; try again.');
    response
      .set({ 'Content-Type': `image/${file.format}`, 'Cache-Control': 'private, max-age=600' })
      .send(file.bytes);
  }

  /** Layer by layer, as OpenRaster. */
  @Get(':id/layers')
  async layers(
    @Param('id', IdPipe) id: string,
    @Query(validated(cell)) query: { slot?: string; variant?: string },
    @Res() response: Response,
  ) {
    const { title, bytes } = await this.shots.layered(id, query.slot, query.variant);
    response
      .set({
        'Content-Type': 'image/openraster',
        'Content-Disposition': `attachment; filename="${fileStem(title)}.ora"`,
      })
      .send(bytes);
  }

  @Post(':id/copy')
  copy(@Param('id', IdPipe) id: string, @Body(validated(copy)) body: { title?: string; document?: unknown }) {
    return this.shots.copy(id, body);
  }

  @Delete(':id')
  remove(@Param('id', IdPipe) id: string) {
    return this.shots.remove(id);
  }

  /** The shot as the server paints it, lossless. */
  @Get(':id/picture')
  async picture(
    @Param('id', IdPipe) id: string,
    @Query(validated(render)) query: { slot?: string; variant?: string; scale: number },
    @Res() response: Response,
  ) {
    const painted = await this.shots.paint(id, query.slot, query.variant, query.scale);
    const { bytes } = await encodePicture(painted.pixels(), 'png');
    response.set('Content-Type', 'image/png').send(Buffer.from(bytes));
  }

  /** The shot as one file of a chosen size, its density written in it. */
  @Get(':id/export')
  async export(
    @Param('id', IdPipe) id: string,
    @Query(validated(exporting)) query: ExportRequest,
    @Res() response: Response,
  ) {
    const { shot, painted } = await this.shots.export(id, query);
    const { bytes } = await encodePicture(painted.pixels(), query.format, {
      density: query.density,
    });
    response
      .set({
        'Content-Type': `image/${query.format}`,
        'Content-Disposition': `attachment; filename="${fileStem(shot.title)}.${extension(query.format)}"`,
      })
      .send(Buffer.from(bytes));
  }

  @Get(':id/bundle')
  async bundle(@Param('id', IdPipe) id: string, @Res() response: Response) {
    const zip = await this.shots.bundle(id);
    response.set({
      'Content-Type': 'application/zip',
      'Content-Disposition': 'attachment; filename="shot.zip"',
    });
    zip.pipe(response);
  }
}
