import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { found, PictureList, type PictureItem } from './picture-list';

const item = (title: string, note?: string): PictureItem => ({
  id: title.toLowerCase(),
  title,
  picture: 'a'.repeat(64),
  note,
});
const few = ['Windowsill', 'Potting bench'].map((t) => item(t));
const many = [
  ...few,
  ...['Café table', 'Oak shelf', 'Tote bag', 'Mug on oak', 'Kraft box', 'Hall', 'Garden wall'].map((t) =>
    item(t),
  ),
];

test('every written word begins a word of the title, whatever its case and accents', () => {
  const titles = (search: string) => found(many, search).map((i) => i.title);
  expect(titles('oak')).toEqual(['Oak shelf', 'Mug on oak']);
  expect(titles('CAFE tab')).toEqual(['Café table']);
  expect(titles('oak mug')).toEqual(['Mug on oak']);
  expect(titles('ak')).toEqual([]);
  expect(titles('  ')).toHaveLength(many.length);
  expect(found([item('Bag', 'mockup')], 'mock')).toHaveLength(1);
});

test('a few are shown as they are, many are searched', async () => {
  const onPick = jest.fn();
  const { rerender } = render(<PictureList label="Scenes" items={few} onPick={onPick} />);
  expect(screen.queryByRole('searchbox')).toBeNull();
  rerender(<PictureList label="Scenes" items={many} onPick={onPick} />);
  const user = userEvent.setup();
  await user.type(screen.getByRole('searchbox', { name: 'Search scenes' }), 'mug');
  expect(screen.getAllByRole('button').map((b) => b.title)).toEqual(['Mug on oak']);
  await user.click(screen.getByRole('button', { name: 'Mug on oak' }));
  expect(onPick).toHaveBeenCalledWith(many[5]);
  await user.type(screen.getByRole('searchbox'), 'xx');
  expect(screen.getByText(/No results/)).toBeTruthy();
});

test('the chosen one is told, and what is chosen without a picture comes first until one searches', async () => {
  render(
    <PictureList
      label="Grounds"
      items={many}
      chosen="hall"
      nameOf={(i) => `Stand on ${i.title}`}
      first={<button>Pure white</button>}
      onPick={() => undefined}
    />,
  );
  expect(screen.getByRole('button', { name: 'Stand on Hall' }).getAttribute('aria-pressed')).toBe('true');
  expect(screen.getByRole('button', { name: 'Stand on Oak shelf' }).getAttribute('aria-pressed')).toBe(
    'false',
  );
  expect(screen.getAllByRole('button')[0].textContent).toBe('Pure white');
  await userEvent.setup().type(screen.getByRole('searchbox'), 'h');
  expect(screen.queryByText('Pure white')).toBeNull();
});
