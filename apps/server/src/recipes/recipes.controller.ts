import { Body, Controller, Delete, Get, Inject, Param, Post, Put } from '@nestjs/common';
import Joi from 'joi';
import { IdPipe } from '../http/id-pipe';
import { validated } from '../http/validate';
import { RecipesService } from './recipes.service';

const title = Joi.string().trim().min(1).max(120).required();
const steps = Joi.array().required();
const add = Joi.object({ title, steps });
const save = Joi.object({ revision: Joi.number().integer().min(1).required(), title, steps });
const chosen = Joi.object({
  productIds: Joi.array().items(Joi.string().uuid()).min(1).max(2000).unique().required(),
});

@Controller('api/recipes')
export class RecipesController {
  constructor(@Inject(RecipesService) private readonly recipes: RecipesService) {}

  @Get()
  list() {
    return this.recipes.list();
  }

  @Post()
  add(@Body(validated(add)) body: { title: string; steps: unknown }) {
    return this.recipes.add(body);
  }

  @Get(':id')
  one(@Param('id', IdPipe) id: string) {
    return this.recipes.one(id);
  }

  @Put(':id')
  save(
    @Param('id', IdPipe) id: string,
    @Body(validated(save)) body: { revision: number; title: string; steps: unknown },
  ) {
    return this.recipes.save(id, body);
  }

  @Delete(':id')
  remove(@Param('id', IdPipe) id: string) {
    return this.recipes.remove(id);
  }

  @Post(':id/estimate')
  estimate(@Param('id', IdPipe) id: string, @Body(validated(chosen)) body: { productIds: string[] }) {
    return this.recipes.estimate(id, body.productIds);
  }

  @Post(':id/run')
  run(@Param('id', IdPipe) id: string, @Body(validated(chosen)) body: { productIds: string[] }) {
    return this.recipes.run(id, body.productIds);
  }

  @Post(':id/cancel')
  cancel(@Param('id', IdPipe) id: string) {
    return this.recipes.cancel(id);
  }
}
