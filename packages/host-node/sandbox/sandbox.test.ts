import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { RefusedPicture } from '../read-picture';
import { createSandbox, type Sandbox } from './sandbox';

const folder = mkdtempSync(join(tmpdir(), 'scenograph-sandbox-'));
const path = join(folder, 'file');
writeFileSync(path, 'bytes');
const limits = { seconds: 0.4, wall: 20, megabytes: 200 };

let sandbox: Sandbox;
/** Reads a file by a name that says what it does; the stand-in answers with its process. */
const read = (name: string) => sandbox.intake.font({ name, path }) as unknown as Promise<number>;

beforeEach(() => {
  sandbox = createSandbox(join(__dirname, 'misbehaving-reader.mjs'), { processes: 1, limits });
});
afterEach(() => sandbox.close());

test.each([
  ['endless', '"endless" takes more than 0.4 seconds'],
  ['greedy', '"greedy" needs more than 200 MB'],
  ['deadly', '"deadly" is damaged in a way that ends its reader'],
])(
  'a file that is %s is refused with its reader ended, and the next one is read by another',
  async (name, says) => {
    const before = await read('plain');
    await expect(read(name)).rejects.toThrow(RefusedPicture);
    await expect(read(name)).rejects.toThrow(says);
    expect(await read('plain')).not.toBe(before);
    expect(sandbox.kills()).toBe(2);
  },
);

test('a refusal is a sentence, and its reader goes on', async () => {
  const before = await read('plain');
  await expect(read('refused')).rejects.toThrow('"refused" is no picture.');
  expect(await read('plain')).toBe(before);
  expect(sandbox.kills()).toBe(0);
});

test('what waits behind a file that is ended is read; none is lost', async () => {
  const all = await Promise.allSettled(['plain', 'endless', 'plain', 'deadly', 'plain'].map(read));
  expect(all.map((a) => a.status)).toEqual(['fulfilled', 'rejected', 'fulfilled', 'rejected', 'fulfilled']);
});

test('more than can wait are refused at once, with a sentence that names the file', async () => {
  const many = Array.from({ length: 520 }, (_, i) => read(`plain-${i}`));
  const all = await Promise.allSettled(many);
  const refused = all.flatMap((a) => (a.status === 'rejected' ? [(a.reason as Error).message] : []));
  expect(refused.length).toBeGreaterThan(0);
  expect(refused.length).toBeLessThan(200);
  expect(refused[0]).toMatch(/^Too many files are coming in at once. Send "plain-\d+" again in a moment.$/);
});

test('a reader that does not start is told, not started for ever', async () => {
  sandbox.close();
  sandbox = createSandbox(join(folder, 'nowhere.mjs'), { processes: 1, limits });
  await expect(read('plain')).rejects.toThrow('the reader does not start');
});
