import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { findListing, openStage, saved, settled } from './helpers';

async function openShot(page: Page, request: Parameters<typeof findListing>[0], title: string) {
  const { shots } = await findListing(request, 'Printed planter');
  await openStage(page, shots.find((s) => s.title === title)!.id);
  await settled(page);
}

const mm = (page: Page, label: string) => page.getByRole('textbox', { name: label, exact: true });

/** Grey and colour of the stage's picture at a share of it. */
const pixel = (page: Page, x: number, y: number) =>
  page.getByTestId('stage-picture').evaluate(
    (canvas, [sx, sy]) => {
      const from = canvas as HTMLCanvasElement;
      const copy = document.createElement('canvas');
      copy.width = from.width;
      copy.height = from.height;
      const context = copy.getContext('2d')!;
      context.drawImage(from, 0, 0);
      return [...context.getImageData(sx * from.width, sy * from.height, 1, 1).data.slice(0, 3)];
    },
    [x, y] as const,
  );

test('a design is dragged on the item, sized in millimetres, printed on another colour, and all of it undone', async ({
  page,
  request,
}) => {
  await openShot(page, request, 'Band');
  const design = page.getByRole('button', { name: 'Design Herb sprig' });
  const box = (await design.boundingBox())!;
  const start = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  await page.mouse.move(start.x + 50, start.y - 6, { steps: 5 });
  await page.mouse.up();
  await settled(page);
  await expect(page.getByRole('button', { name: /^Undo: Move Herb sprig/ })).toBeVisible();
  expect(Number(await mm(page, 'Middle, across').inputValue())).toBeGreaterThan(75);
  // See-through while it moved, as before when it rests.
  await expect(page.getByRole('slider', { name: 'Ink opacity' })).toHaveAttribute('aria-valuenow', '96');

  await mm(page, 'Width').first().fill('30');
  await mm(page, 'Width').first().press('Enter');
  await settled(page);
  expect(Number(await mm(page, 'Height').first().inputValue())).toBeCloseTo(35, 0);

  const [r0, g0] = await pixel(page, 0.36, 0.62);
  expect(Math.abs(r0 - g0)).toBeLessThan(20);
  await page.getByRole('switch', { name: 'Item in another colour' }).click();
  await settled(page);
  const [r1, g1] = await pixel(page, 0.36, 0.62);
  expect(g1 - r1).toBeGreaterThan(25);
  await saved(page);
  await page.reload();
  await settled(page);
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: /^Undo:/ }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Design Herb sprig' }).focus();
  expect(Number(await mm(page, 'Middle, across').inputValue())).toBeCloseTo(68.1, 0);
  await saved(page);
});

test('options are made in one go, compared, chosen and taken; a proof comes as PDF', async ({
  page,
  request,
}) => {
  await openShot(page, request, 'Gift box');
  await page.getByRole('button', { name: 'Make options' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Basil label').click();
  await dialog.getByText('Hexagon dots').click();
  await dialog.getByRole('group', { name: 'Inks' }).getByRole('button', { name: 'Add' }).click();
  await dialog.getByRole('button', { name: 'Make 4 options' }).click();
  const options = page.getByRole('list', { name: 'Options side by side' }).getByRole('listitem');
  await expect(options).toHaveCount(4);
  await options.nth(1).getByRole('button', { name: 'Choose' }).click();
  await expect(options.nth(1).locator('canvas[aria-busy=false]')).toBeVisible({ timeout: 60_000 });
  await options.nth(1).getByRole('button', { name: 'Take it' }).click();
  await settled(page);
  await expect(page.getByRole('list', { name: /Designs on the mockup/ })).toContainText('Basil label');

  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('menuitem', { name: 'Proof sheet' }).click();
  await page.getByLabel('Prices, one a line').fill('24 pieces £11.40');
  await page.getByLabel('Notes').fill('To be agreed');
  await page.getByLabel('Foot').focus();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('dialog').getByRole('button', { name: 'PDF' }).click(),
  ]);
  expect(
    readFileSync(await file.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
});

test('a print area is surveyed: it bends, a crossing is told, undo brings it back; a mark is grown over', async ({
  page,
  request,
}) => {
  const scenes = (await (await request.get('/api/scenes')).json()) as { id: string; title: string }[];
  await page.goto(`/library/scenes/${scenes.find((s) => s.title === 'Blank gift box')!.id}`);
  const survey = page.getByRole('complementary', { name: 'Survey' });
  const corner = page.getByRole('slider', { name: 'Top left of Long side' });
  const before = (await corner.getAttribute('aria-valuetext'))!;
  const far = (await page.getByRole('slider', { name: 'Bottom right of Long side' }).boundingBox())!;
  const near = (await corner.boundingBox())!;
  await page.mouse.move(near.x + 8, near.y + 8);
  await page.mouse.down();
  await page.mouse.move(far.x + 60, far.y + 60, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole('alert')).toHaveText(/cross or fold|wrong way/);
  await page.keyboard.press('Control+z');
  await expect(corner).toHaveAttribute('aria-valuetext', before);
  await page.getByRole('radio', { name: 'Cylinder' }).click();
  await expect(page.getByRole('slider', { name: 'Upper edge of Long side' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: 'Upper edge of Long side' })).toHaveCount(0);
  await saved(page);

  await survey.getByRole('button', { name: /Print areas/ }).click();
  await survey.getByRole('button', { name: /Remove marks/ }).click();
  await page.getByRole('radio', { name: 'Fill' }).click();
  const picture = (await page.getByTestId('survey').boundingBox())!;
  await page.mouse.move(picture.x + picture.width * 0.9, picture.y + picture.height * 0.72);
  await page.mouse.down();
  await page.mouse.move(picture.x + picture.width * 0.94, picture.y + picture.height * 0.72, { steps: 4 });
  await page.mouse.up();
  const steps = page.getByRole('list', { name: 'Steps' });
  await expect(steps).toContainText('Fill 1', { timeout: 60_000 });
  await saved(page);
  await page.reload();
  await survey.getByRole('button', { name: /Remove marks/ }).click();
  await steps.getByRole('button', { name: 'Remove Fill 1' }).click();
  await expect(steps).toHaveCount(0);
  await saved(page);
});
