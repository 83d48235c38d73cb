import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { unpackZip, ZIP_LIMITS } from './unpack-zip';

const folder = mkdtempSync(join(tmpdir(), 'scenograph-zip-'));
let n = 0;
const unpack = (bytes: Uint8Array) => {
  const path = join(folder, `${n++}.zip`);
  writeFileSync(path, bytes);
  return unpackZip({ name: 'scenes.zip', path }, `${path}.files`);
};
const words = (text: string) => new TextEncoder().encode(text);

test('files are unpacked with their names; folders are none', async () => {
  const files = await unpack(
    zipSync({ 'a/sill.json': words('{}'), 'a/sill.jpg': words('picture'), 'a/b/': new Uint8Array() }),
  );
  expect(files.map((f) => [f.name, readFileSync(f.path, 'utf8')])).toEqual([
    ['a/sill.json', '{}'],
    ['a/sill.jpg', 'picture'],
  ]);
});

test('what is no ZIP, or is cut short, is refused with a sentence', async () => {
  const whole = zipSync({ 'sill.jpg': words('picture '.repeat(4000)) });
  await expect(unpack(words('no zip'))).rejects.toThrow('"scenes.zip" is not a ZIP that can be opened.');
  await expect(unpack(whole.subarray(0, whole.length - 30))).rejects.toThrow(/"scenes.zip" .*[.]$/);
  const damaged = whole.slice();
  damaged.fill(255, 40, 60);
  await expect(unpack(damaged)).rejects.toThrow('"scenes.zip" is damaged');
});

test('a bomb is refused by what it says of itself', async () => {
  await expect(unpack(zipSync({ 'sill.jpg': new Uint8Array(40_000_000) }))).rejects.toThrow(
    'packed more than 200 times',
  );
  const many = Object.fromEntries(
    Array.from({ length: ZIP_LIMITS.entries + 1 }, (_, i) => [`${i}.json`, words('{}')]),
  );
  await expect(unpack(zipSync(many))).rejects.toThrow('holds 2001 files');
});

test('a bomb that lies about its size is stopped while it is unpacked', async () => {
  const bytes = zipSync({ 'sill.json': words('word '.repeat(100_000)) });
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  // The central directory says how large a file is: here, ten bytes.
  const at = bytes.length - 22 - (46 + 'sill.json'.length);
  expect(view.getUint32(at, true)).toBe(0x02014b50);
  view.setUint32(at + 24, 10, true);
  await expect(unpack(bytes)).rejects.toThrow('"scenes.zip" is damaged');
});

test('files that share the same bytes are refused', async () => {
  const bytes = zipSync(
    { 'a.json': words('word'.repeat(500)), 'b.json': words('word'.repeat(500)) },
    { level: 0 },
  );
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const second = bytes.length - 22 - (46 + 6);
  // Both lie where the first one lies, and each is as large as the whole file.
  for (const at of [second, second - (46 + 6)]) {
    view.setUint32(at + 20, bytes.length - 10, true);
    view.setUint32(at + 24, bytes.length - 10, true);
    view.setUint32(at + 42, 0, true);
  }
  await expect(unpack(bytes)).rejects.toThrow('says that it holds more than it has');
});
