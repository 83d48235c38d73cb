import { Controller, Inject, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Response } from 'express';
import { Call, On } from '../http/route';
import { sendStream } from '../http/send-stream';
import { DeliveriesService } from './deliveries.service';

@Controller()
export class DeliveriesController {
  constructor(@Inject(DeliveriesService) private readonly deliveries: DeliveriesService) {}

  @On('POST /api/listings/:id/deliveries')
  orderOne(@Call() { params, body }: CallOf<'POST /api/listings/:id/deliveries'>) {
    return this.deliveries.order({ ...body, listingIds: [params.id] });
  }

  @On('POST /api/listings/:id/deliveries/estimate')
  estimateOne(@Call() { params, body }: CallOf<'POST /api/listings/:id/deliveries/estimate'>) {
    return this.deliveries.estimate({ ...body, listingIds: [params.id] });
  }

  @On('POST /api/deliveries')
  order(@Call() { body }: CallOf<'POST /api/deliveries'>) {
    return this.deliveries.order(body);
  }

  @On('POST /api/deliveries/estimate')
  estimate(@Call() { body }: CallOf<'POST /api/deliveries/estimate'>) {
    return this.deliveries.estimate(body);
  }

  @On('GET /api/deliveries')
  list(@Call() { query }: CallOf<'GET /api/deliveries'>) {
    return this.deliveries.list(query.from, query.limit);
  }

  @On('GET /api/deliveries/:id')
  one(@Call() { params }: CallOf<'GET /api/deliveries/:id'>) {
    return this.deliveries.one(params.id);
  }

  @On('GET /api/deliveries/:id/cells')
  cells(@Call() { params, query }: CallOf<'GET /api/deliveries/:id/cells'>) {
    return this.deliveries.cells(params.id, query.from, query.limit);
  }

  @On('POST /api/deliveries/:id/change')
  change(@Call() { params, body, by }: CallOf<'POST /api/deliveries/:id/change'>) {
    return this.deliveries.change(params.id, body, by);
  }

  @On('POST /api/deliveries/:id/cancel')
  cancel(@Call() { params, by }: CallOf<'POST /api/deliveries/:id/cancel'>) {
    return this.deliveries.change(params.id, { act: 'cancel' }, by);
  }

  @On('DELETE /api/deliveries/:id')
  remove(@Call() { params, by }: CallOf<'DELETE /api/deliveries/:id'>) {
    return this.deliveries.remove(params.id, by);
  }

  @On('POST /api/deliveries/:id/uploads')
  upload(@Call() { params, body }: CallOf<'POST /api/deliveries/:id/uploads'>) {
    return this.deliveries.upload(params.id, body.marketplace);
  }

  @On('GET /api/deliveries/:id/zip')
  async zip(@Call() { params, query }: CallOf<'GET /api/deliveries/:id/zip'>, @Res() response: Response) {
    const { name, size, stream, stop } = await this.deliveries.zip(params.id, query);
    response.set({
      'Content-Type': 'application/zip',
      ...(size ? { 'Content-Length': String(size) } : {}),
      'Content-Disposition': `attachment; filename="${name}"`,
    });
    response.on('close', stop);
    sendStream(stream, response);
  }
}
