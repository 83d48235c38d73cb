import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { saved } from './helpers';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import sharp from 'sharp';

interface PhotoInfo {
  id: string;
  name: string;
  accepted: boolean;
  cutoutState: string;
  cutout: { picture: string; matte: string; width: number; height: number; bounds: { x: number; y: number } };
}

async function photoNamed(api: APIRequestContext, name: string): Promise<PhotoInfo> {
  const list = (await (await api.get('/api/photos')).json()) as PhotoInfo[];
  return list.find((p) => p.name === name)!;
}

async function openDesk(page: Page, id: string): Promise<void> {
  await page.goto(`/photos/${id}/cutout`);
  await expect(page.getByTestId('desk-timing')).toHaveText(/\d+ ms/, { timeout: 240_000 });
}

/** A stroke between two places of the photo, given as shares of its size. */
async function stroke(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  const frame = await photoFrame(page);
  const at = ([x, y]: [number, number]) => [frame.x + x * frame.width, frame.y + y * frame.height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at(to), { steps: 5 });
  await page.mouse.up();
}

/** Where the fitted photo lies on the screen, read off its picture: the surround is grey, the photo is not. */
async function photoFrame(page: Page) {
  const desk = page.getByRole('application');
  const box = (await desk.boundingBox())!;
  const size = JSON.parse((await desk.getAttribute('data-frame'))!) as {
    x: number;
    y: number;
    width: number;
    height: number;
  };
  return { x: box.x + size.x, y: box.y + size.y, width: size.width, height: size.height };
}

/** Opacity shown at a place of the photo in the matte view, 0 to 255. */
async function matteAt(page: Page, x: number, y: number): Promise<number> {
  const frame = await photoFrame(page);
  const [px, py] = [frame.x + x * frame.width, frame.y + y * frame.height];
  const png = await page.screenshot({ clip: { x: px - 2, y: py - 2, width: 4, height: 4 } });
  const { channels } = await sharp(png).stats();
  return channels[1].mean;
}

test('strokes change the cut, are steps that can be switched off, and survive a reload; accepting makes the full-size cutout', async ({
  page,
  request,
}) => {
  const before = await photoNamed(request, 'trowel.jpg');
  await openDesk(page, before.id);
  await page.keyboard.press('3');
  // The blade of the trowel lies at the lower left.
  await expect.poll(() => matteAt(page, 0.25, 0.72)).toBeGreaterThan(235);
  await page.keyboard.press('d');
  await stroke(page, [0.16, 0.82], [0.36, 0.64]);
  const steps = page.getByRole('complementary', { name: 'How this edge was made' });
  await expect(steps.getByRole('button', { name: 'Drop stroke' })).toBeVisible();
  await expect.poll(() => matteAt(page, 0.25, 0.74)).toBeLessThan(20);

  await steps.getByRole('button', { name: 'Drop stroke' }).click();
  await steps.getByRole('button', { name: 'Switch off' }).click();
  await expect.poll(() => matteAt(page, 0.25, 0.74)).toBeGreaterThan(235);
  await page.keyboard.press('Control+z');
  // A chosen step's stroke is shown over the picture: let go of it before looking.
  await steps.getByRole('button', { name: 'Drop stroke' }).click();
  await expect.poll(() => matteAt(page, 0.25, 0.74)).toBeLessThan(20);
  await saved(page);

  await page.reload();
  await expect(page.getByTestId('desk-timing')).toHaveText(/\d+ ms/, { timeout: 240_000 });
  await page.keyboard.press('3');
  await expect.poll(() => matteAt(page, 0.25, 0.74)).toBeLessThan(20);
  await page.getByRole('button', { name: /^Accept/ }).click();
  await expect
    .poll(async () => (await photoNamed(request, 'trowel.jpg')).cutout.picture, { timeout: 240_000 })
    .not.toBe(before.cutout.picture);
  const after = await photoNamed(request, 'trowel.jpg');
  expect(after.accepted).toBe(true);
  const opacity = async (hash: string) => {
    const png = await (await request.get(`/api/blobs/${hash}`)).body();
    return (await sharp(png).stats()).channels[3].mean;
  };
  expect(await opacity(after.cutout.picture)).toBeLessThan((await opacity(before.cutout.picture)) - 5);
});

