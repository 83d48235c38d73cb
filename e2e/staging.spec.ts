import { expect, test, type Page } from '@playwright/test';
import { field, findListing, openStage, saved, settled } from './helpers';

const value = async (page: Page, name: string) => Number(await field(page, name).inputValue());

async function openMorning(page: Page, request: Parameters<typeof findListing>[0]) {
  const { shots } = await findListing(request, 'Autumn planters');
  await openStage(page, shots.find((s) => s.title === 'Morning sill')!.id);
  await settled(page);
}

test('a product dragged toward the camera grows with the perspective, stays true to size, and snaps to a spot', async ({
  page,
  request,
}) => {
  await openMorning(page, request);
  await expect(page.getByText('100 % of true size')).toBeVisible();
  const picture = (await page.getByTestId('stage-picture').boundingBox())!;
  const zoom = picture.width / 2000;
  const [x, y, w, h] = [
    await value(page, 'Left'),
    await value(page, 'Top'),
    await value(page, 'Width'),
    await value(page, 'Height'),
  ];
  const grab = { x: picture.x + (x + w / 2) * zoom, y: picture.y + (y + h * 0.6) * zoom };
  const drag = async (dx: number, dy: number) => {
    const [from, top] = [await value(page, 'Left'), await value(page, 'Top')];
    const at = {
      x: picture.x + (from + (await value(page, 'Width')) / 2) * zoom,
      y: picture.y + (top + (await value(page, 'Height')) * 0.6) * zoom,
    };
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.move(at.x + dx, at.y + dy, { steps: 6 });
    await page.mouse.up();
  };
  expect(grab.x).toBeGreaterThan(picture.x);
  await drag(30, 60);
  expect(await value(page, 'Width')).toBeGreaterThan(w * 1.1);
  await expect(page.getByText('100 % of true size')).toBeVisible();
  // Nearly back: the spot takes it.
  await drag(-27, -57);
  expect(Math.abs((await value(page, 'Width')) - w)).toBeLessThan(1);
  expect(Math.abs((await value(page, 'Left')) - x)).toBeLessThan(1.5);

  await field(page, 'Height, real').fill('222');
  await field(page, 'Height, real').press('Enter');
  await page.getByRole('button', { name: '150 percent of true size: back to true' }).click();
  expect(Math.abs((await value(page, 'Height, real')) - 148)).toBeLessThan(1.5);
  await saved(page);
});

test('a backdrop becomes a set made here: products stand on it, and the scene can come back', async ({
  page,
  request,
}) => {
  await openMorning(page, request);
  const strip = page.getByRole('region', { name: 'Depth, from back to front' });
  await strip
    .getByRole('button', { name: /Morning windowsill/ })
    .first()
    .click();
  await page.getByRole('radio', { name: 'Set' }).click();
  await page.getByRole('combobox', { name: 'Material' }).click();
  await page.getByRole('option', { name: 'Linen' }).click();
  await settled(page);
  await strip
    .getByRole('button', { name: /Stoneware/ })
    .first()
    .click();
  await expect(page.getByText(/% of true size$/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await settled(page);
  await expect(page.getByText('100 % of true size')).toBeVisible();
  await saved(page);
});

test('a scene is surveyed: a corner moves the grid, crossing corners are told, and undo brings it back', async ({
  page,
  request,
}) => {
  const scenes = (await (await request.get('/api/scenes')).json()) as { id: string; title: string }[];
  await page.goto(`/library/scenes/${scenes.find((s) => s.title === 'Potting bench')!.id}`);
  await expect(page.getByText('Corners off by')).toBeVisible();
  const corner = page.getByRole('slider', { name: 'Back left' });
  const before = await corner.getAttribute('aria-valuetext');
  await corner.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(corner).not.toHaveAttribute('aria-valuetext', before!);
  await saved(page);
  const front = (await page.getByRole('slider', { name: 'Front right' }).boundingBox())!;
  const left = (await page.getByRole('slider', { name: 'Front left' }).boundingBox())!;
  await page.mouse.move(front.x + 8, front.y + 8);
  await page.mouse.down();
  await page.mouse.move(left.x - 60, left.y + 8, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole('alert')).toHaveText(/cross or fold|almost in a line/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(corner).toHaveAttribute('aria-valuetext', before!);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await saved(page);
});

test('float, shadow, tone with its drift, effects, a pack and linked elements, all undone again', async ({
  page,
  request,
}) => {
  await openMorning(page, request);
  const before = await page
    .getByTestId('stage-picture')
    .evaluate((c) => (c as HTMLCanvasElement).dataset.painted);
  await page.getByRole('radio', { name: 'Float' }).click();
  await page.getByRole('button', { name: 'Make a multipack' }).click();
  await field(page, 'Count').fill('4');
  await field(page, 'Count').press('Enter');
  await page.getByRole('button', { name: /Tone/ }).click();
  await expect(page.getByTestId('drift')).toHaveText(/ΔE \d/);
  await page.getByRole('switch', { name: 'Outline' }).click();
  await page.keyboard.press('Escape');
  const strip = page.getByRole('region', { name: 'Depth, from back to front' });
  await strip.getByRole('button', { name: 'Headline' }).first().click();
  await strip
    .getByRole('button', { name: 'Price' })
    .first()
    .click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await expect(strip.getByRole('button', { name: 'Price, linked' })).toBeVisible();
  await field(page, 'Left').fill('960');
  await field(page, 'Left').press('Enter');
  await strip.getByRole('button', { name: 'Price, linked' }).first().click();
  expect(await value(page, 'Left')).toBe(960);
  await settled(page);
  await saved(page);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+z');
  await expect(strip.getByRole('button', { name: 'Price', exact: true }).first()).toBeVisible();
  await strip
    .getByRole('button', { name: /Stoneware/ })
    .first()
    .click();
  await expect(page.getByRole('radio', { name: 'Stand' })).toBeChecked();
  await saved(page);
  expect(
    await page.getByTestId('stage-picture').evaluate((c) => (c as HTMLCanvasElement).dataset.painted),
  ).not.toBe(before);
});
