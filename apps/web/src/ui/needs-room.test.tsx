import { afterEach, expect, test } from '@jest/globals';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { LEAST_WIDTH, NeedsRoom } from './needs-room';

const usual = window.innerWidth;
const widen = (width: number) =>
  act(() => {
    Object.assign(window, { innerWidth: width });
    window.dispatchEvent(new Event('resize'));
  });
const show = () =>
  render(
    <MemoryRouter>
      <NeedsRoom what="The stage">
        <p>A desk</p>
      </NeedsRoom>
    </MemoryRouter>,
  );

afterEach(() => {
  Object.assign(window, { innerWidth: usual });
});

test('a window that is wide enough shows the desk, one that becomes too narrow says what is needed', () => {
  widen(LEAST_WIDTH);
  show();
  expect(screen.getByText('A desk')).toBeTruthy();
  widen(390);
  expect(screen.queryByText('A desk')).toBeNull();
  expect(screen.getByText(/At least 760 pixels across; this one has 390/)).toBeTruthy();
  widen(844);
  expect(screen.getByText('A desk')).toBeTruthy();
});

test('it is opened all the same where one wants to', async () => {
  widen(390);
  show();
  await userEvent.setup().click(screen.getByRole('button', { name: 'Open it all the same' }));
  expect(screen.getByText('A desk')).toBeTruthy();
});
