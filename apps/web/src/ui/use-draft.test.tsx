import { act, renderHook } from '@testing-library/react';
import { expect, jest, test } from '@jest/globals';
import { useDraft } from './use-draft';

function draft(stored = 'one') {
  const { result, rerender } = renderHook(({ value }) => useDraft(value), {
    initialProps: { value: stored },
  });
  return { now: () => result.current, arrives: (value: string) => rerender({ value }) };
}
const settle = () => act(() => Promise.resolve());

test('what is typed stays while it is on its way, and counts as settled', async () => {
  const { now, arrives } = draft();
  act(() => now().setText('two'));
  expect(now().settled()).toBe(false);
  act(() => now().commit('two', () => Promise.resolve({ ok: true })));
  expect(now().settled()).toBe(true);
  await settle();
  expect(now().text).toBe('two');
  arrives('two');
  expect(now().settled()).toBe(true);
});

test('a refusal brings back what is stored', async () => {
  const { now } = draft();
  act(() => now().commit('wrong', () => Promise.resolve(null)));
  expect(now().text).toBe('wrong');
  await settle();
  expect(now().text).toBe('one');
  expect(now().settled()).toBe(true);
});

test('a late refusal of an older text takes nothing from a newer one', async () => {
  const { now } = draft();
  let refuse!: (answer: null) => void;
  act(() => now().commit('first', () => new Promise<null>((resolve) => (refuse = resolve))));
  act(() => now().commit('second', () => Promise.resolve({ ok: true })));
  await act(async () => {
    refuse(null);
    await Promise.resolve();
  });
  expect(now().text).toBe('second');
});

test('the same text, left twice, need be sent but once', () => {
  const { now } = draft();
  const send = jest.fn(() => Promise.resolve({ ok: true }));
  act(() => now().commit('two', send));
  if (!now().settled('two')) act(() => now().commit('two', send));
  expect(send).toHaveBeenCalledTimes(1);
});

test('what is stored elsewhere is shown, and Escape goes back to it', () => {
  const { now, arrives } = draft();
  arrives('from elsewhere');
  expect(now().text).toBe('from elsewhere');
  act(() => now().setText('half typ'));
  act(() => now().restore());
  expect(now().text).toBe('from elsewhere');
});