test('browser, worker and command line cut out the same matte', async ({ page, request }) => {
  const photo = await photoNamed(request, 'planter-ochre.jpg');
  await openDesk(page, photo.id);
  await expect(page.getByText(/^ΔE [\d.]+ mean/)).toBeVisible({ timeout: 240_000 });
  await page.getByLabel('Save the present outline as').fill('In the browser');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('In the browser').first()).toBeVisible();
  const { outlines } = (await (await request.get(`/api/photos/${photo.id}/desk`)).json()) as {
    outlines: { id: string; title: string; matte: string }[];
  };
  const mine = outlines.find((o) => o.title === 'In the browser')!;
  const file = join(mkdtempSync(join(tmpdir(), 'matte-')), 'matte.png');
  execFileSync('npx', ['--no-install', 'scenograph', 'cutout', 'demo/assets/products/planter-ochre.jpg', '-o', file.replace('matte', 'cut'), '--matte', file]); // prettier-ignore
  const grey = async (png: Buffer | string) =>
    sharp(png).removeAlpha().extractChannel(0).raw().toBuffer({ resolveWithObject: true });
  const blob = async (hash: string) => (await request.get(`/api/blobs/${hash}`)).body();
  const [browser, worker, command] = await Promise.all([
    grey(await blob(mine.matte)),
    grey(await blob(photo.cutout.matte)),
    grey(file),
  ]);
  const apart = (a: typeof browser, b: typeof browser) => {
    expect(a.info.width).toBe(b.info.width);
    let squares = 0;
    for (let i = 0; i < a.data.length; i++) squares += ((a.data[i] - b.data[i]) / 255) ** 2;
    return squares / a.data.length;
  };
  expect(apart(browser, worker)).toBeLessThan(1e-5);
  expect(apart(command, worker)).toBeLessThan(1e-5);
  await request.delete(`/api/photos/${photo.id}/outlines/${mine.id}`);
});

