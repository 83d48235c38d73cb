/** "npm run bench": builds the benchmarks and runs them ("npm run bench -- cutout", "-- paint", "-- large", "-- staging", "-- print" or "-- fill" for one part). */
import { buildBench } from './build.mjs';
import { ensurePackages, runCommand } from './setup.mjs';

ensurePackages();
await buildBench();
await runCommand(process.execPath, ['bench/dist/bench.mjs', ...process.argv.slice(2)]);
