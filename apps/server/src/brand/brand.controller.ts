import { Controller, Inject, Req } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Request } from 'express';
import { shown } from '../database/rows';
import { Call, On } from '../http/route';
import { receive } from '../http/incoming';
import { BrandService } from './brand.service';

@Controller()
export class BrandController {
  constructor(@Inject(BrandService) private readonly brand: BrandService) {}

  @On('GET /api/brand')
  kit() {
    return this.brand.kit();
  }

  @On('PUT /api/brand')
  save(@Call() { body }: CallOf<'PUT /api/brand'>) {
    return this.brand.save(body);
  }

  @On('GET /api/fonts')
  async fonts() {
    return (await this.brand.fonts()).map(shown);
  }

  @On('POST /api/fonts')
  async takeFont(@Call() { query: { name } }: CallOf<'POST /api/fonts'>, @Req() request: Request) {
    return shown(await receive(request, name, (file) => this.brand.takeFont(file)));
  }

  @On('DELETE /api/fonts/:id')
  async removeFont(@Call() { params: { id } }: CallOf<'DELETE /api/fonts/:id'>) {
    await this.brand.removeFont(id);
    return { removed: id };
  }
}
