import { beforeEach, expect, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { PLAIN_RECIPE } from '@scenograph/core/cutout/recipe';
import { server } from '../../test/server';
import { useNotices } from '../ui/notices';
import { allUnsent, dropUnsent, keepUnsent } from './outbox';
import { sendUnsent } from './send-unsent';

const history = { past: [], future: [] };
const recipe = { title: 'Mine', steps: [] };
let changedAt = 1;
const leave = (kind: string, id: string, document: object) =>
  keepUnsent({ kind, id, changedAt: changedAt++, body: { document, history, revision: 3 } });
const notices = () => useNotices.getState().list.map((n) => n.text);

beforeEach(async () => {
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
  useNotices.setState({ list: [] });
});

test('what was left unsent is sent without its screen, based on the revision that it was based on', async () => {
  const sent: unknown[] = [];
  server.use(
    http.put('*/api/recipes/r1', async ({ request }) => {
      sent.push(await request.json());
      return HttpResponse.json({ revision: 4 });
    }),
  );
  await leave('recipe', 'r1', recipe);
  expect(await sendUnsent(() => undefined)).toBe(0);
  expect(sent).toEqual([{ revision: 3, history, ...recipe }]);
});

test('corrections of a cutout that were sent late are put to use too', async () => {
  const asked: unknown[] = [];
  server.use(
    http.put('*/api/photos/p1/recipe', () => HttpResponse.json({ revision: 4, inUse: false })),
    http.post('*/api/photos/cutouts', async ({ request }) => {
      asked.push(await request.json());
      return HttpResponse.json({ queued: 1 });
    }),
  );
  await leave('cutout', 'p1', PLAIN_RECIPE);
  await sendUnsent(() => undefined);
  expect(asked).toEqual([{ ids: ['p1'], changedOnly: true }]);
});

test('with the server away, or a gateway’s page in its place, everything goes on waiting and nothing is said', async () => {
  await leave('recipe', 'r1', recipe);
  for (const answer of [
    () => HttpResponse.error(),
    () => new HttpResponse('<html>502</html>', { status: 502 }),
  ]) {
    server.use(http.put('*/api/recipes/r1', answer));
    expect(await sendUnsent(() => undefined)).toBe(1);
  }
  expect(notices()).toEqual([]);
});

test('what was changed elsewhere too waits for a choice and is told once, with the way there', async () => {
  const theirs = { title: 'Theirs', steps: [], history, revision: 8 };
  server.use(
    http.put('*/api/recipes/r1', () =>
      HttpResponse.json({ message: 'changed', detail: theirs }, { status: 409 }),
    ),
  );
  await leave('recipe', 'r1', recipe);
  const went: string[] = [];
  await sendUnsent((path) => went.push(path));
  expect(await sendUnsent((path) => went.push(path))).toBe(1);
  expect(notices()).toHaveLength(1);
  expect(notices()[0]).toMatch(/recipe .* changed elsewhere too; your version is kept/);
  useNotices.getState().list[0].action!.run();
  expect(went).toEqual(['/recipes/r1']);
});

test('a refusal over a document that the server has by now is none', async () => {
  const theirs = { ...recipe, history, revision: 4 };
  server.use(
    http.put('*/api/recipes/r1', () =>
      HttpResponse.json({ message: 'changed', detail: theirs }, { status: 409 }),
    ),
  );
  await leave('recipe', 'r1', recipe);
  expect(await sendUnsent(() => undefined)).toBe(0);
  expect(notices()).toEqual([]);
});

test('what was removed meanwhile is said to be lost; a draft is never sent by itself', async () => {
  server.use(
    http.put('*/api/recipes/r1', () =>
      HttpResponse.json({ message: 'This recipe is gone.' }, { status: 404 }),
    ),
  );
  await leave('recipe', 'r1', recipe);
  await leave('spec-sheet', 'kestrel', { marketplace: 'Kestrel' });
  expect(await sendUnsent(() => undefined)).toBe(1);
  expect(notices()).toEqual([expect.stringMatching(/recipe that you changed is not there any more/)]);
});
