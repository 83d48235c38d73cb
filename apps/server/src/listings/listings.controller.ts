import { Controller, Inject } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { listed, shown } from '../database/rows';
import { Call, On } from '../http/route';
import { ListingsService } from './listings.service';

@Controller()
export class ListingsController {
  constructor(@Inject(ListingsService) private readonly listings: ListingsService) {}

  @On('GET /api/listings')
  list(@Call() { query }: CallOf<'GET /api/listings'>) {
    return this.listings.list(query.from, query.limit, query.search);
  }

  @On('GET /api/listings/:id')
  async one(@Call() { params }: CallOf<'GET /api/listings/:id'>) {
    const { listing, shots, ...rest } = await this.listings.one(params.id);
    return { ...rest, listing: shown(listing), shots: shots.map(shown) };
  }

  @On('POST /api/listings')
  async fromPhotos(@Call() { body }: CallOf<'POST /api/listings'>) {
    return shown(await this.listings.fromPhotos(body));
  }

  @On('POST /api/listings/:id/shots')
  async addShot(@Call() { params, body }: CallOf<'POST /api/listings/:id/shots'>) {
    return listed(await this.listings.addShot(params.id, body));
  }

  /** Shots laid out already: from templates and ideas. */
  @On('POST /api/listings/:id/shots/of-documents')
  async addDocuments(@Call() { params, body }: CallOf<'POST /api/listings/:id/shots/of-documents'>) {
    const made = await this.listings.addDocuments(params.id, body.shots);
    return made.map(listed);
  }

  @On('POST /api/shots')
  async addAlone(@Call() { body }: CallOf<'POST /api/shots'>) {
    return listed(await this.listings.addAlone(body.title, body.document));
  }
}
