/** "npm run collect": removes files that nothing names any more; "npm run collect -- --dry" only says which there are. */
import { join } from 'node:path';
import { ensureDatabase, ensurePackages, root, runCommand, startCluster } from './setup.mjs';

ensurePackages();
const { buildNode } = await import('./build.mjs');
await buildNode();
const cluster = process.env.DATABASE_URL ? null : await startCluster(join(root, 'data', 'postgres'));
try {
  const DATABASE_URL = process.env.DATABASE_URL ?? (await ensureDatabase(cluster, 'scenograph'));
  await runCommand(process.execPath, ['apps/server/dist/collect.mjs', ...process.argv.slice(2)], {
    env: { ...process.env, DATABASE_URL },
  });
} finally {
  await cluster?.stop();
}
