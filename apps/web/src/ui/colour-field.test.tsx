import { beforeEach, expect, jest, test } from '@jest/globals';
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { http, HttpResponse } from 'msw';
import { SWRConfig } from 'swr';
import { useState } from 'react';
import { server } from '../../test/server';
import { ColourField } from './colour-field';

beforeEach(() => {
  const kit = { colours: [{ id: 'main', title: 'Bottle green', colour: '#2f4a34' }] };
  server.use(
    http.get('*/api/brand', () => HttpResponse.json({ kit, history: { past: [], future: [] }, revision: 1 })),
  );
});

/** A field that keeps what is committed; gives what was. */
function field(first = '#804020') {
  const commit = jest.fn();
  function Kept() {
    const [value, setValue] = useState(first);
    return (
      <ColourField
        label="Fill"
        value={value}
        onCommit={(colour) => {
          commit(colour);
          setValue(colour);
        }}
      />
    );
  }
  render(
    <SWRConfig value={{ provider: () => new Map() }}>
      <Kept />
    </SWRConfig>,
  );
  return { user: userEvent.setup(), commit, code: () => screen.getByLabelText('Fill, code') };
}

test('a colour is written as a code or by name; what is none is said and nothing changes', async () => {
  const { user, commit, code } = field();
  await user.clear(code());
  await user.type(code(), 'teal{Enter}');
  expect([commit.mock.calls, (code() as HTMLInputElement).value]).toEqual([[['#008080']], '#008080']);
  await user.clear(code());
  await user.type(code(), 'greenish{Enter}');
  expect(screen.getByRole('alert')).toHaveTextContent('“greenish” is no colour');
  expect(commit).toHaveBeenCalledTimes(1);
});

test('behind the swatch are OKLCH, whose numbers take effect, and the brand’s palette', async () => {
  const { user, commit, code } = field('#808080');
  await user.click(screen.getByRole('button', { name: 'Fill: #808080' }));
  const oklch = screen.getByRole('group', { name: 'Fill in OKLCH' });
  const lightness = within(oklch).getByLabelText('Lightness');
  await user.clear(lightness);
  await user.type(lightness, '100{Enter}');
  expect(code()).toHaveValue('#ffffff');
  await user.click(await screen.findByRole('button', { name: 'Bottle green' }));
  expect(commit).toHaveBeenLastCalledWith('#2f4a34');
  expect(screen.getByRole('button', { name: 'Bottle green' })).toHaveAttribute('aria-pressed', 'true');
  await user.keyboard('{Escape}');
  expect(screen.queryByRole('group', { name: 'Fill in OKLCH' })).toBeNull();
});

test('the picker is moved with the keyboard, each move kept once', async () => {
  const { user, commit } = field('#ff0000');
  await user.click(screen.getByRole('button', { name: 'Fill: #ff0000' }));
  screen.getByRole('slider', { name: 'Hue' }).focus();
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Hue' }), {
    key: 'ArrowRight',
    keyCode: 39,
    which: 39,
  });
  await waitFor(() => expect(commit).toHaveBeenCalledTimes(1));
  expect(commit.mock.calls[0][0]).not.toBe('#ff0000');
});
