import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');
const { exports: listed } = JSON.parse(readFileSync(join(__dirname, 'package.json'), 'utf8')) as {
  exports: Record<string, string>;
};
const modules = Object.keys(listed).filter((name) => name !== './package.json');

/** Everything outside the core that may import it. */
const USERS = [
  'apps/cli',
  'apps/server',
  'apps/web',
  'packages/contract',
  'packages/host-node',
  'bench',
  'demo',
  'e2e',
];

function* sourcesIn(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) {
      if (!/^(dist.*|node_modules|assets)$/.test(entry.name)) yield* sourcesIn(path);
    } else if (/\.(ts|tsx|mjs)$/.test(entry.name)) yield path;
  }
}

const used = new Map<string, string>();
for (const folder of USERS)
  for (const file of sourcesIn(join(root, folder)))
    for (const [, name] of readFileSync(file, 'utf8').matchAll(/['"]@scenograph\/core\/([\w/.-]+)['"]/g))
      if (name !== 'package.json') used.set(`./${name}`, file.slice(root.length + 1));

test('what the core offers is listed, module by module, in its order, and is there', () => {
  expect(modules.length).toBeGreaterThan(100);
  expect(modules).toEqual([...modules].sort());
  for (const name of modules) {
    expect(listed[name]).toBe(`${name}.ts`);
    expect([name, existsSync(join(__dirname, `${name}.ts`))]).toEqual([name, true]);
  }
});

test('nothing else is imported from outside, and nothing is offered that nobody wants', () => {
  const hidden = [...used].filter(([name]) => !modules.includes(name));
  expect(hidden).toEqual([]);
  expect(modules.filter((name) => !used.has(name))).toEqual([]);
});
