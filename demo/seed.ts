import { readdir, readFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PLAIN_RECIPE, type CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { reduceTo } from '@scenograph/core/raster/resample';
import { estimateAreas } from '@scenograph/core/stage/estimate-areas';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import { encodeGreyPng } from '@scenograph/host-node/encode';
import { decodeGrey, decodePicture, MIME, takePicture } from '@scenograph/host-node/read-picture';
import { operations } from '@scenograph/host-node/sandbox/operations';
import { asIncoming } from '../apps/server/src/http/incoming';
import { eq } from 'drizzle-orm';
import type { BlobStore } from '../apps/server/src/blobs/blob-store';
import { createBlobStore } from '../apps/server/src/blobs/blob-store';
import {
  databaseUrl,
  migrateDatabase,
  openDatabase,
  WORKSPACE,
  type Database,
} from '../apps/server/src/database/database';
import {
  artworks,
  brandKits,
  outlines,
  photos,
  pictures,
  products,
  scenes,
  specSheets,
  specSheetVersions,
  variants,
  workspaces,
} from '../apps/server/src/database/schema';
import { ArtworkService } from '../apps/server/src/library/artwork.service';
import { makeCutout } from '../apps/server/src/photos/make-cutout';
import { FIELDS, marrowbyKit } from './brand';
import { seedListings } from './listings';

/** Loads the Marrowby demo once: photos with their cutouts, products, scenes, spec sheets, logos, listings. */

const here = (() => {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'demo', 'assets'))) folder = dirname(folder);
  return join(folder, 'demo');
})();

interface ProductFile {
  title: string;
  sku: string;
  widthMm: number;
  heightMm: number;
  depthMm: number;
}

/** Order of the demo products; names are files in assets/products. */
const PRODUCTS: {
  title: string;
  pose: 'stand' | 'flat';
  price: number;
  variants: [file: string, title: string][];
}[] = [
  {
    title: 'Stoneware planter 16 cm',
    pose: 'stand',
    price: 24,
    variants: [
      ['planter-teal', 'Teal glaze'],
      ['planter-ochre', 'Ochre glaze'],
      ['planter-oxblood', 'Oxblood glaze'],
    ],
  },
  { title: 'Enamel watering can', pose: 'stand', price: 38, variants: [['watering-can', 'Cream']] },
  { title: 'Garden twine on a spool', pose: 'stand', price: 7.5, variants: [['twine', 'Jute']] },
  { title: 'Hand trowel', pose: 'flat', price: 19, variants: [['trowel', 'Ash handle']] },
  { title: 'Brass plant tags, set of three', pose: 'flat', price: 14, variants: [['plant-tags', 'Herbs']] },
  { title: 'Soil scoop', pose: 'stand', price: 22, variants: [['soil-scoop', 'Turned ash']] },
  { title: 'Glass cloche', pose: 'stand', price: 46, variants: [['cloche', 'Slate disc']] },
];

/** Designs that variants are sold with. */
const ARTWORK: Record<string, string> = {
  'planter-teal': 'Herb sprig',
  'planter-ochre': 'Potting club',
  'planter-oxblood': 'Hexagon dots',
};

const MOCKUPS = ['planter-band', 'seed-packet', 'linen-cloth', 'gift-box', 'crate-label'];

const SCENES = [
  'windowsill-morning',
  'potting-bench',
  'shelf-plaster',
  'studio-arch',
  'patio-terrazzo',
  'winter-table',
  'sill-with-foreground',
  'bench-with-jar',
];

/** Surfaces that mirror a little. */
const GLOSSY: Record<string, number> = { 'patio-terrazzo': 0.45 };

