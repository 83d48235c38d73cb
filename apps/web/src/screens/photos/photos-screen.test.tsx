import { afterEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { uuid } from '../../../test/listing';
import { photo } from '../../../test/photos';
import { show } from '../../../test/show';
import type { Photo } from '../../api/client';
import { useUploads } from '../../api/uploads';
import { useNotices } from '../../ui/notices';
import { cutoutText } from './cutout-text';
import { PhotosScreen } from './photos-screen';

const [JUG, BOWL] = [uuid(31), uuid(32)];
afterEach(() => {
  useUploads.setState({ list: [] });
  useNotices.setState({ list: [] });
});

async function opened(photos: Photo[] = [photo(JUG, 'jug.jpg'), photo(BOWL, 'bowl.jpg')], refuses = '') {
  let kept = photos;
  const asked = answering({
    'GET /api/photos': () => kept,
    'GET /api/scenes': [],
    'GET /api/spec-sheets': [],
    'POST /api/photos/cutouts': ({ body }) => ({ queued: (body as { ids: [] }).ids.length }),
    'DELETE /api/photos/:id': ({ params }) => {
      if (refuses) return refusal(refuses);
      kept = kept.filter((p) => p.id !== params.id);
      return { removed: params.id };
    },
    'POST /api/photos': ({ query }) => {
      if (query.name.endsWith('.txt')) return refusal(`${query.name} is not a picture.`, 422);
      const taken = photo(uuid(40 + kept.length), query.name);
      kept = [taken, ...kept];
      return taken;
    },
    'POST /api/photos/:id/replace': ({ params, query }) => photo(params.id, query.name),
  });
  const shown = show(PhotosScreen, '/photos');
  if (photos.length) await screen.findByRole('checkbox', { name: `Choose ${photos[0].name}` });
  return { ...shown, asked };
}
const choose = (name: string) => screen.getByRole('checkbox', { name: `Choose ${name}` });

test('how a cutout stands is said in words, never more sure than it is', () => {
  const said = (over: Partial<Photo>) => cutoutText(photo(JUG, 'jug.jpg', over));
  const cutout = photo(JUG, '').cutout!;
  expect(said({ cutoutState: 'waiting' })).toBe('Queued for its cutout');
  expect(said({ cutoutState: 'failed', cutoutError: 'No product stands off.' })).toBe(
    'No product stands off.',
  );
  expect(said({ cutoutState: 'failed' })).toBe('Could not be cut out.');
  expect(said({ inUse: false })).toBe('Corrected, not in use yet');
  expect(said({ accepted: true })).toBe('Cut out, accepted');
  expect(said({ cutout: { ...cutout, confidence: 0.1 } })).toBe('Cut out, needs a hand');
  expect(said({ cutout: { ...cutout, confidence: 0.7 } })).toBe('Cut out, look at it');
});

test('the mark beside the words says the same', async () => {
  const unsure = { ...photo(JUG, 'jug.jpg').cutout!, confidence: 0.1 };
  await opened([
    photo(JUG, 'jug.jpg', { cutout: unsure }),
    photo(BOWL, 'bowl.jpg', { inUse: false }),
    photo(uuid(33), 'pot.jpg', { accepted: true }),
  ]);
  const mark = (name: string) => within(choose(name).closest('li')!).getByRole('img', { hidden: false });
  expect(mark('jug.jpg')).toHaveAccessibleName('failed');
  expect(mark('bowl.jpg')).toHaveAccessibleName('out of date');
  expect(mark('pot.jpg')).toHaveAccessibleName('pass');
});

test('no photos is said, and a failed answer is not taken for none', async () => {
  await opened([]);
  expect(await screen.findByText('No photos yet')).toBeVisible();
});

test('an answer that fails is said with a way to try again', async () => {
  answering({ 'GET /api/photos': refusal('The database is away.', 500) });
  show(PhotosScreen, '/photos');
  expect(await screen.findByText('The database is away.')).toBeVisible();
  expect(screen.getByRole('button', { name: 'Try again' })).toBeVisible();
  expect(screen.queryByText('No photos yet')).toBeNull();
});

test('several are chosen and cut out again, or start one listing', async () => {
  const { user, asked } = await opened();
  expect(screen.queryByRole('button', { name: /Start one listing/ })).toBeNull();
  await user.click(choose('jug.jpg'));
  await user.click(choose('bowl.jpg'));
  await user.click(screen.getByRole('button', { name: 'Cut 2 out again' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toEqual({ ids: [JUG, BOWL] });
  await user.click(screen.getByRole('button', { name: 'Start one listing with 2 variants' }));
  expect(await screen.findByRole('dialog')).toBeVisible();
});

test('a photo that is removed is no longer among the chosen', async () => {
  const { user } = await opened();
  await user.click(choose('jug.jpg'));
  await user.click(choose('bowl.jpg'));
  await user.click(screen.getByRole('button', { name: 'Remove jug.jpg' }));
  expect(await screen.findByRole('button', { name: 'Cut 1 out again' })).toBeVisible();
  expect(screen.queryByRole('button', { name: /Start one listing/ })).toBeNull();
});

test('a photo in use is not removed, and why is told', async () => {
  const { user } = await opened(undefined, 'Planter still uses this photo.');
  await user.click(screen.getByRole('button', { name: 'Remove jug.jpg' }));
  expect(await screen.findByText('Planter still uses this photo.')).toBeVisible();
  expect(choose('jug.jpg')).toBeVisible();
});

test('a photo without a cutout cannot be chosen, and is opened instead', async () => {
  await opened([photo(JUG, 'jug.jpg', { cutout: null, cutoutState: 'failed', cutoutError: 'Too dark.' })]);
  const card = choose('jug.jpg').closest('li')!;
  expect(choose('jug.jpg')).toBeDisabled();
  expect(within(card).queryByRole('button', { name: 'Start listing' })).toBeNull();
  expect(within(card).getByRole('link', { name: 'Open' })).toHaveAttribute('href', `/photos/${JUG}/cutout`);
  expect(within(card).getByText('Too dark.')).toBeVisible();
});

test('a file that is no picture is refused with a sentence, and the others come in', async () => {
  const { user } = await opened();
  await user.upload(screen.getByLabelText('Photos to import'), [
    new File(['x'], 'notes.txt', { type: 'image/jpeg' }),
    new File(['x'], 'mug.jpg', { type: 'image/jpeg' }),
  ]);
  const coming = within(await screen.findByRole('region', { name: 'Coming in' }));
  expect(await coming.findByText('notes.txt is not a picture.')).toBeVisible();
  const doubted = (await coming.findByText('Cut out, look at it')).closest('li')!;
  expect(within(doubted).getByRole('img')).toHaveAccessibleName('warning');
  expect(await screen.findByRole('checkbox', { name: 'Choose mug.jpg' })).toBeVisible();
  await user.click(coming.getByRole('button', { name: 'Clear what is done' }));
  expect(screen.queryByRole('region', { name: 'Coming in' })).toBeNull();
});

test('photos that came in together become the variants of one listing in one step', async () => {
  const { user } = await opened();
  await user.upload(screen.getByLabelText('Photos to import'), [
    new File(['x'], 'mug-red.jpg', { type: 'image/jpeg' }),
    new File(['x'], 'mug-blue.jpg', { type: 'image/jpeg' }),
  ]);
  const coming = within(await screen.findByRole('region', { name: 'Coming in' }));
  await user.click(await coming.findByRole('button', { name: 'Start one listing with 2 variants' }));
  expect(await screen.findByRole('dialog', { name: 'Start a listing' })).toBeVisible();
  // Of one photo alone there is nothing to put together.
  expect(coming.getAllByRole('button', { name: 'Start a listing', hidden: true })).toHaveLength(2);
});

test('a photo is replaced by another; its product keeps it', async () => {
  const { user, asked } = await opened();
  await user.upload(
    screen.getByLabelText('Replace jug.jpg by another photo'),
    new File(['x'], 'better.jpg', { type: 'image/jpeg' }),
  );
  expect(await screen.findByText(/jug.jpg is replaced; its product keeps it/)).toBeVisible();
  expect(asked[0].sent).toMatchObject({ params: { id: JUG }, query: { name: 'better.jpg' } });
});
