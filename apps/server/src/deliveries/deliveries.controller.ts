import { Body, Controller, Get, Inject, Param, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { DeliveriesService, type DeliveryChoice, type Which } from './deliveries.service';

const common = {
  slots: Joi.array().items(Joi.string().max(200)).min(1).unique(),
  variants: Joi.array().items(Joi.string().uuid()).min(1).unique(),
  which: Joi.string().valid('all', 'changed', 'stale', 'failed', 'never').default('all'),
  priority: Joi.number().integer().min(-10).max(10).default(0),
};
const ofListing = Joi.object(common);
const ofSeveral = Joi.object({
  ...common,
  listingIds: Joi.array().items(Joi.string().uuid()).min(1).max(1000).unique().required(),
});
const page = Joi.object({
  from: Joi.number().integer().min(0).default(0),
  limit: Joi.number().integer().min(1).max(500).default(200),
});
const change = Joi.alternatives(
  Joi.object({ act: Joi.string().valid('pause', 'go-on', 'cancel', 'retry').required() }),
  Joi.object({ priority: common.priority.required() }),
);
const part = Joi.object({ marketplace: Joi.string().max(80), listing: Joi.string().max(200) });
const upload = Joi.object({ marketplace: Joi.string().max(80).required() });

type OfListing = { slots?: string[]; variants?: string[]; which: Which; priority: number };

@Controller('api')
export class DeliveriesController {
  constructor(@Inject(DeliveriesService) private readonly deliveries: DeliveriesService) {}

  @Post('listings/:id/deliveries')
  orderOne(@Param('id', IdPipe) id: string, @Body(validated(ofListing)) body: OfListing) {
    return this.deliveries.order({ ...body, listingIds: [id] });
  }

  @Post('listings/:id/deliveries/estimate')
  estimateOne(@Param('id', IdPipe) id: string, @Body(validated(ofListing)) body: OfListing) {
    return this.deliveries.estimate({ ...body, listingIds: [id] });
  }

  @Post('deliveries')
  order(@Body(validated(ofSeveral)) body: DeliveryChoice) {
    return this.deliveries.order(body);
  }

  @Post('deliveries/estimate')
  estimate(@Body(validated(ofSeveral)) body: DeliveryChoice) {
    return this.deliveries.estimate(body);
  }

  @Get('deliveries')
  list() {
    return this.deliveries.list();
  }

  @Get('deliveries/:id')
  one(@Param('id', IdPipe) id: string) {
    return this.deliveries.one(id);
  }

  @Get('deliveries/:id/cells')
  cells(
    @Param('id', IdPipe) id: string,
    @Query(validated(page)) { from, limit }: { from: number; limit: number },
  ) {
    return this.deliveries.cells(id, from, limit);
  }

  @Post('deliveries/:id/change')
  change(
    @Param('id', IdPipe) id: string,
    @Body(validated(change)) body: Parameters<DeliveriesService['change']>[1],
  ) {
    return this.deliveries.change(id, body);
  }

  @Post('deliveries/:id/cancel')
  cancel(@Param('id', IdPipe) id: string) {
    return this.deliveries.change(id, { act: 'cancel' });
  }

  @Post('deliveries/:id/uploads')
  upload(@Param('id', IdPipe) id: string, @Body(validated(upload)) body: { marketplace: string }) {
    return this.deliveries.upload(id, body.marketplace);
  }

  @Get('deliveries/:id/zip')
  async zip(
    @Param('id', IdPipe) id: string,
    @Query(validated(part)) query: { marketplace?: string; listing?: string },
    @Res() response: Response,
  ) {
    const { name, size, stream, stop } = await this.deliveries.zip(id, query);
    response.set({
      'Content-Type': 'application/zip',
      ...(size ? { 'Content-Length': String(size) } : {}),
      'Content-Disposition': `attachment; filename="${name}"`,
    });
    stream.on('error', () => response.destroy());
    response.on('close', stop);
    stream.pipe(response);
  }
}
