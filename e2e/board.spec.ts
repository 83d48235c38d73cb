import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { zipSync } from 'fflate';
import { field, findListing, openStage, saved } from './helpers';

const cell = (page: Page, name: RegExp | string) => page.getByRole('gridcell', { name });
const option = async (page: Page, box: string, name: string) => {
  await page.getByRole('combobox', { name: box, exact: true }).click();
  await page.getByRole('option', { name, exact: true }).click();
};

test('cells are chosen by row, column, range and filter, given to a shot, opened, and taken back', async ({
  page,
  request,
}) => {
  const { listing, shots, variants } = await findListing(request, 'Autumn planters');
  await page.goto(`/listings/${listing.id}`);
  const main = cell(page, /^Teal glaze, Main: /);
  await main.click();
  const panel = page.getByRole('complementary', { name: 'Teal glaze, Main' });
  await expect(panel.getByText('Product coverage')).toBeVisible();
  await cell(page, /^Ochre glaze, Gallery 1: /).click({ modifiers: ['Shift'] });
  const chosen = page.getByRole('toolbar', { name: 'Chosen cells' });
  await expect(chosen).toContainText('4 cells chosen');
  await page.getByRole('button', { name: 'Choose all cells of Oxblood glaze' }).click();
  await expect(chosen).toContainText('14 cells chosen');
  await page.getByRole('button', { name: 'Choose all cells of Square, Fernway Social' }).click();
  await expect(chosen).toContainText('3 cells chosen');
  await option(page, 'Choose cells', 'Missing');
  await expect(chosen).toContainText('3 cells chosen');

  // By keyboard: from the first cell down, one cell of another shot.
  const grid = page.getByRole('grid', { name: 'Slot board' });
  await main.click();
  await grid.focus();
  for (const key of ['ArrowDown', 'ArrowRight', 'Escape', ' ']) await page.keyboard.press(key);
  await expect(cell(page, /^Ochre glaze, Gallery 1: /)).toHaveAttribute('aria-selected', 'true');
  await option(page, 'Fill from', 'Winter table');
  await expect(cell(page, /^Ochre glaze, Gallery 1: .*Filled by another shot/)).toBeVisible();
  await expect(cell(page, /^Teal glaze, Gallery 1: .*Filled by another/)).toHaveCount(0);
  await grid.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(
    new RegExp(`/shots/${shots.find((s) => s.title === 'Winter table')!.id}.*variant=${variants[1].id}`),
  );
  await page.goBack();
  await page.getByRole('button', { name: 'Undo: Fill from Winter table' }).click();
  await expect(cell(page, /^Ochre glaze, Gallery 1: .*Filled by another/)).toHaveCount(0);
});

test('a difference for one variant stays its own, whatever the slot does', async ({ page, request }) => {
  const { shots, variants, listing } = await findListing(request, 'Autumn planters');
  const sill = shots.find((s) => s.title === 'Morning sill')!;
  const query = (v: string) => `?slot=${encodeURIComponent('kestrel-market/gallery-1')}&variant=${v}`;
  await openStage(page, sill.id, query(variants[2].id));
  await page.getByRole('checkbox', { name: 'For Oxblood glaze only' }).check();
  await page.getByRole('button', { name: 'Price', exact: true }).click();
  await field(page, 'Left').fill('900');
  await field(page, 'Left').press('Enter');
  await saved(page);
  await page.goto(`/listings/${listing.id}`);
  await expect(cell(page, /^Oxblood glaze, Gallery 1: .*This cell has differences of its own/)).toBeVisible();
  await expect(cell(page, /^Teal glaze, Gallery 1: .*differences/)).toHaveCount(0);
});

