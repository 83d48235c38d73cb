import { expect, test } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { IconButton } from './controls';
import { ProgressBar } from './status';

test('what an icon does is said when the keyboard comes to it, and gone when it leaves', async () => {
  render(
    <>
      <IconButton label="Remove the stroke">x</IconButton>
      <button type="button">Next</button>
    </>,
  );
  const user = userEvent.setup();
  await user.tab();
  const button = screen.getByRole('button', { name: 'Remove the stroke' });
  expect(document.activeElement).toBe(button);
  expect(await screen.findByRole('tooltip')).toHaveTextContent('Remove the stroke');
  await user.tab();
  await waitFor(() => expect(screen.queryByRole('tooltip')).toBeNull());
});

test('progress is said in percent, and never beyond what there is', () => {
  const { rerender } = render(<ProgressBar share={0.254} label="Cutouts made" />);
  const bar = () => screen.getByRole('progressbar', { name: 'Cutouts made' });
  expect(bar().getAttribute('aria-valuenow')).toBe('25');
  rerender(<ProgressBar share={1.2} label="Cutouts made" />);
  expect(bar().getAttribute('aria-valuenow')).toBe('100');
});
