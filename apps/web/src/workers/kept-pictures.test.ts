import { expect, jest, test } from '@jest/globals';
import { keptPictures } from './kept-pictures';

const loader = () =>
  jest.fn((hash: string) => Promise.resolve({ hash, width: hash === 'large' ? 400 : 100, height: 100 }));
/** What two pictures of 100 x 100 take. */
const TWO = 2 * 100 * 100 * 8;

test('a picture is decoded once, however many ask at a time and later', async () => {
  const load = loader();
  const picture = keptPictures(load, TWO);
  const [a, b] = await Promise.all([picture('a'), picture('a')]);
  expect(a).toBe(b);
  expect(await picture('a')).toBe(a);
  expect(load).toHaveBeenCalledTimes(1);
});

test('what was used longest ago goes first, by bytes and not by number', async () => {
  const load = loader();
  const picture = keptPictures(load, TWO);
  await picture('a');
  await picture('b');
  await picture('a');
  await picture('c');
  load.mockClear();
  await picture('a');
  await picture('c');
  expect(load).not.toHaveBeenCalled();
  await picture('b');
  expect(load).toHaveBeenCalledTimes(1);
});

test('one that is larger than all that may be kept is shown, and keeps out nothing else', async () => {
  const load = loader();
  const picture = keptPictures(load, TWO);
  await picture('a');
  expect((await picture('large')).width).toBe(400);
  load.mockClear();
  await picture('a');
  expect(load).not.toHaveBeenCalled();
});

test('one that failed is asked for again', async () => {
  const load = loader();
  load.mockRejectedValueOnce(new Error('The server cannot be reached.'));
  const picture = keptPictures(load, TWO);
  await expect(picture('a')).rejects.toThrow('cannot be reached');
  expect((await picture('a')).hash).toBe('a');
});
