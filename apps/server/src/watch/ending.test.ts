import { expect, test } from '@jest/globals';
import { endInOrder } from './ending';

test('a process ends step by step, also where one fails', async () => {
  const done: string[] = [];
  await endInOrder(
    [
      async () => void done.push('first'),
      () => Promise.reject(new Error('Connection terminated unexpectedly')),
      () => {
        throw new Error('at once');
      },
      async () => void done.push('last'),
    ],
    { exit: () => void done.push('ended') },
  );
  expect(done).toEqual(['first', 'last', 'ended']);
});

test('a step without an answer does not keep it alive, and one that answers later ends nothing twice', async () => {
  const done: string[] = [];
  let answer = () => {};
  const slow = new Promise<void>((resolve) => (answer = resolve));
  const ending = endInOrder([() => slow, async () => void done.push('last')], {
    patience: 30,
    exit: () => void done.push('ended'),
  });
  await new Promise((r) => setTimeout(r, 90));
  expect(done).toEqual(['ended']);
  answer();
  await ending;
  expect(done.filter((d) => d === 'ended')).toHaveLength(1);
});
