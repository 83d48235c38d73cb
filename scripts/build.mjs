/** Builds server, worker, seed, command line and benchmarks with esbuild, and the web application with Vite. */
import { join } from 'node:path';
import { ensurePackages, root } from './setup.mjs';

const common = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  packages: 'external',
  // The project's own packages are TypeScript: they are bundled, all others are left to Node.
  alias: {
    '@scenograph/core': join(root, 'packages/core'),
    '@scenograph/host-node': join(root, 'packages/host-node'),
  },
  outExtension: { '.js': '.mjs' },
  logLevel: 'warning',
  tsconfig: join(root, 'apps/server/tsconfig.json'),
};

export async function buildNode() {
  const { build } = await import('esbuild');
  await build({
    ...common,
    entryPoints: {
      main: join(root, 'apps/server/src/main.ts'),
      worker: join(root, 'apps/server/src/worker.ts'),
      'paint-thread': join(root, 'apps/server/src/jobs/paint-thread.ts'),
      seed: join(root, 'demo/seed.ts'),
    },
    outdir: join(root, 'apps/server/dist'),
  });
  await build({
    ...common,
    entryPoints: { cli: join(root, 'apps/cli/src/cli.ts') },
    outdir: join(root, 'apps/cli/dist'),
  });
}

export async function buildBench() {
  const { build } = await import('esbuild');
  await build({
    ...common,
    entryPoints: { bench: join(root, 'bench/bench.ts') },
    outdir: join(root, 'bench/dist'),
  });
}

export async function buildWeb() {
  const { build } = await import('vite');
  await build({ root: join(root, 'apps/web'), logLevel: 'warn' });
}

if (process.argv[1]?.endsWith('build.mjs')) {
  ensurePackages();
  await buildNode();
  await buildWeb();
}
