/** The demo's listings with their shots, one after the other: data more than code, hence its length. */

import {
  mockupShot,
  newBackdrop,
  newPicture,
  newProduct,
  newText,
  sceneFill,
  sceneShot,
  whiteShot,
} from '@scenograph/core/shot/starters';
import { fittedPlace, newPrint } from '@scenograph/core/surface/print';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { fillTemplate } from '@scenograph/core/templates/fill';
import { emptyShot, type Shot } from '@scenograph/core/shot/document';
import type { ProductData } from '@scenograph/core/data/product-data';
import { suggestedAlt } from '@scenograph/core/delivery/encoding';
import { slotKey, type SpecSheet } from '@scenograph/core/spec/slot';
import {
  inBrand,
  newBadge,
  newCallout,
  newInset,
  newLogo,
  newMeasure,
  newPair,
  newShape,
  newStars,
  newWatermark,
} from '@scenograph/core/shot/overlay-starters';
import { fitInArea, resolveBase } from '@scenograph/core/shot/resolve';
import { encodePicture } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { asc } from 'drizzle-orm';
import type pg from 'pg';
import type { BlobStore } from '../apps/server/src/blobs/blob-store';
import { WORKSPACE, type Database } from '../apps/server/src/database/database';
import { artworks, listings, pictures, products, scenes, shots } from '../apps/server/src/database/schema';
import { DeliveriesService } from '../apps/server/src/deliveries/deliveries.service';
import { kitOf } from '../apps/server/src/brand/brand.service';
import { BoardService } from '../apps/server/src/board/board.service';
import { variantsOf } from '../apps/server/src/products/product-data';
import { allSheets } from '../apps/server/src/spec-sheets/spec-sheets.service';

type SceneRow = typeof scenes.$inferSelect;

