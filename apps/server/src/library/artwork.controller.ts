import { Body, Controller, Delete, Get, Inject, Param, Post, Query, Req } from '@nestjs/common';
import type { Request } from 'express';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { readBody } from '../photos/photos.service';
import { ArtworkService } from './artwork.service';

const named = Joi.object({ name: Joi.string().max(255).required() });
const colour = Joi.string().pattern(/^#[0-9a-f]{6}$/i);
const inking = Joi.object({ inks: Joi.object().pattern(colour, colour).max(400).required() });

@Controller('api/artwork')
export class ArtworkController {
  constructor(@Inject(ArtworkService) private readonly artwork: ArtworkService) {}

  @Get()
  list() {
    return this.artwork.list();
  }

  @Post()
  async take(@Query(validated(named)) { name }: { name: string }, @Req() request: Request) {
    return this.artwork.take(name, await readBody(request, name));
  }

  @Post(':id/inks')
  ink(@Param('id', IdPipe) id: string, @Body(validated(inking)) { inks }: { inks: Record<string, string> }) {
    return this.artwork.ink(id, inks);
  }

  @Delete(':id')
  async remove(@Param('id', IdPipe) id: string) {
    await this.artwork.remove(id);
    return { removed: id };
  }
}
