/** "npm run worker": one more worker process for the database in DATABASE_URL, here or on another machine. */
import { keepRunning } from './keep-running.mjs';
import { ensurePackages, startProcess, stopAll } from './setup.mjs';

if (!process.env.DATABASE_URL) {
  console.error('Set DATABASE_URL to the database of the Scenograph to work for.');
  process.exit(1);
}
ensurePackages();
const { buildAll } = await import('./build.mjs');
await buildAll();
let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    stopping = true;
    void stopAll().then(() => process.exit(0));
  });
await keepRunning('The worker', () => startProcess('apps/server/dist/worker.mjs', {}), {
  stopping: () => stopping,
  giveUp: () => process.exit(1),
});
