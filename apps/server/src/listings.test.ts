import { createHash } from 'node:crypto';
import { expect, test } from '@jest/globals';
import { SHOT_VERSION } from '@scenograph/core/shot/document';
import { newBackdrop } from '@scenograph/core/shot/starters';
import sharp from 'sharp';
import { testServer, unzip } from './test-server';

const server = testServer();
const { call } = server;
const NOWHERE = '99999999-9999-4999-8999-999999999999';

interface Detail {
  listing: { id: string; productId: string; sheets: string[] };
  variants: { id: string; data: { sku: string } }[];
  sheets: { id: string; slots: { id: string; required: boolean; width: number; height: number }[] }[];
  shots: {
    id: string;
    title: string;
    feeds: string[];
    alt: string;
    document: { frame: { width: number } };
  }[];
  cellFeeds: { variantId: string; slotKey: string; shotId: string | null }[];
}
const summaries = async (query = '') =>
  (await call('GET', `/api/listings${query}`)).body as { id: string; title: string; missing: number }[];
const detail = async (id: string) => (await call('GET', `/api/listings/${id}`)).body as Detail;
/** A listing of one's own, started from two photos. */
async function started(title: string) {
  const photos = (await call('GET', '/api/photos')).body as { id: string; cutout: unknown }[];
  const photoIds = photos
    .filter((p) => p.cutout)
    .slice(0, 2)
    .map((p) => p.id);
  const made = await call('POST', '/api/listings', { title, photoIds, sheets: ['kestrel-market'] });
  expect(made.status).toBe(201);
  return detail(made.body.id as string);
}

test('a listing is started from photos: a product, a variant each, two shots, and every slot given one', async () => {
  const { listing, variants, shots, sheets } = await started('Two at once');
  expect(listing.sheets).toEqual(['kestrel-market']);
  expect(variants).toHaveLength(2);
  expect(new Set(variants.map((v) => v.data.sku)).size).toBe(2);
  expect(shots.length).toBeGreaterThanOrEqual(1);
  const filled = shots.flatMap((s) => s.feeds);
  const required = sheets[0].slots.filter((s) => s.required).map((s) => `kestrel-market/${s.id}`);
  expect(required.filter((key) => !filled.includes(key))).toEqual([]);
  expect(new Set(filled).size).toBe(filled.length);
});

test('what a listing cannot be started from is said, and no half of it is kept', async () => {
  const before = await summaries();
  const photos = (await call('GET', '/api/photos')).body as { id: string }[];
  for (const body of [
    { title: 'X', photoIds: [] },
    { title: 'X', photoIds: [NOWHERE] },
    { title: 'X', photoIds: [photos[0].id, photos[0].id] },
    { title: '  ', photoIds: [photos[0].id] },
    { title: 'X', photoIds: [photos[0].id], sheets: ['no-such-market'] },
    { title: 'X', photoIds: [photos[0].id], sceneId: NOWHERE },
  ]) {
    const refused = await call('POST', '/api/listings', body);
    expect({ body, refused: refused.status >= 400 && refused.status < 500 }).toEqual({ body, refused: true });
    expect(refused.body.message).toMatch(/[.?]$/);
  }
  expect(await summaries()).toEqual(before);
});

test('listings are found by their words as they are written', async () => {
  await started('100 % wool_blend');
  const found = async (words: string) =>
    (await summaries(`?search=${encodeURIComponent(words)}`)).map((l) => l.title);
  expect(await found('100 %')).toEqual(['100 % wool_blend']);
  expect(await found('WOOL_')).toEqual(['100 % wool_blend']);
  expect(await found('wool%blend')).toEqual([]);
  expect(await summaries('?limit=1')).toHaveLength(1);
});

