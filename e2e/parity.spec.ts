import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { psnr } from '../packages/core/raster/compare';
import type { Rgba } from '../packages/core/raster/pixels';
import { findListing, openStage, settled } from './helpers';

// Large enough for the stage to show every demo shot at 100 percent: its pixels are then those of the file.
test.use({ viewport: { width: 2600, height: 2600 } });

async function pixels(png: Buffer): Promise<Rgba> {
  const { data, info } = await sharp(png)
    .removeAlpha()
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}

for (const listing of ['Autumn planters', 'Watering can', 'Twine and tags', 'Printed planter', 'Autumn sale'])
  test(`${listing}: the stage shows what the server delivers, at 45 dB or more`, async ({
    page,
    request,
  }) => {
    test.setTimeout(900_000);
    const { shots, variants } = await findListing(request, listing);
    let compared = 0;
    for (const shot of shots) {
      for (const slot of [
        undefined,
        ...shot.feeds.filter((_, i) => i % Math.max(3, Math.ceil(shot.feeds.length / 3)) === 0),
      ]) {
        await openStage(page, shot.id, slot ? `?slot=${encodeURIComponent(slot)}` : '');
        await settled(page);
        const shown = await page
          .getByTestId('stage-picture')
          .evaluate((c) => (c as HTMLCanvasElement).toDataURL('image/png').split(',')[1]);
        const ours = await pixels(Buffer.from(shown, 'base64'));
        const query = new URLSearchParams({ variant: variants[0].id, ...(slot ? { slot } : {}) });
        const answer = await request.get(`/api/shots/${shot.id}/picture?${query}`);
        let theirs = await pixels(await answer.body());
        // Small slots are shown enlarged: nothing of the same size can be delivered.
        if (slot && theirs.width < ours.width) continue;
        if (theirs.width !== ours.width) {
          query.set('scale', String(ours.width / theirs.width));
          theirs = await pixels(await (await request.get(`/api/shots/${shot.id}/picture?${query}`)).body());
        }
        compared++;
        const db = psnr(ours, theirs);
        console.log(
          `  ${shot.title} ${slot ?? 'base'}: ${db.toFixed(1)} dB at ${ours.width} x ${ours.height}`,
        );
        expect(db, `${shot.title} ${slot ?? 'base'}`).toBeGreaterThanOrEqual(45);
      }
    }
    expect(compared).toBeGreaterThanOrEqual(shots.length);
  });
