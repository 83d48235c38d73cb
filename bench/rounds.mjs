/**
 * "npm run bench -- rounds [n]": 100 rounds of work in which the server, a worker, the database or a reading process is
 * killed at a random moment. Limits: nothing lost, doubled or waiting for ever; taken up within 20 s. The baseline of times
 * is each kind of work once without a kill.
 */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import sharp from 'sharp';
import { root, stopProcess } from '../scripts/setup.mjs';
import { place, unzip } from './at-scale.mjs';

const wait = (ms) => new Promise((r) => setTimeout(r, ms));
const VICTIMS = ['server', 'worker', 'database', 'sandbox'];
/** Seconds after which work counts as waiting for ever. */
const FOR_EVER = 120;

/** Asks until it is answered: a client tries again while the server is away. */
async function asked(ask, seconds = 60) {
  for (const until = Date.now() + seconds * 1000; ;) {
    try {
      const response = await ask();
      if (response.status < 500) return response;
    } catch {
      // Not there for now.
    }
    if (Date.now() > until) throw new Error('never answered');
    await wait(200);
  }
}

/** @param {Awaited<ReturnType<typeof place>>} at */
async function acts(at) {
  const get = async (path) => (await asked(() => fetch(at.base + path))).json();
  const send = (method, path, body) =>
    fetch(at.base + path, {
      method,
      headers: body instanceof Uint8Array ? {} : { 'Content-Type': 'application/json' },
      body: body instanceof Uint8Array ? body : JSON.stringify(body ?? {}),
    });
  const until = async (read, good, say) => {
    const began = Date.now();
    for (;;) {
      const value = await read();
      if (good(value)) return value;
      if (Date.now() - began > FOR_EVER * 1000)
        throw new Error(`${say} for ever: ${JSON.stringify(value).slice(0, 160)}`);
      await wait(150);
    }
  };
  const listing = (await get('/api/listings')).find((l) => l.title === 'Watering can');
  const [photo] = (await get('/api/photos')).filter((p) => p.cutout);
  const product = (await get('/api/products')).products.find((p) => p.variants[0]?.photoId === photo.id);
  const small = await sharp(readFileSync(join(root, 'demo/assets/products/trowel.jpg')))
    .resize(500)
    .jpeg()
    .toBuffer();
  const scenesAtFirst = await get('/api/scenes');
  const scenes = Buffer.from(await (await fetch(`${at.base}/api/scenes/export.zip`)).arrayBuffer());
  const steps = [{ id: 'white', kind: 'white', title: 'White', after: [] }];
  const recipe = await (await send('POST', '/api/recipes', { title: 'Round', steps })).json();
  const delivered = await (
    await send('POST', `/api/listings/${listing.id}/deliveries`, { which: 'all' })
  ).json();
  const done = (id) =>
    until(
      () => get(`/api/deliveries/${id}`),
      (d) => ['done', 'failed'].includes(d.state),
      'a delivery waits',
    );
  await done(delivered.id);
  const hash = (bytes) => createHash('sha256').update(bytes).digest('hex');
  /** Kinds of work: each is begun, may be disturbed, and is then looked at. */
  return {
    async upload(n) {
      const name = `round-${n}.jpg`;
      // Another file each time.
      const bytes = Buffer.concat([small, Buffer.from(String(n))]);
      const found = async () => (await get('/api/photos')).filter((p) => p.name === name);
      await send('POST', `/api/photos?name=${name}`, bytes).catch(() => null);
      if (!(await found()).length) await asked(() => send('POST', `/api/photos?name=${name}`, bytes));
      const [made, ...more] = await until(
        found,
        (list) => list.every((p) => !/waiting|working/.test(p.cutoutState)),
        'a cutout waits',
      );
      if (more.length) throw new Error('a photo is doubled');
      const blob = Buffer.from(
        await (await asked(() => fetch(`${at.base}/api/blobs/${made.original}`))).arrayBuffer(),
      );
      if (hash(blob) !== hash(bytes)) throw new Error('a photo is not what was sent');
      await asked(() => send('DELETE', `/api/photos/${made.id}`));
    },
    async import() {
      const before = await get('/api/scenes');
      const { length } = scenesAtFirst;
      const answer = await send('POST', '/api/scenes/import?name=s.zip', scenes).catch(() => null);
      const after = await get('/api/scenes');
      const taken = after.length - before.length;
      for (const { id, picture } of after.filter((s) => !before.some((b) => b.id === s.id))) {
        if (!(await asked(() => fetch(`${at.base}/api/blobs/${picture}`))).ok)
          throw new Error('a scene has no picture');
        await asked(() => send('DELETE', `/api/scenes/${id}`));
      }
      if (answer?.ok && taken !== length) throw new Error(`${taken} of ${length} scenes came in`);
    },
    async cutout() {
      await asked(() => send('POST', '/api/photos/cutouts', { ids: [photo.id] }));
      const now = await until(
        () => get(`/api/photos/${photo.id}`),
        (p) => !/waiting|working/.test(p.cutoutState),
        'a cutout waits',
      );
      if (now.cutoutState !== 'done') throw new Error(`a cutout ${now.cutoutState}: ${now.cutoutError}`);
    },
    async recipe(n) {
      // Another name, so that the step runs again.
      await asked(() => send('PATCH', `/api/products/${product.id}`, { title: `Round ${n}` }));
      await asked(() => send('POST', `/api/recipes/${recipe.id}/run`, { productIds: [product.id] }));
      const read = async () => (await get(`/api/recipes/${recipe.id}`)).products[0]?.steps.white;
      const step = await until(read, (s) => s && !/waiting|working/.test(s.state), 'a recipe waits');
      if (step.state !== 'done') throw new Error(`a step ${step.state}: ${step.says}`);
      const { shots } = await get(`/api/listings/${step.made.listing}`);
      if (shots.filter((s) => s.madeBy === `${recipe.id}/white`).length !== 1)
        throw new Error('a shot is doubled');
    },
    async delivery(n) {
      // Other words in the files, so that they are made anew.
      for (const shot of (await get(`/api/listings/${listing.id}`)).shots)
        await asked(() => send('PATCH', `/api/shots/${shot.id}`, { alt: `Round ${n}` }));
      const before = (await get('/api/deliveries')).map((d) => d.id);
      const slots = (await get(`/api/listings/${listing.id}/board`)).slots.slice(0, 2);
      await send('POST', `/api/listings/${listing.id}/deliveries`, { slots, which: 'all' }).catch(() => null);
      const made = async () => (await get('/api/deliveries')).filter((d) => !before.includes(d.id));
      let [order] = await made();
      order ??= await (
        await asked(() => send('POST', `/api/listings/${listing.id}/deliveries`, { slots, which: 'all' }))
      ).json();
      const end = await done(order.id);
      if (end.made !== end.total) throw new Error(`${end.made} of ${end.total} pictures`);
      await whole(order.id, end.total);
    },
    async collection() {
      await send('POST', '/api/storage/collect', {}).catch(() => null);
      for (const p of await get('/api/photos'))
        for (const blob of [p.original, p.working])
          if (
            !(await asked(() => fetch(`${at.base}/api/blobs/${blob}`, { headers: { Range: 'bytes=0-9' } })))
              .ok
          )
            throw new Error('a photo has lost its file');
    },
    async download() {
      // Broken off or whole, never half and taken for whole.
      const broken = await fetch(`${at.base}/api/deliveries/${delivered.id}/zip`)
        .then((r) => r.arrayBuffer())
        .catch(() => null);
      if (broken) await unzip(Buffer.from(broken)).catch(() => undefined);
      await whole(delivered.id, delivered.total);
    },
  };

  async function whole(id, total) {
    const zip = await asked(() => fetch(`${at.base}/api/deliveries/${id}/zip`));
    const files = await unzip(Buffer.from(await zip.arrayBuffer()));
    const { pictures } = JSON.parse(files.get('manifest.json').toString());
    if (new Set(pictures.map((p) => p.file)).size !== total)
      throw new Error(`${pictures.length} of ${total} in the ZIP`);
    for (const p of pictures) if (hash(files.get(p.file)) !== p.sha256) throw new Error(`${p.file} differs`);
  }
}