async function main(): Promise<void> {
  const { pool, db } = openDatabase(databaseUrl(), 4);
  await migrateDatabase(pool, db);
  await db.insert(workspaces).values({ id: WORKSPACE, title: 'Marrowby' }).onConflictDoNothing();
  const [workspace] = await db.select().from(workspaces).where(eq(workspaces.id, WORKSPACE));
  if (!workspace.demoLoaded && process.env.SCENOGRAPH_DEMO !== 'none') {
    console.log('Loading the demo data (once) ...');
    // All or nothing: a load that is broken off starts afresh next time.
    await db.transaction(async (tx) => {
      const inside = tx as unknown as Database;
      const store = createBlobStore(inside);
      await seedSheets(inside);
      await seedScenes(inside, store);
      await seedPictures(inside, store);
      await seedBrand(inside);
      await seedArtwork(inside, store);
      await seedProducts(inside, store);
      await seedListings(inside, pool, store);
      await tx.update(workspaces).set({ demoLoaded: true }).where(eq(workspaces.id, WORKSPACE));
    });
  }
  await pool.end();
}

async function seedSheets(db: Database): Promise<void> {
  const order = ['kestrel-market', 'oddment-lane', 'fernway-social', 'gazette-ads', 'pennant-display'];
  for (const [position, name] of order.entries()) {
    const sheet = readSpecSheet(
      JSON.parse(await readFile(join(here, 'spec-sheets', `${name}.json`), 'utf8')),
    );
    await db.insert(specSheets).values({ workspaceId: WORKSPACE, id: sheet.id, position, sheet });
    await db
      .insert(specSheetVersions)
      .values({ workspaceId: WORKSPACE, id: sheet.id, version: sheet.version, sheet });
  }
}

async function seedScenes(db: Database, store: BlobStore): Promise<void> {
  const all = [...SCENES.map((name) => ['scenes', name]), ...MOCKUPS.map((name) => ['mockups', name])];
  for (const [folder, name] of all) {
    const file = join(here, 'assets', folder, `${name}.json`);
    const scene = readSceneFile(await readFile(file, 'utf8'), `${name}.json`);
    const bytes = await readFile(join(here, 'assets', folder, `${name}.jpg`));
    const picture = await store.put(bytes, 'image/jpeg');
    const { survey } = scene;
    const outline =
      scene.outlineFile &&
      (await store.put(await readFile(join(here, 'assets', folder, scene.outlineFile)), 'image/png'));
    const areas = survey.areas.length
      ? estimateAreas(survey, scene.untold, reduceTo(await decodePicture(bytes), 1000))
      : [];
    const occluder =
      scene.occluderFile &&
      (await store.put(await readFile(join(here, 'assets', folder, scene.occluderFile)), 'image/png'));
    await db.insert(scenes).values({
      workspaceId: WORKSPACE,
      title: scene.title,
      picture,
      survey: { ...survey, occluder, outline, areas, gloss: GLOSSY[name] ?? 0 },
      palette: scene.palette,
      season: scene.season,
      createdAt: stamp(),
    });
  }
}

async function seedArtwork(db: Database, store: BlobStore): Promise<void> {
  // The demo's own files need no sandbox.
  const service = new ArtworkService(db, store, operations);
  for (const file of (await readdir(join(here, 'artwork'))).sort()) {
    const title = file.replace('.svg', '').replaceAll('-', ' ');
    const name = `${title[0].toUpperCase()}${title.slice(1)}.svg`;
    await asIncoming(name, await readFile(join(here, 'artwork', file)), (f) => service.take(f, stamp()));
  }
}

const LOGOS: Record<string, string> = {
  'marrowby-mark.svg': 'Marrowby mark, light',
  'marrowby-wordmark.svg': 'Marrowby wordmark',
  'marrowby-wordmark-light.svg': 'Marrowby wordmark, light',
};

async function seedBrand(db: Database): Promise<void> {
  const rows = await db.select().from(pictures);
  const [mark, wordmark, light] = [
    'Marrowby mark, light',
    'Marrowby wordmark',
    'Marrowby wordmark, light',
  ].map((title) => {
    const { picture, width, height } = rows.find((r) => r.title === title)!;
    return { picture, width, height };
  });
  await db.insert(brandKits).values({ workspaceId: WORKSPACE, kit: marrowbyKit(wordmark, light, mark) });
}