/** Listings in different states: nearly done, half done, just begun, printed on mockups, one picture in every size. */
export async function seedListings(db: Database, pool: pg.Pool, store: BlobStore): Promise<void> {
  const sheets = await allSheets(db);
  const sceneRows = await db.select().from(scenes).orderBy(asc(scenes.createdAt));
  const logos = await db.select().from(pictures).orderBy(asc(pictures.createdAt));
  const productRows = await db.select().from(products).orderBy(asc(products.createdAt));
  const designs = await db.select().from(artworks).orderBy(asc(artworks.createdAt));
  const art = (title: string) => designs.find((a) => a.title === title)!;
  const byTitle = (start: string) => productRows.find((p) => p.title.startsWith(start))!;
  const scene = (start: string) => sceneRows.find((s) => s.title.startsWith(start))!;

  const { kit } = await kitOf(db);
  const planter = byTitle('Stoneware planter');
  const [teal] = await variantsOf(db, [planter.id]);
  const autumn = await makeListing(db, 'Autumn planters', planter.id, sheets.slice(0, 4));
  await addShots(db, autumn, [
    ['On white', whiteShot(teal.data, 'stand'), ['kestrel-market/main', 'kestrel-market/detail']],
    [
      'Morning sill',
      headlineShot(
        teal.data,
        scene('Morning'),
        logos.find((l) => l.title === 'Marrowby wordmark')!,
      ),
      [
        'kestrel-market/gallery-1',
        'oddment-lane/hero',
        'oddment-lane/card',
        'fernway-social/square',
        'fernway-social/portrait',
        'gazette-ads/medium-rectangle',
        'gazette-ads/leaderboard',
        'gazette-ads/wide',
      ],
    ],
    [
      'Winter table',
      winterShot(teal.data, scene('Winter')),
      ['oddment-lane/lifestyle', 'fernway-social/story', 'gazette-ads/skyscraper'],
    ],
    ['Glow', gradientShot(teal.data), []],
  ]);

  const can = byTitle('Enamel watering can');
  const [cream] = await variantsOf(db, [can.id]);
  const watering = await makeListing(db, 'Watering can', can.id, sheets.slice(0, 2));
  await addShots(db, watering, [
    ['On white', whiteShot(cream.data, 'stand'), ['kestrel-market/main']],
    [
      'Potting bench',
      sceneShot(cream.data, 'stand', scene('Potting')),
      ['kestrel-market/gallery-1', 'oddment-lane/hero'],
    ],
  ]);

  const twine = byTitle('Garden twine');
  const [jute] = await variantsOf(db, [twine.id]);
  const spool = await makeListing(db, 'Twine and tags', twine.id, sheets.slice(0, 3));
  await addShots(db, spool, [
    ['Terrazzo', sceneShot(jute.data, 'stand', scene('Patio')), ['fernway-social/square']],
  ]);

  const band = scene('White planter');
  const printed = await makeListing(db, 'Printed planter', planter.id, sheets.slice(0, 3));
  await addShots(db, printed, [
    [
      'Band',
      // Every variant's own design on the band.
      printedShot(band, [['band', art('Herb sprig'), 'inside']], true),
      ['kestrel-market/gallery-1', 'oddment-lane/hero', 'fernway-social/square'],
    ],
    [
      'Gift box',
      printedShot(scene('Blank gift'), [
        ['long-side', art('Potting club'), 'inside'],
        ['short-side', art('Herb sprig'), 'inside'],
      ]),
      ['oddment-lane/lifestyle'],
    ],
    ['Seed packet', printedShot(scene('Kraft'), [['front', art('Basil label'), 'inside']]), []],
  ]);

  const sale = await makeListing(db, 'Autumn sale', planter.id, sheets);
  const every = sheets.flatMap((sheet) =>
    sheet.slots.filter((s) => s.overlays === 'allowed').map((s) => slotKey(sheet, s)),
  );
  const filled = (id: string) => fillTemplate(DESIGNS.find((d) => d.id === id)!.document, teal.data, 'stand');
  await addShots(db, sale, [
    ['Sale, half and half', filled('sale-half'), every],
    ['New arrival', filled('new-arrival'), []],
    ['Look closer', filled('close-up'), []],
    ['Size guide', filled('size-guide'), []],
    ['Why it lasts', overlaidShot({ ...teal.data, brand: kit }), []],
    [
      'A sill of one’s own',
      pairShot(
        { ...teal.data, brand: kit },
        scene('Morning'),
        await stagedPicture(teal.data, scene('Morning'), store),
      ),
      [],
    ],
  ]);

  // A first delivery waits for the worker, so that the list of deliveries has something to show.
  const service = new DeliveriesService(db, pool, store, new BoardService(db, pool));
  await service.order({
    listingIds: [autumn],
    which: 'all',
    priority: 0,
    slots: [
      'kestrel-market/main',
      'kestrel-market/gallery-1',
      'oddment-lane/hero',
      'gazette-ads/leaderboard',
    ],
  });
}

async function makeListing(
  db: Database,
  title: string,
  productId: string,
  sheets: SpecSheet[],
): Promise<string> {
  // Lists begin with what was made last: the demo's first listing stands first, and the others in their order.
  const createdAt = new Date(Date.now() - 1000 * (await db.$count(listings)));
  const [row] = await db
    .insert(listings)
    .values({ workspaceId: WORKSPACE, title, productId, sheets: sheets.map((s) => s.id), createdAt })
    .returning({ id: listings.id });
  const known = new Set(sheets.flatMap((s) => s.slots.map((slot) => slotKey(s, slot))));
  if (!known.size) throw new Error(`The listing "${title}" has no slots.`);
  return row.id;
}

async function addShots(
  db: Database,
  listingId: string,
  list: [title: string, document: Shot, feeds: string[]][],
) {
  for (const [position, [title, document, feeds]] of list.entries())
    await db.insert(shots).values({
      workspaceId: WORKSPACE,
      listingId,
      title,
      // One is left to be written, so that the check for it has something to say.
      alt: title === 'Winter table' ? '' : suggestedAlt(title),
      document,
      feeds,
      position,
      history: { past: [], future: [] },
    });
}

