import { beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useActions, useKeyNotes, type Action } from './actions';
import { isSilenced, useLetterKeys, type KeyNotes } from './keys';
import { KeysDialog } from './keys-dialog';

const run = jest.fn();
const ACTIONS: Action[] = [
  { id: 'fit', title: 'Fit the picture', group: 'View', keys: 'F', run },
  { id: 'export', title: 'Export one picture', group: 'Listing', run },
];
const NOTES: KeyNotes = [['Arrows', 'Move what is chosen']];

function Desk() {
  useActions('desk', ACTIONS);
  useKeyNotes('desk', NOTES);
  return <input aria-label="Name" />;
}

const list = () => screen.getByRole('dialog', { name: 'Keys of this screen' });
const key = (name: string, over: Partial<KeyboardEvent> = {}) =>
  new KeyboardEvent('keydown', { key: name, ...over });

beforeEach(() => {
  useLetterKeys.setState({ on: true });
});

test('a question mark lists the keys of what is on screen, and only those', async () => {
  const user = userEvent.setup();
  const { rerender } = render(
    <>
      <Desk />
      <KeysDialog />
    </>,
  );
  await user.keyboard('?');
  const rows = within(list())
    .getAllByRole('term')
    .map((t) => t.textContent);
  expect(rows).toEqual(['Fit the picture', 'Move what is chosen', 'Find an action by its name', 'This list']);
  await user.keyboard('{Escape}');
  rerender(<KeysDialog />);
  await user.keyboard('?');
  expect(within(list()).queryByText('Move what is chosen')).toBeNull();
});

test('in a field a question mark is a question mark', async () => {
  const user = userEvent.setup();
  render(
    <>
      <Desk />
      <KeysDialog />
    </>,
  );
  await user.type(screen.getByLabelText('Name'), 'Why?');
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('keys of one letter are switched off here, and stay so', async () => {
  const user = userEvent.setup();
  render(<KeysDialog />);
  await user.keyboard('?');
  await user.click(screen.getByRole('switch', { name: 'Keys of a single letter or sign' }));
  expect(isSilenced(key('f'))).toBe(true);
  expect(JSON.parse(localStorage.getItem('scenograph-letter-keys')!)).toMatchObject({ state: { on: false } });
  await user.keyboard('{Escape}?');
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('only a letter or a sign alone is switched off', () => {
  useLetterKeys.setState({ on: false });
  for (const silent of [key('f'), key('+'), key('?'), key('F', { shiftKey: true })])
    expect(isSilenced(silent)).toBe(true);
  for (const heard of [key('z', { ctrlKey: true }), key('Delete'), key('ArrowLeft'), key(' '), key('Escape')])
    expect(isSilenced(heard)).toBe(false);
});
