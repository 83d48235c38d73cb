import { createHash } from 'node:crypto';
import { nodeHost } from '@scenograph/host-node/canvas-host';
import { decodePicture } from '@scenograph/host-node/read-picture';
import pg from 'pg';
import sharp from 'sharp';
import { testServer, unzip, until } from './test-server';

/**
 * The slot board: what is missing, made, out of date and wrong; data, deliveries and recipes on the built server. Long,
 * because starting a server, workers and a database for each part would cost more than it tells.
 */

const server = testServer();
const { call, end, startWorker } = server;

const listing = async (title: string) =>
  (await call('GET', '/api/listings')).body.find((l: { title: string }) => l.title === title);
const detail = async (id: string) => (await call('GET', `/api/listings/${id}`)).body;
const board = async (id: string) => (await call('GET', `/api/listings/${id}/board`)).body;
const finished = (id: string) =>
  until(
    async () => (await call('GET', `/api/deliveries/${id}`)).body,
    (d) => d.state !== 'running' && d.state !== 'queued',
  );

test('a spec sheet contradicting itself is refused; a new rule is a new version, and made pictures are judged by it', async () => {
  const { sheet } = (await call('GET', '/api/spec-sheets/kestrel-market')).body;
  const bad = { ...sheet, slots: [{ ...sheet.slots[0], coverage: { min: 0.9, max: 0.2, wanted: null } }] };
  const refused = await call('PUT', '/api/spec-sheets/kestrel-market', { version: 1, sheet: bad });
  expect([refused.status, refused.body.message]).toEqual([
    422,
    expect.stringMatching(/contradicts itself.*"Main"/),
  ]);

  const worker = (await startWorker()).child;
  const { id } = await listing('Autumn planters');
  const made = (await call('POST', `/api/listings/${id}/deliveries`, { slots: ['kestrel-market/gallery-1'] }))
    .body;
  await finished(made.id);
  const column = (b: { slots: string[] }) => b.slots.indexOf('kestrel-market/gallery-1');
  const before = await board(id);
  expect(before.rows.map((r: { states: string }) => r.states[column(before)])).toEqual(['p', 'p', 'p']);

  const slots = sheet.slots.map((s: { id: string }) =>
    s.id === 'gallery-1' ? { ...s, overlays: 'forbidden' } : s,
  );
  const saved = await call('PUT', '/api/spec-sheets/kestrel-market', {
    version: 1,
    sheet: { ...sheet, slots },
  });
  expect(saved.body.version).toBe(2);
  const after = await board(id);
  expect(after.rows.map((r: { states: string }) => r.states[column(after)])).toEqual(['x', 'x', 'x']);
  expect(after.rows[0].says[column(after)]).toBe('Text and logos');
  const stale = await call('PUT', '/api/spec-sheets/kestrel-market', { version: 1, sheet });
  expect([stale.status, stale.body.message]).toEqual([409, expect.stringMatching(/at version 2 by now/)]);
  const { versions } = (await call('GET', '/api/spec-sheets/kestrel-market')).body;
  expect(versions.map((v: { version: number }) => v.version)).toEqual([2, 1]);

  // A reason lets the fault pass in one cell.
  const { variants } = await detail(id);
  const cell = { slotKey: 'kestrel-market/gallery-1', variantId: variants[0].id };
  const waive = { ...cell, check: 'overlays', reason: 'Agreed with the market' };
  expect((await call('POST', `/api/listings/${id}/waivers`, { ...waive, reason: '' })).status).toBe(400);
  await call('POST', `/api/listings/${id}/waivers`, waive);
  const waived = await board(id);
  expect(waived.rows.map((r: { states: string }) => r.states[column(waived)])).toEqual(['p', 'x', 'x']);
  await call('PUT', '/api/spec-sheets/kestrel-market', { version: 2, sheet: versions[1].sheet });

  // The marketplace's own desk opens the files.
  const sent = (await call('POST', `/api/deliveries/${made.id}/uploads`, { marketplace: 'Kestrel Market' }))
    .body;
  expect(sent.answers.map((a: { taken: boolean }) => a.taken)).toEqual([true, true, true]);
  const small = slots.map((s: { id: string }) =>
    s.id === 'gallery-1' ? { ...s, overlays: 'allowed', width: 1000, height: 1000 } : s,
  );
  await call('PUT', '/api/spec-sheets/kestrel-market', { version: 3, sheet: { ...sheet, slots: small } });
  const again = (await call('POST', `/api/deliveries/${made.id}/uploads`, { marketplace: 'Kestrel Market' }))
    .body;
  expect(again.answers[0]).toMatchObject({
    taken: false,
    says: expect.stringMatching(/2000 x 2000 px; 1000 x 1000/),
  });
  await call('PUT', '/api/spec-sheets/kestrel-market', { version: 4, sheet });
  await end(worker, 'SIGTERM');
});