async function seedPictures(db: Database, store: BlobStore): Promise<void> {
  for (const file of (await readdir(join(here, 'logos'))).sort()) {
    const bytes = await readFile(join(here, 'logos', file));
    const taken = await takePicture(file, bytes, ['svg']);
    const picture = await store.put(taken.working!.bytes, taken.working!.mime);
    await db.insert(pictures).values({
      workspaceId: WORKSPACE,
      title: LOGOS[file] ?? file,
      original: await store.put(bytes, MIME.svg),
      picture,
      width: taken.width,
      height: taken.height,
      createdAt: stamp(),
    });
  }
}

async function seedProducts(db: Database, store: BlobStore): Promise<void> {
  for (const entry of PRODUCTS) {
    const files = await Promise.all(
      entry.variants.map(
        async ([file]) =>
          JSON.parse(await readFile(join(here, 'assets/products', `${file}.json`), 'utf8')) as ProductFile,
      ),
    );
    const { widthMm, heightMm, depthMm } = files[0];
    const [product] = await db
      .insert(products)
      .values({
        workspaceId: WORKSPACE,
        title: entry.title,
        widthMm,
        heightMm,
        depthMm,
        pose: entry.pose,
        createdAt: stamp(),
      })
      .returning();
    const designs = await db.select().from(artworks);
    for (const [position, [file, title]] of entry.variants.entries())
      await db.insert(variants).values({
        productId: product.id,
        title,
        sku: files[position].sku,
        price: entry.price,
        currency: 'GBP',
        fields: FIELDS[entry.title] ?? {},
        photoId: await seedPhoto(db, store, file),
        artworkId: designs.find((a) => a.title === ARTWORK[file])?.id ?? null,
        position,
      });
  }
}

async function seedPhoto(db: Database, store: BlobStore, file: string): Promise<string> {
  const bytes = await readFile(join(here, 'assets/products', `${file}.jpg`));
  const original = await store.put(bytes, 'image/jpeg');
  const photo = await decodePicture(bytes);
  // Every product keeps the shadow that its photo holds. Somebody has looked at them all, and traced what was wrong.
  const traced = TRACED.has(file) ? await tracedMatte(store, file) : null;
  const recipe: CutoutRecipe = {
    ...PLAIN_RECIPE,
    automatic: { ...PLAIN_RECIPE.automatic, glass: file === 'cloche' || 'auto' },
    steps: traced
      ? [{ id: 'traced', kind: 'outline', name: 'Traced by hand', on: true, mode: 'replace', matte: traced }]
      : [],
    ownShadow: true,
  };
  const [row] = await db
    .insert(photos)
    .values({
      workspaceId: WORKSPACE,
      name: `${file}.jpg`,
      format: 'jpeg',
      bytes: bytes.length,
      width: photo.width,
      height: photo.height,
      original,
      working: original,
      notes: [],
      cutoutState: 'done',
      cutout: await makeCutout(store, photo, recipe),
      recipe,
      accepted: true,
      createdAt: stamp(),
    })
    .returning({ id: photos.id });
  if (traced) await db.insert(outlines).values({ photoId: row.id, title: 'Traced by hand', matte: traced });
  return row.id;
}

/** What the automatic cutout gets wrong: clear glass on pale paper, and a dark foot in its own shadow. */
const TRACED = new Set(['cloche', 'watering-can']);

const tracedMatte = async (store: BlobStore, file: string): Promise<string> =>
  store.put(
    await encodeGreyPng(await decodeGrey(await readFile(join(here, 'assets/products', `${file}.matte.png`)))),
    'image/png',
  );

let tick = 0;
/** Distinct times in the order of loading. */
function stamp(): Date {
  return new Date(Date.now() - 60_000 + tick++ * 10);
}

main().catch((error) => {
  console.error(`The demo data could not be loaded: ${error instanceof Error ? error.message : error}`);
  process.exit(1);
});
