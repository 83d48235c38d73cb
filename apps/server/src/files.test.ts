import { expect, test } from '@jest/globals';
import pg from 'pg';
import sharp from 'sharp';
import { testServer, unzip } from './test-server';

/** What the server makes of shots, photos and sheets as files. */
const server = testServer();
const { call } = server;
const NOWHERE = '99999999-9999-4999-8999-999999999999';

async function fileOf(method: 'GET' | 'POST', path: string, body?: object) {
  const response = await fetch(server.base() + path, {
    method,
    headers: body && { 'Content-Type': 'application/json' },
    body: body && JSON.stringify(body),
  });
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? '',
    bytes: Buffer.from(await response.arrayBuffer()),
  };
}
const planters = async () => {
  const list = (await call('GET', '/api/listings')).body as { id: string; title: string }[];
  const { id } = list.find((l) => l.title === 'Autumn planters')!;
  return (await call('GET', `/api/listings/${id}`)).body as {
    shots: {
      id: string;
      title: string;
      feeds: string[];
      document: { frame: { width: number; height: number } };
    }[];
    variants: { id: string; data: { sku: string } }[];
  };
};

test('a shot as layers is an OpenRaster file: its type first, a stack, and the picture whole', async () => {
  const { shots } = await planters();
  const { status, bytes } = await fileOf('GET', `/api/shots/${shots[0].id}/layers`);
  expect(status).toBe(200);
  const files = await unzip(bytes);
  expect([...files.keys()][0]).toBe('mimetype');
  expect(files.get('mimetype')!.toString()).toBe('image/openraster');
  const stack = files.get('stack.xml')!.toString();
  const layers = [...stack.matchAll(/<layer [^>]*src="([^"]+)"/g)].map((m) => m[1]);
  expect(layers.length).toBeGreaterThan(1);
  for (const src of layers) expect(files.has(src)).toBe(true);
  const whole = await sharp(files.get('mergedimage.png')).metadata();
  expect([whole.width, whole.height]).toEqual([
    shots[0].document.frame.width,
    shots[0].document.frame.height,
  ]);
});

test('a proof comes as PDF and as PNG, and its lines and pictures are checked at the door', async () => {
  const { shots } = await planters();
  const sheet = {
    page: 'A4',
    title: 'Planter',
    options: ['Teal', 'Ochre'],
    prices: ['1 piece  £24'],
    notes: '',
    foot: 'Colours differ.',
    logo: null,
    show: [],
  };
  const path = `/api/shots/${shots[0].id}/proof`;
  const pdf = await fileOf('POST', path, { ...sheet, format: 'pdf' });
  expect(pdf.bytes.subarray(0, 5).toString()).toBe('%PDF-');
  const png = await fileOf('POST', path, { ...sheet, format: 'png' });
  const { width, height } = await sharp(png.bytes).metadata();
  expect(height / width).toBeCloseTo(297 / 210, 2);
  expect((await call('POST', path, { ...sheet, format: 'pdf', title: ' ' })).status).toBe(400);
  expect((await call('POST', path, { ...sheet, format: 'gif' })).status).toBe(400);
  expect((await call('POST', `/api/shots/${NOWHERE}/proof`, { ...sheet, format: 'png' })).status).toBe(404);
});

test('a sheet of options that a shot does not have is refused with a sentence', async () => {
  const { shots } = await planters();
  const { status, body } = await call('POST', `/api/shots/${shots[0].id}/option-sheet`, {
    options: ['none'],
  });
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(500);
  expect(body.message).toMatch(/\w+ \w+/);
});

