/**
 * What the interface costs, on a running Scenograph with the demo data: for each main screen what is transferred, how soon
 * it shows something and when it rests; for the stage what a drag, the zoom and typing cost the main thread. The baseline of
 * times is an empty page of the same server in the same browser.
 */
import { chromium } from 'playwright-core';
import { chromiumLaunch } from '../scripts/chromium.mjs';

/** Limits: kilobytes of script and style before the first paint and of the stage in all, milliseconds a pointer move. */
const FIRST = 250;
const STAGE = 600;
const MOVE = 8;
const LONG = 50;

const row = (...cells) =>
  console.log(cells.map((c, i) => (i ? String(c).padStart(13) : String(c).padEnd(22))).join(''));
const kilobytes = (bytes) => (bytes / 1000).toFixed(0);

/** A page of its own, with nothing cached, that counts what comes over the wire. */
async function openPage(browser, address, path) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const client = await context.newCDPSession(page);
  await client.send('Network.enable');
  const kinds = new Map();
  const requests = [];
  client.on('Network.responseReceived', ({ requestId, type, response }) => {
    kinds.set(requestId, type);
    requests.push(response.url);
  });
  let start = NaN;
  client.once('Network.requestWillBeSent', ({ timestamp }) => (start = timestamp));
  const received = [];
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength, timestamp }) =>
    received.push({ kind: kinds.get(requestId), bytes: encodedDataLength, at: (timestamp - start) * 1000 }),
  );
  await page.addInitScript(() => {
    window.longTasks = [];
    new PerformanceObserver((list) =>
      window.longTasks.push(...list.getEntries().map((e) => e.duration)),
    ).observe({ entryTypes: ['longtask'] });
  });
  const begun = performance.now();
  await page.goto(`${address}${path}`, { waitUntil: 'load' });
  // At rest: no request for half a second. The stream of events never ends.
  for (let quiet = 0, known = -1; quiet < 5 && performance.now() - begun < 20_000;) {
    quiet = received.length === known ? quiet + 1 : 0;
    known = received.length;
    await page.waitForTimeout(100);
  }
  const rest = performance.now() - begun - 500;
  const paint = await page.evaluate(
    () => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN,
  );
  return { context, page, client, received, requests, paint, rest };
}

/** Bytes of these kinds, or of all. */
const sumOf = (received, ...kinds) =>
  received.filter((r) => !kinds.length || kinds.includes(r.kind)).reduce((sum, r) => sum + r.bytes, 0);

/** Milliseconds of script that the page has run so far. */
async function scriptTime(client) {
  const { metrics } = await client.send('Performance.getMetrics');
  return metrics.find((m) => m.name === 'ScriptDuration').value * 1000;
}

/** Does `act` `times` times, and says what one of them cost. */
async function gesture(page, client, times, act) {
  await page.evaluate(() => (window.longTasks.length = 0));
  const before = await scriptTime(client);
  for (let i = 0; i < times; i++) await act(i);
  const script = (await scriptTime(client)) - before;
  await page.waitForTimeout(300);
  const long = await page.evaluate(() => window.longTasks);
  return { each: script / times, longest: long.length ? Math.max(...long) : 0, long: long.length };
}

export async function benchInterface(address = 'http://127.0.0.1:4310') {
  const ask = async (path) => (await fetch(`${address}${path}`)).json();
  const listing = (await ask('/api/listings')).find((l) => l.title === 'Autumn planters');
  const { shots } = await ask(`/api/listings/${listing.id}`);
  const [photo] = await ask('/api/photos');
  const [scene] = await ask('/api/scenes');
  const stage = `/shots/${shots[0].id}`;
  const screens = {
    Photos: '/photos',
    Review: '/photos/review',
    Cutout: `/photos/${photo.id}/cutout`,
    Products: '/products',
    Listings: '/listings',
    Board: `/listings/${listing.id}`,
    Stage: stage,
    Library: '/library',
    Survey: `/library/scenes/${scene.id}`,
    Templates: '/templates',
    Deliveries: '/deliveries',
    Brand: '/brand',
  };
  const browser = await chromium.launch(chromiumLaunch);
  try {
    console.log('\n(i) Screens, each opened with nothing cached. Kilobytes as transferred.');
    const empty = await openPage(browser, address, '/api/health');
    await empty.context.close();
    row('', 'before paint', 'script+style', 'other', 'requests', 'first ms', 'rest ms');
    row('(an answer alone)', 0, 0, 0, 1, empty.paint.toFixed(0), empty.rest.toFixed(0));
    const over = [];
    for (const [name, path] of Object.entries(screens)) {
      const { context, received, requests, paint, rest } = await openPage(browser, address, path);
      const own = sumOf(received, 'Script', 'Stylesheet');
      const before = sumOf(
        received.filter((r) => r.at <= paint),
        'Script',
        'Stylesheet',
      );
      const other = sumOf(received) - own;
      const sizes = [before, own, other].map(kilobytes);
      row(name, ...sizes, requests.length, paint.toFixed(0), rest.toFixed(0));
      if (before > FIRST * 1000 || (name === 'Stage' && own > STAGE * 1000)) over.push(name);
      await context.close();
    }
    console.log(
      `Wanted: at most ${FIRST} KB of script and style before the first paint, of the stage ${STAGE} KB in all. Over: ${over.join(', ') || 'none'}.`,
    );

    console.log(
      '\n(j) The stage: script of the main thread per event. Baseline: moving the pointer over its bars.',
    );
    const { page, client } = await openPage(browser, address, stage);
    await client.send('Performance.enable');
    const box = await page.getByTestId('stage-picture').boundingBox();
    const [x, y] = [box.x + box.width / 2, box.y + box.height * 0.6];
    const idle = await gesture(page, client, 60, (i) => page.mouse.move(300 + i * 3, 30));
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 2, y + 2);
    const drag = await gesture(page, client, 60, (i) => page.mouse.move(x + 2 + i * 2, y + 2 + i));
    await page.mouse.up();
    await page.keyboard.press('Control+z');
    await page.waitForTimeout(1500);
    const zoom = await gesture(page, client, 20, (i) => page.mouse.wheel(0, i < 10 ? -60 : 60));
    row('', 'ms an event', 'ratio', 'long tasks', 'longest ms');
    for (const [name, g] of Object.entries({ 'pointer, no drag': idle, drag, zoom }))
      row(name, g.each.toFixed(2), (g.each / idle.each).toFixed(1), g.long, g.longest.toFixed(0));
    console.log(`Wanted: at most ${MOVE} ms a move, and no task over ${LONG} ms.`);
  } finally {
    await browser.close();
  }
}
