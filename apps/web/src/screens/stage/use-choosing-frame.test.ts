import { beforeEach, expect, test } from '@jest/globals';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { act, renderHook } from '@testing-library/react';
import { stage, STAGED } from '../../../test/stage';
import { useStage } from './store';
import { useChoosingFrame } from './use-choosing-frame';

const chosen = () => {
  const { selected, also } = useStage.getState();
  return [selected, ...also];
};
/** The stage at half its size, begun in the corner. */
function choosing() {
  const shown = resolveBase(STAGED, null);
  return renderHook(() => useChoosingFrame(shown, ({ x, y }) => ({ x: x * 2, y: y * 2 }))).result;
}

beforeEach(() => stage('product'));

test('a frame drawn on the stage chooses what it touches while it grows', () => {
  const hand = choosing();
  act(() => hand.current.begin({ x: 10, y: 10 }, false));
  act(() => hand.current.to({ x: 60, y: 60 }, 1));
  expect(chosen()).toEqual(['left']);
  expect(hand.current.drawn).toEqual({ x: 10, y: 10, width: 50, height: 50 });
  act(() => hand.current.to({ x: 290, y: 170 }, 1));
  expect(chosen()).toEqual(expect.arrayContaining(['left', 'right']));
  act(() => hand.current.end());
  expect(hand.current.drawn).toBeNull();
  act(() => hand.current.to({ x: 1, y: 1 }, 1));
  expect(chosen()).toContain('left');
});

test('a click draws no frame and leaves the choice alone', () => {
  const hand = choosing();
  act(() => hand.current.begin({ x: 10, y: 10 }, false));
  act(() => hand.current.to({ x: 12, y: 11 }, 1));
  expect(hand.current.drawn).toBeNull();
  expect(chosen()).toEqual(['product']);
});

test('with Shift it adds to what is chosen; let go outside the window it ends', () => {
  const hand = choosing();
  act(() => hand.current.begin({ x: 10, y: 10 }, true));
  act(() => hand.current.to({ x: 60, y: 60 }, 1));
  expect(chosen()).toEqual(['product', 'left']);
  act(() => hand.current.to({ x: 400, y: 400 }, 0));
  expect(hand.current.drawn).toBeNull();
  expect(chosen()).toEqual(['product', 'left']);
});
