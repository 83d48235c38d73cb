import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { findListing } from './helpers';

test('every main screen meets WCAG 2.2 AA as far as a machine can tell, and logs no error', async ({
  page,
  request,
}) => {
  const { listing, shots } = await findListing(request, 'Autumn planters');
  const [photo] = (await (await request.get('/api/photos')).json()) as { id: string }[];
  const scenes = (await (await request.get('/api/scenes')).json()) as { id: string; title: string }[];
  const sale = await findListing(request, 'Autumn sale');
  const printed = await findListing(request, 'Printed planter');
  const [delivery] = (await (await request.get('/api/deliveries')).json()) as { id: string }[];
  const steps = [{ id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] }];
  const recipe = await (await request.post('/api/recipes', { data: { title: 'First', steps } })).json();
  const cell = `slot=${encodeURIComponent('kestrel-market/gallery-1')}`;
  const errors: string[] = [];
  page.on('console', (m) => m.type() === 'error' && errors.push(m.text()));
  page.on('pageerror', (e) => errors.push(e.message));
  for (const path of [
    '/listings',
    `/listings/${listing.id}`,
    `/shots/${shots[1].id}`,
    '/photos',
    '/photos/review',
    `/photos/${photo.id}/cutout`,
    '/products',
    '/library',
    '/brand',
    '/templates',
    '/new-picture',
    `/listings/${listing.id}/ideas`,
    `/shots/${sale.shots.find((s) => s.title === 'Why it lasts')!.id}`,
    `/shots/${printed.shots[0].id}`,
    `/library/scenes/${scenes[0].id}`,
    `/library/scenes/${scenes.find((s) => s.title === 'White planter with band')!.id}`,
    `/products/${listing.productId}`,
    '/spec-sheets',
    '/spec-sheets/kestrel-market',
    `/listings/${listing.id}/checks`,
    `/listings/${listing.id}/compare?${cell}`,
    `/listings/${listing.id}/encoding?${cell}`,
    '/recipes',
    `/recipes/${recipe.id}`,
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
