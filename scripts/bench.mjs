/**
 * "npm run bench": builds the benchmarks and runs them ("npm run bench -- cutout", "-- paint", "-- large", "-- staging",
 * "-- print", "-- fill", "-- overlays" or "-- truth [staged|printed|filled]" for one part). Those at full scale, with a server and workers of their own, run
 * only when they are named: "-- deliveries", "-- board", "-- kills", "-- rounds", "-- load", "-- hostile"; "-- interface [address]" asks a running
 * Scenograph.
 */
import { buildBench } from './build.mjs';
import { ensurePackages, runCommand } from './setup.mjs';

ensurePackages();
const [part, count] = process.argv.slice(2);
const atScale = { deliveries: 'benchDeliveries', board: 'benchBoard', kills: 'benchKills' }[part];
if (atScale) {
  const module = await import('../bench/at-scale.mjs');
  await module[atScale](count ? Number(count) : undefined);
  process.exit(0);
}
if (part === 'rounds') {
  const { benchRounds } = await import('../bench/rounds.mjs');
  await benchRounds(count ? Number(count) : undefined);
  process.exit(0);
}
if (part === 'load') {
  const { benchLoad } = await import('../bench/load.mjs');
  await benchLoad(count ? Number(count) : undefined);
  process.exit(0);
}
if (part === 'interface') {
  const { benchInterface } = await import('../bench/interface.mjs');
  await benchInterface(count);
  process.exit(0);
}
await buildBench();
if (part === 'hostile') {
  const { benchHostile } = await import('../bench/hostile.mjs');
  await benchHostile(...process.argv.slice(3).map(Number));
  process.exit(0);
}
await runCommand(process.execPath, ['bench/dist/bench.mjs', ...process.argv.slice(2)]);
