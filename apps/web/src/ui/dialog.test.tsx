import { expect, jest, test } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Dialog } from './dialog';

test('a dialog that asks for something begins with it', () => {
  render(
    <Dialog open title="Start" onClose={() => undefined} footer={<button type="button">Begin</button>}>
      <input type="file" aria-label="File" />
      <input aria-label="Off" disabled />
      <input aria-label="Name" />
    </Dialog>,
  );
  expect(screen.getByRole('textbox', { name: 'Name' })).toHaveFocus();
});

test('one without a field begins with its first button', () => {
  render(
    <Dialog open title="Remove?" onClose={() => undefined} footer={<button type="button">Remove</button>}>
      It will be gone.
    </Dialog>,
  );
  expect(screen.getByRole('button', { name: 'Close' })).toHaveFocus();
});

test('Escape and the cross close it; where there is no way round a choice, neither does', async () => {
  const onClose = jest.fn();
  const { rerender } = render(
    <Dialog open title="Remove?" onClose={onClose}>
      It will be gone.
    </Dialog>,
  );
  await userEvent.keyboard('{Escape}');
  await userEvent.click(screen.getByRole('button', { name: 'Close' }));
  expect(onClose).toHaveBeenCalledTimes(2);
  rerender(
    <Dialog open title="Changed elsewhere" footer={<button type="button">Keep mine</button>}>
      Which of them counts?
    </Dialog>,
  );
  expect(screen.queryByRole('button', { name: 'Close' })).toBeNull();
  await userEvent.keyboard('{Escape}');
  expect(screen.getByRole('alertdialog', { name: 'Changed elsewhere' })).toBeVisible();
  expect(onClose).toHaveBeenCalledTimes(2);
});

test('what it is about is its description', () => {
  render(
    <Dialog open title="Start" about="Two first shots are made." onClose={() => undefined}>
      <input aria-label="Name" />
    </Dialog>,
  );
  expect(screen.getByRole('dialog')).toHaveAccessibleDescription('Two first shots are made.');
});

/** A page whose button opens a dialog; the button can go meanwhile. */
function Page({ stays = true }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      {(stays || !open) && (
        <button type="button" onClick={() => setOpen(true)}>
          Begin
        </button>
      )}
      <main>
        <p>The listings</p>
      </main>
      <Dialog open={open} title="Start" onClose={() => setOpen(false)}>
        <input aria-label="Name" />
      </Dialog>
    </>
  );
}

test('closed, the focus is where it was before', async () => {
  render(<Page />);
  await userEvent.click(screen.getByRole('button', { name: 'Begin' }));
  expect(screen.getByRole('textbox', { name: 'Name' })).toHaveFocus();
  await userEvent.keyboard('{Escape}');
  expect(screen.queryByRole('dialog')).toBeNull();
  await waitFor(() => expect(screen.getByRole('button', { name: 'Begin' })).toHaveFocus());
});

test('where that is gone, it is in the content and not at the top of the page', async () => {
  // The button comes back as another one when the dialog closes.
  render(<Page stays={false} />);
  await userEvent.click(screen.getByRole('button', { name: 'Begin' }));
  await userEvent.keyboard('{Escape}');
  await waitFor(() => expect(screen.getByRole('main')).toHaveFocus());
});
