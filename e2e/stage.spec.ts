import { expect, test, type Page } from '@playwright/test';
import { field, findListing, openStage, painted, saved, settled } from './helpers';

test('nudging, typing numbers, undo and redo, all of it after a reload too', async ({ page, request }) => {
  const { shots } = await findListing(request, 'Watering can');
  const shot = shots.find((s) => s.title === 'Potting bench')!;
  await openStage(page, shot.id);
  const left = field(page, 'Left');
  const before = Number(await left.inputValue());
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  // Both are shown to a tenth: what was rounded down before may be rounded up now.
  const moved = async () => Math.abs(Number(await left.inputValue()) - before - 11);
  await expect.poll(moved).toBeLessThan(0.11);
  await field(page, 'Width').fill('600');
  await field(page, 'Width').press('Enter');
  await expect(page.getByText(/% of true size/)).toBeVisible();
  const height = Number(await field(page, 'Height').inputValue());
  await saved(page);

  await page.reload();
  await painted(page);
  await expect(field(page, 'Width')).toHaveValue('600');
  await page.getByRole('button', { name: /^Undo: Scale/ }).click();
  await expect(field(page, 'Width')).not.toHaveValue('600');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(left).toHaveValue(String(before));
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+Shift+Z');
  await expect(field(page, 'Width')).toHaveValue('600');
  expect(Number(await field(page, 'Height').inputValue())).toBe(height);
});

test('dragging a handle scales in proportion; dragging the product moves it', async ({ page, request }) => {
  const { shots } = await findListing(request, 'Watering can');
  await openStage(page, shots.find((s) => s.title === 'Potting bench')!.id);
  const box = (await page.getByTestId('stage-picture').boundingBox())!;
  const zoom = box.width / 2000;
  const value = async (name: string) => Number(await field(page, name).inputValue());
  const [x, y, w, h] = [await value('Left'), await value('Top'), await value('Width'), await value('Height')];
  const corner = { x: box.x + (x + w) * zoom, y: box.y + y * zoom };
  await page.mouse.move(corner.x, corner.y);
  await page.mouse.down();
  await page.mouse.move(corner.x - 40, corner.y + 40, { steps: 4 });
  await page.mouse.up();
  const [w2, h2] = [await value('Width'), await value('Height')];
  expect(w2).toBeLessThan(w - 30);
  expect(h2 / w2).toBeCloseTo(h / w, 2);

  const middle = { x: box.x + (x + w / 2) * zoom, y: box.y + (y + h * 0.7) * zoom };
  const left = await value('Left');
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x + 50, middle.y, { steps: 4 });
  await page.mouse.up();
  expect((await value('Left')) - left).toBeCloseTo(50 / zoom, -1);
});

test('a change made in a slot stays in that slot; a failed check is mended with one click and can be reset', async ({
  page,
  request,
}) => {
  const { shots } = await findListing(request, 'Autumn planters');
  await openStage(page, shots.find((s) => s.title === 'Morning sill')!.id);
  const card = page.getByRole('region', { name: 'Sizes' }).getByRole('button', { name: /Card/ });
  await expect(card.getByRole('img', { name: 'failed' })).toBeVisible({ timeout: 240_000 });
  await card.click();
  await page.getByRole('button', { name: 'Hide them in this slot' }).click();
  await expect(card.getByRole('img', { name: 'pass' })).toBeVisible();
  await expect(page.getByText('1 of 8 differ')).toBeVisible();
  await page.getByRole('button', { name: /Base/ }).click();
  await expect(page.getByRole('button', { name: 'Headline', exact: true })).toBeVisible();
  await card.click();
  await page.getByRole('button', { name: 'Reset all of this slot' }).click();
  await expect(page.getByText('0 of 8 differ')).toBeVisible();
  await saved(page);
});

test('two tabs show the same; what two people change at once is asked about, and nothing is overwritten', async ({
  page,
  context,
  browser,
  baseURL,
  request,
}) => {
  const { shots } = await findListing(request, 'Twine and tags');
  const tab = await context.newPage();
  const elsewhere = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
  const other = await elsewhere.newPage();
  for (const p of [page, tab, other]) await openStage(p, shots[0].id);
  const undo = (p: Page) => p.getByRole('button', { name: /^Undo: Nudge/ });
  await tab.keyboard.press('Shift+ArrowDown');
  await saved(tab);
  await expect(undo(page)).toBeVisible();
  await expect(undo(other)).toBeVisible();

  await context.setOffline(true);
  await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByTestId('saving')).toContainText('not saved');
  await other.keyboard.press('Shift+ArrowRight');
  await saved(other);
  await context.setOffline(false);
  const dialog = page.getByRole('alertdialog', { name: 'This shot was changed elsewhere' });
  await expect(dialog).toContainText('Garden twine');
  await dialog.getByRole('button', { name: 'Keep mine as a copy' }).click();
  await expect(dialog).toBeHidden();
  await expect.poll(async () => (await findListing(request, 'Twine and tags')).shots.length).toBe(2);
  await elsewhere.close();
});

test('depth is changed by keyboard, and everything is found in the command menu', async ({
  page,
  request,
}) => {
  const { shots } = await findListing(request, 'Autumn planters');
  await openStage(page, shots.find((s) => s.title === 'Winter table')!.id);
  const strip = page.getByRole('region', { name: /Depth/ });
  const names = () => strip.getByRole('listitem').allInnerTexts();
  expect((await names()).join()).toMatch(/Winter.*planter.*Words/is);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('What do you want to do?').fill('bring forw');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await names()).join()).toMatch(/Winter.*Words.*planter/is);
  await page.keyboard.press('Control+z');
  await settled(page);
});
