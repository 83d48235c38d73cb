/**
 * "npm run bench -- hostile [files] [bombs]": a server of its own is sent 10,000 broken files and 100 that are made to stop
 * their reader, eight at a time. Limits: no answer of 5xx, none that takes over ten seconds, health within a second, the
 * server within 600 MB and all its processes within 2 GB. The baseline of times is health on the idle server.
 */
import { execFileSync, fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { root } from '../scripts/setup.mjs';
import { place } from './at-scale.mjs';

const AT_ONCE = Number(process.env.LANES ?? 4);
const SENTENCE = /^["A-Z“].*[.!?]$/s;
const wait = (ms) => new Promise((r) => setTimeout(r, ms));

const megabytes = (pid) => {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  } catch {
    return 0;
  }
};
const childrenOf = (pid) => {
  try {
    return execFileSync('pgrep', ['-P', String(pid)], { encoding: 'utf8' })
      .trim()
      .split('\n')
      .map(Number);
  } catch {
    return [];
  }
};

export async function benchHostile(files = 10_000, bombCount = 100) {
  const { bombs, brokenFiles } = await import('./dist/hostile-files.mjs');
  const here = await place();
  const { pid } = here.server();
  const health = async () => {
    const began = performance.now();
    const { status } = await fetch(`${here.base}/api/health`);
    return { ms: performance.now() - began, status };
  };
  let base = 0;
  for (let i = 0; i < 50; i++) base += (await health()).ms / 50;

  const most = { health: 0, server: 0, all: 0 };
  const longest = new Map();
  const counts = { taken: 0, refused: 0, 'over ten seconds': 0, dropped: 0, '5xx': 0, 'no sentence': 0 };
  const odd = new Set();
  let ended = false;
  // In a process of its own: making and sending files must not be what health waits for.
  const asker = fork(new URL('./hostile-health.mjs', import.meta.url), [here.base]);
  asker.on('message', ({ ms, status }) => {
    if (status !== 200) odd.add(`health answered ${status}`);
    most.health = Math.max(most.health, ms);
  });
  const watch = (async () => {
    while (!ended) {
      const own = megabytes(pid);
      most.server = Math.max(most.server, own);
      most.all = Math.max(most.all, own + childrenOf(pid).reduce((sum, p) => sum + megabytes(p), 0));
      await wait(50);
    }
    asker.kill();
  })();
  const send = async ({ to, name, bytes, kind }) => {
    const began = performance.now();
    try {
      const response = await fetch(`${here.base}${to}?name=${encodeURIComponent(name)}`, {
        method: 'POST',
        body: bytes,
      });
      const { message } = await response.json();
      if (response.status >= 500) {
        counts['5xx']++;
        odd.add(`${kind} ${to}: ${response.status} ${message}`);
      } else if (response.ok) counts.taken++;
      else if (SENTENCE.test(message)) counts.refused++;
      else {
        counts['no sentence']++;
        odd.add(`${kind} ${to}: ${message}`);
      }
    } catch (error) {
      counts.dropped++;
      odd.add(`${kind} ${to}: ${error.message}`);
    }
    const ms = performance.now() - began;
    if (ms > 10_000) counts['over ten seconds']++;
    longest.set(kind, Math.max(longest.get(kind) ?? 0, ms));
  };
  const began = performance.now();
  for (const source of [[...bombs(bombCount)].values(), brokenFiles(root, files, 2024)]) {
    const lane = async () => {
      for (;;) {
        const { done, value } = await source.next();
        if (done) return;
        await send(value);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, lane));
  }
  ended = true;
  await watch;
  console.log(
    `\n${files} broken files and ${bombCount} bombs in ${((performance.now() - began) / 1000).toFixed(0)} s`,
  );
  for (const [what, n] of Object.entries(counts)) console.log(`${what.padEnd(20)}${String(n).padStart(8)}`);
  console.log(
    `health on the idle server ${base.toFixed(1)} ms (baseline); at most ${most.health.toFixed(0)} ms, ${(most.health / base).toFixed(0)} times (limit 1000 ms)`,
  );
  const slow = [...longest].sort((x, y) => y[1] - x[1]).slice(0, 6);
  const told = slow.map(([kind, ms]) => `${kind} ${(ms / 1000).toFixed(1)} s`);
  console.log(`longest answers (limit 10 s): ${told.join(', ')}`);
  console.log(
    `server ${most.server.toFixed(0)} MB (limit 600), with its processes ${most.all.toFixed(0)} MB (limit 2000)`,
  );
  for (const line of [...odd].slice(0, 20)) console.log(`  ${line}`);
  await here.end();
}
