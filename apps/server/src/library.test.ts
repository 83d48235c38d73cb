import { expect, test } from '@jest/globals';
import sharp from 'sharp';
import { testServer } from './test-server';

const server = testServer();
const { call } = server;

const png = (width: number, height: number, background = '#345544') =>
  sharp({ create: { width, height, channels: 4, background } })
    .png()
    .toBuffer();
const bytes = async (path: string) => {
  const answer = await fetch(server.base() + path);
  return { status: answer.status, headers: answer.headers, body: Buffer.from(await answer.arrayBuffer()) };
};

test('a stored file never changes, so browsers may keep it; an unknown one is not found', async () => {
  const [photo] = (await call('GET', '/api/photos')).body as { original: string }[];
  const first = await bytes(`/api/blobs/${photo.original}`);
  expect(first.status).toBe(200);
  expect(first.headers.get('cache-control')).toMatch(/immutable/);
  expect(first.headers.get('content-type')).toMatch(/^image\//);
  for (const path of [`/api/blobs/${'0'.repeat(64)}`, '/api/blobs/..%2F..%2Fetc%2Fpasswd', '/api/blobs/x'])
    expect({ path, status: (await bytes(path)).status }).toEqual({ path, status: 404 });
});

test('reduced copies keep the shape, are never enlarged, and only some sides are made', async () => {
  const [photo] = (await call('GET', '/api/photos')).body as {
    working: string;
    width: number;
    height: number;
  }[];
  const { body } = await bytes(`/api/blobs/${photo.working}/reduced/320`);
  const { width, height, format } = await sharp(body).metadata();
  expect(format).toBe('webp');
  expect(Math.max(width, height)).toBe(320);
  expect(width / height).toBeCloseTo(photo.width / photo.height, 1);
  const small = (await call('POST', '/api/pictures?name=dot.png', await png(40, 30))).body as {
    picture: string;
  };
  const kept = await sharp((await bytes(`/api/blobs/${small.picture}/reduced/640`)).body).metadata();
  expect([kept.width, kept.height]).toEqual([40, 30]);
  for (const side of ['321', '0', '-160', 'x'])
    expect((await bytes(`/api/blobs/${photo.working}/reduced/${side}`)).status).toBeGreaterThanOrEqual(400);
});

test('the same picture is stored once, however often it comes in', async () => {
  const picture = await png(64, 64, '#b0482c');
  const one = (await call('POST', '/api/pictures?name=a.png', picture)).body as {
    picture: string;
    id: string;
  };
  const two = (await call('POST', '/api/pictures?name=b.png', picture)).body as {
    picture: string;
    id: string;
  };
  expect(two.picture).toBe(one.picture);
  expect(two.id).not.toBe(one.id);
});

test('pictures: what cannot be read is refused with its name, and nothing is kept of it', async () => {
  const before = (await call('GET', '/api/pictures')).body as unknown[];
  for (const [name, body] of [
    ['empty.png', Buffer.alloc(0)],
    ['text.png', Buffer.from('not a picture at all')],
    ['cut.png', (await png(50, 50)).subarray(0, 40)],
    ['script.svg', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script>')],
  ] as const) {
    const refused = await call('POST', `/api/pictures?name=${name}`, body);
    expect({ name, status: refused.status < 500 && refused.status >= 400 }).toEqual({ name, status: true });
    expect(refused.body.message).toMatch(/[.?]$/);
  }
  expect((await call('GET', '/api/pictures')).body).toEqual(before);
});

test('effects are kept by name and refused where they make no sense', async () => {
  const effects = {
    outline: { width: 4, colour: '#ffffff', opacity: 1 },
    glow: null,
    dropShadow: null,
    innerShadow: null,
  };
  const made = (await call('POST', '/api/effects', { title: 'Sticker', effects })).body as { id: string };
  const listed = (await call('GET', '/api/effects')).body as { id: string; title: string; effects: object }[];
  expect(listed.find((e) => e.id === made.id)).toMatchObject({ title: 'Sticker', effects });
  for (const wrong of [
    { ...effects, outline: { ...effects.outline, colour: 'white' } },
    { ...effects, outline: { ...effects.outline, opacity: 2 } },
    { outline: null },
  ]) {
    const refused = await call('POST', '/api/effects', { title: 'No', effects: wrong });
    expect([refused.status, refused.body.message]).toEqual([400, expect.stringMatching(/effects/)]);
  }
});

test('a scene is exported with its side-file alone, or all of them at once', async () => {
  const scenes = (await call('GET', '/api/scenes')).body as { id: string }[];
  const one = await bytes(`/api/scenes/export.zip?id=${scenes[0].id}`);
  const all = await bytes('/api/scenes/export.zip');
  for (const zip of [one, all]) {
    expect(zip.status).toBe(200);
    expect(zip.body.subarray(0, 2).toString()).toBe('PK');
  }
  expect(all.body.length).toBeGreaterThan(one.body.length);
});

test('an imported ZIP takes the scenes that can be read and names the others', async () => {
  const { default: JSZip } = await import('jszip');
  const zip = new JSZip();
  const yard = await png(640, 480);
  zip.file('Yard.png', yard);
  zip.file('Yard.json', '{ this is no JSON');
  zip.file('notes.txt', 'hello');
  const before = (await call('GET', '/api/scenes')).body as unknown[];
  const sent = await zip.generateAsync({ type: 'uint8array' });
  const { body } = await call('POST', '/api/scenes/import?name=s.zip', sent);
  expect(body.refused).toEqual([expect.stringMatching(/^"Yard.json" is not JSON/)]);
  expect((await call('GET', '/api/scenes')).body).toHaveLength(before.length + body.taken);
});

test('a template keeps a shot’s document, read as it would be stored; a broken one is refused', async () => {
  const [listing] = (await call('GET', '/api/listings')).body as { id: string }[];
  const { shots } = (await call('GET', `/api/listings/${listing.id}`)).body as {
    shots: { document: object }[];
  };
  const kept = { title: ' Ours ', purpose: 'sale', season: 'winter', document: shots[0].document };
  const made = await call('POST', '/api/templates', kept);
  expect(made.body).toMatchObject({ title: 'Ours', purpose: 'sale', season: 'winter', own: true });
  for (const wrong of [
    { ...kept, document: { ...kept.document, width: -1 } },
    { ...kept, document: {} },
    { ...kept, season: 'monsoon' },
    { ...kept, title: '' },
  ]) {
    const refused = await call('POST', '/api/templates', wrong);
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.status).toBeLessThan(500);
    expect(refused.body.message).toMatch(/[.?]$/);
  }
});
