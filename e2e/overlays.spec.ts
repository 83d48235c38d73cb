import { expect, test, type Page } from '@playwright/test';
import { field, findListing, openStage, saved, settled } from './helpers';

/** Overlays, brand kit, templates, ideas and sizes by hand, as a listing designer goes through them. */

const strip = (page: Page) => page.getByRole('region', { name: 'Depth, from back to front' });
const section = (page: Page, name: RegExp) => page.getByRole('button', { name });

async function addOverlay(page: Page, group: string, item: string): Promise<void> {
  await page.getByRole('button', { name: 'Add to stage' }).click();
  await page.getByRole('menuitem', { name: group }).press('ArrowRight');
  await page.getByRole('menuitem', { name: item, exact: true }).last().press('Enter');
  await settled(page);
}

async function openShot(
  page: Page,
  request: Parameters<typeof findListing>[0],
  listing: string,
  title: string,
) {
  const { shots } = await findListing(request, listing);
  const shot = shots.find((s) => s.title.startsWith(title))!;
  await openStage(page, shot.id);
  await settled(page);
  return shot;
}

const stage = (page: Page) =>
  page.getByTestId('stage-picture').evaluate((c) => (c as HTMLCanvasElement).toDataURL('image/png'));

test('a price that is no number is said and seen; set right it passes; a colour that is none is refused in words; all is undone after a reload', async ({
  page,
  request,
}) => {
  const shot = await openShot(page, request, 'Autumn planters', 'Glow');
  const before = await stage(page);
  await addOverlay(page, 'Words and prices', 'Was and now badge');
  await field(page, 'Price').fill('soon');
  await field(page, 'Price').press('Enter');
  await section(page, /6 Checks/).click();
  await expect(page.getByText('no price that is a number ("soon" is none)')).toBeVisible();
  await field(page, 'Price').fill('{amount}');
  await field(page, 'Price').press('Enter');
  await expect(page.getByText('no price that is a number')).toBeHidden();
  await field(page, 'Fill, code').fill('greenish');
  await field(page, 'Fill, code').press('Enter');
  await expect(page.getByRole('alert')).toContainText('“greenish” is no colour');
  await field(page, 'Fill, code').fill('teal');
  await field(page, 'Fill, code').press('Enter');
  await expect(field(page, 'Fill, code')).toHaveValue('#008080');
  await saved(page);
  await openStage(page, shot.id);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await settled(page);
  expect(await stage(page)).toBe(before);
  await saved(page);
});

test('words that cannot be read are found and marked, and one click makes them stand out', async ({
  page,
  request,
}) => {
  await openShot(page, request, 'Autumn sale', 'Look closer');
  await strip(page).getByRole('button', { name: 'Headline', exact: true }).click();
  await section(page, /4 Overlays/).click();
  await page.getByRole('button', { name: 'Colour: Sage' }).click();
  await section(page, /6 Checks/).click();
  const fix = page.getByRole('button', { name: 'Make "Headline" stand out', exact: true });
  await expect(fix).toBeVisible();
  await expect(page.getByTestId('fault-marks')).toBeVisible();
  await fix.click();
  await expect(fix).toBeHidden();
  await page.getByRole('button', { name: 'Undo: Make "Headline" stand out' }).click();
  await expect(fix).toBeVisible();
  await page.getByRole('button', { name: /^Undo: Colour/ }).click();
  await saved(page);
});

