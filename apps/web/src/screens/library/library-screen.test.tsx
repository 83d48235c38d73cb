import { afterEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { HASH, MOMENT, uuid } from '../../../test/listing';
import { scene, UNSURVEYED } from '../../../test/scenes';
import { show } from '../../../test/show';
import type { Artwork } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { LibraryScreen } from './library-screen';

afterEach(() => useNotices.setState({ list: [] }));
const artwork: Artwork = {
  id: uuid(61),
  title: 'Leaf',
  original: HASH,
  picture: HASH,
  width: 400,
  height: 300,
  vector: true,
  colours: ['#12463a', '#d6f24a'],
  whiteGround: false,
  covers: false,
  notes: [],
  createdAt: MOMENT,
};

async function opened() {
  let artworks = [artwork];
  const asked = answering({
    'GET /api/scenes': [scene(uuid(51), 'Potting bench'), scene(uuid(52), 'New yard', UNSURVEYED)],
    'GET /api/pictures': [],
    'GET /api/artwork': () => artworks,
    'POST /api/scenes': ({ query }) =>
      query.name === 'small.jpg' ? refusal('"small.jpg" is too small.', 422) : scene(uuid(53), query.name),
    'POST /api/scenes/import': { taken: 2, refused: ['"Yard.json" is not JSON.'] },
    'DELETE /api/artwork/:id': ({ params }) => {
      artworks = [];
      return { removed: params.id };
    },
    'POST /api/bin/:thing/restore': ({ params }) => {
      artworks = [artwork];
      return { restored: params.thing, kind: 'artwork' };
    },
  });
  const shown = show(LibraryScreen, '/library');
  await screen.findByText('Potting bench');
  return { ...shown, asked };
}
const file = (name: string) => new File(['x'], name, { type: 'image/jpeg' });

test('a scene says what of it is surveyed', async () => {
  await opened();
  const card = (name: string) => within(screen.getByText(name).closest('li')!);
  expect(card('Potting bench').getByText(/0 placement points/)).toBeVisible();
  expect(card('New yard').getByText(/not surveyed yet/)).toBeVisible();
  expect(screen.getByRole('link', { name: 'Survey of New yard' })).toHaveAttribute(
    'href',
    `/library/scenes/${uuid(52)}`,
  );
});

test('one picture alone is surveyed at once; several stay on the shelf', async () => {
  const { user, address } = await opened();
  const input = screen.getByLabelText('Scenes to import');
  await user.upload(input, [file('a.jpg'), file('b.jpg')]);
  expect(address()).toBe('/library');
  await user.upload(input, file('c.jpg'));
  await waitFor(() => expect(address()).toBe(`/library/scenes/${uuid(53)}`));
});

test('of a ZIP what came in is counted and what did not is named; a refused picture says why', async () => {
  const { user, address } = await opened();
  const input = screen.getByLabelText('Scenes to import');
  await user.upload(input, new File(['x'], 'all.ZIP', { type: 'application/zip' }));
  expect(await screen.findByText('2 scenes are in the library.')).toBeVisible();
  expect(screen.getByText('"Yard.json" is not JSON.')).toBeVisible();
  await user.upload(input, file('small.jpg'));
  expect(await screen.findByText('"small.jpg" is too small.')).toBeVisible();
  expect(address()).toBe('/library');
});

test('artwork that was removed comes back from the notice, which waits for it', async () => {
  const { user, asked } = await opened();
  await user.click(await screen.findByRole('button', { name: 'Remove Leaf from the library' }));
  expect(await screen.findByText('"Leaf" is removed.')).toBeVisible();
  await waitFor(() => expect(screen.queryByText('SVG, 2 colours')).toBeNull());
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  expect(await screen.findByText('SVG, 2 colours')).toBeVisible();
  expect(asked.map((a) => a.name)).toEqual(['DELETE /api/artwork/:id', 'POST /api/bin/:thing/restore']);
  expect(screen.getByText('"Leaf" is back.')).toBeVisible();
});
