import type { AnswerOf } from '@scenograph/contract';
import { useEffect, useState } from 'react';
import { call, refresh, type RecipeDetail } from '../../api/client';
import { say } from '../../ui/notices';
import { recipeStore } from './recipe-store';
import { msg } from '../../language/language';

export type RecipeEstimate = AnswerOf<'POST /api/recipes/:id/estimate'>;

/** What running a recipe for some products would cost, and the run itself. */
export function useRecipeRun(recipe: RecipeDetail, productIds: readonly string[]) {
  const [estimate, setEstimate] = useState<RecipeEstimate | null>(null);
  const sent = { params: { id: recipe.id }, body: { productIds: [...productIds] } };
  useEffect(() => {
    if (!productIds.length) return setEstimate(null);
    let here = true;
    call('POST /api/recipes/:id/estimate', {
      params: { id: recipe.id },
      body: { productIds: [...productIds] },
    })
      .then((e) => here && setEstimate(e))
      .catch((e: Error) => here && say('stop', e.message));
    return () => {
      here = false;
    };
  }, [productIds, recipe]);
  const run = async () => {
    if (!(await recipeStore.save()))
      return say(
        'stop',
        msg('The newest changes could not be stored yet, so nothing was run. Try again in a moment.'),
      );
    try {
      const { ordered, unchanged } = await call('POST /api/recipes/:id/run', sent);
      const rest = unchanged ? msg(', {unchanged} unchanged', { unchanged }) : '';
      say(
        'pass',
        msg('{ordered} {ordered, plural, one {product} other {products}} under way{rest}.', {
          ordered,
          rest,
        }),
      );
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/recipes');
  };
  const cancel = async () => {
    try {
      await call('POST /api/recipes/:id/cancel', { params: { id: recipe.id } });
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/recipes');
  };
  return { estimate, run, cancel };
}