test('a close-up’s content is moved on its own, and says how large it shows it', async ({
  page,
  request,
}) => {
  await openShot(page, request, 'Autumn sale', 'Why it lasts');
  await strip(page).getByRole('button', { name: 'Close-up of the rim', exact: true }).click();
  await section(page, /4 Overlays/).click();
  await expect(page.getByTestId('magnification')).toContainText('2.1 times');
  const before = await stage(page);
  const left = await field(page, 'Left')
    .inputValue()
    .catch(() => null);
  const handle = page.getByRole('button', { name: 'Move the content' });
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + 8, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x - 40, box.y + 60, { steps: 6 });
  await page.mouse.up();
  await settled(page);
  expect(await stage(page)).not.toBe(before);
  expect(
    await field(page, 'Left')
      .inputValue()
      .catch(() => null),
  ).toBe(left);
  await page.getByRole('button', { name: 'Undo: Move the content' }).click();
  await settled(page);
  expect(await stage(page)).toBe(before);
  await saved(page);
});

test('a change of the brand kit reaches the stage, and can be taken back', async ({ page, request }) => {
  const shot = await openShot(page, request, 'Autumn sale', 'Sale, half');
  const before = await stage(page);
  await page.goto('/brand');
  await field(page, 'Bottle green, code').fill('#5a1f2e');
  await field(page, 'Bottle green, code').press('Enter');
  await expect(page.getByRole('button', { name: /^Undo: / })).toBeEnabled();
  await openStage(page, shot.id);
  await settled(page);
  expect(await stage(page)).not.toBe(before);
  await page.goto('/brand');
  await page.getByRole('button', { name: /^Undo: / }).click();
  await expect(field(page, 'Bottle green, code')).toHaveValue('#2f4a34');
  await openStage(page, shot.id);
  await settled(page);
  expect(await stage(page)).toBe(before);
});

test('a shot is kept as a template and filled with another product', async ({ page, request }) => {
  await openShot(page, request, 'Autumn sale', 'New arrival');
  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'Keep as a template' }).click();
  await field(page, 'Name').last().fill('Our arrivals');
  // Enter sends what the dialog asks for.
  await field(page, 'Name').last().press('Enter');
  await expect(page.getByText('“Our arrivals” is among the templates.')).toBeVisible();
  await page.goto('/templates');
  const card = page.getByRole('listitem').filter({ hasText: 'Our arrivals' });
  await card.getByRole('button', { name: 'Use' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Watering can' }).click();
  await settled(page);
  await expect(strip(page).getByRole('button', { name: /^Enamel watering can/ })).toBeVisible();
  await expect(strip(page)).toContainText('New on the b');
});

