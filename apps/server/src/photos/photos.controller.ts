import { Body, Controller, Delete, Get, Inject, Param, Post, Put, Query, Req } from '@nestjs/common';
import type { Request } from 'express';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { PhotosService, readBody } from './photos.service';

const named = Joi.object({ name: Joi.string().max(255).required() });
const options = Joi.object({ holes: Joi.boolean().default(true), shadows: Joi.boolean().default(true) });
const made = Joi.object({
  x: Joi.number().integer().min(0).required(),
  y: Joi.number().integer().min(0).required(),
  confidence: Joi.number().min(0).max(1).required(),
  holes: Joi.boolean().required(),
  shadows: Joi.boolean().required(),
});

@Controller('api/photos')
export class PhotosController {
  constructor(@Inject(PhotosService) private readonly photos: PhotosService) {}

  @Get()
  list() {
    return this.photos.list();
  }

  @Get(':id')
  one(@Param('id', IdPipe) id: string) {
    return this.photos.one(id);
  }

  /** One file a request, its bytes as they are. */
  @Post()
  async take(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    return this.photos.take(name, await readBody(request, name));
  }

  @Post(':id/cutout')
  cutAgain(
    @Param('id', IdPipe) id: string,
    @Body(validated(options)) body: { holes: boolean; shadows: boolean },
  ) {
    return this.photos.cutAgain(id, body);
  }

  @Put(':id/cutout')
  async keep(
    @Param('id', IdPipe) id: string,
    @Query(validated(made))
    details: { x: number; y: number; confidence: number; holes: boolean; shadows: boolean },
    @Req() request: Request,
  ) {
    return this.photos.keepCutout(id, await readBody(request, 'cutout.png'), details);
  }

  @Delete(':id')
  async remove(@Param('id', IdPipe) id: string) {
    await this.photos.remove(id);
    return { removed: id };
  }
}
