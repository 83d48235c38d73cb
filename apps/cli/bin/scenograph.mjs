#!/usr/bin/env node
// The command line is built by "npm start", "npm test" and "npm run build"; the first call here builds it too.
import { existsSync } from 'node:fs';
const built = new URL('../dist/cli.mjs', import.meta.url);
if (!existsSync(built)) {
  const { buildNode } = await import('../../../scripts/build.mjs');
  await buildNode();
}
await import(built.href);
