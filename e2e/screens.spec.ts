import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { findListing } from './helpers';

test('every main screen meets WCAG 2.2 AA as far as a machine can tell, and logs no error', async ({
  page,
  request,
}) => {
  const { listing, shots } = await findListing(request, 'Autumn planters');
  const [photo] = (await (await request.get('/api/photos')).json()) as { id: string }[];
  const [delivery] = (await (await request.get('/api/deliveries')).json()) as { id: string }[];
  const errors: string[] = [];
  page.on('console', (m) => m.type() === 'error' && errors.push(m.text()));
  page.on('pageerror', (e) => errors.push(e.message));
  for (const path of [
    '/listings',
    `/listings/${listing.id}`,
    `/shots/${shots[1].id}`,
    '/photos',
    `/photos/${photo.id}/cutout`,
    '/products',
    '/library',
    '/spec-sheets',
    '/deliveries',
    `/deliveries/${delivery.id}`,
  ]) {
    await page.goto(path);
    await expect(page.getByRole('main')).toBeVisible();
    await page.waitForTimeout(800);
    const { violations } = await new AxeBuilder({ page })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
      .analyze();
    const found = violations.flatMap((v) => v.nodes.map((n) => `${path}: ${v.id} ${n.target.join(' ')}`));
    expect(found).toEqual([]);
  }
  expect(errors).toEqual([]);
});

test('a cutout is made again in the browser, looked at on black, and kept', async ({ page, request }) => {
  const photos = (await (await request.get('/api/photos')).json()) as {
    id: string;
    name: string;
    cutout: { picture: string };
  }[];
  const twine = photos.find((p) => p.name === 'twine.jpg')!;
  await page.goto(`/photos/${twine.id}/cutout`);
  await page.getByRole('button', { name: 'Cut out again' }).click();
  await expect(page.getByText(/Cut out here in [\d.]+ s/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('radio', { name: 'Black' }).click();
  await page.getByRole('button', { name: 'Keep this cutout' }).click();
  await expect(page.getByText('The cutout is kept.', { exact: false })).toBeVisible();
  const now = (await (await request.get(`/api/photos/${twine.id}`)).json()) as typeof twine & {
    cutout: { width: number; bounds: { x: number } };
  };
  const before = twine.cutout as typeof now.cutout;
  // The browser decodes and runs the same code: the product lies at the same place.
  expect(Math.abs(now.cutout.bounds.x - before.bounds.x)).toBeLessThanOrEqual(2);
  expect(Math.abs(now.cutout.width - before.width)).toBeLessThanOrEqual(3);
});