export async function benchRounds(rounds = 100) {
  const at = await place();
  let workers = [await at.worker(), await at.worker()];
  const faults = [];
  const alive = (child) => child.exitCode === null && !child.signalCode;
  const kill = {
    async server() {
      const gone = new Promise((r) => at.server().once('exit', r));
      at.server().kill('SIGKILL');
      await gone;
      await at.restartServer();
    },
    async worker() {
      workers.splice(Math.floor(Math.random() * workers.length), 1)[0].kill('SIGKILL');
      workers.push(await at.worker());
    },
    async database() {
      await at.killDatabase();
      const dead = [at.server(), ...workers].filter((child) => !alive(child)).length;
      if (dead) faults.push(`${dead} processes ended with the database`);
      if (!alive(at.server())) await at.restartServer();
      workers = await Promise.all(workers.map((w) => (alive(w) ? w : at.worker())));
    },
    async sandbox() {
      const pids = execFileSync('pgrep', ['-P', String(at.server().pid)], { encoding: 'utf8' })
        .trim()
        .split('\n');
      for (const pid of pids)
        if (/sandbox/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8')))
          process.kill(Number(pid), 'SIGKILL');
    },
  };
  try {
    const work = await acts(at);
    const kinds = Object.keys(work);
    const usual = {};
    for (const kind of kinds) {
      const began = Date.now();
      await work[kind](1000 + kinds.indexOf(kind));
      usual[kind] = (Date.now() - began) / 1000;
    }
    let longest = { seconds: 0, what: '' };
    for (let n = 0; n < rounds; n++) {
      const kind = kinds[n % kinds.length];
      const victim = VICTIMS[Math.floor(n / kinds.length) % VICTIMS.length];
      const began = Date.now();
      const killing = wait(Math.random() * Math.min(3000, usual[kind] * 900)).then(() =>
        kill[victim]().catch((e) => victim === 'sandbox' || Promise.reject(e)),
      );
      try {
        await Promise.all([work[kind](n), killing]);
      } catch (error) {
        faults.push(`round ${n + 1}, ${kind} with the ${victim} killed: ${error.message}`);
        await killing.catch(() => undefined);
      }
      const over = (Date.now() - began) / 1000 - usual[kind];
      if (over > longest.seconds) longest = { seconds: over, what: `${kind} with the ${victim} killed` };
      if (n % 10 === 9) console.log(`${n + 1} rounds, ${faults.length} faults`);
    }
    const { waiting } = await stillWaiting(at);
    if (waiting) faults.push(`${waiting} things wait at the end`);
    console.log(
      `${rounds} rounds. Without a kill: ${kinds.map((k) => `${k} ${usual[k].toFixed(1)} s`).join(', ')}. ` +
        `The longest delay by a kill was ${longest.seconds.toFixed(1)} s more (${longest.what}).\n` +
        (faults.length ? `Faults:\n${faults.join('\n')}` : 'Nothing lost, doubled or waiting for ever.'),
    );
    await Promise.all(workers.map((w) => stopProcess(w)));
  } finally {
    await at.end();
  }
}

/** What is left to do when nobody asks for anything any more. */
async function stillWaiting(at) {
  await wait(10_000);
  const database = new pg.Client({ connectionString: at.url });
  await database.connect();
  const { rows } = await database.query(
    `select (select count(*) from photos where cutout_state in ('waiting', 'working')) + (select count(*) from recipe_results
      where state in ('waiting', 'working')) + (select count(*) from deliveries where state in ('queued', 'running')) as n`,
  );
  await database.end();
  return { waiting: Number(rows[0].n) };
}
