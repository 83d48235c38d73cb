import { Controller, Inject } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { listed, shown } from '../database/rows';
import { Call, On } from '../http/route';
import { RecipesService } from './recipes.service';

@Controller()
export class RecipesController {
  constructor(@Inject(RecipesService) private readonly recipes: RecipesService) {}

  @On('GET /api/recipes')
  async list() {
    return (await this.recipes.list()).map(listed);
  }

  @On('POST /api/recipes')
  async add(@Call() { body }: CallOf<'POST /api/recipes'>) {
    return listed(await this.recipes.add(body));
  }

  @On('GET /api/recipes/:id')
  async one(@Call() { params }: CallOf<'GET /api/recipes/:id'>) {
    return shown(await this.recipes.one(params.id));
  }

  @On('PUT /api/recipes/:id')
  async save(@Call() { params, body }: CallOf<'PUT /api/recipes/:id'>) {
    return listed(await this.recipes.save(params.id, body));
  }

  @On('DELETE /api/recipes/:id')
  remove(@Call() { params, by }: CallOf<'DELETE /api/recipes/:id'>) {
    return this.recipes.remove(params.id, by);
  }

  @On('POST /api/recipes/:id/estimate')
  estimate(@Call() { params, body }: CallOf<'POST /api/recipes/:id/estimate'>) {
    return this.recipes.estimate(params.id, body.productIds);
  }

  @On('POST /api/recipes/:id/run')
  run(@Call() { params, body }: CallOf<'POST /api/recipes/:id/run'>) {
    return this.recipes.run(params.id, body.productIds);
  }

  @On('POST /api/recipes/:id/cancel')
  async cancel(@Call() { params }: CallOf<'POST /api/recipes/:id/cancel'>) {
    return shown(await this.recipes.cancel(params.id));
  }
}
