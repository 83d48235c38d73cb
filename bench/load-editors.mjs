/** Editors for "npm run bench -- load": each looks at things, edits them as it saw them, and pauses as people do. */
import { randomUUID } from 'node:crypto';

const [base, editors, seconds] = process.argv.slice(2);
const wait = (ms) => new Promise((r) => setTimeout(r, ms));
const end = Date.now() + Number(seconds) * 1000;
let measured = [];
const pick = (list) => list[Math.floor(Math.random() * list.length)];

async function asked(kind, method, path, { body, revision, editor } = {}) {
  const began = performance.now();
  try {
    const response = await fetch(base + path, {
      method,
      headers: {
        ...(body ? { 'Content-Type': 'application/json' } : {}),
        ...(revision ? { 'If-Match': `"${revision}"` } : {}),
        'Scenograph-Editor': editor,
      },
      body: body && JSON.stringify(body),
    });
    const bytes = await response.arrayBuffer();
    measured.push({ kind, ms: performance.now() - began, status: response.status });
    const json = response.headers.get('content-type')?.includes('json');
    return json && response.ok ? JSON.parse(Buffer.from(bytes).toString()) : null;
  } catch {
    measured.push({ kind, ms: performance.now() - began, status: 0 });
    return null;
  }
}

async function editor(n) {
  const own = randomUUID();
  const ask = (kind, method, path, more = {}) => asked(kind, method, path, { ...more, editor: own });
  await wait(Math.random() * 3000);
  const listings = (await ask('look', 'GET', '/api/listings')) ?? [];
  while (Date.now() < end) {
    const { id } = listings[n % listings.length] ?? {};
    const detail = await ask('look', 'GET', `/api/listings/${id}`);
    const board = await ask('board', 'GET', `/api/listings/${id}/board`);
    if (!detail || !board) {
      await wait(500);
      continue;
    }
    for (const v of detail.variants.slice(0, 3))
      if (v.data.cutout) await ask('file', 'GET', `/api/blobs/${v.data.cutout.picture}/reduced/320`);
    // A shot is opened and nudged some times, as a drag on the stage is stored.
    const shot = await ask('look', 'GET', `/api/shots/${pick(detail.shots).id}`);
    let { revision } = shot ?? {};
    for (let i = 0; shot && i < 5 && Date.now() < end; i++) {
      const document = {
        ...shot.document,
        elements: shot.document.elements.map((e, k) => (k ? e : { ...e, name: `Step ${i}` })),
      };
      const saved = await ask('save', 'PUT', `/api/shots/${shot.id}`, {
        body: { revision, document, history: { past: [], future: [] } },
      });
      if (!saved) break;
      ({ revision } = saved);
      await wait(500 + Math.random() * 1500);
    }
    const variant = pick(detail.variants);
    await ask('data', 'PATCH', `/api/variants/${variant.id}`, {
      body: { price: 1 + Math.floor(Math.random() * 90) },
    });
    const cells = [{ variantId: variant.id, slotKey: pick(board.slots) }];
    await ask('cell', 'PUT', `/api/listings/${id}/cells`, {
      body: { cells, shotId: pick([...board.shots, 'slot']) },
      revision: board.revision,
    });
    await wait(1000 + Math.random() * 3000);
  }
}

const telling = setInterval(() => process.send(measured.splice(0)), 1000);
await Promise.all(Array.from({ length: Number(editors) }, (_, n) => editor(n)));
clearInterval(telling);
process.send(measured, () => process.disconnect());
measured = [];
