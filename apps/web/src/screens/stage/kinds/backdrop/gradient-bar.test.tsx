import { beforeEach, expect, jest, test } from '@jest/globals';
import type { GradientStop } from '@scenograph/core/elements/backdrop/gradient';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { dragOver } from '../../../../../test/desk';
import { GradientBar } from './gradient-bar';

const TWO: GradientStop[] = [
  { at: 0, colour: '#000000' },
  { at: 1, colour: '#ffffff' },
];
let kept: GradientStop[];
const during = jest.fn();

function Bar({ first }: { first: GradientStop[] }) {
  const [stops, setStops] = useState(first);
  return (
    <GradientBar
      stops={stops}
      onDuring={(next) => {
        during(next);
        setStops(next);
      }}
      onCommit={(next) => {
        kept = next;
        setStops(next);
      }}
    >
      {(choose) => <button onClick={() => choose('#12463a')}>Product colour</button>}
    </GradientBar>
  );
}

/** The bar is 200 pixels wide and 20 high. */
function show(first = TWO) {
  kept = first;
  render(<Bar first={first} />);
  const bar = screen.getByTestId('gradient-bar');
  bar.getBoundingClientRect = () => ({ left: 0, width: 200, top: 0, bottom: 20 }) as DOMRect;
  return { bar, user: userEvent.setup() };
}
const stop = (n: number) => screen.getAllByRole('slider')[n - 1];
const places = () => kept.map((s) => s.at);

beforeEach(() => {
  during.mockClear();
});

test('a press on the bar adds a stop in the colour that is there', () => {
  const { bar } = show();
  dragOver(bar, [50, 10]);
  expect(kept).toEqual([TWO[0], { at: 0.25, colour: '#404040' }, TWO[1]]);
});

test('a stop is dragged along the bar, seen at once, and passes others', () => {
  show([TWO[0], { at: 0.5, colour: '#b9502f' }, TWO[1]]);
  dragOver(stop(1), [0, 10], [60, 10], [160, 10]);
  expect(during).toHaveBeenCalled();
  expect(kept.map((s) => s.colour)).toEqual(['#b9502f', '#000000', '#ffffff']);
  expect(places()).toEqual([0.5, 0.8, 1]);
});

test('dragged away from the bar it is taken off, unless only two are left', () => {
  show([TWO[0], { at: 0.5, colour: '#b9502f' }, TWO[1]]);
  dragOver(stop(2), [100, 10], [100, 90]);
  expect(kept).toEqual(TWO);
  dragOver(stop(1), [0, 10], [0, 90]);
  expect(kept).toEqual(TWO);
});

test('with the keyboard: arrows move, Shift further, Delete takes off', async () => {
  const { user } = show([TWO[0], { at: 0.5, colour: '#b9502f' }, TWO[1]]);
  stop(2).focus();
  await user.keyboard('{ArrowRight}{Shift>}{ArrowRight}{/Shift}');
  expect(places()).toEqual([0, 0.61, 1]);
  await user.keyboard('{Delete}');
  expect(places()).toEqual([0, 1]);
});

test('the chosen stop is coloured and placed by number; another comes into the widest gap', async () => {
  const { user } = show();
  stop(2).focus();
  await user.click(screen.getByRole('button', { name: 'Product colour' }));
  expect(kept[1].colour).toBe('#12463a');
  const field = screen.getByLabelText('Place of stop 2');
  await user.clear(field);
  await user.type(field, '80{Enter}');
  expect(places()).toEqual([0, 0.8]);
  await user.click(screen.getByRole('button', { name: 'Add a colour' }));
  expect(places()).toEqual([0, 0.4, 0.8]);
  expect(screen.getByLabelText('Place of stop 2')).toHaveValue('40');
});
