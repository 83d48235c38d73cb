/** "npm test": set-up, formatting, linting, types, core, the web's parts, server on a real PostgreSQL, browser. Ends with one line of counts. */
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import {
  ensureChromium,
  ensureDatabase,
  ensurePackages,
  freePort,
  root,
  runCommand,
  say,
  startCluster,
  startProcess,
  stopAll,
  temporaryFolder,
} from './setup.mjs';

// Servers under test hold their answers to the contract.
process.env.SCENOGRAPH_CHECK_ANSWERS = '1';
// Here workers are what is waited for.
process.env.SCENOGRAPH_NICENESS = '0';

const execute = promisify(execFile);
const counts = { passed: 0, failed: 0 };
let cluster = null;
let folder = null;

async function clean() {
  await stopAll();
  await cluster?.stop();
  if (folder) rmSync(folder, { recursive: true, force: true });
}
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    void clean().then(() => process.exit(130));
  });

/** A tool that passes or fails as a whole; with the exit code `notChecked` it does neither, and says why. */
async function gate(name, command, args, { notChecked } = {}) {
  try {
    await execute(command, args, { cwd: root, maxBuffer: 64 * 1024 * 1024 });
    counts.passed++;
  } catch (error) {
    if (notChecked && error.code === notChecked) {
      say(error.stdout.trim());
      return;
    }
    counts.failed++;
    say(`\n${name} failed:\n${error.stdout}${error.stderr}`);
  }
}

async function jest(project, env = {}) {
  const report = join(folder, `${project}.json`);
  await runCommand(
    process.execPath,
    [
      // HarfBuzz is an ES module; Jest loads those with Node's VM modules only.
      '--experimental-vm-modules',
      'node_modules/jest/bin/jest.js',
      '--selectProjects',
      project,
      '--json',
      `--outputFile=${report}`,
      '--forceExit',
      '--maxWorkers=2',
    ],
    // Building beside this sets NODE_ENV to production, in which React leaves out what tests need.
    { env: { ...process.env, ...env, NODE_ENV: 'test', NODE_NO_WARNINGS: '1' } },
  ).catch(() => undefined);
  if (!existsSync(report)) {
    counts.failed++;
    return;
  }
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  counts.passed += numPassedTests;
  counts.failed += numFailedTests + numRuntimeErrorTestSuites;
}

/** Titles of the browser tests in a report that ended with one of these outcomes. */
function titlesOf({ suites = [], specs = [] }, outcomes) {
  return [
    ...specs.filter((spec) => spec.tests.some((t) => outcomes.includes(t.status))).map((spec) => spec.title),
    ...suites.flatMap((suite) => titlesOf(suite, outcomes)),
  ];
}

async function runBrowser(env, report, more = []) {
  await runCommand(process.execPath, ['node_modules/@playwright/test/cli.js', 'test', ...more], {
    env: { ...process.env, ...env, SCENOGRAPH_REPORT: report },
  }).catch(() => undefined);
  return existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
}

/** One share of the browser tests. One that passes only when it is tried again is named, and run once more: twice so is a failure. */
async function playwright(env, share) {
  const more = ['--shard', share, '--output', join(folder, `browser-${share[0]}`)];
  const first = await runBrowser(env, join(folder, `browser-${share[0]}.json`), more);
  if (!first) {
    counts.failed++;
    return;
  }
  counts.passed += first.stats.expected;
  counts.failed += first.stats.unexpected + (first.errors?.length ?? 0);
  const unsteady = titlesOf(first, ['flaky']);
  if (!unsteady.length) return;
  say(`Passed only when tried again:\n${unsteady.map((t) => `  ${t}`).join('\n')}\nThese are run once more.`);
  const escaped = unsteady.map((t) => t.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const again = await runBrowser(env, join(folder, `browser-${share[0]}-again.json`), [
    '--grep',
    escaped.join('|'),
  ]);
  const twice = again ? titlesOf(again, ['flaky', 'unexpected']) : unsteady;
  for (const title of twice) say(`Not steady: ${title}`);
  counts.passed += unsteady.length - twice.length;
  counts.failed += twice.length;
}

/** A share of the browser tests against a server, a worker and a copy of the demo's database of its own. */
async function browserShare(share, DATABASE_URL) {
  const port = await freePort();
  const server = startProcess('apps/server/dist/main.mjs', { DATABASE_URL, PORT: String(port) });
  const worker = startProcess('apps/server/dist/worker.mjs', { DATABASE_URL }, { quiet: true });
  await Promise.all([server.ready, worker.ready]);
  await playwright({ SCENOGRAPH_URL: `http://127.0.0.1:${port}` }, share);
}

try {
  ensurePackages();
  ensureChromium();
  folder = temporaryFolder('scenograph-test');
  const only = process.argv[2];
  const wants = (part) => !only || only === part;
  // What needs no server is checked while the application is built and the demo's database is made.
  const alone = async () => {
    if (wants('lint')) {
      say('Formatting, linting, types ...');
      await gate('Formatting', 'npx', ['prettier', '--check', '.']);
      await gate('Linting', 'npx', ['eslint', '.']);
      await gate('Types', 'npx', ['tsc', '-b']);
      await gate('Audit', process.execPath, ['scripts/audit.mjs'], { notChecked: 3 });
      await gate('Rooms', 'npx', ['depcruise', 'packages', 'apps', '--config', '.dependency-cruiser.cjs']);
    }
    if (wants('core')) {
      say('Core ...');
      await jest('core');
    }
    if (wants('web')) {
      say('Web ...');
      await jest('web');
    }
  };
  const prepared = async () => {
    if (!wants('server') && !wants('browser')) return null;
    say('Building ...');
    const { buildAll } = await import('./build.mjs');
    await buildAll();
    cluster = await startCluster(folder);
    const url = await ensureDatabase(cluster, 'demo_template');
    await runCommand(process.execPath, ['apps/server/dist/seed.mjs'], {
      env: { ...process.env, DATABASE_URL: url },
    });
    return url;
  };
  const [ready] = await Promise.all([prepared(), alone()]);
  if (ready) {
    if (wants('server')) {
      say('Server, workers and command line ...');
      await jest('server', { SCENOGRAPH_TEST_CLUSTER: cluster.url('').slice(0, -1) });
    }
    if (wants('browser')) {
      say('Browser ...');
      // Two files at a time: they mostly wait for pages, and share nothing.
      const shares = ['1/2', '2/2'];
      const urls = [];
      for (const share of shares)
        urls.push(await ensureDatabase(cluster, `browser_${share[0]}`, 'demo_template'));
      await Promise.all(shares.map((share, i) => browserShare(share, urls[i])));
    }
  }
} catch (error) {
  counts.failed++;
  console.error(error);
}
await clean();
say(`${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed || !counts.passed ? 1 : 0);
