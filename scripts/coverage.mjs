/** "npm run coverage": which share of each room's lines the tests of core and web reach. Server and browser are not counted. */
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages, root, runCommand, say, temporaryFolder } from './setup.mjs';

ensurePackages();
const folder = temporaryFolder();
try {
  await runCommand(
    process.execPath,
    [
      '--experimental-vm-modules',
      'node_modules/jest/bin/jest.js',
      '--selectProjects',
      'core',
      'web',
      '--coverage',
      '--coverageProvider=v8',
      '--coverageReporters=json-summary',
      `--coverageDirectory=${folder}`,
      '--silent',
      '--maxWorkers=2',
    ],
    { cwd: root, env: { ...process.env, NODE_ENV: 'test', NODE_NO_WARNINGS: '1' } },
  );
} catch (error) {
  say(`Some tests failed, so the figures are of those that ran: ${error.message}`);
}
const file = join(folder, 'coverage-summary.json');
if (existsSync(file)) {
  const rooms = new Map();
  for (const [path, { lines }] of Object.entries(JSON.parse(readFileSync(file, 'utf8')))) {
    if (path === 'total') continue;
    const parts = path.slice(root.length + 1).split('/');
    const room = parts.slice(0, parts[0] === 'packages' && parts[1] !== 'core' ? 2 : 3).join('/');
    const own = rooms.get(room) ?? { total: 0, covered: 0, files: 0 };
    rooms.set(room, {
      total: own.total + lines.total,
      covered: own.covered + lines.covered,
      files: own.files + 1,
    });
  }
  say('Lines that tests reach, of the files that any test loads:');
  for (const [room, { total, covered, files }] of [...rooms].sort())
    say(
      `${`${Math.round((100 * covered) / total)} %`.padStart(6)}  ${room} (${files} files, ${total} lines)`,
    );
}
rmSync(folder, { recursive: true, force: true });