test('a shape, a traced edge and a colour are corrections too, and an outline is kept, exported and brought back', async ({
  page,
  request,
}) => {
  const photo = await photoNamed(request, 'planter-ochre.jpg');
  await openDesk(page, photo.id);
  await page.getByLabel('Save the present outline as').fill('Whole pot');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const panel = page.getByRole('complementary', { name: 'How this edge was made' });
  await expect(panel.getByText('Whole pot')).toBeVisible();

  await page.keyboard.press('s');
  await stroke(page, [0.3, 0.3], [0.7, 0.6]);
  await page.keyboard.press('3');
  await expect.poll(() => matteAt(page, 0.5, 0.45)).toBeLessThan(20);
  await page.keyboard.press('t');
  for (const [x, y] of [
    [0.3, 0.3],
    [0.7, 0.3],
    [0.68, 0.62],
    [0.32, 0.62],
  ])
    await stroke(page, [x, y], [x, y]);
  await page.keyboard.press('Enter');
  await expect(panel.getByText('4 points')).toBeVisible();
  await panel.getByRole('button', { name: 'Edge traced' }).click();
  await page.keyboard.press('c');
  await stroke(page, [0.05, 0.05], [0.05, 0.05]);
  await expect(panel.getByText('1 picked')).toBeVisible();

  await panel.getByText('Use', { exact: true }).click();
  await page.getByRole('menuitem', { name: 'Load it' }).click();
  // The picked colour had taken the backdrop too: that it is gone tells that the outline is there.
  await expect.poll(() => matteAt(page, 0.1, 0.5)).toBeLessThan(20);
  expect(await matteAt(page, 0.5, 0.45)).toBeGreaterThan(235);

  const [outline] = (
    (await (await request.get(`/api/photos/${photo.id}/desk`)).json()) as { outlines: { id: string }[] }
  ).outlines;
  const svg = await (await request.get(`/api/photos/${photo.id}/outlines/${outline.id}/svg`)).body();
  expect(svg.toString()).toMatch(/<path fill-rule="evenodd" d="M[\d.]+ [\d.]+L/);
  await page
    .getByLabel('Outline to import')
    .setInputFiles({ name: 'back again.svg', mimeType: 'image/svg+xml', buffer: svg });
  await expect(panel.getByText('back again')).toBeVisible();
  const small = await sharp({ create: { width: 90, height: 20, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  await page
    .getByLabel('Outline to import')
    .setInputFiles({ name: 'other.png', mimeType: 'image/png', buffer: small });
  await expect(page.getByText(/needs the same shape as its photo/)).toBeVisible();
});

test('adjusting, edge profile and glass act at once; the same adjustments go to a whole shoot when asked, and are taken back', async ({
  page,
  request,
}) => {
  const photo = await photoNamed(request, 'soil-scoop.jpg');
  const other = await photoNamed(request, 'planter-teal.jpg');
  await openDesk(page, photo.id);
  await expect(page.getByText(/^ΔE [\d.]+ mean/)).toBeVisible({ timeout: 240_000 });
  await page.getByRole('slider', { name: 'Place of the edge' }).press('PageUp');
  await page.getByRole('textbox', { name: 'Ends' }).fill('4');
  await page.getByRole('textbox', { name: 'Ends' }).press('Enter');
  await page.getByRole('radio', { name: 'Solid' }).click();
  await page.getByRole('button', { name: 'Adjust photo' }).click();
  await page.getByRole('textbox', { name: 'Exposure' }).fill('1.2');
  await page.getByRole('textbox', { name: 'Exposure' }).press('Enter');
  await saved(page);
  const deskOf = async (id: string) =>
    (await (await request.get(`/api/photos/${id}/desk`)).json()) as {
      recipe: {
        tidy: { exposure: number };
        edge: { shift: number; soften: number };
        automatic: { glass: boolean };
      };
    };
  const { recipe } = await deskOf(photo.id);
  expect(recipe.tidy.exposure).toBe(1.2);
  // From 0 to 4 px: the middle lies two pixels out, the slope is twice as wide as it was.
  expect(recipe.edge.shift).toBeCloseTo(2, 5);
  expect(recipe.edge.soften).toBeGreaterThan(0.5);
  expect(recipe.automatic.glass).toBe(false);

  await page.getByRole('button', { name: /^Same for all \d+ photos/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();
  expect((await deskOf(other.id)).recipe.tidy.exposure).toBe(0);
  await page.getByRole('button', { name: /^Same for all \d+ photos/ }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Adjust \d+ photos/ })
    .click();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText(/have the adjustments back that they had/)).toBeVisible();
  expect((await deskOf(other.id)).recipe.tidy.exposure).toBe(0);
  await page.goto('/photos/review');
  await expect(page.getByRole('heading', { name: 'Review wall' })).toBeVisible();
  await expect(page.getByText(/^Cutting out/)).toBeHidden({ timeout: 300_000 });
});

test('a box and a pen path are steps of the hand; what is corrected is used when the desk is left, and saved as files', async ({
  page,
  request,
}) => {
  const photo = await photoNamed(request, 'plant-tags.jpg');
  await openDesk(page, photo.id);
  await page.keyboard.press('b');
  await stroke(page, [0.04, 0.04], [0.96, 0.96]);
  await expect(page.getByText('a box drawn')).toBeVisible();
  await page.keyboard.press('y');
  for (const [x, y] of [
    [0.02, 0.02],
    [0.12, 0.02],
    [0.12, 0.12],
  ])
    await stroke(page, [x, y], [x, y]);
  await page.keyboard.press('Enter');
  const panel = page.getByRole('complementary', { name: 'How this edge was made' });
  await expect(panel.getByRole('button', { name: 'Pen path' })).toBeVisible();
  await page.keyboard.press('3');
  await expect.poll(() => matteAt(page, 0.1, 0.05)).toBeGreaterThan(235);
  await saved(page);
  await expect(page.getByText('not in use yet')).toBeVisible();
  await page.getByRole('link', { name: 'Photos' }).click();
  await expect
    .poll(async () => (await photoNamed(request, 'plant-tags.jpg')).cutout.picture, { timeout: 240_000 })
    .not.toBe(photo.cutout.picture);

  const file = async (format: string) => request.get(`/api/photos/${photo.id}/file?format=${format}`);
  const webp = await sharp(await (await file('webp')).body()).metadata();
  expect([webp.format, webp.hasAlpha]).toEqual(['webp', true]);
  const matte = await sharp(await (await file('matte')).body()).metadata();
  expect([matte.width, matte.height]).toEqual([1800, 1350]);
  expect((await (await file('svg')).text()).slice(0, 4)).toBe('<svg');
  expect((await file('gif')).status()).toBe(400);
});

test('a photo replaced by another size keeps its product, and its steps run on the new one', async ({
  request,
}) => {
  const photo = await photoNamed(request, 'planter-oxblood.jpg');
  const half = await sharp(await readFile('demo/assets/products/planter-oxblood.jpg'))
    .resize(900)
    .jpeg({ quality: 95 })
    .toBuffer();
  const answer = await request.post(`/api/photos/${photo.id}/replace?name=smaller.jpg`, { data: half });
  expect(answer.ok()).toBe(true);
  await expect
    .poll(async () => (await photoNamed(request, 'smaller.jpg'))?.cutout.width, { timeout: 240_000 })
    .toBeLessThan(photo.cutout.width * 0.55);
  const { products } = (await (await request.get('/api/products')).json()) as {
    products: { variants: { photoId: string; data: { variant: string } }[] }[];
  };
  const variant = products.flatMap((p) => p.variants).find((v) => v.data.variant === 'Oxblood glaze')!;
  expect(variant.photoId).toBe(photo.id);
});
