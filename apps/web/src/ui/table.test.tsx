import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, jest, test } from '@jest/globals';
import { MemoryRouter, Route, Routes } from 'react-router';
import { Table, type TableColumn } from './table';

interface Crate {
  id: string;
  name: string;
  pieces: number;
}
const CRATES: Crate[] = [
  { id: 'a', name: 'Crate 10', pieces: 5 },
  { id: 'b', name: 'crate 9', pieces: 120 },
  { id: 'c', name: 'Basket', pieces: 30 },
];
const COLUMNS: TableColumn<Crate>[] = [
  { id: 'name', title: 'Name', by: (c) => c.name, cell: (c) => <b>{c.name}</b> },
  { id: 'pieces', title: 'Pieces', by: (c) => c.pieces, cell: (c) => c.pieces, hint: (c) => `of ${c.name}` },
  { id: 'note', title: 'Note', cell: () => 'none' },
];

function show(more: Partial<Parameters<typeof Table<Crate>>[0]> = {}) {
  render(
    <MemoryRouter>
      <Routes>
        <Route
          path="/"
          element={<Table label="Crates" columns={COLUMNS} rows={CRATES} idOf={(c) => c.id} {...more} />}
        />
        <Route path="/crates/:id" element={<p>A crate</p>} />
      </Routes>
    </MemoryRouter>,
  );
  return userEvent.setup();
}
const names = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('cell')[0].textContent);
const head = (name: string) => screen.getByRole('columnheader', { name });

test('rows stand as they are given, and a click on a head sorts: up, down, as they were', async () => {
  const user = show();
  expect(names()).toEqual(['Crate 10', 'crate 9', 'Basket']);
  const press = () => user.click(within(head('Pieces')).getByRole('button'));
  await press();
  expect(names()).toEqual(['Crate 10', 'Basket', 'crate 9']);
  expect(head('Pieces').getAttribute('aria-sort')).toBe('ascending');
  await press();
  expect(names()).toEqual(['crate 9', 'Basket', 'Crate 10']);
  expect(head('Pieces').getAttribute('aria-sort')).toBe('descending');
  await press();
  expect(names()).toEqual(['Crate 10', 'crate 9', 'Basket']);
  expect(head('Pieces').hasAttribute('aria-sort')).toBe(false);
});

test('text is sorted as people do: numbers by value, capitals alike; by the keyboard too', async () => {
  const user = show();
  await user.tab();
  expect(document.activeElement?.textContent).toBe('Name');
  await user.keyboard('{Enter}');
  expect(names()).toEqual(['Basket', 'crate 9', 'Crate 10']);
  expect(within(head('Note')).queryByRole('button')).toBeNull();
});

test('a row leads where it should, its box chooses it and leads nowhere', async () => {
  const onChoose = jest.fn<(ids: string[]) => void>();
  const user = show({
    to: (c) => `/crates/${c.id}`,
    choice: { chosen: ['a'], onChoose, all: 'All crates', nameOf: (c) => c.name },
  });
  await user.click(screen.getByRole('checkbox', { name: 'Basket' }));
  expect(onChoose).toHaveBeenLastCalledWith(['a', 'c']);
  await user.click(screen.getByRole('checkbox', { name: 'Crate 10' }));
  expect(onChoose).toHaveBeenLastCalledWith([]);
  await user.click(screen.getByRole('checkbox', { name: 'All crates' }));
  expect(onChoose).toHaveBeenLastCalledWith(['a', 'b', 'c']);
  expect(screen.queryByText('A crate')).toBeNull();
  await user.click(screen.getByText('Basket'));
  expect(screen.getByText('A crate')).toBeTruthy();
});

test('a table has a name, and cells say more to a pointer that rests on them', () => {
  show();
  expect(screen.getByRole('table', { name: 'Crates' })).toBeTruthy();
  expect(screen.getByText('120').getAttribute('title')).toBe('of crate 9');
});