test('a slot is filled by one shot at a time, and undo gives it back', async () => {
  const { listing, shots } = await started('Feeds');
  const path = `/api/listings/${listing.id}`;
  const slot = shots[0].feeds[0];
  const other = (await call('POST', `${path}/shots`, { kind: 'white', title: 'Second' })).body as {
    id: string;
  };
  await call('PUT', `${path}/feeds`, { slot, shotId: other.id });
  const fedBy = async () =>
    (await detail(listing.id)).shots.filter((s) => s.feeds.includes(slot)).map((s) => s.id);
  expect(await fedBy()).toEqual([other.id]);
  expect((await call('POST', `${path}/turn`, { way: 'undo' })).body.label).toBeTruthy();
  expect(await fedBy()).toEqual([shots[0].id]);
  await call('POST', `${path}/turn`, { way: 'redo' });
  expect(await fedBy()).toEqual([other.id]);
  await call('PUT', `${path}/feeds`, { slot, shotId: null });
  expect(await fedBy()).toEqual([]);
});

test('cells that are not of this listing are refused, and none of the others is changed', async () => {
  const { listing, variants, shots } = await started('Cells');
  const [elsewhere] = (await summaries()).filter((l) => l.id !== listing.id);
  const foreign = await detail(elsewhere.id);
  const path = `/api/listings/${listing.id}/cells`;
  const slotKey = shots[0].feeds[0];
  const mine = { variantId: variants[0].id, slotKey };
  for (const [cells, shotId] of [
    [[mine, { variantId: foreign.variants[0].id, slotKey }], null],
    [[mine, { variantId: variants[0].id, slotKey: 'no/slot' }], null],
    [[mine], foreign.shots[0].id],
    [[mine], NOWHERE],
  ] as const) {
    const refused = await call('PUT', path, { cells, shotId });
    expect({ cells, refused: refused.status >= 400 && refused.status < 500 }).toEqual({
      cells,
      refused: true,
    });
  }
  expect((await detail(listing.id)).cellFeeds).toEqual([]);
  expect((await call('PUT', path, { cells: [mine], shotId: null })).body).toEqual({
    assigned: 1,
    revision: 2,
  });
  expect((await detail(listing.id)).cellFeeds).toEqual([{ ...mine, shotId: null }]);
  await call('PUT', path, { cells: [mine], shotId: 'slot' });
  expect((await detail(listing.id)).cellFeeds).toEqual([]);
});

test('empty slots are filled by the shot that suits them, and only those', async () => {
  const { listing, shots } = await started('Fill');
  const path = `/api/listings/${listing.id}`;
  const [kept, ...rest] = shots.flatMap((s) => s.feeds.map((slot) => ({ slot, id: s.id })));
  for (const { slot } of rest) await call('PUT', `${path}/feeds`, { slot, shotId: null });
  const { filled, left } = (await call('POST', `${path}/fill`)).body as { filled: number; left: number };
  expect(filled).toBeGreaterThan(0);
  const after = (await detail(listing.id)).shots.flatMap((s) => s.feeds.map((slot) => ({ slot, id: s.id })));
  expect(after).toContainEqual(kept);
  expect((await call('POST', `${path}/fill`)).body).toMatchObject({ filled: 0, left });
});

test('a copy is a shot of its own: no slot goes with it, and changing it leaves the first', async () => {
  const { listing, shots } = await started('Copies');
  const copy = (await call('POST', `/api/shots/${shots[0].id}/copy`, {})).body as {
    id: string;
    feeds: string[];
    revision: number;
    document: { frame: { width: number; height: number } };
  };
  expect(copy.feeds).toEqual([]);
  const history = { past: [], future: [] };
  const { frame } = copy.document;
  const document = { ...copy.document, frame: { ...frame, width: frame.width + 100 } };
  const saved = await call('PUT', `/api/shots/${copy.id}`, { revision: copy.revision, document, history });
  expect(saved.status).toBe(200);
  const [first, second] = (await detail(listing.id)).shots.filter((s) =>
    [shots[0].id, copy.id].includes(s.id),
  );
  expect(second.document.frame.width - first.document.frame.width).toBe(100);
});

