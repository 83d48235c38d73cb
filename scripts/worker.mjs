/** "npm run worker": one more worker process for the database in DATABASE_URL, here or on another machine. */
import { ensurePackages, startProcess, stopAll } from './setup.mjs';

if (!process.env.DATABASE_URL) {
  console.error('Set DATABASE_URL to the database of the Scenograph to work for.');
  process.exit(1);
}
ensurePackages();
const { buildAll } = await import('./build.mjs');
await buildAll();
const { child } = startProcess('apps/server/dist/worker.mjs', {});
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => void stopAll().then(() => process.exit(0)));
child.once('exit', (code) => process.exit(code ?? 0));
