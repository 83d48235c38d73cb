import { afterEach, expect, test } from '@jest/globals';
import { LOOKS_RIGHT } from '@scenograph/core/cutout/confidence';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { uuid } from '../../../test/listing';
import { photo } from '../../../test/photos';
import { show } from '../../../test/show';
import type { Photo } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { ReviewScreen } from './review-screen';
import { reviewState } from './review-state';

afterEach(() => useNotices.setState({ list: [] }));

const sure = (n: number, name: string, confidence: number, over: Partial<Photo> = {}) => {
  const one = photo(uuid(n), name, over);
  return { ...one, cutout: one.cutout && { ...one.cutout, confidence } };
};
const SHOOT = [
  sure(1, 'sure.jpg', LOOKS_RIGHT),
  sure(2, 'doubtful.jpg', 0.4),
  sure(3, 'done.jpg', 0.3, { accepted: true }),
  photo(uuid(4), 'lost.jpg', { cutout: null, cutoutState: 'failed', cutoutError: 'No product stands off.' }),
];

async function opened(photos: Photo[] = SHOOT, refuses = '') {
  let stored = photos;
  const asked = answering({
    'GET /api/photos': () => stored,
    'POST /api/photos/accepted': ({ body }) => {
      if (refuses) return refusal(refuses);
      const { ids, accepted } = body as { ids: string[]; accepted: boolean };
      stored = stored.map((p) => (ids.includes(p.id) ? { ...p, accepted } : p));
      return { changed: ids.length };
    },
    'POST /api/photos/cutouts/cancel': () => {
      stored = stored.map((p) => (p.cutoutState === 'waiting' ? { ...p, cutoutState: 'cancelled' } : p));
      return { cancelled: 1 };
    },
  });
  const shown = show(ReviewScreen, '/photos/review');
  await screen.findByText(/to look at, the least sure first/);
  return { ...shown, asked };
}
const names = () => screen.getAllByRole('listitem').map((li) => within(li).getByText(/\.jpg$/).textContent);

test('a state is a mark and words, and what a person accepted is not called unsure', () => {
  const of = (over: Partial<Photo>) => {
    const { mark, words } = reviewState({ ...SHOOT[1], ...over });
    return `${mark}: ${words}`;
  };
  expect(of({})).toBe('stop: needs a hand');
  expect(of({ cutout: { ...SHOOT[1].cutout!, confidence: 0.7 } })).toBe('look: look at it');
  expect(of({ cutout: { ...SHOOT[1].cutout!, confidence: LOOKS_RIGHT } })).toBe('pass: looks right');
  expect(of({ accepted: true })).toBe('pass: accepted');
  expect(of({ cutoutState: 'failed', cutoutError: null })).toBe('stop: could not be cut out');
  expect(of({ cutoutState: 'cancelled' })).toBe('missing: cancelled, not cut out');
  expect(of({ cutoutState: 'working' })).toBe('working: being cut out');
});

test('what failed comes first, then the least sure; what is accepted is not shown at first', async () => {
  const { user } = await opened();
  expect(screen.getByText('3 of 4 to look at, the least sure first.')).toBeVisible();
  expect(names()).toEqual(['lost.jpg', 'doubtful.jpg', 'sure.jpg']);
  await user.click(screen.getByRole('radio', { name: 'All' }));
  expect(names()).toEqual(['lost.jpg', 'done.jpg', 'doubtful.jpg', 'sure.jpg']);
  await user.click(screen.getByRole('radio', { name: 'Accepted' }));
  expect(names()).toEqual(['done.jpg']);
});

test('one click accepts only what looks right', async () => {
  const { user, asked } = await opened();
  await user.click(screen.getByRole('button', { name: 'Accept 1 that look right' }));
  await waitFor(() => expect(names()).toEqual(['lost.jpg', 'doubtful.jpg']));
  expect(asked[0].sent.body).toEqual({ ids: [uuid(1)], revisions: [1], accepted: true });
  expect(screen.getByRole('button', { name: 'Accept 0 that look right' })).toBeDisabled();
});

test('one is accepted and taken back; what has no cutout cannot be accepted', async () => {
  const { user } = await opened();
  const card = (name: string) => within(screen.getByText(name).closest('li')!);
  expect(card('lost.jpg').getByRole('button', { name: 'Accept' })).toBeDisabled();
  await user.click(card('doubtful.jpg').getByRole('button', { name: 'Accept' }));
  expect(await screen.findByText('doubtful.jpg is accepted.')).toBeVisible();
  await user.click(screen.getByRole('radio', { name: 'Accepted' }));
  await user.click(card('doubtful.jpg').getByRole('button', { name: 'Look again' }));
  expect(await screen.findByText('doubtful.jpg is to be looked at again.')).toBeVisible();
});

test('a refusal leaves the wall as it is and is told', async () => {
  const { user } = await opened(SHOOT, 'This photo was removed.');
  await user.click(screen.getByRole('button', { name: 'Accept 1 that look right' }));
  expect(await screen.findByText('This photo was removed.')).toBeVisible();
  expect(names()).toHaveLength(3);
});

test('places in doubt are ringed until the cutout is accepted', async () => {
  const doubtful = sure(2, 'doubtful.jpg', 0.4);
  doubtful.cutout!.doubts = [{ x: 10, y: 10, radius: 2 }];
  const { user } = await opened([doubtful]);
  const rings = () => document.querySelectorAll('li circle').length;
  // A ring, and the mark of its state is a diamond.
  expect(rings()).toBe(1);
  await user.click(screen.getByRole('button', { name: 'Accept' }));
  await user.click(screen.getByRole('radio', { name: 'All' }));
  await screen.findByText('accepted');
  expect(document.querySelectorAll('main a circle')).toHaveLength(0);
});

test('how far a shoot is can be seen, and the rest cancelled', async () => {
  const { user } = await opened([SHOOT[1], photo(uuid(9), 'next.jpg', { cutoutState: 'waiting' })]);
  expect(screen.getByRole('progressbar', { name: 'Cutouts made' })).toHaveAttribute('aria-valuenow', '50');
  await user.click(screen.getByRole('button', { name: 'Cancel the rest' }));
  expect(await screen.findByText('1 cutout is not made; what there was stays.')).toBeVisible();
  await waitFor(() => expect(screen.queryByRole('progressbar')).toBeNull());
});

test('an empty wall does not claim that all is accepted', async () => {
  await opened([]);
  expect(screen.getByText('Nothing here')).toBeVisible();
});
