import { beforeEach, expect, test } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { http, HttpResponse } from 'msw';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { SWRConfig } from 'swr';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import { server } from '../../../test/server';
import { allUnsent, dropUnsent } from '../../documents/outbox';
import fernway from '../../../../../demo/spec-sheets/fernway-social.json';
import { SheetScreen } from './sheet-screen';

const SHEET = {
  ...readSpecSheet(fernway),
  version: 3,
};

beforeEach(async () => {
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
});

/** The screen with a sheet; gives what was stored. */
async function editor(
  answer = (body: { version: number; sheet: SpecSheet }): Response =>
    HttpResponse.json({ ...body.sheet, version: body.version + 1 }),
) {
  const stored: { version: number; sheet: SpecSheet }[] = [];
  server.use(
    http.get('*/api/spec-sheets/:id', () =>
      HttpResponse.json({
        sheet: SHEET,
        versions: [{ version: 3, createdAt: '2026-11-01T10:00:00Z', sheet: SHEET }],
      }),
    ),
    http.put('*/api/spec-sheets/:id', async ({ request }) => {
      const body = (await request.json()) as (typeof stored)[number];
      stored.push(body);
      return answer(body);
    }),
  );
  const router = createMemoryRouter([{ path: '/spec-sheets/:id', Component: SheetScreen }], {
    initialEntries: [`/spec-sheets/${SHEET.id}`],
  });
  const view = render(
    <SWRConfig value={{ provider: () => new Map(), dedupingInterval: 0 }}>
      <RouterProvider router={router} />
    </SWRConfig>,
  );
  await screen.findByRole('navigation', { name: 'Slots' });
  return { user: userEvent.setup(), stored, leave: view.unmount };
}
const save = () => screen.getByRole('button', { name: /^Save as version/ });
const type = async (user: ReturnType<typeof userEvent.setup>, label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
};

test('a change is a draft until it is saved as the next version; undo takes it back', async () => {
  const { user, stored } = await editor();
  expect(save()).toBeDisabled();
  await type(user, 'Width', '1500');
  expect(screen.getByTestId('saving')).toHaveTextContent('draft');
  await user.click(screen.getByRole('button', { name: /^Undo: Change / }));
  expect(screen.getByLabelText('Width')).toHaveValue(String(SHEET.slots[0].width));
  await type(user, 'Width', '1600');
  await user.click(save());
  await waitFor(() => expect(save()).toHaveTextContent('version 5'));
  expect(stored).toHaveLength(1);
  expect([stored[0].version, stored[0].sheet.slots[0].width]).toEqual([3, 1600]);
});

test('a draft outlives its screen', async () => {
  const first = await editor();
  await type(first.user, 'About', 'Half typed');
  first.leave();
  const { stored } = await editor();
  await waitFor(() => expect(screen.getByLabelText('About')).toHaveValue('Half typed'));
  expect([stored.length, save()]).toEqual([0, expect.objectContaining({ disabled: false })]);
});

test('a rule that cannot be is said and not saved', async () => {
  const { user } = await editor();
  await type(user, 'Id, by which shots fill it', SHEET.slots[1].id);
  expect(screen.getByRole('alert')).toHaveTextContent(/./);
  expect(save()).toBeDisabled();
});

test('slots are added, copied, moved and removed, each in one step', async () => {
  const { user } = await editor();
  const titles = () =>
    screen
      .getAllByRole('listitem')
      .map((item) => item.querySelector('.font-medium')?.textContent?.replace(/ x\d+$/, ''));
  const before = titles();
  await user.click(screen.getByRole('button', { name: 'Add a slot' }));
  expect(titles()).toEqual([...before, 'New slot']);
  await user.click(screen.getByRole('button', { name: 'Earlier' }));
  expect(titles()).toEqual([...before.slice(0, -1), 'New slot', before.at(-1)]);
  await user.click(screen.getByRole('button', { name: 'Copy this slot' }));
  expect(titles().at(-1)).toBe('New slot, copy');
  await user.click(screen.getByRole('button', { name: 'Remove this slot' }));
  for (let n = 0; n < 4; n++) await user.click(screen.getByRole('button', { name: /^Undo: / }));
  expect(titles()).toEqual(before);
});

test('a sheet that was changed elsewhere is put to the choice', async () => {
  const theirs = { ...SHEET, version: 4, about: 'Theirs' };
  const { user } = await editor(() =>
    HttpResponse.json({ message: 'It is at version 4 by now.', detail: { sheet: theirs } }, { status: 409 }),
  );
  await type(user, 'About', 'Mine');
  await user.click(save());
  expect(await screen.findByText('It is at version 4 by now.')).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Close' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Take theirs' }));
  expect(screen.getByLabelText('About')).toHaveValue('Theirs');
});
