import { beforeEach, expect, test } from '@jest/globals';
import { useNotices } from './notices';
import { sayTurned } from './say-turned';

beforeEach(() => useNotices.setState({ list: [] }));
const said = () => useNotices.getState().list.map((n) => n.text);

test('what was undone is said; what somebody else has changed since is never said to be', () => {
  sayTurned('undo', { label: 'Fill Front', done: 1, left: 0 });
  expect(said()).toEqual(['Undone: Fill Front.']);
  sayTurned('redo', { label: 'Import', done: 4, left: 2 });
  expect(said().at(-1)).toBe(
    'Done again: Import. 2 values of it were changed again since and stay as they are.',
  );
  sayTurned('undo', { label: 'Fill Front', done: 0, left: 1 });
  expect(said().at(-1)).toBe('"Fill Front" was changed again elsewhere since, and stays as it is.');
});

test('where there is nothing to undo nothing is said', () => {
  sayTurned('undo', { label: null, done: 0, left: 0 });
  expect(said()).toEqual([]);
});
