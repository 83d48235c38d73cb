/**
 * "npm run bench -- load [minutes]": 50 editors at one server while four workers cut out and paint, for ten minutes. Limits:
 * the median of all answers under 100 ms, the 99th percentile under 1 s, no answer of 5xx. The baseline is one editor
 * alone, with the workers idle.
 */
import { fork } from 'node:child_process';
import { stopProcess } from '../scripts/setup.mjs';
import { place } from './at-scale.mjs';

const EDITORS = 50;
const WORKERS = 4;
const wait = (ms) => new Promise((r) => setTimeout(r, ms));

const at = (list, share) => list[Math.min(list.length - 1, Math.floor(list.length * share))] ?? 0;

/** What editors measured, by what they did. */
function tell(title, all) {
  const kinds = [...new Set(all.map((a) => a.kind))].sort();
  const of = (list) => {
    const ms = list.map((a) => a.ms).sort((a, b) => a - b);
    return `${String(ms.length).padStart(6)} answers, median ${at(ms, 0.5).toFixed(0)} ms, 99 % ${at(ms, 0.99).toFixed(0)} ms, most ${at(ms, 1).toFixed(0)} ms`;
  };
  console.log(`${title}\n  all      ${of(all)}`);
  for (const kind of kinds) console.log(`  ${kind.padEnd(8)} ${of(all.filter((a) => a.kind === kind))}`);
  const bad = all.filter((a) => a.status >= 500 || a.status === 0);
  console.log(
    `  ${bad.length} answers of 5xx or none${bad.length ? `: ${[...new Set(bad.map((a) => `${a.kind} ${a.status}`))].join(', ')}` : ''}`,
  );
  const ms = all.map((a) => a.ms).sort((a, b) => a - b);
  return { median: at(ms, 0.5), tail: at(ms, 0.99) };
}

/** Editors in a process of their own: what they do must not be what answers wait for. */
async function edit(base, editors, seconds) {
  const child = fork(new URL('./load-editors.mjs', import.meta.url), [
    base,
    String(editors),
    String(seconds),
  ]);
  const answers = [];
  child.on('message', (some) => answers.push(...some));
  await new Promise((resolve) => child.once('exit', resolve));
  return answers;
}

export async function benchLoad(minutes = 10) {
  const here = await place();
  try {
    const alone = tell('One editor, workers idle', await edit(here.base, 1, Math.min(30, minutes * 6)));
    const workers = await Promise.all(Array.from({ length: WORKERS }, () => here.worker()));
    let over = false;
    // Deliveries and cutouts keep the workers busy all the time.
    const busy = (async () => {
      const { call } = here;
      for (let n = 0; !over; n++) {
        const listings = await call('GET', '/api/listings');
        const { open } = {
          open: (await call('GET', '/api/deliveries')).filter(
            (d) => d.state === 'queued' || d.state === 'running',
          ),
        };
        if (open.length < 3)
          await call('POST', `/api/listings/${listings[n % listings.length].id}/deliveries`, {
            which: 'all',
          }).catch(() => undefined);
        const photos = (await call('GET', '/api/photos')).filter((p) => p.cutoutState === 'done');
        if (photos.length > 3)
          await call('POST', '/api/photos/cutouts', { ids: [photos[n % photos.length].id] });
        await wait(2000);
      }
    })();
    const together = tell(
      `${EDITORS} editors, ${WORKERS} workers busy, ${minutes} minutes`,
      await edit(here.base, EDITORS, minutes * 60),
    );
    over = true;
    await busy.catch(() => undefined);
    console.log(
      `Against one editor alone: median ${(together.median / alone.median).toFixed(1)}, 99 % ${(together.tail / alone.tail).toFixed(1)} times as long.`,
    );
    await Promise.all(workers.map((w) => stopProcess(w)));
  } finally {
    await here.end();
  }
}
