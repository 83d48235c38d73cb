import { expect, test } from '@jest/globals';
import { Readable } from 'node:stream';
import { addStream, newZip } from './send-stream';

test('a file that fails within a ZIP fails the ZIP, and nothing else', async () => {
  const zip = newZip();
  zip.addBuffer(Buffer.from('whole'), 'a.txt');
  const fails = new Readable({
    read() {
      this.destroy(new Error('The database went away.'));
    },
  });
  addStream(zip, 'b.txt', {}, () => fails);
  zip.end();
  await expect(
    (async () => {
      for await (const _ of zip.outputStream);
    })(),
  ).rejects.toThrow('The database went away.');
});