test('one picture is tried in several ways: size, likeness, and a file of each', async () => {
  const { shots, variants } = await planters();
  const { id, feeds } = shots.find((s) => s.feeds.length)!;
  const way = (value: object) => ({
    encoding: {
      format: null,
      quality: null,
      chroma: null,
      progressive: false,
      lossless: false,
      colours: null,
      ...value,
    },
  });
  const { status, body } = await call('POST', `/api/shots/${id}/trials`, {
    slot: feeds[0],
    variant: variants[0].id,
    trials: [way({ format: 'jpeg', quality: 40 }), way({ format: 'jpeg', quality: 92 })],
  });
  expect(status).toBeLessThan(300);
  const [low, high] = body as { ok: boolean; size: number; ssim: number; file: string }[];
  expect([low.ok, high.ok]).toEqual([true, true]);
  expect(low.size).toBeLessThan(high.size);
  expect(low.ssim).toBeLessThanOrEqual(high.ssim);
  const kept = await fileOf('GET', `/api/shots/tried/${low.file}`);
  expect(kept.type).toMatch(/^image\//);
  expect(kept.bytes).toHaveLength(low.size);
});

test('pictures beyond what can wait are refused for now; those that nobody waits for any more are given up', async () => {
  const { shots } = await planters();
  const leaving = new AbortController();
  const refused: string[] = [];
  await Promise.allSettled(
    Array.from({ length: 60 }, async () => {
      const response = await fetch(`${server.base()}/api/shots/${shots[0].id}/layers`, {
        signal: leaving.signal,
      });
      if (response.status === 429) refused.push(((await response.json()) as { message: string }).message);
      if (refused.length > 5) leaving.abort();
    }),
  );
  expect(refused.length).toBeGreaterThan(5);
  expect(refused[0]).toBe('Too many pictures are being painted at once. Try again in a moment.');
  // Were the others still painted, this would wait for minutes.
  const next = await fileOf('GET', `/api/shots/${shots[0].id}/picture?scale=0.05`);
  expect(next).toMatchObject({ status: 200, type: expect.stringMatching('image/png') });
}, 60_000);

test('a photo that is replaced keeps its place and its corrections; what is no picture changes nothing', async () => {
  const before = (await call('GET', '/api/photos')).body as {
    id: string;
    name: string;
    original: string;
    width: number;
  }[];
  const [photo] = before;
  const refused = await call(
    'POST',
    `/api/photos/${photo.id}/replace?name=new.jpg`,
    Buffer.from('no picture'),
  );
  expect([refused.status, refused.body.message]).toEqual([
    422,
    expect.stringMatching(/"new.jpg" is not a picture/),
  ]);
  expect((await call('GET', `/api/photos/${photo.id}`)).body.original).toBe(photo.original);
  const bytes = await sharp({ create: { width: 640, height: 480, channels: 3, background: '#d8d4cc' } })
    .jpeg()
    .toBuffer();
  const replaced = await call('POST', `/api/photos/${photo.id}/replace?name=new.jpg`, bytes);
  expect(replaced.status).toBeLessThan(300);
  expect(replaced.body).toMatchObject({ id: photo.id, width: 640, height: 480 });
  const after = (await call('GET', '/api/photos')).body as { id: string }[];
  expect(after.map((p) => p.id)).toEqual(before.map((p) => p.id));
  expect((await call('GET', `/api/photos/${photo.id}/desk`)).status).toBe(200);
});

test('an outline that was drawn elsewhere is kept, and goes out again as a path of the photo’s size', async () => {
  const photo = (
    (await call('GET', '/api/photos')).body as { id: string; width: number; height: number }[]
  )[1];
  const { width, height } = photo;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}"><path d="M0 0H${width / 2}V${height / 2}H0Z"/></svg>`;
  const kept = await call(
    'POST',
    `/api/photos/${photo.id}/outlines?name=half.svg&title=Half`,
    Buffer.from(svg),
  );
  expect(kept.status).toBe(201);
  const out = await fileOf('GET', `/api/photos/${photo.id}/outlines/${kept.body.id}/svg`);
  expect(out.type).toMatch(/svg/);
  expect(out.bytes.toString()).toContain(`viewBox="0 0 ${width} ${height}"`);
  expect(out.bytes.toString()).toMatch(/<path[^>]* d="M/);
  const wrong = await call(
    'POST',
    `/api/photos/${photo.id}/outlines?name=x.png&title=X`,
    Buffer.from('no picture'),
  );
  expect(wrong.status).toBe(422);
});

test('a spec sheet as a file is the sheet, and can be added again under another id', async () => {
  const [sheet] = (await call('GET', '/api/spec-sheets')).body as { id: string; slots: unknown[] }[];
  const { status, type, bytes } = await fileOf('GET', `/api/spec-sheets/${sheet.id}/sheet.json`);
  expect([status, type]).toEqual([200, expect.stringMatching(/json/)]);
  const written = JSON.parse(bytes.toString()) as { id: string; slots: unknown[] };
  expect(written.slots).toHaveLength(sheet.slots.length);
  const added = await call('POST', '/api/spec-sheets', written);
  expect(added.status).toBe(201);
  expect(added.body.id).not.toBe(sheet.id);
  expect(added.body.slots).toEqual(written.slots);
  expect((await call('DELETE', `/api/spec-sheets/${added.body.id}`)).status).toBe(200);
});

test('a file that is not whole in the store cuts its downloads off, and the server lives on', async () => {
  const { shots } = await planters();
  const { document } = (await call('GET', `/api/shots/${shots[1].id}`)).body;
  const hash = /"picture":"([0-9a-f]{64})"/.exec(JSON.stringify(document))![1];
  const database = new pg.Client({ connectionString: server.url() });
  await database.connect();
  await database.query(
    'delete from blob_pieces p where hash = $1 and n = (select max(n) from blob_pieces where hash = $1)',
    [hash],
  );
  await database.end();
  await expect(fileOf('GET', `/api/shots/${shots[1].id}/bundle`)).rejects.toThrow();
  await expect(fileOf('GET', `/api/blobs/${hash}`)).rejects.toThrow();
  expect((await call('GET', '/api/health')).status).toBe(200);
});

test('the server says that it is well', async () => {
  expect((await call('GET', '/api/health')).status).toBe(200);
});
