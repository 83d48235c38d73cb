import { expect, test } from '@jest/globals';
import type { Response } from 'express';
import { PassThrough, Readable } from 'node:stream';
import { addStream, newZip, sendStream } from './send-stream';

const failing = () =>
  new Readable({
    read() {
      this.destroy(new Error('The database went away.'));
    },
  });

test('a file that fails within a ZIP fails the ZIP, and nothing else', async () => {
  const zip = newZip();
  zip.addBuffer(Buffer.from('whole'), 'a.txt');
  addStream(zip, 'b.txt', {}, failing);
  zip.end();
  await expect(
    (async () => {
      for await (const _ of zip.outputStream);
    })(),
  ).rejects.toThrow('The database went away.');
});

test('a file that fails before anybody reads the ZIP cuts off the answer that comes later', async () => {
  const zip = newZip();
  addStream(zip, 'a.txt', {}, failing);
  await new Promise((done) => zip.outputStream.once('close', done));
  const answer = new PassThrough();
  sendStream(zip.outputStream, answer as unknown as Response);
  await new Promise((done) => answer.once('close', done));
  expect(answer.writableFinished).toBe(false);
});