/** A mockup with designs on its areas. */
function printedShot(
  scene: SceneRow,
  prints: [area: string, artwork: typeof artworks.$inferSelect, how: 'inside' | 'fill'][],
  followsVariant = false,
): Shot {
  const shot = mockupShot(scene);
  const { picture, survey } = scene;
  const [backdrop] = shot.elements;
  const fill = sceneFill(picture, survey);
  const designs = prints.map(([id, artwork, how], i) => {
    const area = survey.areas.find((a) => a.id === id)!;
    const design = newPrint(
      `print-${i + 1}`,
      artwork.title,
      { hash: artwork.picture, ...artwork, drawn: { svg: artwork.original, inks: {} } },
      area,
      0.92,
    );
    const placed = how === 'fill' ? { ...design, place: fittedPlace(design, area, 'fill') } : design;
    return { ...placed, followsVariant };
  });
  const printed = { ...fill, item: { ...fill.item, prints: designs } };
  return { ...shot, elements: [{ ...backdrop, fill: printed } as typeof backdrop] };
}

/** One picture with an overlay of nearly every kind. */
function overlaidShot(data: ProductData): Shot {
  const shot = emptyShot(1600, 1600);
  const { frame } = shot;
  const place = (x: number, y: number, width: number, height: number) => ({
    x,
    y,
    width,
    height,
    rotation: 0,
  });
  const product = {
    ...newProduct('product', data, frame, 'stand'),
    box: fitInArea(data.cutout!, place(430, 470, 700, 860)),
  };
  const heading = newText('heading', 'Made to be watered for years', frame);
  const kit = data.brand!;
  const elements: Shot['elements'] = [
    { ...newBackdrop('backdrop', frame, '#e9e4d6'), brand: { 'fill.colour': 'paper' } },
    {
      ...newShape('leaves', frame, 'decoration'),
      name: 'Leaves',
      box: place(1060, 250, 480, 420),
      opacity: 0.5,
    },
    product,
    {
      ...heading,
      name: 'Headline',
      size: 110,
      smallest: 60,
      font: 'fraunces-600',
      leading: 1.05,
      box: place(96, 90, 1000, 250),
      brand: { colour: 'ink', font: 'headline' },
    },
    {
      ...newInset('close-up', frame, 'photo'),
      name: 'Close-up of the rim',
      box: place(1130, 640, 360, 360),
      spot: { x: 0.68, y: 0.09 },
      across: 0.24,
      states: true,
    },
    {
      ...newCallout('glaze', frame),
      name: 'Glaze',
      text: 'Glazed twice, inside and out',
      spot: { x: 0.2, y: 0.42 },
      box: place(90, 620, 270, 130),
      size: 44,
      smallest: 26,
    },
    { ...newMeasure('width', frame, 'width'), size: 42, offset: 60 },
    {
      ...newBadge('saving', frame, 'saving'),
      name: 'Saving',
      form: 'starburst',
      box: place(1200, 1080, 300, 300),
      ring: null,
    },
    { ...newStars('rating', frame), box: place(96, 1440, 760, 72), colour: '#8a5a00' },
    { ...newLogo('logo', frame, kit), box: place(1200, 1452, 304, 64) },
    { ...newWatermark('watermark', frame, kit), strength: 5 },
  ];
  return { ...shot, elements: elements.map((e) => inBrand(e, kit)) };
}

/** Before and after as a whole picture. */
function pairShot(data: ProductData, scene: SceneRow, after: string): Shot {
  const shot = emptyShot(1600, 1200);
  const { frame } = shot;
  const pair = newPair('pair', frame, true);
  const title = newText('title', '{title}', frame);
  return {
    ...shot,
    elements: [
      newBackdrop('backdrop', frame, '#ffffff'),
      inBrand(
        {
          ...pair,
          split: 'diagonal' as const,
          before: { ...pair.before, picture: scene.picture },
          after: { ...pair.after, picture: after },
        },
        data.brand,
      ),
      {
        ...title,
        name: 'Title',
        size: 56,
        align: 'centre',
        box: { x: 400, y: 1060, width: 800, height: 100, rotation: 0 },
        plate: { colour: '#f6f2e8', opacity: 0.94, padding: 18, radius: 10 },
        brand: { font: 'headline', colour: 'ink' },
      },
    ],
  };
}

