import { expect, type APIRequestContext, type Page } from '@playwright/test';

export interface ShotInfo {
  id: string;
  title: string;
  feeds: string[];
}

/** A listing of the demo by its title, with its shots. */
export async function findListing(api: APIRequestContext, title: string) {
  const list = (await (await api.get('/api/listings')).json()) as { id: string; title: string }[];
  const { id } = list.find((l) => l.title === title)!;
  return (await (await api.get(`/api/listings/${id}`)).json()) as {
    listing: { id: string; productId: string };
    variants: { id: string; data: { variant: string } }[];
    shots: ShotInfo[];
  };
}

/** Opens a shot on the stage and waits for its first picture. */
export async function openStage(page: Page, id: string, query = ''): Promise<void> {
  await page.goto(`/shots/${id}${query}`);
  await painted(page);
}

export async function painted(page: Page, more = 0): Promise<void> {
  await expect
    .poll(
      () =>
        page
          .getByTestId('stage-picture')
          .evaluate((c) => Number((c as HTMLCanvasElement).dataset.painted ?? 0)),
      // Very large viewports are painted by software here.
      { timeout: 240_000 },
    )
    .toBeGreaterThan(more);
}

/** Waits until what is on the stage has stayed unpainted for a moment: the newest state is shown. */
export async function settled(page: Page): Promise<void> {
  let last = '';
  await expect
    .poll(
      async () => {
        const now = await page
          .getByTestId('stage-picture')
          .evaluate((c) =>
            c.getAttribute('aria-busy') === 'true' ? '' : ((c as HTMLCanvasElement).dataset.painted ?? ''),
          );
        const same = now !== '' && now === last;
        last = now;
        return same;
      },
      { intervals: [400] },
    )
    .toBe(true);
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByTestId('saving')).toHaveText(/^saved/);
}

export const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });
