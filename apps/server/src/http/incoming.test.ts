import { expect, test } from '@jest/globals';
import { existsSync, readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { PassThrough, Readable } from 'node:stream';
import { RefusedPicture } from '@scenograph/host-node/read-picture';
import { asIncoming, receive } from './incoming';

const sent = (...pieces: string[]) => Readable.from(pieces.map((p) => Buffer.from(p)));

test('a file that comes in lies on disk while it is read, and is gone afterwards', async () => {
  let path = '';
  const read = await receive(sent('two ', 'pieces'), 'a.jpg', async (file) => {
    path = file.path;
    expect([file.name, file.size]).toEqual(['a.jpg', 10]);
    return readFileSync(path, 'utf8');
  });
  expect(read).toBe('two pieces');
  expect(existsSync(dirname(path))).toBe(false);
});

test('what is refused with a sentence is answered with it, and leaves nothing', async () => {
  let path = '';
  const refusing = asIncoming('a.jpg', Buffer.from('x'), async (file) => {
    path = file.path;
    throw new RefusedPicture('"a.jpg" is no picture.');
  });
  await expect(refusing).rejects.toMatchObject({ status: 422, message: '"a.jpg" is no picture.' });
  expect(existsSync(dirname(path))).toBe(false);
});

test('a file larger than is taken is refused while it comes, and its sender can still be answered', async () => {
  const request = sent(...Array.from({ length: 50 }, () => 'x'.repeat(100)));
  const never = () => Promise.reject(new Error('It was read.'));
  await expect(receive(request, 'a.jpg', never, { most: 1024 })).rejects.toMatchObject({ status: 413 });
  expect(request.destroyed).toBe(false);
  // Where it says so beforehand, nothing of it is read.
  const told = Object.assign(sent('x'), { headers: { 'content-length': '2000' } });
  await expect(receive(told, 'a.jpg', never, { most: 1024 })).rejects.toMatchObject({ status: 413 });
  expect(told.readableDidRead).toBe(false);
});

test('a sender that falls silent is told so', async () => {
  const request = new PassThrough();
  request.write('begin');
  const waiting = receive(request, 'a.jpg', () => Promise.reject(new Error('It was read.')), { silence: 60 });
  await expect(waiting).rejects.toMatchObject({
    status: 408,
    message: 'Nothing more of "a.jpg" came for 0.06 seconds. Send it again.',
  });
  expect(request.destroyed).toBe(false);
});

test('only so many come in at once; when they are in, others may', async () => {
  const open = Array.from({ length: 24 }, () => new PassThrough());
  const all = open.map((request) => receive(request, 'a.jpg', async ({ size }) => size));
  await expect(receive(sent('x'), 'late.jpg', async () => 1)).rejects.toMatchObject({
    status: 429,
    message: expect.stringContaining('Send "late.jpg" again in a moment.'),
  });
  for (const request of open) request.end('xyz');
  expect(await Promise.all(all)).toEqual(open.map(() => 3));
  expect(await receive(sent('x'), 'late.jpg', async () => 1)).toBe(1);
});
