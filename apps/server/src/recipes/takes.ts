import { stepKeys, type RecipeStep } from '@scenograph/core/recipe/recipe';
import { DESIGNS } from '@scenograph/core/templates/designs';
import type { Shot } from '@scenograph/core/shot/document';
import { eq, inArray } from 'drizzle-orm';
import { NotFoundException } from '@nestjs/common';
import type { Database } from '../database/database';
import { photos, products, scenes, templates } from '../database/schema';
import { sha256 } from '../paintings/paintings';
import { variantsOf } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';

/** A template's layout, its own or one that ships. */
export async function templateOf(db: Database, id: string): Promise<{ title: string; document: Shot }> {
  const shipped = DESIGNS.find((d) => d.id === id);
  if (shipped) return shipped;
  const [own] = /^[0-9a-f-]{36}$/.test(id)
    ? await db.select().from(templates).where(eq(templates.id, id))
    : [];
  if (!own) throw new NotFoundException('The template of a step is not there any more. Choose another.');
  return own;
}

export async function sceneOf(db: Database, id: string): Promise<typeof scenes.$inferSelect> {
  const [scene] = await db.select().from(scenes).where(eq(scenes.id, id));
  if (!scene)
    throw new NotFoundException('The scene of a step is not in the library any more. Choose another.');
  return scene;
}

/** What a recipe's steps depend on for one product, as keys: a step whose key is another than before runs again. */
export async function keysOf(
  db: Database,
  steps: readonly RecipeStep[],
  productId: string,
): Promise<Map<string, string>> {
  const own = await variantsOf(db, [productId]);
  const [product] = await db.select().from(products).where(eq(products.id, productId));
  const photoIds = own.flatMap((v) => (v.photoId ? [v.photoId] : []));
  const pictures = photoIds.length
    ? await db
        .select({ id: photos.id, original: photos.original, recipe: photos.recipe })
        .from(photos)
        .where(inArray(photos.id, photoIds))
    : [];
  const sheets = await allSheets(db);
  const first = own.find((v) => v.photoId);
  const libraries = new Map<string, unknown>();
  for (const s of steps) {
    if (s.kind === 'stage') {
      const { picture, survey } = await sceneOf(db, s.scene);
      libraries.set(s.id, [picture, survey]);
    }
    if (s.kind === 'template') libraries.set(s.id, (await templateOf(db, s.template)).document);
  }
  const { title, widthMm, heightMm, depthMm } = product;
  return stepKeys(
    steps,
    (step) => {
      switch (step.kind) {
        case 'tidy':
        case 'cut-out':
          return own.map((v) => pictures.find((p) => p.id === v.photoId)?.original ?? null);
        case 'arrange':
          return null;
        case 'white':
        case 'stage':
        case 'template':
          return [title, widthMm, heightMm, depthMm, first?.photoId, libraries.get(step.id)];
        case 'fit':
          return sheets.filter((s) => step.sheets.includes(s.id));
        case 'deliver':
          return own.map((v) => v.data);
      }
    },
    sha256,
  );
}