test('ideas: a wall of candidates, filtered; two are kept and become shots, one with a slot', async ({
  page,
  request,
}) => {
  const { listing } = await findListing(request, 'Watering can');
  await page.goto(`/listings/${listing.id}`);
  await page.getByRole('link', { name: 'Ideas wall' }).click();
  await expect(page.getByText(/^\d\d ideas$/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Season' }).click();
  await page.getByRole('option', { name: 'Winter' }).click();
  const wall = page.getByRole('button', { name: /^Keep: / });
  await expect(wall.first()).toBeVisible();
  await page.getByRole('button', { name: 'Keep: Winter', exact: true }).click();
  await page.getByRole('combobox', { name: 'Season' }).click();
  await page.getByRole('option', { name: 'Any season' }).click();
  await page.getByRole('button', { name: 'Keep: Size guide', exact: true }).click();
  await page.reload();
  await expect(page.getByText('2 kept')).toBeVisible();
  await page.getByRole('button', { name: 'Make shots of what is kept' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Slot for Winter' }).click();
  await page.getByRole('option', { name: /Kestrel Market, Gallery 2/ }).click();
  await dialog.getByRole('button', { name: 'Make 2 shots' }).click();
  await expect(page.getByText('2 shots are in the listing.')).toBeVisible();
  const { shots } = await findListing(request, 'Watering can');
  expect(shots.find((s) => s.title === 'Winter')!.feeds).toEqual(['kestrel-market/gallery-2']);
  expect(shots.some((s) => s.title === 'Size guide')).toBe(true);
});

test('every size on one sheet follows a change; a difference is made in one, reset, and made the base', async ({
  page,
  request,
}) => {
  const shot = await openShot(page, request, 'Autumn sale', 'Sale, half');
  expect(shot.feeds.length).toBeGreaterThan(35);
  await page.getByRole('button', { name: 'All on one sheet' }).click();
  const sheet = page.getByRole('region', { name: 'All sizes on one sheet' });
  await expect(sheet.getByRole('listitem')).toHaveCount(shot.feeds.length);
  const picture = () =>
    sheet
      .locator('[data-size="gazette-ads/leaderboard"]')
      .evaluate((c) => ((c as HTMLCanvasElement).width > 60 ? (c as HTMLCanvasElement).toDataURL() : ''));
  await expect.poll(picture).not.toBe('');
  let first = '';
  await expect
    .poll(async () => {
      const now = await picture();
      const same = now !== '' && now === first;
      first = now;
      return same;
    })
    .toBe(true);
  await strip(page).getByRole('button', { name: 'Headline', exact: true }).click();
  await section(page, /4 Overlays/).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Potted up');
  await page.getByRole('textbox', { name: 'Words' }).blur();
  await expect.poll(picture).not.toBe(first);
  await page.getByRole('button', { name: 'Undo: Change words' }).click();

  await sheet.getByRole('button', { name: 'Open Leaderboard of Gazette Ads' }).click();
  await settled(page);
  await strip(page).getByRole('button', { name: 'Headline', exact: true }).click();
  await section(page, /4 Overlays/).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Less now');
  await page.getByRole('textbox', { name: 'Words' }).blur();
  await page.getByRole('button', { name: 'Reset Headline' }).click();
  await expect(page.getByRole('button', { name: 'Reset Headline' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo: Reset a difference' }).click();
  await page.getByRole('button', { name: 'Make Headline the base' }).click();
  await expect(page.getByRole('button', { name: 'Make Headline the base' })).toBeHidden();
  await page.getByRole('button', { name: 'Back to the base' }).click();
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('Less now');
  await page.getByRole('button', { name: 'Undo: Make a difference the base' }).click();
  await page.getByRole('button', { name: 'Undo: Change words' }).click();
  await saved(page);
});

test('a colour changed in one slot leaves the lengths beside it as they were', async ({ page, request }) => {
  const { shots } = await findListing(request, 'Autumn planters');
  const shot = shots.find((s) => s.title === 'Morning sill')!;
  await openStage(page, shot.id, '?slot=gazette-ads%2Fmedium-rectangle');
  await settled(page);
  await strip(page).getByRole('button', { name: 'Headline', exact: true }).click();
  await section(page, /4 Overlays/).click();
  const padding = await field(page, 'Padding').inputValue();
  const before = await stage(page);
  const colour = field(page, 'Panel colour, code');
  const old = await colour.inputValue();
  await colour.fill('#102030');
  await colour.press('Enter');
  await settled(page);
  expect(await field(page, 'Padding').inputValue()).toBe(padding);
  await colour.fill(old);
  await colour.press('Enter');
  await settled(page);
  expect(await stage(page)).toBe(before);
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: /^Undo: / }).click();
  await saved(page);
});

test('four thousand characters, right-to-left words and signs no font has are set or told', async ({
  page,
  request,
}) => {
  await openShot(page, request, 'Autumn planters', 'Glow');
  await addOverlay(page, 'Words and prices', 'Text');
  const words = page.getByRole('textbox', { name: 'Words' });
  await section(page, /6 Checks/).click();
  await words.fill('Stoneware planter '.repeat(222));
  await words.blur();
  await expect(page.getByText(/characters more than fit/)).toBeVisible();
  await words.fill('שלום 🌱 漢');
  await words.blur();
  await expect(page.getByText(/No font at hand has 漢/)).toBeVisible();
  await words.fill('שלום 🌱');
  await words.blur();
  await expect(page.getByText(/No font at hand/)).toBeHidden();
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: /^Undo: / }).click();
  await saved(page);
});
