import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import sharp from 'sharp';

/** A photo nobody has seen: a turned bowl on a pale sweep with a gradient, drawn here. */
async function newPhoto(): Promise<Buffer> {
  return sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200">
      <defs><linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="#f2f1ee"/><stop offset="1" stop-color="#dcdad5"/></linearGradient>
      <radialGradient id="s"><stop offset="0" stop-color="#8d8a84" stop-opacity=".8"/><stop offset="1" stop-color="#8d8a84" stop-opacity="0"/></radialGradient>
      <linearGradient id="b"><stop offset="0" stop-color="#2c5f8a"/><stop offset=".6" stop-color="#4f8fbf"/><stop offset="1" stop-color="#234d70"/></linearGradient></defs>
      <rect width="1600" height="1200" fill="url(#g)"/><ellipse cx="860" cy="890" rx="420" ry="60" fill="url(#s)"/>
      <path d="M400 500C430 800 600 900 800 900S1170 800 1200 500Z" fill="url(#b)"/><ellipse cx="800" cy="500" rx="400" ry="70" fill="#1f4766"/></svg>`),
  )
    .jpeg({ quality: 92 })
    .toBuffer();
}

test('from a photo never seen before to a downloaded ZIP', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'New listing from photos' }).click();
  await page.getByLabel('Photos to import').setInputFiles([
    { name: 'blue-bowl.jpg', mimeType: 'image/jpeg', buffer: await newPhoto() },
    { name: 'broken.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('oops') },
  ]);
  const coming = page.getByRole('region', { name: 'Coming in' });
  await expect(coming.getByText(/"broken.jpg" is not a picture/)).toBeVisible();
  await coming.getByRole('button', { name: 'Start a listing' }).click({ timeout: 240_000 });
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('What is it called?')).toHaveValue('Blue bowl');
  await dialog.getByText('Potting bench').click();
  await dialog.getByRole('button', { name: 'Start the listing' }).click();

  await expect(page.getByRole('heading', { name: 'Blue bowl' })).toBeVisible();
  await page.getByRole('link', { name: 'Open Potting bench on the stage' }).click();
  await page.getByRole('button', { name: 'Add to stage' }).click();
  await page.getByRole('menuitem', { name: 'Text' }).click();
  const words = page.getByRole('textbox', { name: 'Words' });
  await words.fill('Bowls are back');
  await words.press('Control+Enter');
  await expect(page.getByRole('button', { name: 'Text', exact: true })).toContainText('Bowls are back');
  await expect(page.getByTestId('saving')).toHaveText(/^saved \d/);

  await page.getByRole('button', { name: 'Deliver', exact: true }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Deliver \d+ pictures/ })
    .click();
  const link = page.getByRole('link', { name: /Download ZIP/ });
  await expect(link).toBeVisible({ timeout: 240_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
  const zip = await readFile(await download.path());
  expect(download.suggestedFilename()).toBe('Blue-bowl.zip');
  expect(zip.subarray(0, 2).toString()).toBe('PK');
  expect(zip.includes('manifest.csv')).toBe(true);
  expect(zip.includes('BLU-BOW-front.jpg')).toBe(true);
});
