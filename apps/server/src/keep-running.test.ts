import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { expect, test } from '@jest/globals';

const MODULE = pathToFileURL(join(__dirname, '../../../scripts/keep-running.mjs')).href;

/**
 * Keeps a child running that notes each start and then does what `child` says; what was said, and how it ended. It is told to
 * end a second after so many starts.
 */
async function kept(child: string, enough = Infinity) {
  const folder = mkdtempSync(join(tmpdir(), 'scenograph-kept-'));
  const starts = join(folder, 'starts');
  const program = join(folder, 'child.mjs');
  writeFileSync(
    program,
    `import { appendFileSync, readFileSync } from 'node:fs';
     appendFileSync(${JSON.stringify(starts)}, process.pid + '\\n');
     const n = readFileSync(${JSON.stringify(starts)}, 'utf8').trim().split('\\n').length;
     ${child}`,
  );
  const parent = join(folder, 'parent.mjs');
  writeFileSync(
    parent,
    `import { fork } from 'node:child_process';
     import { keepRunning } from ${JSON.stringify(MODULE)};
     let stopping = false, last;
     process.on('SIGTERM', () => { stopping = true; last.kill('SIGTERM'); setTimeout(() => process.exit(0), 400); });
     const start = () => { last = fork(${JSON.stringify(program)}); return { child: last, ready: new Promise((r, no) => { last.once('message', r); last.once('exit', () => no(new Error('never ready'))); }) }; };
     await keepRunning('The part', start, { stopping: () => stopping, giveUp: () => process.exit(7) });
     console.log('ready');`,
  );
  const running = spawn(process.execPath, [parent]);
  let said = '';
  running.stderr.on('data', (text: Buffer) => (said += text.toString()));
  const ended = new Promise<number | null>((resolve) => running.once('exit', resolve));
  const pids = () => (existsSync(starts) ? readFileSync(starts, 'utf8').trim().split('\n') : []);
  const timer = setInterval(() => {
    if (pids().length < enough) return;
    clearInterval(timer);
    setTimeout(() => running.kill('SIGTERM'), 1000);
  }, 50);
  const code = await ended;
  clearInterval(timer);
  return { said, code, pids: pids() };
}

test('a part that is killed is started again, and what then runs is left alone until it is told to end', async () => {
  const { said, code, pids } = await kept(
    `process.send('ready'); if (n === 1) setTimeout(() => process.kill(process.pid, 'SIGKILL'), 200); else setInterval(() => undefined, 1000);`,
    2,
  );
  expect(new Set(pids).size).toBe(2);
  expect(said).toBe('The part ended unexpectedly and is started again.\n');
  expect(code).toBe(0);
});

test('a part that ends at once, again and again, is given up with a sentence', async () => {
  const { said, code, pids } = await kept(
    `process.send('ready'); setTimeout(() => process.exit(1), 200);`,
    60,
  );
  expect(pids).toHaveLength(6);
  expect(said).toMatch(/The part ended 6 times within a minute; giving up\.\n$/);
  expect(code).toBe(7);
});

test('a part that was never ready is not started again: that is told by whoever started it', async () => {
  const { said, code, pids } = await kept('process.exit(3);');
  expect(pids).toHaveLength(1);
  expect(said).toMatch(/never ready/);
  expect(said).not.toMatch(/started again/);
  expect(code).toBe(1);
});
