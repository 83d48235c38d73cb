import { Body, Controller, Delete, Get, Inject, Param, Post, Put, Query, Req } from '@nestjs/common';
import { brandKitSchema, type BrandKit } from '@scenograph/core/brand/kit';
import type { Request } from 'express';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { readBody } from '../photos/photos.service';
import { BrandService } from './brand.service';

const save = Joi.object({
  revision: Joi.number().integer().min(0).required(),
  kit: brandKitSchema.required(),
});
const undo = Joi.object({ revision: Joi.number().integer().min(0).required() });
const named = Joi.object({ name: Joi.string().max(255).required() });

@Controller('api')
export class BrandController {
  constructor(@Inject(BrandService) private readonly brand: BrandService) {}

  @Get('brand')
  kit() {
    return this.brand.kit();
  }

  @Put('brand')
  save(@Body(validated(save)) { revision, kit }: { revision: number; kit: BrandKit }) {
    return this.brand.save(revision, kit);
  }

  @Post('brand/undo')
  undo(@Body(validated(undo)) { revision }: { revision: number }) {
    return this.brand.undo(revision);
  }

  @Get('fonts')
  fonts() {
    return this.brand.fonts();
  }

  @Post('fonts')
  async takeFont(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    return this.brand.takeFont(name, await readBody(request, name));
  }

  @Delete('fonts/:id')
  async removeFont(@Param('id', IdPipe) id: string) {
    await this.brand.removeFont(id);
    return { removed: id };
  }
}
