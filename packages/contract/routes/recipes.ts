import type { RecipeStep } from '@scenograph/core/recipe/recipe';
import { route } from '../route';
import * as s from '../schema';
import { documentHistory, documentOf, removed, sentHistory, pages } from './common';

const row = {
  id: s.id(),
  title: s.text(),
  steps: s.list(documentOf<RecipeStep>()),
  revision: s.integer(),
  createdAt: s.moment(),
};
export const recipe = s.named('Recipe', s.shape(row));

const stepResult = s.shape({
  state: s.oneOf('waiting', 'working', 'done', 'failed', 'cancelled'),
  /** What it made: ids by what they name, such as `shot`, `listing`, `delivery`. */
  made: s.record(s.text()),
  says: s.nullable(s.text()),
  updatedAt: s.moment(),
});
export const recipeDetail = s.named(
  'RecipeDetail',
  s.shape({
    ...row,
    history: documentHistory,
    products: s.list(s.shape({ productId: s.id(), product: s.text(), steps: s.record(stepResult) })),
  }),
);

const title = s.text({ trim: true, min: 1, max: 120 });
/** Steps are read by the core, which says what is wrong with them. */
const steps = s.list(s.of<unknown>());
const chosen = s.shape({ productIds: s.list(s.id(), { min: 1, max: 2000, unique: true }) });

/** Recipes: steps that are run over many products. */
export const recipes = {
  'GET /api/recipes': route({
    says: 'All recipes, the newest first.',
    query: s.shape(pages()),
    paged: true,
    answer: s.list(recipe),
  }),
  'POST /api/recipes': route({
    says: 'Adds a recipe.',
    body: s.shape({ title, steps }),
    creates: true,
    answer: recipe,
  }),
  'GET /api/recipes/:id': route({
    says: 'A recipe with what it has made of each product.',
    answer: recipeDetail,
  }),
  'PUT /api/recipes/:id': route({
    says: 'Stores a recipe; 409 with the stored one where it was changed meanwhile.',
    body: s.shape({ revision: s.integer({ min: 1 }), title, steps, history: sentHistory }),
    answer: recipe,
  }),
  'DELETE /api/recipes/:id': route({
    says: 'Removes a recipe; what it made stays.',
    revised: true,
    answer: removed,
  }),
  'POST /api/recipes/:id/estimate': route({
    says: 'What running a recipe for some products would do and cost.',
    body: chosen,
    answer: s.shape({
      products: s.integer(),
      steps: s.integer(),
      unchanged: s.integer(),
      cutouts: s.integer(),
      pictures: s.integer(),
      seconds: s.number(),
    }),
  }),
  'POST /api/recipes/:id/run': route({
    says: 'Runs a recipe for some products: only what has not run, has failed, or has changed.',
    body: chosen,
    answer: s.shape({ ordered: s.integer(), unchanged: s.integer() }),
  }),
  'POST /api/recipes/:id/cancel': route({
    says: 'Cancels the steps that were not begun.',
    answer: recipeDetail,
  }),
};
