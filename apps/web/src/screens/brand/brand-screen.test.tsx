import { beforeEach, expect, test } from '@jest/globals';
import { EMPTY_KIT, type BrandKit } from '@scenograph/core/brand/kit';
import { screen, waitFor, within } from '@testing-library/react';
import { http, HttpResponse } from 'msw';
import { answering, refusal } from '../../../test/answering';
import { HASH, MOMENT, uuid } from '../../../test/listing';
import { server } from '../../../test/server';
import { show } from '../../../test/show';
import { allUnsent, dropUnsent } from '../../documents/outbox';
import { useNotices } from '../../ui/notices';
import { BrandScreen } from './brand-screen';

beforeEach(async () => {
  useNotices.setState({ list: [] });
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
});
const KIT: BrandKit = {
  ...EMPTY_KIT,
  title: 'Moss and Bramble',
  colours: [
    { id: 'moss', title: 'Moss', colour: '#345544' },
    { id: 'clay', title: 'Clay', colour: '#b0482c' },
  ],
};

async function opened() {
  const kept = { kit: KIT, revision: 1, history: { past: [], future: [] }, bodies: [] as BrandKit[] };
  const asked = answering({
    'GET /api/brand': () => ({ kit: kept.kit, revision: kept.revision, history: kept.history }),
    'GET /api/products': { brand: null, total: 0, products: [] },
    'GET /api/fonts': [{ id: uuid(71), family: 'Fern', style: 'Regular', hash: HASH, createdAt: MOMENT }],
    'GET /api/pictures': [],
    'DELETE /api/fonts/:id': () => refusal('The brand kit uses this font for "Headlines".', 422),
  });
  server.use(
    http.put('*/api/brand', async ({ request }) => {
      const body = (await request.json()) as { revision: number; kit: BrandKit };
      Object.assign(kept, { kit: body.kit, revision: body.revision + 1 });
      kept.bodies.push(body.kit);
      return HttpResponse.json({ kit: kept.kit, revision: kept.revision, history: kept.history });
    }),
  );
  const shown = show(BrandScreen, '/brand');
  const part = async (name: string) => within(await screen.findByRole('region', { name }));
  await part('Palette');
  return { ...shown, kept, asked, part };
}
const type = async (user: Awaited<ReturnType<typeof opened>>['user'], field: HTMLElement, text: string) => {
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
};

test('a colour is renamed, added and removed, each a step that is stored', async () => {
  const { user, kept, part } = await opened();
  const palette = await part('Palette');
  await type(user, palette.getByLabelText('Name of Moss'), 'Deep moss');
  await user.click(palette.getByRole('button', { name: 'Add a colour' }));
  await user.click(palette.getByRole('button', { name: 'Remove Clay' }));
  await waitFor(() => expect(kept.bodies.at(-1)?.colours).toHaveLength(2), { timeout: 8000 });
  expect(kept.bodies.at(-1)!.colours.map((c) => [c.id, c.title])).toEqual([
    ['moss', 'Deep moss'],
    ['colour', 'New colour'],
  ]);
});

test('entries that are added have ids of their own: what is bound to one is not bound to another', async () => {
  const { user, kept, part } = await opened();
  const texts = await part('Standing texts');
  for (let i = 0; i < 3; i++) await user.click(texts.getByRole('button', { name: 'Add a text' }));
  await waitFor(() => expect(kept.bodies.at(-1)?.texts).toHaveLength(3), { timeout: 8000 });
  expect(new Set(kept.bodies.at(-1)!.texts.map((t) => t.id)).size).toBe(3);
});

test('steps are undone in their order', async () => {
  const { user, part } = await opened();
  const palette = await part('Palette');
  await type(user, palette.getByLabelText('Name of Moss'), 'A');
  await type(user, await palette.findByLabelText('Name of A'), 'B');
  const undo = () => screen.getByRole('button', { name: /^Undo: / });
  await user.click(undo());
  expect(palette.getByLabelText('Name of A')).toBeVisible();
  await user.click(undo());
  expect(palette.getByLabelText('Name of Moss')).toBeVisible();
  expect(screen.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled();
});

test('a font in use is not removed, and why is told', async () => {
  const { user, part } = await opened();
  const fonts = await part('Fonts');
  await user.click(await fonts.findByRole('button', { name: 'Remove Fern Regular' }));
  expect(await screen.findByText('The brand kit uses this font for "Headlines".')).toBeVisible();
  expect(fonts.getByText('Fern Regular')).toBeVisible();
});
