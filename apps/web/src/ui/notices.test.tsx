import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { Notices, say, useNotices } from './notices';

beforeEach(() => {
  useNotices.setState({ list: [] });
  jest.useFakeTimers();
});
afterEach(() => void jest.useRealTimers());
const texts = () => useNotices.getState().list.map((n) => n.text);
const wait = (ms: number) => act(() => jest.advanceTimersByTime(ms));

test('what went well goes by itself; what went wrong, or can be acted on, waits to be read', () => {
  say('pass', 'Stored.');
  say('stop', 'Not stored.');
  say('pass', 'Removed.', { title: 'Undo', run: () => undefined });
  wait(10_000);
  expect(texts()).toEqual(['Not stored.', 'Removed.']);
  wait(1_000_000);
  expect(texts()).toEqual(['Not stored.', 'Removed.']);
});

test('many notices never push one away that waits to be read', () => {
  say('pass', 'Removed.', { title: 'Undo', run: () => undefined });
  for (let i = 0; i < 6; i++) say('pass', `Stored ${i}.`);
  expect(texts()).toContain('Removed.');
  expect(texts()).toHaveLength(4);
  expect(texts().at(-1)).toBe('Stored 5.');
});

test('even those that wait are not piled up without end', () => {
  for (let i = 0; i < 20; i++) say('stop', `Wrong ${i}.`);
  expect(texts()).toHaveLength(8);
  expect(texts()[0]).toBe('Wrong 12.');
});

test('an action is done once and closes its notice; any can be closed by hand', async () => {
  jest.useRealTimers();
  const undo = jest.fn();
  say('pass', 'Removed.', { title: 'Undo', run: undo });
  say('stop', 'Not stored.');
  render(<Notices />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  expect(undo).toHaveBeenCalledTimes(1);
  expect(screen.queryByText('Removed.')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Close this notice' }));
  expect(texts()).toEqual([]);
});
