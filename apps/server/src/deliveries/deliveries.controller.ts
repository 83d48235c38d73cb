import { Body, Controller, Get, Inject, Param, Post, Res } from '@nestjs/common';
import type { Response } from 'express';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { DeliveriesService } from './deliveries.service';

const order = Joi.object({
  slots: Joi.array().items(Joi.string().max(200)).min(1).unique(),
  variants: Joi.array().items(Joi.string().uuid()).min(1).unique(),
});

@Controller('api')
export class DeliveriesController {
  constructor(@Inject(DeliveriesService) private readonly deliveries: DeliveriesService) {}

  @Post('listings/:id/deliveries')
  order(
    @Param('id', IdPipe) id: string,
    @Body(validated(order)) body: { slots?: string[]; variants?: string[] },
  ) {
    return this.deliveries.order(id, body);
  }

  @Get('deliveries')
  list() {
    return this.deliveries.list();
  }

  @Get('deliveries/:id')
  one(@Param('id', IdPipe) id: string) {
    return this.deliveries.one(id);
  }

  @Post('deliveries/:id/cancel')
  cancel(@Param('id', IdPipe) id: string) {
    return this.deliveries.cancel(id);
  }

  @Get('deliveries/:id/zip')
  async zip(@Param('id', IdPipe) id: string, @Res() response: Response) {
    const { name, hash, size } = await this.deliveries.zip(id);
    response.set({
      'Content-Type': 'application/zip',
      'Content-Length': String(size),
      'Content-Disposition': `attachment; filename="${name}"`,
    });
    const stream = this.deliveries.store.stream(hash);
    stream.on('error', () => response.destroy());
    response.on('close', () => stream.destroy());
    stream.pipe(response);
  }
}
