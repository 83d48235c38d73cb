import { createHash, randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { testServer, unzip, until } from './test-server';

/** The built server and workers, over HTTP, on a real PostgreSQL: a copy of the demo for each suite. */

const server = testServer();
const { call, end, startWorker } = server;

const listing = async (title: string) =>
  (await call('GET', '/api/listings')).body.find((l: { title: string }) => l.title === title);

test('photos come in one by one: a bad one is refused with a sentence, the good one is kept untouched', async () => {
  const good = await sharp(
    Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="500" height="400"><rect width="500" height="400" fill="#f1efec"/><circle cx="250" cy="200" r="120" fill="#274"/></svg>',
    ),
  )
    .jpeg({ quality: 95 })
    .toBuffer();
  const bad = await call('POST', '/api/photos?name=scan.jpg', Buffer.from('no picture'));
  expect([bad.status, bad.body.message]).toEqual([422, expect.stringMatching(/"scan.jpg" is not a picture/)]);
  expect((await call('POST', '/api/photos?name=cut.jpg', good.subarray(0, 900))).status).toBe(422);
  const taken = await call('POST', '/api/photos?name=disc.jpg', good);
  expect(taken.status).toBe(201);
  expect(taken.body.original).toBe(createHash('sha256').update(good).digest('hex'));
  const stored = await fetch(`${server.base()}/api/blobs/${taken.body.original}`);
  expect(Buffer.from(await stored.arrayBuffer()).equals(good)).toBe(true);
  expect(stored.headers.get('cache-control')).toMatch(/immutable/);
});

test('requests that make no sense are answered with 4xx and a sentence, never a stack', async () => {
  const one = await listing('Autumn planters');
  const [variant] = (await call('GET', `/api/listings/${one.id}`)).body.variants;
  for (const [method, path, body, status] of [
    ['GET', '/api/listings/17', undefined, 404],
    ['GET', `/api/listings/${randomUUID()}`, undefined, 404],
    ['POST', '/api/listings', { photoIds: [], title: 'x' }, 400],
    ['POST', '/api/listings', { photoIds: [randomUUID()], title: 'x' }, 404],
    ['POST', `/api/listings/${one.id}/deliveries`, { slots: ['no/such'] }, 404],
    ['PUT', `/api/listings/${one.id}/feeds`, { slot: 'no/such', shotId: null }, 404],
    ['PATCH', `/api/variants/${variant.id}`, { price: -3 }, 400],
    ['GET', '/api/blobs/xyz', undefined, 404],
    ['POST', '/api/photos', undefined, 400],
    ['GET', '/api/nothing', undefined, 404],
  ] as const) {
    const answer = await call(method, path, body);
    expect([path, answer.status]).toEqual([path, status]);
    expect(answer.body.message).toMatch(/\w/);
    expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|at \w+ \(/);
  }
});

test('saving on a stale revision is refused with what changed; both versions survive', async () => {
  const { id } = await listing('Autumn planters');
  const [, sill] = (await call('GET', `/api/listings/${id}`)).body.shots;
  const shot = (await call('GET', `/api/shots/${sill.id}`)).body;
  const edit = (patch: object) => ({
    ...shot.document,
    elements: shot.document.elements.map((e: { id: string }) =>
      e.id === 'headline' ? { ...e, ...patch } : e,
    ),
  });
  const history = { past: [{ label: 'Change words', forward: [], inverse: [] }], future: [] };
  const first = await call('PUT', `/api/shots/${sill.id}`, {
    revision: shot.revision,
    document: edit({ text: 'Theirs' }),
    history,
  });
  expect(first.body.revision).toBe(shot.revision + 1);
  const second = await call('PUT', `/api/shots/${sill.id}`, {
    revision: shot.revision,
    document: edit({ text: 'Mine' }),
    history: { past: [], future: [] },
  });
  expect(second.status).toBe(409);
  expect(second.body.detail.differs).toEqual(['Headline']);
  const now = (await call('GET', `/api/shots/${sill.id}`)).body;
  expect(now.document.elements.find((e: { id: string }) => e.id === 'headline').text).toBe('Theirs');
  expect(now.history.past[0].label).toBe('Change words');
  const copy = await call('POST', `/api/shots/${sill.id}/copy`, {
    title: 'Mine',
    document: edit({ text: 'Mine' }),
  });
  expect(copy.status).toBe(201);

  const broken = await call('PUT', `/api/shots/${sill.id}`, {
    revision: now.revision,
    document: { ...now.document, elements: [{ id: 'x' }] },
    history,
  });
  expect([broken.status, broken.body.message]).toEqual([422, expect.stringMatching(/not a shot/)]);
});

