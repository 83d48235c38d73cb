/** "npm start": set-up, database, migrations, demo data, build, server and one worker. Ctrl+C stops what it started. */
import { join } from 'node:path';
import { keepRunning } from './keep-running.mjs';
import {
  ensureDatabase,
  ensurePackages,
  freePort,
  root,
  runCommand,
  say,
  startCluster,
  startProcess,
  stopAll,
} from './setup.mjs';

let cluster = null;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  await stopAll();
  await cluster?.stop();
  process.exit(code);
}
process.on('SIGINT', () => void stop(0));
process.on('SIGTERM', () => void stop(0));
process.on('SIGHUP', () => void stop(0));

try {
  ensurePackages();
  const given = process.env.DATABASE_URL;
  let url = given;
  if (!given) {
    say('Starting the database ...');
    cluster = await startCluster(join(root, 'data', 'postgres'));
    url = await ensureDatabase(cluster, 'scenograph');
  }
  say('Building ...');
  const { buildAll } = await import('./build.mjs');
  await buildAll();
  const env = { DATABASE_URL: url };
  await runCommand(process.execPath, ['apps/server/dist/seed.mjs'], { env: { ...process.env, ...env } });
  const port = await freePort(Number(process.env.PORT) || 4310);
  const hooks = { stopping: () => stopping, giveUp: () => void stop(1) };
  await Promise.all([
    keepRunning(
      'The server',
      () => startProcess('apps/server/dist/main.mjs', { ...env, PORT: String(port) }),
      hooks,
    ),
    keepRunning('The worker', () => startProcess('apps/server/dist/worker.mjs', env, { quiet: true }), hooks),
  ]);
  say(`\nScenograph is at http://${process.env.HOST || '127.0.0.1'}:${port}\nCtrl+C stops it.`);
} catch (error) {
  if (!stopping) console.error(error.message);
  await stop(1);
}
