import { act, renderHook } from '@testing-library/react';
import { expect, jest, test } from '@jest/globals';
import type { KeyboardEvent } from 'react';
import type { Choice } from './choice';
import { cellAt } from './choice';
import { useGridChoice } from './use-grid-choice';

/** A grid of four rows and three columns with a person at its keys. */
function grid() {
  let choice: Choice = new Set();
  const onOpen = jest.fn();
  const onReach = jest.fn();
  const hook = renderHook(() =>
    useGridChoice({ rows: 4, columns: 3, choice, onChoice: (next) => (choice = next), onOpen, onReach }),
  );
  const render = () => hook.rerender();
  const key = (name: string, modifiers: Partial<KeyboardEvent> = {}) => {
    const event = { key: name, preventDefault: jest.fn(), ...modifiers } as unknown as KeyboardEvent;
    act(() => hook.result.current.onKey(event));
    render();
    return event;
  };
  const pick = (row: number, column: number, modifiers = {}) => {
    act(() =>
      hook.result.current.pick(row, column, {
        shiftKey: false,
        ctrlKey: false,
        metaKey: false,
        ...modifiers,
      }),
    );
    render();
  };
  return { key, pick, onOpen, onReach, hook, render, chosen: () => [...choice].sort() };
}
const cells = (...places: [number, number][]) => places.map(([r, c]) => cellAt(r, c)).sort();

test('a click chooses one cell, with Ctrl one more, with Shift all between', () => {
  const { pick, chosen } = grid();
  pick(1, 1);
  expect(chosen()).toEqual(cells([1, 1]));
  pick(3, 2, { ctrlKey: true });
  expect(chosen()).toEqual(cells([1, 1], [3, 2]));
  pick(1, 1);
  pick(2, 2, { shiftKey: true });
  expect(chosen()).toEqual(cells([1, 1], [1, 2], [2, 1], [2, 2]));
});

test('arrows go from cell to cell, stay within the grid and bring the cell into view', () => {
  const { key, hook, onReach } = grid();
  key('ArrowRight');
  key('ArrowDown');
  expect(hook.result.current.at).toEqual([1, 1]);
  for (let i = 0; i < 9; i++) key('ArrowLeft');
  key('PageUp');
  expect(hook.result.current.at).toEqual([0, 0]);
  key('End');
  key('PageDown');
  expect(hook.result.current.at).toEqual([3, 2]);
  expect(onReach).toHaveBeenLastCalledWith(3, 2);
});

test('Shift and arrows choose from where one was; Space and Escape add and clear', () => {
  const { key, pick, chosen } = grid();
  pick(0, 0);
  key('ArrowDown', { shiftKey: true });
  key('ArrowRight', { shiftKey: true });
  expect(chosen()).toEqual(cells([0, 0], [0, 1], [1, 0], [1, 1]));
  key('Escape');
  expect(chosen()).toEqual([]);
  key(' ');
  expect(chosen()).toEqual(cells([1, 1]));
});

test('Enter opens the cell; Ctrl A chooses all, and no other key is taken from the page', () => {
  const { key, chosen, onOpen } = grid();
  key('ArrowDown');
  key('Enter');
  expect(onOpen).toHaveBeenCalledWith(1, 0);
  const all = key('a', { ctrlKey: true });
  expect(all.preventDefault).toHaveBeenCalled();
  expect(chosen()).toHaveLength(12);
  expect(key('x').preventDefault).not.toHaveBeenCalled();
});

test('a column and a row are chosen whole, with Ctrl added to what was', () => {
  const { hook, render, chosen } = grid();
  const plain = { shiftKey: false, ctrlKey: false, metaKey: false };
  act(() => hook.result.current.chooseColumn(2, plain));
  render();
  expect(chosen()).toEqual(cells([0, 2], [1, 2], [2, 2], [3, 2]));
  act(() => hook.result.current.chooseRow(0, { ...plain, ctrlKey: true }));
  render();
  expect(chosen()).toHaveLength(6);
});
