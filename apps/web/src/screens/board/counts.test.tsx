import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { boardCounts, CountsRow } from './counts';

const columns = [{ slot: { required: true } }, { slot: { required: false } }, { slot: { required: true } }];

test('cells are counted by their letters; only required slots are missing', () => {
  expect(boardCounts([{ states: 'pox' }, { states: 'clf' }], 2, columns)).toEqual({
    total: 6,
    filled: 4,
    missing: 1,
    pass: 1,
    look: 1,
    stop: 2,
  });
});

test('a board without variants or slots has nothing to fill', () => {
  expect(boardCounts([], 0, columns)).toMatchObject({ total: 0, filled: 0 });
  expect(boardCounts([{ states: '' }], 1, [])).toMatchObject({ total: 0, filled: 0, missing: 0 });
});

test('a board that could not be fetched is not shown as filled', () => {
  render(<CountsRow counts={null} />);
  expect(screen.getByText('pictures filled').previousSibling).toHaveTextContent(/^\u2013$/);
  expect(document.body).not.toHaveTextContent(/\d/);
});