/** The product in a scene as a finished picture in the store. */
async function stagedPicture(data: ProductData, scene: SceneRow, store: BlobStore): Promise<string> {
  const painter = createPainter(async (hash) => store.get(hash));
  const painted = await painter.paint(resolveBase(sceneShot(data, 'stand', scene), data));
  const { bytes } = await encodePicture(painted.pixels(), 'jpeg');
  return store.put(Buffer.from(bytes), 'image/jpeg');
}

/** Morning sill: a scene with headline, price and the brand's wordmark. */
function headlineShot(data: ProductData, scene: SceneRow, logo: typeof pictures.$inferSelect): Shot {
  const shot = sceneShot(data, 'stand', scene);
  const { frame } = shot;
  const headline = newText('headline', 'New glaze', frame);
  const price = newText('price', '{price}', frame);
  return {
    ...shot,
    elements: [
      ...shot.elements,
      {
        ...headline,
        name: 'Headline',
        font: 'bricolage-grotesque-700',
        size: 150,
        colour: '#12463a',
        box: { x: 1060, y: 120, width: 640, height: 190, rotation: 0 },
        plate: { colour: '#f7f7f6', opacity: 0.86, padding: 34, radius: 14 },
      },
      {
        ...price,
        name: 'Price',
        font: 'hanken-grotesk-800',
        size: 96,
        colour: '#171b19',
        box: { x: 1060, y: 330, width: 300, height: 150, rotation: 0 },
        plate: { colour: '#d3f04a', opacity: 1, padding: 28, radius: 14 },
      },
      {
        ...newPicture('logo', 'Marrowby wordmark', logo, frame),
        box: { x: 1560, y: 1360, width: 380, height: 96, rotation: 0 },
      },
    ],
  };
}

/** Winter table: centred words over a dark scene; the story slot keeps a difference of its own. */
function winterShot(data: ProductData, scene: SceneRow): Shot {
  const shot = sceneShot(data, 'stand', scene);
  const words = newText('words', 'For the\nwinter windowsill', shot.frame);
  return {
    ...shot,
    elements: [
      ...shot.elements,
      {
        ...words,
        name: 'Words',
        font: 'fraunces-600',
        size: 104,
        align: 'centre',
        colour: '#f3ead6',
        box: { x: 500, y: 70, width: 1000, height: 260, rotation: 0 },
      },
    ],
    fits: {
      'fernway-social/story': {
        frame: { width: 1080, height: 1920 },
        elements: { words: { box: { x: 110, y: 300, width: 860, height: 224, rotation: 0 } } },
      },
    },
  };
}

/** The product before a radial glow, not yet given to any slot. */
function gradientShot(data: ProductData): Shot {
  const shot = emptyShot(1600, 1600);
  const product = newProduct('product', data, shot.frame, 'stand');
  const title = newText('title', '{title}\n{size}', shot.frame);
  return {
    ...shot,
    elements: [
      {
        ...newBackdrop('backdrop', shot.frame, '#f6efe2'),
        name: 'Glow',
        fill: {
          type: 'gradient',
          form: 'radial',
          from: { x: 0.5, y: 0.48 },
          to: { x: 1.38, y: 0.48 },
          stops: [
            { at: 0, colour: '#f6efe2' },
            { at: 0.55, colour: '#e3d3bb' },
            { at: 1, colour: '#b99d7c' },
          ],
        },
      },
      product,
      {
        ...title,
        name: 'Title and size',
        size: 64,
        box: { x: 110, y: 90, width: 900, height: 180, rotation: 0 },
      },
    ],
  };
}
