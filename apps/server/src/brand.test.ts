import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { unwrapWoff } from '@scenograph/core/type/unwrap-woff';
import wawoff2 from 'wawoff2';
import { testServer } from './test-server';

/** Brand kit, fonts, templates and product fields over HTTP, on a real PostgreSQL. */

const server = testServer();
const { call } = server;
const font = (file: string) => readFileSync(join(__dirname, '../../../packages/core/type/fonts', file));
const listing = async (title: string) => {
  const { body } = await call('GET', '/api/listings');
  return (await call('GET', `/api/listings/${body.find((l: { title: string }) => l.title === title).id}`))
    .body;
};

test('the kit is stored by revision; an older one is refused with what is there, and what is wrong in it is said', async () => {
  const { kit, revision } = (await call('GET', '/api/brand')).body;
  expect(kit.colours.length).toBeGreaterThan(3);
  const colours = kit.colours.map((c: { id: string }) =>
    c.id === 'accent' ? { ...c, colour: '#0a5c7a' } : c,
  );
  const saved = await call('PUT', '/api/brand', { revision, kit: { ...kit, colours } });
  expect([saved.status, saved.body.revision]).toEqual([200, revision + 1]);
  const late = await call('PUT', '/api/brand', { revision, kit });
  expect(late.status).toBe(409);
  expect(late.body.detail.kit.colours.find((c: { id: string }) => c.id === 'accent').colour).toBe('#0a5c7a');
  const next = saved.body.revision;
  for (const [wrong, sentence] of [
    [{ ...kit, colours: [{ id: 'x', title: 'X', colour: 'greenish' }] }, /#rrggbb/],
    [{ ...kit, locale: 'nowhere at all' }, /language tag/],
    [{ ...kit, texts: [kit.texts[0], kit.texts[0]] }, /duplicate/],
    [
      { ...kit, fonts: [{ id: 'f', title: 'Ours', font: `own-${'a'.repeat(64)}` }] },
      /font file of "Ours" is not here/,
    ],
  ] as const) {
    const refused = await call('PUT', '/api/brand', { revision: next, kit: wrong });
    expect([refused.status >= 400 && refused.status < 500, refused.body.message]).toEqual([
      true,
      expect.stringMatching(sentence),
    ]);
  }
});

test('the history of the kit is kept with it; what is based on an older kit is refused with the present one', async () => {
  const before = (await call('GET', '/api/brand')).body;
  const history = {
    past: [
      {
        label: 'Name',
        forward: [{ op: 'replace', path: ['title'], value: 'One' }],
        inverse: [{ op: 'replace', path: ['title'], value: before.kit.title }],
      },
    ],
    future: [],
  };
  const body = { revision: before.revision, kit: { ...before.kit, title: 'One' }, history };
  expect((await call('PUT', '/api/brand', body)).body).toMatchObject({
    history,
    revision: before.revision + 1,
  });
  const refused = await call('PUT', '/api/brand', { ...body, kit: { ...before.kit, title: 'Two' } });
  expect([refused.status, refused.body.detail.kit.title, refused.body.detail.history]).toEqual([
    409,
    'One',
    history,
  ]);
  await call('PUT', '/api/brand', { revision: before.revision + 1, kit: before.kit });
  expect((await call('GET', '/api/brand')).body.history).toEqual({ past: [], future: [] });
});

test('every variant is bound to the kit as it is now, so that a change reaches what the server paints', async () => {
  const { brand, variants, shots } = await listing('Autumn sale');
  expect(brand.title).toBe('Marrowby');
  const picture = async () => {
    const path = `/api/shots/${shots[0].id}/picture?scale=0.1&variant=${variants[0].id}`;
    return Buffer.from(await (await fetch(server.base() + path)).arrayBuffer());
  };
  const before = await picture();
  expect(await picture()).toEqual(before);
  const { kit, revision } = (await call('GET', '/api/brand')).body;
  const colours = kit.colours.map((c: { id: string }) => (c.id === 'main' ? { ...c, colour: '#501010' } : c));
  await call('PUT', '/api/brand', { revision, kit: { ...kit, colours } });
  expect((await picture()).equals(before)).toBe(false);
});

test('font files of every kind come in and paint; broken ones are refused by name; one in use is not removed', async () => {
  const woff = font('bitter-latin-800-normal.woff');
  const taken = await call('POST', '/api/fonts?name=ours.woff', woff);
  expect([taken.status, taken.body.family]).toEqual([201, expect.stringMatching(/Bitter/)]);
  const plain = unwrapWoff(woff.buffer.slice(woff.byteOffset, woff.byteOffset + woff.byteLength));
  const packed = Buffer.from(await wawoff2.compress(new Uint8Array(plain)));
  expect((await call('POST', '/api/fonts?name=ours.woff2', packed)).body.family).toMatch(/Bitter/);
  for (const [name, bytes] of [
    ['half.woff', woff.subarray(0, 9000)],
    ['half.woff2', packed.subarray(0, 5000)],
    ['letter.txt', Buffer.from('no font at all')],
  ] as const) {
    const refused = await call('POST', `/api/fonts?name=${name}`, bytes);
    expect([refused.status, refused.body.message]).toEqual([
      422,
      expect.stringMatching(new RegExp(`"${name}" cannot be used`)),
    ]);
  }
  const { kit, revision } = (await call('GET', '/api/brand')).body;
  const own = `own-${taken.body.hash}`;
  const fonts = kit.fonts.map((f: { id: string }) => (f.id === 'headline' ? { ...f, font: own } : f));
  expect((await call('PUT', '/api/brand', { revision, kit: { ...kit, fonts } })).status).toBe(200);
  const { shots, variants } = await listing('Autumn sale');
  const path = `/api/shots/${shots[0].id}/picture?scale=0.1&variant=${variants[0].id}`;
  expect((await fetch(server.base() + path)).status).toBe(200);
  expect((await call('DELETE', `/api/fonts/${taken.body.id}`)).body.message).toMatch(
    /uses this font for "Headlines"/,
  );
});

test('a template is kept, listed before those that ship, used for a listing with slots taken over, and removed', async () => {
  const { listing: info, shots } = await listing('Autumn sale');
  const list = (await call('GET', '/api/templates')).body;
  expect(list.length).toBeGreaterThanOrEqual(14);
  const { document } = list.find((t: { id: string }) => t.id === 'new-arrival');
  const body = { title: 'Our arrivals', purpose: 'new arrival', season: null, document };
  const made = (await call('POST', '/api/templates', body)).body;
  expect((await call('GET', '/api/templates')).body[0]).toMatchObject({ title: 'Our arrivals', own: true });
  expect((await call('POST', '/api/templates', { ...body, document: { elements: 'none' } })).status).toBe(
    422,
  );
  const key = shots[0].feeds[0];
  const path = `/api/listings/${info.id}/shots/of-documents`;
  const none = await call('POST', path, { shots: [{ title: 'A', document, feeds: ['no/such'] }] });
  expect([none.status, none.body.message]).toEqual([404, expect.stringMatching(/no slot "no\/such"/)]);
  const added = await call('POST', path, {
    shots: [
      { title: 'A', document, feeds: [key] },
      { title: 'B', document },
    ],
  });
  expect(added.body.map((s: { title: string }) => s.title)).toEqual(['A', 'B']);
  const now = await listing('Autumn sale');
  expect(
    now.shots
      .filter((s: { feeds: string[] }) => s.feeds.includes(key))
      .map((s: { title: string }) => s.title),
  ).toEqual(['A']);
  expect((await call('DELETE', `/api/templates/${made.id}`)).status).toBe(200);
  expect((await call('DELETE', `/api/templates/${made.id}`)).status).toBe(404);
});

test('fields of a variant are kept under names that texts can use, and no others', async () => {
  const { variants } = await listing('Autumn planters');
  const path = `/api/variants/${variants[0].id}`;
  expect((await call('PATCH', path, { fields: { was: '32', origin: 'Stoke' } })).status).toBe(200);
  expect((await listing('Autumn planters')).variants[0].data.fields).toEqual({ was: '32', origin: 'Stoke' });
  for (const name of ['price', 'two words', '9lives'])
    expect((await call('PATCH', path, { fields: { [name]: 'x' } })).status).toBe(400);
});
