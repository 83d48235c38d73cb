import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';

/** Changes of the recipe on the desk: shown while dragging, one step when finished. */
export interface RecipeEdits {
  during(change: (recipe: CutoutRecipe) => CutoutRecipe): void;
  finish(label: string, change: (recipe: CutoutRecipe) => CutoutRecipe): void;
}
