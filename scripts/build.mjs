/** Builds server, worker, seed, command line and benchmarks with esbuild, and the web application with Vite. */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, root, withLock } from './setup.mjs';

const common = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  packages: 'external',
  // The project's own packages are TypeScript: they are bundled, all others are left to Node.
  alias: {
    '@scenograph/contract': join(root, 'packages/contract'),
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
      collect: join(root, 'apps/server/src/collect.ts'),
      sandbox: join(root, 'packages/host-node/sandbox/process.ts'),
    },
    outdir: join(root, 'apps/server/dist'),
  });
  await build({
    ...common,
    entryPoints: {
      cli: join(root, 'apps/cli/src/cli.ts'),
      sandbox: join(root, 'packages/host-node/sandbox/process.ts'),
    },
    outdir: join(root, 'apps/cli/dist'),
  });
}

export async function buildBench() {
  const { build } = await import('esbuild');
  await build({
    ...common,
    entryPoints: {
      bench: join(root, 'bench/bench.ts'),
      'hostile-files': join(root, 'bench/hostile-files.ts'),
    },
    outdir: join(root, 'bench/dist'),
  });
}

/** Built beside what is there and then put in its place, so that a running server is never without its pages. */
export async function buildWeb() {
  const { build } = await import('vite');
  const web = join(root, 'apps/web');
  const [dist, next, old] = ['dist', 'dist-next', 'dist-old'].map((name) => join(web, name));
  rmSync(next, { recursive: true, force: true });
  await build({ root: web, logLevel: 'error', build: { outDir: next, emptyOutDir: true } });
  rmSync(old, { recursive: true, force: true });
  if (existsSync(dist)) renameSync(dist, old);
  renameSync(next, dist);
  rmSync(old, { recursive: true, force: true });
}

/** What the built files depend on: every source of the project and the installed packages. */
function sourcesHash() {
  const hash = createHash('sha256');
  const read = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) =>
      a.name < b.name ? -1 : 1,
    )) {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) {
        if (!/^(dist.*|node_modules|assets)$/.test(entry.name)) read(path);
      } else if (!/\.test\.ts$/.test(entry.name))
        hash.update(path.slice(root.length)).update(readFileSync(path));
    }
  };
  for (const folder of ['packages', 'apps', 'demo', 'scripts']) read(join(root, folder));
  return hash.update(readFileSync(join(root, 'package-lock.json'))).digest('hex');
}

/** Builds everything, unless what stands was built from the same sources. Several may call it at once. */
export async function buildAll() {
  const folder = join(root, 'data');
  mkdirSync(folder, { recursive: true });
  await withLock(join(folder, 'build-lock'), async () => {
    const stamp = join(folder, 'built');
    const wanted = sourcesHash();
    const stands = ['apps/server/dist/main.mjs', 'apps/cli/dist/cli.mjs', 'apps/web/dist/index.html'];
    if (
      existsSync(stamp) &&
      readFileSync(stamp, 'utf8') === wanted &&
      stands.every((f) => existsSync(join(root, f)))
    )
      return;
    await Promise.all([buildNode(), buildWeb()]);
    writeFileSync(stamp, wanted);
  });
}

if (process.argv[1]?.endsWith('build.mjs')) {
  ensurePackages();
  await buildAll();
}