test('a cutout that nobody has looked at is told in every cell that shows it, until it is accepted', async () => {
  const worker = (await startWorker()).child;
  const { id } = await listing('Autumn planters');
  const { variants } = await detail(id);
  const slot = 'kestrel-market/gallery-1';
  const made = (await call('POST', `/api/listings/${id}/deliveries`, { slots: [slot] })).body;
  await finished(made.id);
  const database = new pg.Client({ connectionString: server.url() });
  await database.connect();
  const photo = (await database.query('select photo_id as id from variants where id = $1', [variants[0].id]))
    .rows[0].id as string;
  const told = async (confidence: number) => {
    await database.query(
      `update photos set accepted = false, cutout = jsonb_set(cutout, '{confidence}', $2::text::jsonb) where id = $1`,
      [photo, String(confidence)],
    );
    const now = await board(id);
    const column = now.slots.indexOf(slot);
    return [now.rows[0].states[column], now.rows[0].says[column] ?? '', now.rows[1].states[column]];
  };
  expect(await told(0.2)).toEqual(['x', 'Cutout', 'p']);
  expect((await told(0.7)).slice(1)).toEqual(['Cutout', 'p']);
  expect(await told(0.97)).toEqual(['p', '', 'p']);
  expect((await told(0.2))[0]).toBe('x');
  const doubtful = async () =>
    (await call('POST', `/api/listings/${id}/deliveries/estimate`, { slots: [slot] })).body
      .doubtful as number;
  expect(await doubtful()).toBe(1);
  await call('POST', '/api/photos/accepted', { ids: [photo], accepted: true });
  const after = await board(id);
  expect(after.rows[0].states[after.slots.indexOf(slot)]).toBe('p');
  expect(await doubtful()).toBe(0);
  await database.end();
  await end(worker, 'SIGTERM');
});

test('cells are filled singly or by rule, a slot by its own, and every step can be taken back', async () => {
  const { id } = await listing('Autumn planters');
  const { variants, shots } = await detail(id);
  const [, , winter] = shots;
  const at = async () => {
    const b = await board(id);
    const c = b.slots.indexOf('fernway-social/square');
    return b.rows.map((r: { fedBy: number[]; differs: string }) => `${r.fedBy[c]}${r.differs[c]}`);
  };
  const start = await at();
  const cell = { slotKey: 'fernway-social/square', variantId: variants[1].id };
  await call('PUT', `/api/listings/${id}/cells`, { cells: [cell], shotId: winter.id });
  expect(await at()).toEqual([start[0], '2f', start[2]]);
  // Filling the whole slot leaves the cell that says otherwise.
  await call('PUT', `/api/listings/${id}/feeds`, { slot: cell.slotKey, shotId: shots[0].id });
  expect(await at()).toEqual(['0.', '2f', '0.']);
  await call('PUT', `/api/listings/${id}/cells`, { cells: [cell], shotId: 'slot' });
  expect(await at()).toEqual(['0.', '0.', '0.']);
  for (let i = 0; i < 3; i++) await call('POST', `/api/listings/${id}/turn`, { way: 'undo' });
  expect(await at()).toEqual(start);
  await call('POST', `/api/listings/${id}/turn`, { way: 'redo' });
  expect(await at()).toEqual([start[0], '2f', start[2]]);
  await call('POST', `/api/listings/${id}/turn`, { way: 'undo' });

  const watering = await listing('Watering can');
  expect(watering.missing).toBeGreaterThan(0);
  const filled = (await call('POST', `/api/listings/${watering.id}/fill`, {})).body;
  expect(filled.filled).toBeGreaterThan(0);
  const after = await listing('Watering can');
  expect(after.missing).toBeLessThan(watering.missing);
  const { label } = (await call('POST', `/api/listings/${watering.id}/turn`, { way: 'undo' })).body;
  expect([label, (await listing('Watering can')).missing]).toEqual(['Fill empty slots', watering.missing]);
});