test('data is edited in place and imported: problems are listed by line first, pictures come from a ZIP, undo takes it back', async ({
  page,
  request,
}) => {
  const { listing } = await findListing(request, 'Autumn planters');
  await page.goto(`/products/${listing.productId}`);
  const price = page.getByRole('textbox', { name: 'Price of MB-PL-160-TEA' });
  await price.fill('cheap');
  await price.press('Enter');
  await expect(page.getByText('"cheap" is no price')).toBeVisible();
  await expect(price).toHaveValue('24');
  await price.fill('31.50');
  await price.press('Enter');
  await expect(price).toHaveValue('31.5');
  await page.getByRole('button', { name: 'Undo: Price of MB-PL-160-TEA' }).click();
  await expect(price).toHaveValue('24');

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export CSV' }).click(),
  ]);
  const table = await readFile(await download.path(), 'utf8');
  await page.getByRole('button', { name: 'Import CSV' }).click();
  const dialog = page.getByRole('dialog');
  const choose = (name: string, buffer: Buffer) =>
    dialog.getByLabel('Table to import').setInputFiles({ name, mimeType: 'text/csv', buffer });
  await choose('same.csv', Buffer.from(table));
  await expect(dialog.getByText('0 to be added, 0 to be changed, 3 as they are')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();

  // In Windows-1252 with semicolons, as a spreadsheet writes it; "ü" is one byte.
  const rows = 'Artikel;Price;Photo\nMB-PL-160-TEA;oops;\nMB-GRÜN;12,50;green pot.png\nMB-GRÜN;1;\n';
  await choose('new.csv', Buffer.from(rows, 'latin1'));
  await option(page, 'Artikel goes to', 'SKU');
  await expect(dialog.getByText('3 problems')).toBeVisible();
  for (const said of [
    '"oops" is no price',
    'There is no picture "green pot.png"',
    'stands in line 3 already',
  ])
    await expect(dialog.getByRole('list', { name: 'Problems' })).toContainText(said);
  await choose('new.csv', Buffer.from(rows.replace('oops', '25').replace(/MB-GRÜN;1;\n$/, ''), 'latin1'));
  await option(page, 'Artikel goes to', 'SKU');
  const green = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#f4f4f2' } })
    .composite([
      {
        input: await sharp({ create: { width: 120, height: 150, channels: 3, background: '#3c7a3f' } })
          .png()
          .toBuffer(),
      },
    ])
    .png()
    .toBuffer();
  await dialog.getByLabel('Pictures of the table').setInputFiles({
    name: 'pictures.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(zipSync({ 'folder/Green pot.png': green })),
  });
  await expect(
    dialog.getByText('1 to be added, 1 to be changed, 0 as they are, 1 picture to be imported'),
  ).toBeVisible();
  await dialog.getByRole('button', { name: 'Import 2 rows' }).click();
  await expect(page.getByRole('combobox', { name: 'Photo of MB-GRÜN' })).toHaveValue('Green pot.png');
  await expect(page.getByRole('textbox', { name: 'Price of MB-GRÜN' })).toHaveValue('12.5');
  await page.reload();
  await page.getByRole('button', { name: 'Undo: Import new.csv' }).click();
  await expect(page.getByRole('combobox', { name: 'Photo of MB-GRÜN' })).toHaveCount(0);
  await expect(price).toHaveValue('24');
});

