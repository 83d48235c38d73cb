import { expect, test } from '@jest/globals';
import pg from 'pg';
import { testServer, until } from '../test-server';

/** How the server tells how it is: health, numbers, work and its failures, storage; and how files and lists are asked for. */
const server = testServer();
const { call, end, startWorker } = server;

async function run(text: string, ...values: unknown[]): Promise<void> {
  const database = new pg.Client({ connectionString: server.url() });
  await database.connect();
  await database.query(text, values);
  await database.end();
}

test('it is live at once, ready with a worker, and says what is missing without one', async () => {
  expect(await call('GET', '/api/health/live')).toEqual({ status: 200, body: { ok: true } });
  const alone = await call('GET', '/api/health/ready');
  expect([alone.status, alone.body]).toEqual([
    503,
    expect.objectContaining({ ready: false, database: true, queue: true, workers: 0 }),
  ]);
  expect(alone.body.missing).toEqual([expect.stringMatching(/^No worker is running: cutouts/)]);
  const worker = (await startWorker()).child;
  expect((await call('GET', '/api/health/ready')).body).toEqual({
    ...{ ready: true, database: true, queue: true, workers: 1 },
    missing: [],
  });
  await end(worker, 'SIGTERM');
  expect((await call('GET', '/api/health/ready')).status).toBe(503);
});

test('numbers for Prometheus tell requests by route, jobs by state, readings, files and memory', async () => {
  await call('GET', '/api/photos');
  await call('POST', '/api/photos?name=nothing.jpg', Buffer.from('nothing'));
  const read = async () => (await fetch(`${server.base()}/api/metrics`)).text();
  const text = await until(read, (t) => /route="\/api\/photos",status="200"/.test(t), 10);
  for (const line of [
    /^scenograph_request_seconds_count\{method="GET",route="\/api\/photos",status="200"\} [1-9]/m,
    /^scenograph_work_seconds_count\{what="decode",kind="picture",outcome="failed"\} 1$/m,
    /^scenograph_jobs\{kind="cutouts",state="waiting"\} \d+$/m,
    /^scenograph_jobs_oldest_seconds\{kind="pictures"\} \d/m,
    /^scenograph_sandbox_kills 0$/m,
    /^scenograph_blob_bytes [1-9]\d{5,}$/m,
    /^process_resident_memory_bytes [1-9]/m,
  ])
    expect(text).toMatch(line);
});

test('failed work is shown with its reason, and is done when it is tried again', async () => {
  const [photo] = (await call('GET', '/api/photos')).body;
  const reason = 'No product stands off from its ground.';
  await run(`update photos set cutout_state = 'failed', cutout_error = $1 where id = $2`, reason, photo.id);
  const before = (await call('GET', '/api/work')).body;
  expect(before.failed).toContainEqual({
    ...{ kind: 'cutouts', id: photo.id, productId: null },
    ...{ title: photo.name, reason },
  });
  expect(before.kinds.find((k: { kind: string }) => k.kind === 'cutouts').failed).toBe(1);
  await call('POST', '/api/photos/cutouts', { ids: [photo.id] });
  const after = (await call('GET', '/api/work')).body;
  expect([after.failed, after.kinds.find((k: { kind: string }) => k.kind === 'cutouts').waiting]).toEqual([
    [],
    1,
  ]);
});

test('storage is told by what it is for; collecting says what it would remove', async () => {
  const { kinds, keeps } = (await call('GET', '/api/storage')).body;
  const bytes = (kind: string) => kinds.find((k: { kind: string }) => k.kind === kind).bytes as number;
  expect(bytes('originals')).toBeGreaterThan(1e6);
  expect(bytes('library')).toBeGreaterThan(1e5);
  expect(keeps).toEqual({ graceHours: 24, cacheDays: 30, binDays: 30 });
  const told = await call('POST', '/api/storage/collect', { dry: true });
  expect(told).toEqual({
    status: 200,
    body: { files: 0, bytes: 0, paintings: 0, orderParts: 0, reduced: 0, forgotten: 0 },
  });
});

test('a file is sent in parts, not at all where it is known, and never in parts that it has not', async () => {
  const [{ original, bytes }] = (await call('GET', '/api/photos')).body;
  const ask = async (headers: Record<string, string>) => {
    const response = await fetch(`${server.base()}/api/blobs/${original}`, { headers });
    return { response, body: Buffer.from(await response.arrayBuffer()) };
  };
  const whole = await ask({});
  expect([whole.body.length, whole.response.headers.get('accept-ranges')]).toEqual([bytes, 'bytes']);
  const known = await ask({ 'If-None-Match': `"${original}"` });
  expect([known.response.status, known.body.length]).toEqual([304, 0]);
  // Across the pieces that it is stored in.
  const [start, stop] = [Math.min(bytes - 20, (1 << 20) - 7), Math.min(bytes - 1, (1 << 20) + 5)];
  const part = await ask({ Range: `bytes=${start}-${stop}` });
  expect([part.response.status, part.response.headers.get('content-range')]).toEqual([
    206,
    `bytes ${start}-${stop}/${bytes}`,
  ]);
  expect(part.body.equals(whole.body.subarray(start, stop + 1))).toBe(true);
  const tail = await ask({ Range: 'bytes=-10' });
  expect(tail.body.equals(whole.body.subarray(-10))).toBe(true);
  const beyond = await ask({ Range: `bytes=${bytes}-` });
  expect([beyond.response.status, JSON.parse(beyond.body.toString()).message]).toEqual([
    416,
    expect.stringMatching(/^The file has \d+ bytes/),
  ]);
  const other = await ask({ Range: 'bytes=0-9', 'If-Range': '"another"' });
  expect([other.response.status, other.body.length]).toEqual([200, bytes]);
});

test.each(['photos', 'listings', 'scenes', 'templates', 'spec-sheets', 'artwork', 'deliveries'])(
  'the list of %s comes in parts that make the whole',
  async (what) => {
    const ask = async (query: string) => {
      const response = await fetch(`${server.base()}/api/${what}${query}`);
      const total = Number(response.headers.get('x-total-count'));
      return { total, list: (await response.json()) as { id: string }[] };
    };
    const { list, total } = await ask('');
    expect(total).toBe(list.length);
    const parts = [];
    for (let from = 0; from < total + 2; from += 2) {
      const part = await ask(`?from=${from}&limit=2`);
      expect(part.total).toBe(total);
      parts.push(...part.list);
    }
    expect(parts.map((p) => p.id)).toEqual(list.map((p) => p.id));
  },
);

test('answers name their request; what makes nothing new does not say that it does', async () => {
  const response = await fetch(`${server.base()}/api/health`);
  expect(response.headers.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/);
  const [photo] = (await call('GET', '/api/photos')).body;
  const body = { ids: [photo.id], accepted: true };
  expect((await call('POST', '/api/photos/accepted', body)).status).toBe(200);
  const { id } = (await call('GET', '/api/listings')).body[0];
  expect((await call('POST', `/api/listings/${id}/fill`)).status).toBe(200);
  const steps = [{ id: 'a', kind: 'arrange', title: 'Stand', after: [], pose: 'stand' }];
  expect((await call('POST', '/api/recipes', { title: 'R', steps })).status).toBe(201);
});