test('data changes in one step or not at all, goes out as a table, and comes back with undo', async () => {
  const { id, productId } = await listing('Autumn planters');
  const path = `/api/products/${productId}`;
  const read = async () =>
    (await call('GET', path)).body.variants.map(
      (v: { data: { sku: string; price: number } }) => `${v.data.sku} ${v.data.price}`,
    );
  const { variants } = await detail(id);
  const start = await read();
  const twin = await call('POST', `${path}/variants/batch`, {
    label: 'Clash',
    set: [{ id: variants[0].id, patch: { price: 99 } }],
    add: [{ sku: variants[1].data.sku, title: 'Twin' }],
  });
  expect([twin.status, twin.body.message]).toEqual([
    422,
    expect.stringMatching(/Two variants would have the SKU/),
  ]);
  expect(await read()).toEqual(start);
  const done = await call('POST', `${path}/variants/batch`, {
    label: 'Import',
    set: [{ id: variants[0].id, patch: { price: 30, ink: '#12463a' } }],
    add: [{ sku: 'MB-NEW', title: '=1+1', fields: { note: 'x' } }],
    remove: [variants[2].id],
  });
  expect(done.status).toBe(200);
  expect(await read()).toEqual([start[0].replace(' 24', ' 30'), start[1], 'MB-NEW null']);
  const table = await (await fetch(`${server.base()}${path}/table.csv`)).text();
  expect(table.split('\r\n')[3]).toMatch(/^MB-NEW,'=1\+1,,GBP,,,,/);
  await call('POST', `${path}/turn`, { way: 'undo' });
  expect(await read()).toEqual(start);
  await call('POST', `${path}/turn`, { way: 'redo' });
  await call('POST', `${path}/turn`, { way: 'undo' });
  expect(await read()).toEqual(start);
});

test('a re-run paints only what a changed price shows, identical cells once, and a ZIP is streamed while it is made', async () => {
  const { id, productId } = await listing('Autumn planters');
  const { variants } = await detail(id);
  const worker = (await startWorker()).child;
  const slots = ['kestrel-market/main', 'oddment-lane/card', 'gazette-ads/leaderboard'];
  const order = (await call('POST', `/api/listings/${id}/deliveries`, { slots })).body;
  // The ZIP is asked for before anything is made.
  const early = unzip(
    Buffer.from(await (await fetch(`${server.base()}/api/deliveries/${order.id}/zip`)).arrayBuffer()),
  );
  const files = await early;
  const manifest = JSON.parse(files.get('manifest.json')!.toString());
  expect(manifest.pictures).toHaveLength(9);
  for (const p of manifest.pictures) {
    expect(createHash('sha256').update(files.get(p.file)!).digest('hex')).toBe(p.sha256);
    expect(p.inputs.pictures.length).toBeGreaterThan(0);
    expect(p.alt).toMatch(/^Stoneware planter 16 cm, /);
  }
  expect((await finished(order.id)).state).toBe('done');
  const xmp = (await sharp(files.get(manifest.pictures[0].file)).metadata()).xmp!.toString();
  expect(xmp).toContain('Stoneware planter 16 cm, on white');

  const estimate = async () =>
    (await call('POST', `/api/listings/${id}/deliveries/estimate`, { slots, which: 'changed' })).body;
  expect(await estimate()).toMatchObject({ pictures: 0, toPaint: 0 });
  expect(
    (await call('POST', `/api/listings/${id}/deliveries`, { slots, which: 'changed' })).body.message,
  ).toMatch(/none of the 9 chosen pictures is new or changed/);
  // The price stands in the shot of card and leaderboard, not on white.
  await call('PATCH', `/api/variants/${variants[1].id}`, { price: 29 });
  expect(await estimate()).toMatchObject({ pictures: 2, toPaint: 2 });
  const rerun = (await call('POST', `/api/listings/${id}/deliveries`, { slots, which: 'all' })).body;
  expect([rerun.total, rerun.made]).toEqual([9, 7]);
  expect((await finished(rerun.id)).made).toBe(9);
  await call('POST', `/api/products/${productId}/turn`, { way: 'undo' });
  // Back as it was: nothing is to be painted.
  expect(await estimate()).toMatchObject({ pictures: 0 });

  const part = await fetch(`${server.base()}/api/deliveries/${rerun.id}/zip?marketplace=Gazette%20Ads`);
  expect(Number(part.headers.get('content-length'))).toBeGreaterThan(1000);
  expect([...(await unzip(Buffer.from(await part.arrayBuffer()))).keys()]).toHaveLength(5);
  await end(worker, 'SIGTERM');
});

test('a full disk stops a delivery with a sentence, keeps nothing half, and lets it go on', async () => {
  const { id } = await listing('Watering can');
  const admin = new pg.Client({ connectionString: server.url() });
  await admin.connect();
  await admin.query(`create function no_room() returns trigger language plpgsql as $$
    begin raise exception 'could not extend file' using errcode = '53100'; end $$;
    create trigger no_room before insert on blob_pieces for each row execute function no_room()`);
  const worker = (await startWorker()).child;
  const order = (await call('POST', `/api/listings/${id}/deliveries`, { slots: ['kestrel-market/main'] }))
    .body;
  const read = async () => (await call('GET', `/api/deliveries/${order.id}`)).body;
  const paused = await until(read, (d) => d.state === 'paused');
  expect(paused).toMatchObject({ made: 0, error: expect.stringMatching(/disk of the database is full/) });
  await admin.query('drop trigger no_room on blob_pieces; drop function no_room()');
  await admin.end();
  await call('POST', `/api/deliveries/${order.id}/change`, { act: 'go-on' });
  expect(await finished(order.id)).toMatchObject({ state: 'done', made: 1, error: null });
  await end(worker, 'SIGTERM');
});

test('three workers share a delivery; one is killed, one cut off; nothing is lost or doubled', async () => {
  const { id } = await listing('Autumn sale');
  const workers = await Promise.all([startWorker(), startWorker(), startWorker()]);
  const order = (await call('POST', `/api/listings/${id}/deliveries`, {})).body;
  const read = async () => (await call('GET', `/api/deliveries/${order.id}`)).body;
  await until(read, (d) => d.made >= 3);
  await end(workers[0].child, 'SIGKILL');
  // Every connection of the others is cut; they find the database again by themselves.
  const admin = new pg.Client({ connectionString: server.url() });
  await admin.connect();
  await admin.query(
    `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database()
       and pid <> pg_backend_pid() and backend_type = 'client backend'`,
  );
  const done = await until(read, (d) => d?.state === 'done' || d?.state === 'failed');
  expect(done).toMatchObject({ state: 'done', made: order.total, failed: 0 });
  const twice = await admin.query(
    `select c.n from delivery_pictures c where delivery_id = $1 group by c.n having count(*) > 1`,
    [order.id],
  );
  expect(twice.rows).toEqual([]);
  const left = await admin.query(`select count(*)::int as n from paintings where state = 'working'`);
  expect(left.rows[0].n).toBe(0);
  await admin.end();
  const zip = await fetch(`${server.base()}/api/deliveries/${order.id}/zip`);
  const files = await unzip(Buffer.from(await zip.arrayBuffer()));
  const manifest = JSON.parse(files.get('manifest.json')!.toString());
  expect(new Set(manifest.pictures.map((p: { file: string }) => p.file)).size).toBe(order.total);
  for (const p of manifest.pictures)
    expect(createHash('sha256').update(files.get(p.file)!).digest('hex')).toBe(p.sha256);
  await Promise.all(workers.slice(1).map((w) => end(w.child, 'SIGTERM')));
});

test('each product in the list says how many variants it has', async () => {
  const { products } = (await call('GET', '/api/products')).body as {
    products: { title: string; count: number; variants: unknown[] }[];
  };
  expect(products.length).toBeGreaterThan(0);
  for (const { title, count, variants } of products)
    expect([title, Math.min(count, 12)]).toEqual([title, variants.length]);
  expect(products.some((p) => p.count > 1)).toBe(true);
});

test('a recipe runs over products, runs again only what changed, and says why a step failed', async () => {
  const worker = (await startWorker()).child;
  const products = (await call('GET', '/api/products')).body.products as { id: string; title: string }[];
  const twine = products.find((p) => p.title.startsWith('Garden twine'))!;
  const scoop = products.find((p) => p.title.startsWith('Soil scoop'))!;
  const [scene] = (await call('GET', '/api/scenes')).body;
  const steps = [
    { id: 'cut', kind: 'cut-out', title: 'Cut out', after: [] },
    { id: 'white', kind: 'white', title: 'White', after: ['cut'] },
    { id: 'sill', kind: 'stage', title: 'Sill', after: ['cut'], scene: scene.id },
    { id: 'fit', kind: 'fit', title: 'Fit', after: ['white', 'sill'], sheets: ['oddment-lane'] },
    { id: 'deliver', kind: 'deliver', title: 'Deliver', after: ['fit'] },
  ];
  const circle = [
    { ...steps[1], after: ['sill'] },
    { ...steps[2], after: ['white'] },
  ];
  expect((await call('POST', '/api/recipes', { title: 'R', steps: circle })).body.message).toMatch(
    /wait for each other/,
  );
  const recipe = (await call('POST', '/api/recipes', { title: 'R', steps })).body;
  const path = `/api/recipes/${recipe.id}`;
  const productIds = [twine.id, scoop.id];
  const estimate = async () => (await call('POST', `${path}/estimate`, { productIds })).body;
  expect(await estimate()).toMatchObject({ products: 2, steps: 10, pictures: 6 });
  await call('POST', `${path}/run`, { productIds });
  type Ran = {
    products: {
      productId: string;
      steps: Record<string, { state: string; made: Record<string, string>; says: string }>;
    }[];
  };
  const ended = () =>
    until(
      async () => (await call('GET', path)).body as Ran,
      (r) =>
        r.products.length === 2 &&
        r.products.every((p) => steps.every((s) => ['done', 'failed'].includes(p.steps[s.id]?.state))),
    );
  const first = await ended();
  for (const p of first.products)
    expect(Object.values(p.steps).map((s) => s.state)).toEqual(['done', 'done', 'done', 'done', 'done']);
  const result = first.products.find((p) => p.productId === twine.id)!.steps;
  expect((await finished(result.deliver.made.delivery)).state).toBe('done');
  expect(result.fit.says).toMatch(/3 slots filled/);
  expect(await estimate()).toMatchObject({ steps: 0 });

  // Another scene: that branch and what comes after it, not the cutouts nor the shot on white.
  const [, other] = (await call('GET', '/api/scenes')).body;
  const swapped = steps.map((s) => (s.id === 'sill' ? { ...s, scene: other.id } : s));
  await call('PUT', path, { revision: 1, title: 'R', steps: swapped });
  expect(await estimate()).toMatchObject({ steps: 6, cutouts: 0 });
  await call('POST', `${path}/run`, { productIds: [twine.id] });
  const second = await until(
    async () => (await call('GET', path)).body as Ran,
    (r) => r.products.find((p) => p.productId === twine.id)!.steps.deliver.state === 'done',
  );
  const again = second.products.find((p) => p.productId === twine.id)!.steps;
  expect(again.white.made.revision).toBe(result.white.made.revision);
  expect([again.sill.made.shot, again.sill.made.revision]).toEqual([result.sill.made.shot, '2']);
  await end(worker, 'SIGTERM');
});

test('encodings are tried on the painted picture, and the layers of a shot are an OpenRaster file', async () => {
  const { id } = await listing('Autumn planters');
  const { shots, variants } = await detail(id);
  const path = `/api/shots/${shots[1].id}`;
  const trial = (encoding: object) => ({ encoding: { ...encoding }, limited: false });
  const tried = (
    await call('POST', `${path}/trials`, {
      slot: 'fernway-social/square',
      variant: variants[0].id,
      trials: [
        trial({ format: 'jpeg', quality: 90, progressive: true }),
        trial({ format: 'jpeg', quality: 30, chroma: '4:2:0' }),
        trial({ format: 'webp', lossless: true }),
        trial({ format: 'png', colours: 64 }),
      ],
    })
  ).body;
  const [fine, coarse, lossless, palette] = tried;
  expect(fine.ssim).toBeGreaterThan(coarse.ssim);
  expect(fine.size).toBeGreaterThan(coarse.size);
  expect(lossless.ssim).toBeCloseTo(1, 4);
  expect([palette.format, palette.quality]).toEqual(['png', 64]);
  const file = await fetch(`${server.base()}/api/shots/tried/${fine.file}`);
  const meta = await sharp(Buffer.from(await file.arrayBuffer())).metadata();
  expect([meta.width, meta.height, meta.isProgressive]).toEqual([1080, 1080, true]);
  expect(
    (
      await call('PUT', `/api/listings/${id}/encoding`, {
        slotKey: 'kestrel-market/main',
        encoding: { format: 'webp' },
      })
    ).body.message,
  ).toMatch(/takes jpeg, not webp/);

  const query = `slot=${encodeURIComponent('fernway-social/square')}&variant=${variants[0].id}`;
  const ora = Buffer.from(await (await fetch(`${server.base()}${path}/layers?${query}`)).arrayBuffer());
  expect(ora.subarray(30, 38 + 16).toString('latin1')).toBe('mimetypeimage/openraster');
  const files = await unzip(ora);
  const stack = files.get('stack.xml')!.toString();
  const layers = [
    ...stack.matchAll(
      /<layer name="([^"]*)" src="([^"]*)" x="(-?\d+)" y="(-?\d+)" opacity="1" composite-op="svg:([a-z-]+)"/g,
    ),
  ];
  expect(layers.map((l) => l[1])).toEqual(expect.arrayContaining(['Headline', 'Price', 'Shadows']));
  // Laid over each other by the rules of the W3C they give the merged picture.
  const composed = nodeHost.canvas(1080, 1080);
  for (const [, , src, x, y, blend] of layers.reverse()) {
    composed.context.globalCompositeOperation = blend === 'src-over' ? 'source-over' : blend;
    const layer = await decodePicture(files.get(src)!);
    composed.context.drawImage(nodeHost.bitmap(layer), Number(x), Number(y), layer.width, layer.height);
  }
  const { data } = composed.context.getImageData(0, 0, 1080, 1080);
  const merged = await decodePicture(files.get('mergedimage.png')!);
  let off = 0;
  for (let i = 0; i < data.length; i++) off = Math.max(off, Math.abs(merged.data[i] - data[i]));
  expect(off).toBeLessThanOrEqual(3);
});