test('a sheet is adapted: contradictions are told before it is saved, and every version is kept', async ({
  page,
}) => {
  await page.goto('/spec-sheets');
  await page.getByRole('button', { name: 'Copy Oddment Lane', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Oddment Lane, copy' })).toBeVisible();
  const least = page.getByRole('textbox', { name: 'Margin' });
  await page.getByRole('checkbox', { name: 'Minimum coverage' }).check();
  const coverage = page.getByRole('textbox', { name: 'Minimum coverage' });
  await coverage.fill('85');
  await coverage.press('Enter');
  await least.fill('20');
  await least.press('Enter');
  await expect(page.getByRole('alert')).toContainText('a margin of 20 % on each side');
  await expect(page.getByRole('button', { name: 'Save as version 2' })).toBeDisabled();
  await least.fill('1');
  await least.press('Enter');
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByRole('button', { name: 'Save as version 3' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Version' }).click();
  await page.getByRole('option', { name: /^version 1/ }).click();
  await expect(page.getByRole('button', { name: 'Save as version 3' })).toBeEnabled();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Oddment Lane, copy' })).toHaveCount(0);
});

test('shots are compared in a slot, one wins; its file is tried in several formats and the choice is kept', async ({
  page,
  request,
}) => {
  const { listing } = await findListing(request, 'Autumn planters');
  const query = `?slot=${encodeURIComponent('oddment-lane/card')}`;
  await page.goto(`/listings/${listing.id}/compare${query}`);
  await page
    .getByRole('list', { name: 'Shots of this listing' })
    .getByRole('button', { name: /^Glow/ })
    .click();
  const glow = page.getByRole('region', { name: 'Glow' });
  await expect(glow.getByRole('list', { name: 'Measures' })).toContainText('Product coverage');
  await glow.getByRole('button', { name: 'Make it the winner' }).click();
  await expect(glow.getByRole('button', { name: 'Fills this slot' })).toBeVisible();

  await page.goto(`/listings/${listing.id}/encoding${query}`);
  const ways = page.getByRole('complementary', { name: 'Ways to write it' }).getByRole('listitem');
  await expect(ways).toHaveCount(4);
  const jpeg = ways.filter({
    has: page.getByRole('combobox', { name: 'Format' }).filter({ hasText: 'jpeg' }),
  });
  await expect(jpeg.getByText(/^0\.9\d\d\d/)).toBeVisible();
  await jpeg.getByRole('button', { name: 'Use it' }).click();
  await expect(jpeg.getByRole('button', { name: 'In use' })).toBeVisible();
  const { encodings } = (await (await request.get(`/api/listings/${listing.id}`)).json()).listing;
  expect(encodings['oddment-lane/card']).toMatchObject({ format: 'jpeg' });

  // Both are steps of the board.
  await page.goto(`/listings/${listing.id}`);
  await page.getByRole('button', { name: /^Undo: Encoding of Card/ }).click();
  await page.getByRole('button', { name: /^Undo: Fill from Glow/ }).click();
  await expect(page.getByRole('combobox', { name: 'Shot for Oddment Lane Card' })).toContainText(
    'Morning sill',
  );
});

test('twenty thousand cells: only those in view are in the page, and scrolling reaches the last', async ({
  page,
  request,
}) => {
  const sheet = (await (await request.get('/api/spec-sheets/kestrel-market')).json()).sheet;
  const [slot] = sheet.slots;
  const many = Array.from({ length: 40 }, (_, i) => ({ ...slot, id: `s-${i}`, title: `Slot ${i + 1}` }));
  const made = await (
    await request.post('/api/spec-sheets', {
      data: { ...sheet, id: 'many', marketplace: 'Many', slots: many },
    })
  ).json();
  const photos = (await (await request.get('/api/photos')).json()) as { id: string; cutout: unknown }[];
  const photo = photos.find((p) => p.cutout)!;
  const listing = await (
    await request.post('/api/listings', { data: { title: 'Many', photoIds: [photo.id], sheets: [made.id] } })
  ).json();
  const add = Array.from({ length: 499 }, (_, i) => ({
    sku: `N-${i + 2}`,
    title: `Number ${i + 2}`,
    photoId: photo.id,
  }));
  await request.post(`/api/products/${listing.productId}/variants/batch`, { data: { label: 'Many', add } });
  await page.goto(`/listings/${listing.id}`);
  const grid = page.getByRole('grid', { name: 'Slot board' });
  await expect(grid).toHaveAttribute('aria-rowcount', '501');
  await expect(grid).toHaveAttribute('aria-colcount', '41');
  await expect(cell(page, /Slot 1: not made yet/).first()).toBeVisible();
  expect(await page.getByRole('gridcell').count()).toBeLessThan(220);
  await page.getByTestId('board-scroller').evaluate((e) => e.scrollTo(e.scrollWidth, e.scrollHeight));
  await expect(cell(page, /^Number 500, Slot 40: /)).toBeVisible();
  expect(await page.getByRole('gridcell').count()).toBeLessThan(220);
});