test('a recipe is saved by revision, a stale or wrong one is refused, and nothing is lost', async () => {
  const [photo] = (await call('GET', '/api/photos')).body as { id: string; recipe?: unknown }[];
  expect(photo.recipe).toBeUndefined();
  const { body: desk } = await call('GET', `/api/photos/${photo.id}/desk`);
  const history = { past: [], future: [] };
  const recipe = { ...desk.recipe, edge: { ...desk.recipe.edge, shift: 1.5 } };
  const saved = await call('PUT', `/api/photos/${photo.id}/recipe`, {
    revision: desk.revision,
    recipe,
    history,
  });
  expect([saved.status, saved.body.revision]).toEqual([200, desk.revision + 1]);
  const stale = await call('PUT', `/api/photos/${photo.id}/recipe`, {
    revision: desk.revision,
    recipe,
    history,
  });
  expect(stale.status).toBe(409);
  expect(stale.body.detail.recipe.edge.shift).toBe(1.5);
  const wrong = await call('PUT', `/api/photos/${photo.id}/recipe`, {
    revision: desk.revision + 1,
    recipe: { ...recipe, steps: [{ kind: 'wish' }] },
    history,
  });
  expect([wrong.status, wrong.body.message]).toEqual([422, expect.stringMatching(/unknown kind/)]);
  expect((await call('GET', `/api/photos/${photo.id}/desk`)).body.recipe.edge.shift).toBe(1.5);
});

