import type { CutoutDesk, SceneWithHistory, StoredKit } from '@scenograph/contract/types';
import type { BrandKit } from '@scenograph/core/brand/kit';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { RecipeStep } from '@scenograph/core/recipe/recipe';
import type { Shot } from '@scenograph/core/shot/document';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import { call, refresh, type RecipeDetail } from '../api/client';
import type { DocumentKind, Stored } from './document';
import { msg } from '../language/language';

export const SHOTS: DocumentKind<Shot> = {
  name: 'shot',
  word: msg('shot'),
  path: (id) => `/shots/${id}`,
  put: (id, body) => call('PUT /api/shots/:id', { params: { id }, body }),
  theirs: (detail) => detail as Stored<Shot>,
};

export const storedCutout = ({ recipe, history, revision }: CutoutDesk): Stored<CutoutRecipe> => ({
  document: recipe,
  history,
  revision,
});

export const CUTOUTS: DocumentKind<CutoutRecipe> = {
  name: 'cutout',
  word: msg('cutout'),
  path: (id) => `/photos/${id}/cutout`,
  async put(id, { revision, document, history }) {
    const body = { revision, recipe: document, history };
    const saved = await call('PUT /api/photos/:id/recipe', { params: { id }, body });
    return { revision: saved.revision, beside: { inUse: saved.inUse } };
  },
  theirs: (detail) => storedCutout(detail as CutoutDesk),
  storedLate: (id) => call('POST /api/photos/cutouts', { body: { ids: [id], changedOnly: true } }),
};

/** What of a scene is edited in its survey. */
export type Surveyed = Pick<SceneWithHistory, 'title' | 'survey' | 'palette' | 'season'>;

export const storedSurvey = (scene: SceneWithHistory): Stored<Surveyed> => {
  const { title, survey, palette, season, history, revision } = scene;
  return { document: { title, survey, palette, season }, history, revision };
};

export const SURVEYS: DocumentKind<Surveyed> = {
  name: 'survey',
  word: msg('survey'),
  path: (id) => `/library/scenes/${id}`,
  async put(id, { revision, document, history }) {
    const saved = await call('PUT /api/scenes/:id', {
      params: { id },
      body: { revision, history, ...document },
    });
    refresh('/api/scenes');
    return { revision: saved.revision };
  },
  theirs: (detail) => storedSurvey(detail as SceneWithHistory),
};

export const storedBrand = ({ kit, history, revision }: StoredKit): Stored<BrandKit> => ({
  document: kit,
  history,
  revision,
});

export const BRANDS: DocumentKind<BrandKit> = {
  name: 'brand',
  word: msg('brand kit'),
  path: () => '/brand',
  async put(_id, { revision, document, history }) {
    const saved = await call('PUT /api/brand', { body: { revision, kit: document, history } });
    refresh('/api/brand', '/api/listings', '/api/products');
    return { revision: saved.revision };
  },
  theirs: (detail) => storedBrand(detail as StoredKit),
};

/** What of a recipe is edited; what it has made stands beside it. */
export interface RecipeDocument {
  title: string;
  steps: RecipeStep[];
}

export const storedRecipe = ({ title, steps, history, revision }: RecipeDetail): Stored<RecipeDocument> => ({
  document: { title, steps },
  history,
  revision,
});

export const RECIPES: DocumentKind<RecipeDocument> = {
  name: 'recipe',
  word: msg('recipe'),
  path: (id) => `/recipes/${id}`,
  async put(id, { revision, document, history }) {
    const body = { revision, history, ...document };
    const saved = await call('PUT /api/recipes/:id', { params: { id }, body });
    refresh('/api/recipes');
    return { revision: saved.revision };
  },
  theirs: (detail) => storedRecipe(detail as RecipeDetail),
};

/** A sheet's version is its revision. */
export type SheetDraft = Omit<SpecSheet, 'version'>;

export const storedSheet = ({ version, ...document }: SpecSheet): Stored<SheetDraft> => ({
  document,
  history: { past: [], future: [] },
  revision: version,
});

/** A sheet is changed as a draft and stored as its next version: a half-typed rule never stops a picture. */
export const SPEC_SHEETS: DocumentKind<SheetDraft> = {
  name: 'spec-sheet',
  word: msg('spec sheet'),
  path: (id) => `/spec-sheets/${id}`,
  asMade: false,
  async put(id, { revision, document }) {
    const saved = await call('PUT /api/spec-sheets/:sheet', {
      params: { sheet: id },
      body: { version: revision, sheet: { ...document, version: revision } },
    });
    refresh('/api/spec-sheets', '/api/listings');
    return { revision: saved.version };
  },
  theirs: (detail) => storedSheet((detail as { sheet: SpecSheet }).sheet),
};

/** Every kind whose documents wait in the outbox until the server has them. */
export const DOCUMENT_KINDS: readonly DocumentKind<never>[] = [
  SHOTS,
  CUTOUTS,
  SURVEYS,
  BRANDS,
  RECIPES,
  SPEC_SHEETS,
] as unknown as readonly DocumentKind<never>[];
