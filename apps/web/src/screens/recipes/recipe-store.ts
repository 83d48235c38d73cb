import { createDocumentStore } from '../../documents/document-store';
import { RECIPES, type RecipeDocument } from '../../documents/kinds';

/** The recipe on the screen. */
export const recipeStore = createDocumentStore<RecipeDocument, object>(RECIPES, () => ({}));