test('outlines of another shape, empty or unsafe ones are refused with a sentence', async () => {
  const [photo] = (await call('GET', '/api/photos')).body as { id: string }[];
  const keep = (name: string, bytes: Buffer) =>
    call('POST', `/api/photos/${photo.id}/outlines?name=${name}&title=Mine`, bytes);
  const square = await sharp({ create: { width: 60, height: 300, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  expect((await keep('m.png', square)).body.message).toMatch(/needs the same shape as its photo/);
  const script = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 4"><script/></svg>');
  expect((await keep('m.svg', script)).body.message).toMatch(/script/);
  const nothing = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 4"></svg>');
  expect((await keep('m.svg', nothing)).body.message).toMatch(/holds no outline/);
});

test('a scene is imported, surveyed, refused where its measures do not fit, and goes out and in as a ZIP', async () => {
  const picture = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#a08c74' } })
    .jpeg()
    .toBuffer();
  const made = (await call('POST', '/api/scenes?name=Yard.jpg', picture)).body;
  expect([made.title, made.survey.width, made.survey.plane]).toEqual(['Yard', 800, null]);
  const small = await sharp(picture).resize(280, 210).toBuffer();
  expect((await call('POST', '/api/scenes?name=s.jpg', small)).body.message).toMatch(
    /at least 300 on each side/,
  );

  const corners = [[260, 400], [540, 400], [620, 520], [180, 520]]; // prettier-ignore
  const change = {
    revision: made.revision,
    title: 'Yard',
    palette: made.palette,
    season: 'autumn',
    survey: {
      ...made.survey,
      plane: { corners, widthMm: 600, depthMm: 400 },
      spots: [{ id: 'middle', x: 400, y: 470, pxPerMm: 0.6 }],
    },
  };
  expect((await call('PUT', `/api/scenes/${made.id}`, change)).body.survey.plane.widthMm).toBe(600);
  const crossed = {
    ...change.survey,
    plane: { ...change.survey.plane, corners: [corners[0], corners[1], corners[3], corners[2]] },
  };
  const refused = await call('PUT', `/api/scenes/${made.id}`, { ...change, survey: crossed });
  expect([refused.status, refused.body.message]).toEqual([422, expect.stringMatching(/cross or fold/)]);
  const late = await call('PUT', `/api/scenes/${made.id}`, { ...change, title: 'Late' });
  expect([late.status, late.body.detail.title, late.body.detail.revision]).toEqual([409, 'Yard', 2]);
  const low = { ...change.survey, light: { ...made.survey.light, elevationDeg: -3 } };
  expect((await call('PUT', `/api/scenes/${made.id}`, { ...change, survey: low })).body.message).toMatch(
    /above the plane/,
  );
  expect((await call('GET', `/api/scenes/${made.id}`)).body.survey.plane.corners).toEqual(corners);

  const mask = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#ffffff' } })
    .png()
    .toBuffer();
  expect(
    (await call('POST', `/api/scenes/${made.id}/mask/occluder?name=m.png`, mask)).body.survey.occluder,
  ).toMatch(/^[0-9a-f]{64}$/);
  const zip = Buffer.from(
    await (await fetch(`${server.base()}/api/scenes/export.zip?id=${made.id}`)).arrayBuffer(),
  );
  await call('DELETE', `/api/scenes/${made.id}`);
  expect((await call('POST', '/api/scenes/import?name=l.zip', zip)).body).toEqual({ taken: 1, refused: [] });
  const back = (
    (await call('GET', '/api/scenes')).body as {
      title: string;
      season: string;
      survey: { plane: unknown; occluder: string };
    }[]
  ).find((s) => s.title === 'Yard')!;
  expect([back.season, back.survey.plane]).toEqual(['autumn', change.survey.plane]);
  expect(back.survey.occluder).toMatch(/^[0-9a-f]{64}$/);
  expect((await call('POST', '/api/scenes/import?name=l.zip', Buffer.from('no zip'))).body.message).toMatch(
    /not a ZIP/,
  );
});

test('cutouts that wait can be cancelled; what there was stays', async () => {
  const list = (await call('GET', '/api/photos')).body as {
    id: string;
    cutout: { picture: string } | null;
  }[];
  const ids = list.filter((p) => p.cutout).map((p) => p.id);
  expect((await call('POST', '/api/photos/cutouts', { ids })).body.queued).toBe(ids.length);
  expect((await call('POST', '/api/photos/cutouts/cancel')).body.cancelled).toBeGreaterThanOrEqual(
    ids.length,
  );
  const after = (await call('GET', '/api/photos')).body as typeof list;
  for (const photo of after.filter((p) => ids.includes(p.id))) {
    expect(photo).toMatchObject({ cutoutState: 'done' });
    expect(photo.cutout).toEqual(list.find((p) => p.id === photo.id)!.cutout);
  }
  // The disc, which had no cutout yet, is cancelled; it can be asked for again.
  const cancelled = (after as { id: string; cutoutState?: string }[]).filter(
    (p) => p.cutoutState === 'cancelled',
  );
  expect(cancelled).toHaveLength(1);
  await call('POST', '/api/photos/cutouts', { ids: cancelled.map((p) => p.id) });
});

test('a shared adjustment hands back what each photo had; files of cutouts say what is missing', async () => {
  const list = (await call('GET', '/api/photos')).body as {
    id: string;
    cutout: object | null;
    inUse: boolean;
    revision: number;
  }[];
  const photo = list.find((p) => p.cutout)!;
  expect(photo.inUse).toBe(true);
  const { recipe } = (await call('GET', `/api/photos/${photo.id}/desk`)).body as {
    recipe: { tidy: { exposure: number } };
  };
  const tidy = { ...recipe.tidy, exposure: 0.7 };
  const answer = (await call('POST', '/api/photos/tidy', { ids: [photo.id], tidy })).body as {
    before: { id: string; tidy: object }[];
  };
  expect(answer.before).toEqual([{ id: photo.id, tidy: recipe.tidy, revision: photo.revision + 1 }]);
  const changed = (await call('GET', '/api/photos')).body as typeof list;
  expect(changed.find((p) => p.id === photo.id)!.inUse).toBe(false);
  await call('POST', '/api/photos/tidy/restore', { photos: answer.before });
  expect((await call('GET', `/api/photos/${photo.id}/desk`)).body.recipe.tidy).toEqual(recipe.tidy);
  expect((await call('GET', '/api/photos')).body.find((p: { id: string }) => p.id === photo.id).inUse).toBe(
    true,
  );
  await call('POST', '/api/photos/cutouts/cancel');

  const bare = list.find((p) => !p.cutout)!;
  expect((await call('GET', `/api/photos/${bare.id}/file?format=png`)).body.message).toMatch(
    /has no cutout yet/,
  );
  expect((await call('GET', `/api/photos/${photo.id}/file?format=bmp`)).status).toBe(400);
  expect((await call('GET', `/api/photos/files?format=png&ids=${bare.id}`)).body.message).toMatch(
    /None of these photos has a cutout/,
  );
  await call('POST', '/api/photos/cutouts', { ids: [bare.id] });
});

test('a cutout is made by a worker; a worker killed in the middle of a delivery is followed by another, and the ZIP is whole', async () => {
  let worker = (await startWorker()).child;
  const photos = await until(
    async () =>
      (await call('GET', '/api/photos')).body as {
        name: string;
        cutoutState: string;
        cutout: { bounds: { width: number } };
      }[],
    (list) => list.every((p) => p.cutoutState === 'done'),
  );
  const disc = photos.find((p) => p.name === 'disc.jpg')!;
  expect(Math.abs(disc.cutout.bounds.width - 240)).toBeLessThanOrEqual(4);

  const { id } = await listing('Autumn planters');
  const order = (
    await call('POST', `/api/listings/${id}/deliveries`, {
      slots: ['kestrel-market/main', 'oddment-lane/card', 'fernway-social/square', 'gazette-ads/leaderboard'],
    })
  ).body;
  expect(order.total).toBe(12);
  const read = async () => (await call('GET', `/api/deliveries/${order.id}`)).body;
  const early = await until(read, (d) => d.made >= 2);
  await end(worker, 'SIGKILL');
  const stopped = await read();
  expect(stopped.state).toBe('running');
  const cells = async () =>
    (await call('GET', `/api/deliveries/${order.id}/cells`)).body as { state: string; blob: string }[];
  const kept = (await cells()).filter((c) => c.state === 'done').map((c) => c.blob);
  expect(kept.length).toBeGreaterThanOrEqual(early.made);

  worker = (await startWorker()).child;
  const done = await until(read, (d) => d.state !== 'running' && d.state !== 'queued');
  expect([done.state, done.made, done.failed]).toEqual(['done', 12, 0]);
  const blobs = (await cells()).map((c) => c.blob);
  for (const blob of kept) expect(blobs).toContain(blob);

  const answer = await fetch(`${server.base()}/api/deliveries/${order.id}/zip`);
  const files = await unzip(Buffer.from(await answer.arrayBuffer()));
  const manifest = JSON.parse(files.get('manifest.json')!.toString());
  expect(files.size).toBe(14);
  expect(manifest.pictures.length).toBe(12);
  for (const picture of manifest.pictures) {
    const bytes = files.get(picture.file)!;
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(picture.sha256);
    const meta = await sharp(bytes).metadata();
    expect([meta.width, meta.height, meta.format, bytes.length]).toEqual([
      picture.width,
      picture.height,
      picture.format,
      picture.bytes,
    ]);
  }
  const limits: Record<string, number> = {
    'gazette-ads/leaderboard': 60 * 1024,
    'oddment-lane/card': 180 * 1024,
  };
  for (const [slot, limit] of Object.entries(limits))
    for (const p of manifest.pictures.filter((x: { slot: string }) => x.slot === slot))
      expect(p.bytes).toBeLessThanOrEqual(limit);
  expect(files.get('manifest.csv')!.toString().split('\r\n').length).toBe(14);
  await end(worker, 'SIGTERM');
});

test('a delivery that waits can be cancelled, and says so', async () => {
  const { id } = await listing('Watering can');
  const order = (await call('POST', `/api/listings/${id}/deliveries`, { slots: ['kestrel-market/main'] }))
    .body;
  const cancelled = (await call('POST', `/api/deliveries/${order.id}/cancel`, {})).body;
  expect(cancelled.state).toBe('cancelled');
  const zip = await fetch(`${server.base()}/api/deliveries/${order.id}/zip`);
  expect(zip.status).toBe(404);
});

test('events tell a browser what happens', async () => {
  const stream = await fetch(`${server.base()}/api/events`);
  const reader = stream.body!.getReader();
  const { id } = await listing('Watering can');
  const order = (await call('POST', `/api/listings/${id}/deliveries`, { slots: ['kestrel-market/main'] }))
    .body;
  let text = '';
  while (!text.includes(order.id)) text += new TextDecoder().decode((await reader.read()).value);
  expect(text).toMatch(/"topic":"delivery"/);
  await reader.cancel();
});
