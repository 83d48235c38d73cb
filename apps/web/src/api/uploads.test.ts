import { beforeEach, expect, test } from '@jest/globals';
import { waitFor } from '@testing-library/react';
import { http, HttpResponse } from 'msw';
import { server } from '../../test/server';
import { bringIn, stopUpload, useUploads } from './uploads';

const file = (name: string) => new File(['x'], name, { type: 'image/png' });
const states = () => useUploads.getState().list.map((u) => `${u.name}: ${u.state}`);

beforeEach(() => useUploads.setState({ list: [] }));

/** The server's desk for photos; gives how many were being taken at once at most. */
function desk(answer: (name: string) => Response | Promise<Response>) {
  let now = 0;
  const seen = { most: 0, names: [] as string[] };
  server.use(
    http.post('/api/photos', async ({ request }) => {
      const name = new URL(request.url).searchParams.get('name')!;
      seen.most = Math.max(seen.most, ++now);
      seen.names.push(name);
      await new Promise((r) => setTimeout(r, 20));
      now--;
      return answer(name);
    }),
  );
  return seen;
}

test('files are sent a few at a time; one that is refused does not hold up the others', async () => {
  const seen = desk((name) =>
    name === 'b.png'
      ? HttpResponse.json({ message: '"b.png" is empty.' }, { status: 422 })
      : HttpResponse.json({ id: name, name }),
  );
  bringIn(['a', 'b', 'c', 'd', 'e'].map((n) => file(`${n}.png`)));
  await waitFor(() => expect(states().filter((s) => /taken|refused/.test(s))).toHaveLength(5));
  expect(seen.names.sort()).toEqual(['a.png', 'b.png', 'c.png', 'd.png', 'e.png']);
  expect(seen.most).toBeLessThanOrEqual(3);
  const refused = useUploads.getState().list.find((u) => u.state === 'refused')!;
  expect([refused.name, refused.message, refused.photo]).toEqual(['b.png', '"b.png" is empty.', null]);
  expect(useUploads.getState().list.find((u) => u.name === 'a.png')).toMatchObject({
    state: 'taken',
    share: 1,
  });
});

test('one that waits is not sent when it is stopped, and names are sent whole', async () => {
  const seen = desk((name) => HttpResponse.json({ id: name, name }));
  bringIn([file('ä & b.png'), file('2.png'), file('3.png'), file('4.png')]);
  const waiting = useUploads.getState().list.find((u) => u.state === 'waiting')!;
  stopUpload(waiting);
  await waitFor(() => expect(states().filter((s) => /taken/.test(s))).toHaveLength(3));
  expect(states()).toContain(`${waiting.name}: stopped`);
  expect(seen.names).not.toContain(waiting.name);
  if (waiting.name !== 'ä & b.png') expect(seen.names).toContain('ä & b.png');
});

test('what a busy server refuses for now is sent again by itself', async () => {
  let asked = 0;
  desk((name) =>
    ++asked === 1
      ? HttpResponse.json({ message: 'Too many files are coming in at once.' }, { status: 429 })
      : HttpResponse.json({ id: name, name }),
  );
  bringIn([file('a.png')]);
  await waitFor(() => expect(states()).toEqual(['a.png: taken']), { timeout: 6000 });
  expect(asked).toBe(2);
});

test('a gateway’s page is told as what it is; finished ones are cleared, those on their way stay', async () => {
  desk(() => HttpResponse.html('<h1>Bad gateway</h1>', { status: 502 }));
  bringIn([file('a.png')]);
  await waitFor(() => expect(states()).toEqual(['a.png: refused']));
  expect(useUploads.getState().list[0].message).toContain('502');
  bringIn([file('b.png')]);
  useUploads.getState().clear();
  expect(states()).toEqual(['b.png: sending']);
  await waitFor(() => expect(states()).toEqual(['b.png: refused']));
});
