import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { IncomingFile, Intake } from '@scenograph/host-node/sandbox/operations';
import { createSandbox } from '@scenograph/host-node/sandbox/sandbox';

/** A file that is drawn (an SVG), read in a process of its own, which is ended where the file takes too much. */
export async function inSandbox<T>(
  file: string,
  read: (intake: Intake, copy: IncomingFile) => Promise<T>,
): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'scenograph-cli-'));
  const sandbox = createSandbox(fileURLToPath(new URL('./sandbox.mjs', import.meta.url)), { processes: 1 });
  try {
    const path = join(folder, 'file');
    await copyFile(file, path);
    return await read(sandbox.intake, { name: basename(file), path });
  } finally {
    sandbox.close();
    await rm(folder, { recursive: true, force: true });
  }
}
