import { Controller, Inject, Req } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Request } from 'express';
import { shown } from '../database/rows';
import { Call, On } from '../http/route';
import { receive } from '../http/incoming';
import { ArtworkService } from './artwork.service';

@Controller()
export class ArtworkController {
  constructor(@Inject(ArtworkService) private readonly artwork: ArtworkService) {}

  @On('GET /api/artwork')
  async list() {
    return (await this.artwork.list()).map(shown);
  }

  @On('POST /api/artwork')
  async take(@Call() { query: { name } }: CallOf<'POST /api/artwork'>, @Req() request: Request) {
    return shown(await receive(request, name, (file) => this.artwork.take(file)));
  }

  @On('POST /api/artwork/:id/inks')
  ink(@Call() { params, body }: CallOf<'POST /api/artwork/:id/inks'>) {
    return this.artwork.ink(params.id, body.inks);
  }

  @On('DELETE /api/artwork/:id')
  remove(@Call() { params: { id } }: CallOf<'DELETE /api/artwork/:id'>) {
    return this.artwork.remove(id);
  }
}
