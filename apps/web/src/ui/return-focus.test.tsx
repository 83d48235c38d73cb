import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { useLeaveToContent } from './return-focus';

function Inside() {
  useLeaveToContent();
  return <textarea aria-label="Words" autoFocus />;
}

/** A screen with a field that goes when one is done with it. */
function Screen() {
  const [inside, setInside] = useState(true);
  return (
    <>
      <main>{inside && <Inside />}</main>
      <button type="button" onClick={() => setInside(false)}>
        Done
      </button>
      <div onKeyDown={() => setInside(false)}>
        <input aria-label="Other" />
      </div>
    </>
  );
}

test('where a field had the focus and goes, the keyboard goes on in the content', async () => {
  const { rerender } = render(<Screen />);
  expect(screen.getByRole('textbox', { name: 'Words' })).toHaveFocus();
  rerender(
    <main>
      <p>Nothing inside</p>
    </main>,
  );
  expect(screen.getByRole('main')).toHaveFocus();
});

test('where something else has it by then, it keeps it', async () => {
  render(<Screen />);
  await userEvent.type(screen.getByRole('textbox', { name: 'Other' }), 'x');
  expect(screen.queryByRole('textbox', { name: 'Words' })).toBeNull();
  expect(screen.getByRole('textbox', { name: 'Other' })).toHaveFocus();
});