test('a shot’s alternative text takes placeholders and can be emptied; a name cannot', async () => {
  const { shots } = await started('Words');
  const path = `/api/shots/${shots[0].id}`;
  expect((await call('PATCH', path, { alt: '{title} on white' })).body.alt).toBe('{title} on white');
  expect((await call('PATCH', path, { alt: '' })).body.alt).toBe('');
  expect((await call('PATCH', path, { title: ' ' })).status).toBe(400);
  expect((await call('PATCH', path, { title: ' Front ' })).body.title).toBe('Front');
  expect((await call('PATCH', path, { alt: 'x'.repeat(1001) })).status).toBe(400);
});

test('shots that are laid out already come in together or not at all', async () => {
  const { listing, shots } = await started('Documents');
  const path = `/api/listings/${listing.id}/shots/of-documents`;
  const good = { title: 'Laid out', document: shots[0].document, feeds: [shots[0].feeds[0]] };
  const refused = await call('POST', path, { shots: [good, { ...good, document: { width: 1 } }] });
  expect(refused.status).toBeGreaterThanOrEqual(400);
  expect((await detail(listing.id)).shots).toHaveLength(shots.length);
  const [made] = (await call('POST', path, { shots: [good] })).body as { id: string; feeds: string[] }[];
  expect(made.feeds).toEqual(good.feeds);
  const first = (await detail(listing.id)).shots.find((s) => s.id === shots[0].id)!;
  expect(first.feeds).not.toContain(good.feeds[0]);
});

test('the server paints a shot at any scale, and exports it with size and density in the file', async () => {
  const { shots, variants } = await started('Pictures');
  const path = `/api/shots/${shots[0].id}`;
  const file = async (query: string) => {
    const answer = await fetch(server.base() + path + query);
    return { status: answer.status, body: Buffer.from(await answer.arrayBuffer()) };
  };
  const small = await sharp((await file(`/picture?scale=0.1&variant=${variants[1].id}`)).body).metadata();
  expect(small.width).toBe(Math.round(shots[0].document.frame.width * 0.1));
  const jpeg = await sharp((await file('/export?width=300&density=254')).body).metadata();
  expect([jpeg.format, jpeg.width, jpeg.density]).toEqual(['jpeg', 300, 254]);
  for (const query of [
    '/picture?scale=2',
    '/export?width=5',
    '/export?width=300&format=gif',
    `/picture?variant=${NOWHERE}`,
  ])
    expect({ query, refused: (await file(query)).status >= 400 }).toEqual({ query, refused: true });
});

test('a bundle holds the shot, its data, and files named by their own hashes', async () => {
  const { shots } = await started('Bundle');
  const answer = await fetch(`${server.base()}/api/shots/${shots[0].id}/bundle`);
  const files = await unzip(Buffer.from(await answer.arrayBuffer()));
  expect(JSON.parse(files.get('shot.json')!.toString())).toEqual(shots[0].document);
  expect(JSON.parse(files.get('data.json')!.toString())).toMatchObject({ title: 'Bundle' });
  const assets = [...files].filter(([name]) => name.startsWith('assets/'));
  expect(assets.length).toBeGreaterThan(0);
  for (const [name, bytes] of assets) {
    const hash = createHash('sha256').update(bytes).digest('hex');
    expect(name.slice('assets/'.length)).toMatch(new RegExp(`^${hash}\\.`));
  }
});

