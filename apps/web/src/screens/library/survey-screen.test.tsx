import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { http, HttpResponse } from 'msw';
import { answering } from '../../../test/answering';
import { uuid } from '../../../test/listing';
import { sceneWithHistory, TABLE, UNSURVEYED } from '../../../test/scenes';
import { server } from '../../../test/server';
import { show } from '../../../test/show';
import type { SceneWithHistory } from '../../api/client';
import { allUnsent, dropUnsent } from '../../documents/outbox';
import { useNotices } from '../../ui/notices';
import { SurveyScreen } from './survey-screen';

const ID = uuid(51);
beforeEach(async () => {
  useNotices.setState({ list: [] });
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
});

async function opened(survey = TABLE) {
  const kept = { stored: sceneWithHistory(ID, 'Bench', survey), bodies: [] as SceneWithHistory[] };
  const asked = answering({
    'GET /api/scenes/:id': () => kept.stored,
    'GET /api/photos': [],
    'DELETE /api/scenes/:id': ({ params }) => ({ removed: params.id }),
  });
  server.use(
    http.put('*/api/scenes/:id', async ({ request }) => {
      const body = (await request.json()) as SceneWithHistory;
      if (body.revision !== kept.stored.revision)
        return HttpResponse.json({ message: 'Changed elsewhere.', detail: kept.stored }, { status: 409 });
      kept.bodies.push(body);
      kept.stored = { ...kept.stored, ...body, revision: body.revision + 1 };
      return HttpResponse.json(kept.stored);
    }),
  );
  const shown = show(SurveyScreen, '/library/scenes/:id', `/library/scenes/${ID}`);
  await screen.findByRole('complementary', { name: 'Survey' });
  return { ...shown, kept, asked };
}
const section = (name: RegExp) =>
  within(screen.getByRole('complementary', { name: 'Survey' })).getByRole('button', { name });
const stored = () =>
  waitFor(() => expect(screen.getByTestId('saving')).toHaveTextContent(/^saved \d/), { timeout: 8000 });

test('what the measures say of the camera is told', async () => {
  await opened();
  expect(section(/Standing plane/)).toHaveTextContent('solved');
  expect(screen.getByText('Corners off by')).toBeVisible();
  expect(screen.queryByRole('alert')).toBeNull();
});

test('a size that is typed is stored, and undone by its name', async () => {
  const { user, kept } = await opened();
  await user.clear(screen.getByRole('textbox', { name: 'Width' }));
  await user.type(screen.getByRole('textbox', { name: 'Width' }), '80 cm{Enter}');
  await stored();
  expect(kept.bodies.at(-1)!.survey.plane!.widthMm).toBe(800);
  await user.click(screen.getByRole('button', { name: 'Undo: Standing plane' }));
  expect(screen.getByRole('textbox', { name: 'Width' })).toHaveValue('600');
});

test('a scene without measures says so, and a height is marked', async () => {
  const { user } = await opened(UNSURVEYED);
  expect(section(/Standing plane/)).toHaveTextContent('not known');
  await user.click(screen.getByRole('button', { name: 'Mark a height' }));
  expect(await screen.findByRole('textbox', { name: 'Height' })).toHaveValue('150');
  expect(section(/Standing plane/)).toHaveTextContent('solved');
});

test('measures that contradict one another are told and do not break the screen', async () => {
  const [a, b, c, d] = TABLE.plane!.corners;
  await opened({ ...TABLE, plane: { ...TABLE.plane!, corners: [a, b, d, c] } });
  expect(screen.getByRole('alert')).toHaveTextContent(/cross or fold/);
  expect(section(/Standing plane/)).toHaveTextContent('not known');
});

test('a change of somebody else meanwhile is put to the choice', async () => {
  const { user, kept } = await opened();
  kept.stored = { ...kept.stored, revision: 4, title: 'Theirs' };
  await user.clear(screen.getByRole('textbox', { name: 'Depth' }));
  await user.type(screen.getByRole('textbox', { name: 'Depth' }), '500{Enter}');
  const dialog = within(await screen.findByRole('alertdialog', undefined, { timeout: 8000 }));
  await user.click(dialog.getByRole('button', { name: /mine/i }));
  await stored();
  expect(kept.bodies.at(-1)).toMatchObject({ revision: 4, survey: { plane: { depthMm: 500 } } });
});

test('a scene is removed and leaves for the library, from where it can be brought back', async () => {
  const { user, address, asked } = await opened();
  await user.click(section(/About/));
  await user.click(screen.getByRole('button', { name: 'Remove from the library' }));
  await waitFor(() => expect(address()).toBe('/library'));
  expect(asked.map((a) => a.name)).toContain('DELETE /api/scenes/:id');
  expect(screen.getByText('"Bench" is removed.')).toBeVisible();
});
