/**
 * "npm run screenshots -- http://127.0.0.1:4310 [name ...]": the pictures in docs/screenshots, made at 1280 x 800
 * from the demo data of a running Scenograph. Another folder can be given in SCENOGRAPH_SHOTS.
 */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from 'playwright-core';
import { chromiumLaunch } from './chromium.mjs';
import { root } from './setup.mjs';

const [address = 'http://127.0.0.1:4310', ...only] = process.argv.slice(2);
const folder = process.env.SCENOGRAPH_SHOTS ?? join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });

const api = async (path) => (await fetch(`${address}${path}`)).json();
const listing = (await api('/api/listings')).find((l) => l.title === 'Autumn planters');
const { shots } = await api(`/api/listings/${listing.id}`);
const printedListing = (await api('/api/listings')).find((l) => l.title === 'Printed planter');
const { shots: printed } = await api(`/api/listings/${printedListing.id}`);
const saleListing = (await api('/api/listings')).find((l) => l.title === 'Autumn sale');
const { shots: sale } = await api(`/api/listings/${saleListing.id}`);
const saleShot = (title) => sale.find((s) => s.title === title).id;
const photos = await api('/api/photos');
const scenes = await api('/api/scenes');
const photo = (name) => photos.find((p) => p.name === name).id;
const shot = (title) => shots.find((s) => s.title === title).id;

const [delivery] = await api('/api/deliveries');

/** A recipe to be shown: the first there is, or one made now. */
async function recipe() {
  const [known] = await api('/api/recipes');
  if (known) return known;
  const place = (title) => scenes.find((s) => s.title === title);
  const steps = [
    { id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] },
    { id: 'white', kind: 'white', title: 'On white', after: ['cut'] },
    {
      id: 'sill',
      kind: 'stage',
      title: 'Morning windowsill',
      after: ['cut'],
      scene: place('Morning windowsill').id,
    },
    { id: 'bench', kind: 'stage', title: 'Potting bench', after: ['cut'], scene: place('Potting bench').id },
    {
      id: 'fit',
      kind: 'fit',
      title: 'Fit the slots',
      after: ['white', 'sill', 'bench'],
      sheets: ['oddment-lane'],
    },
    { id: 'deliver', kind: 'deliver', title: 'Deliver', after: ['fit'] },
  ];
  const made = await (
    await fetch(`${address}/api/recipes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ title: 'Two views and white', steps }),
    })
  ).json();
  return made;
}

/** Name, path, and what to do before the picture is taken and after it. */
const VIEWS = [
  ['listings', '/listings'],
  ['board', `/listings/${listing.id}`, async (page) => page.waitForTimeout(9000)],
  ['stage', `/shots/${shot('Morning sill')}`, async (page) => page.waitForTimeout(6000)],
  [
    'stage-slot',
    `/shots/${shot('Morning sill')}?slot=gazette-ads%2Fmedium-rectangle`,
    async (page) => {
      await page.getByRole('button', { name: /1 Place/ }).click();
      await page.getByRole('button', { name: /6 Checks/ }).click();
    },
  ],
  [
    'cutout',
    `/photos/${photo('watering-can.jpg')}/cutout`,
    async (page) =>
      page
        .locator('section[aria-label="Edge halo"]', { hasNotText: 'measuring' })
        .waitFor({ timeout: 90_000 }),
  ],
  ['data', `/products/${listing.productId}`],
  ['survey', `/library/scenes/${scenes.find((s) => s.title === 'Potting bench').id}`],
  [
    'mockup',
    `/shots/${printed.find((s) => s.title === 'Band').id}`,
    async (page) => {
      await page.getByRole('button', { name: 'Design Herb sprig' }).focus();
      await page.waitForTimeout(1500);
    },
  ],
  [
    'overlays',
    `/shots/${saleShot('Why it lasts')}`,
    async (page) => {
      const strip = page.getByRole('region', { name: 'Depth, from back to front' });
      await strip.getByRole('button', { name: 'Close-up of the rim', exact: true }).click();
      await page.getByRole('button', { name: /1 Place/ }).click();
      await page.getByRole('button', { name: /4 Overlays/ }).click();
    },
  ],
  [
    'sizes',
    `/shots/${saleShot('Sale, half and half')}`,
    async (page) => {
      await page.getByRole('button', { name: 'All on one sheet' }).click();
      await page.getByRole('radio', { name: 'Small' }).click();
      await page.waitForTimeout(9000);
    },
  ],
  ['brand', '/brand'],
  ['templates', '/templates', async (page) => page.waitForTimeout(4000)],
  ['ideas', `/listings/${listing.id}/ideas`, async (page) => page.waitForTimeout(6000)],
  ['spec-sheet', '/spec-sheets/kestrel-market'],
  ['checks', `/listings/${listing.id}/checks`],
  [
    'compare',
    `/listings/${listing.id}/compare?slot=fernway-social%2Fsquare`,
    async (page) => page.waitForTimeout(4000),
  ],
  [
    'encoding',
    `/listings/${listing.id}/encoding?slot=kestrel-market%2Fgallery-1`,
    async (page) => {
      await page.waitForTimeout(14_000);
      await page.getByRole('radio', { name: '200 %' }).click();
    },
  ],
  ['recipe', `/recipes/${(await recipe()).id}`],
  [
    'delivery',
    `/deliveries/${delivery.id}`,
    async (page) => {
      const send = page.getByRole('button', { name: 'Send', exact: true });
      while (await send.count()) {
        await send.first().click();
        await page.waitForTimeout(2500);
      }
    },
  ],
];

const browser = await chromium.launch(chromiumLaunch);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
for (const [name, path, before, after] of VIEWS) {
  if (only.length && !only.includes(name)) continue;
  await page.goto(`${address}${path}`);
  await page.waitForTimeout(4000);
  await before?.(page);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await after?.(page);
  console.log(name);
}
await browser.close();