test('a shot of no product is kept in a listing of its own, painted and removed like any other', async () => {
  const document = {
    ...{ version: SHOT_VERSION, fits: {}, importance: [], elements: [] },
    frame: { width: 300, height: 200 },
    trim: { unit: 'mm', dpi: 72, bleedMm: 0, safeMm: 2 },
  };
  const made = await call('POST', '/api/shots', { title: 'Banner', document });
  expect(made.status).toBe(201);
  const { id, listingId, feeds } = made.body as { id: string; listingId: string; feeds: string[] };
  expect(feeds).toEqual([]);
  const { listing, variants, shots, sheets } = await detail(listingId);
  expect([listing.sheets, variants, sheets]).toEqual([[], [], []]);
  expect(shots.map((s) => s.title)).toEqual(['Banner']);
  expect((await summaries('?search=Banner')).map((l) => l.id)).toEqual([listingId]);
  const file = await fetch(`${server.base()}/api/shots/${id}/export?width=300&format=png`);
  const { data, info } = await sharp(Buffer.from(await file.arrayBuffer()))
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect([info.width, info.height, info.channels]).toEqual([300, 200, 4]);
  expect(data[3]).toBe(0);
  // Another size, stored on what has moved on: nothing is stored over it, and what differs is named.
  const history = { past: [], future: [] };
  const put = (width: number) =>
    call('PUT', `/api/shots/${id}`, {
      revision: 1,
      document: { ...document, frame: { width, height: 200 } },
      history,
    });
  expect((await put(310)).status).toBe(200);
  const late = await put(320);
  expect(late.status).toBe(409);
  expect((late.body as { detail: { differs: string[] } }).detail.differs).toEqual(['size of the picture']);
  const refused = await call('POST', '/api/shots', {
    title: 'Banner',
    document: { ...document, trim: { unit: 'ell' } },
  });
  expect(refused.status).toBe(422);
  expect(String(refused.body.message)).toMatch(/trim/);
  expect(await summaries('?search=Banner')).toHaveLength(1);
});

test('a picture with a bleed is exported as it is cut, in every format, by shot and size, with density and profile', async () => {
  const document = {
    ...{ version: SHOT_VERSION, fits: {}, importance: [] },
    frame: { width: 620, height: 420 },
    trim: { unit: 'mm', dpi: 254, bleedMm: 1, safeMm: 0 },
    elements: [newBackdrop('backdrop', { width: 620, height: 420 }, '#c04020')],
  };
  const { id } = (await call('POST', '/api/shots', { title: 'Tag für Tee', document })).body as {
    id: string;
  };
  const file = async (query: string) => {
    const answer = await fetch(`${server.base()}/api/shots/${id}/export?${query}`);
    const bytes = Buffer.from(await answer.arrayBuffer());
    const [, name] = /filename="([^"]+)"/.exec(answer.headers.get('Content-Disposition')!)!;
    return { name, bytes, read: await sharp(bytes).metadata() };
  };
  for (const format of ['jpeg', 'png', 'webp', 'avif', 'tiff']) {
    const { name, bytes, read } = await file(`width=600&density=254&format=${format}`);
    expect([read.width, read.height]).toEqual([600, 400]);
    expect(read.icc).toBeDefined();
    if (format !== 'webp' && format !== 'avif') expect(Math.round(read.density!)).toBe(254);
    expect(name).toBe(`tag-fur-tee-600x400.${format === 'jpeg' ? 'jpg' : format}`);
    const [r, g, b] = (await sharp(bytes).stats()).channels.map((c) => Math.round(c.mean));
    for (const [is, was] of [
      [r, 0xc0],
      [g, 0x40],
      [b, 0x20],
    ])
      expect(Math.abs(is - was)).toBeLessThanOrEqual(3);
  }
  const page = await fetch(
    `${server.base()}/api/shots/${id}/export?width=300&density=127&format=pdf&marks=crop`,
  );
  expect(page.headers.get('Content-Type')).toBe('application/pdf');
  expect(page.headers.get('Content-Disposition')).toContain('tag-fur-tee-60x40mm.pdf');
  const [left, , right] = /\/TrimBox \[([^\]]+)\]/
    .exec(Buffer.from(await page.arrayBuffer()).toString('latin1'))![1]
    .trim()
    .split(/\s+/)
    .map(Number);
  expect(((right - left) / 72) * 25.4).toBeCloseTo(60, 1);
  const whole = await file('width=310&format=png&area=bleed');
  expect([whole.read.width, whole.read.height]).toEqual([310, 210]);
});
