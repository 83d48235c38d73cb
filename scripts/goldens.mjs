/** "npm run goldens": paints the golden pictures of the element kinds anew. Look at them before they are kept. */
import { root, runCommand } from './setup.mjs';

await runCommand(
  process.execPath,
  [
    '--experimental-vm-modules',
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    'core',
    '--testPathPatterns',
    'kinds.test',
  ],
  {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'test', NODE_NO_WARNINGS: '1', SCENOGRAPH_RENEW_GOLDENS: '1' },
  },
);
