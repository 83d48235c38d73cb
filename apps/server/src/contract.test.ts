import { contract, address } from '@scenograph/contract';
import { openApi } from '@scenograph/contract/openapi';
import { testServer } from './test-server';

const { base, call } = testServer();
const NOBODY = '00000000-0000-4000-8000-000000000000';
const params = {
  id: NOBODY,
  outline: NOBODY,
  waiver: NOBODY,
  photo: NOBODY,
  sheet: 'nowhere',
  thing: 'nothing',
  hash: 'x',
};
const words = { ...params, side: '320', n: '0', mask: 'occluder' };

/** A route's first answer: what comes of events without an end is not waited for. */
async function ask(name: string): Promise<{ status: number; text: string }> {
  const stop = new AbortController();
  const [method] = name.split(' ');
  const answer = await fetch(base() + address(name, words), {
    method,
    headers: method === 'GET' ? {} : { 'Content-Type': 'application/json' },
    body: method === 'GET' ? undefined : '{}',
    signal: stop.signal,
  });
  const { status } = answer;
  const endless = answer.headers.get('content-type')?.startsWith('text/event-stream');
  const text = endless ? '' : await answer.text();
  stop.abort();
  return { status, text };
}

test('every route of the contract is answered by the server, with a sentence where it refuses', async () => {
  for (const name of Object.keys(contract)) {
    const { status, text } = await ask(name);
    // Without a worker it answers that it is not.
    if (name === 'GET /api/health/ready') {
      expect([status, JSON.parse(text).workers]).toEqual([503, 0]);
      continue;
    }
    expect({ name, status: status < 500 }).toEqual({ name, status: true });
    // What Nest says where no handler is.
    expect({ name, text: text.slice(0, 200) }).not.toEqual({
      name,
      text: expect.stringContaining('Cannot '),
    });
    if (status >= 400) expect(JSON.parse(text)).toMatchObject({ message: expect.stringMatching(/[.?]$/) });
  }
});

test('what is not in the contract is not answered', async () => {
  const { status } = await call('GET', '/api/nothing');
  expect(status).toBe(404);
  expect((await call('PUT', '/api/photos')).status).toBe(404);
});

test('every list that needs no choice keeps to the contract, by the demo’s data', async () => {
  const lists = Object.keys(contract).filter(
    (name) => /^GET [^:.]+$/.test(name) && !/events|files|ready/.test(name),
  );
  expect(lists.length).toBeGreaterThan(12);
  for (const name of lists) expect({ name, status: (await ask(name)).status }).toEqual({ name, status: 200 });
});

test('every entry of the demo keeps to the contract', async () => {
  const first = async (path: string) => (await call('GET', path)).body[0];
  const entries = [
    `/api/photos/${(await first('/api/photos')).id}`,
    `/api/photos/${(await first('/api/photos')).id}/desk`,
    `/api/scenes/${(await first('/api/scenes')).id}`,
    `/api/spec-sheets/${(await first('/api/spec-sheets')).id}`,
    `/api/products/${(await first('/api/products/titles')).id}`,
  ];
  const listings = (await call('GET', '/api/listings')).body as { id: string }[];
  for (const { id } of listings)
    entries.push(`/api/listings/${id}`, `/api/listings/${id}/board`, `/api/listings/${id}/summary`);
  const { slots, rows, shots } = (await call('GET', `/api/listings/${listings[0].id}/board`)).body;
  for (const slotKey of slots.slice(0, 8))
    entries.push(
      address(
        'GET /api/listings/:id/cell',
        { id: listings[0].id },
        { slotKey, variantId: rows[0].variantId },
      ),
    );
  for (const id of shots) entries.push(`/api/shots/${id}`);
  for (const entry of entries) {
    const { status, body } = await call('GET', entry);
    expect({ entry, status, message: body.message }).toEqual({ entry, status: 200, message: undefined });
  }
});

test('bad requests say which part is wrong', async () => {
  const ask = async (method: string, path: string, body?: unknown) =>
    (await call(method, path, body)).body.message as string;
  expect(await ask('GET', '/api/photos/17')).toBe('Nothing is stored under that id.');
  expect(await ask('POST', '/api/photos/cutouts', { ids: [] })).toContain('"ids" must contain at least 1');
  expect(await ask('POST', '/api/photos/accepted', { ids: [NOBODY] })).toContain('"accepted" is required');
  expect(await ask('GET', '/api/listings?limit=0')).toContain('"limit"');
  expect(await ask('GET', '/api/listings?colour=red')).toContain('"colour" is not allowed');
  expect(await ask('POST', `/api/scenes/${NOBODY}/mask/shadow/${NOBODY}`)).toContain('not "shadow"');
});

test('OpenAPI is served as data and as a page that needs nothing from elsewhere', async () => {
  const { body } = await call('GET', '/api/openapi.json');
  expect(body).toEqual(JSON.parse(JSON.stringify(openApi(body.info.version))));
  const page = await (await fetch(`${base()}/api/docs`)).text();
  expect(page).toContain('/api/photos/{id}/recipe');
  expect(page).not.toMatch(/<script|https?:\/\//);
});
