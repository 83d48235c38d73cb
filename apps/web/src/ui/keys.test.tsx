import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { ownerOfKeys } from './keys';

test('a key belongs to what has the focus, and to the screen where nothing has', () => {
  render(
    <main data-testid="main">
      <input aria-label="text" />
      <input aria-label="check" type="checkbox" />
      <button type="button">
        <span>press</span>
      </button>
      <div role="radiogroup">
        <button type="button">one of several</button>
      </div>
      <button type="button" data-slat="a">
        slat
      </button>
      <div role="dialog">
        <button type="button">in a dialog</button>
      </div>
      <svg data-testid="picture" />
    </main>,
  );
  const owners = [
    screen.getByLabelText('text'),
    screen.getByLabelText('check'),
    screen.getByText('press'),
    screen.getByText('one of several'),
    screen.getByText('slat'),
    screen.getByText('in a dialog'),
    screen.getByTestId('picture'),
    screen.getByTestId('main'),
    document.body,
    window,
  ].map(ownerOfKeys);
  expect(owners).toEqual([
    'field',
    'control',
    'control',
    'arrows',
    'arrows',
    'field',
    'screen',
    'screen',
    'screen',
    'screen',
  ]);
});
