import { Body, Controller, Get, Inject, Param, Post, Query } from '@nestjs/common';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { ListingsService } from './listings.service';

const fromPhotos = Joi.object({
  photoIds: Joi.array().items(Joi.string().uuid()).min(1).max(200).unique().required(),
  title: Joi.string().trim().min(1).max(200).required(),
  sheets: Joi.array().items(Joi.string()).min(1).unique(),
  sceneId: Joi.string().uuid(),
});
const page = Joi.object({
  limit: Joi.number().integer().min(1).max(5000).default(300),
  search: Joi.string().trim().max(100).allow('').default(''),
});
const newShot = Joi.object({
  kind: Joi.string().valid('white', 'scene').required(),
  sceneId: Joi.string().uuid(),
  title: Joi.string().trim().min(1).max(120),
});
const ownShots = Joi.object({
  shots: Joi.array()
    .items(
      Joi.object({
        title: Joi.string().trim().min(1).max(120).required(),
        document: Joi.object().unknown(true).required(),
        feeds: Joi.array().items(Joi.string().max(200)).max(400).unique().default([]),
      }),
    )
    .min(1)
    .max(60)
    .required(),
});

@Controller('api/listings')
export class ListingsController {
  constructor(@Inject(ListingsService) private readonly listings: ListingsService) {}

  @Get()
  list(@Query(validated(page)) { limit, search }: { limit: number; search: string }) {
    return this.listings.list(limit, search);
  }

  @Get(':id')
  one(@Param('id', IdPipe) id: string) {
    return this.listings.one(id);
  }

  @Post()
  fromPhotos(@Body(validated(fromPhotos)) body: { photoIds: string[]; title: string; sheets?: string[] }) {
    return this.listings.fromPhotos(body);
  }

  @Post(':id/shots')
  addShot(
    @Param('id', IdPipe) id: string,
    @Body(validated(newShot)) body: { kind: 'white' | 'scene'; sceneId?: string; title?: string },
  ) {
    return this.listings.addShot(id, body);
  }

  /** Shots laid out already: from templates and ideas. */
  @Post(':id/shots/of-documents')
  addDocuments(
    @Param('id', IdPipe) id: string,
    @Body(validated(ownShots)) body: { shots: { title: string; document: unknown; feeds: string[] }[] },
  ) {
    return this.listings.addDocuments(id, body.shots);
  }
}
