import { mkdtemp, open as openFile, readdir, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import type { NextFunction, Request, Response } from 'express';
import {
  PayloadTooLargeException,
  RequestTimeoutException,
  UnprocessableEntityException,
} from '@nestjs/common';
import { MAX_BYTES, RefusedPicture } from '@scenograph/host-node/read-picture';
import { BusyError } from '@scenograph/host-node/sandbox/sandbox';
import type { IncomingFile } from '@scenograph/host-node/sandbox/operations';
import { TooMany } from './refusals';

/** Files coming in are written to disk, never held in memory: bounded each, and all together. */

export const INTAKE = Symbol('intake');

const PREFIX = 'scenograph-incoming-';
const MOST_AT_ONCE = 24;
const MOST_BYTES_AT_ONCE = 3 * 1024 * 1024 * 1024;
/** A sender that is silent for so long is cut off. */
const SILENCE_MS = 30_000;
const STALE_MS = 24 * 3600_000;

const MB = 1024 * 1024;

let open = 0;
let bytesOpen = 0;

/**
 * Writes a request's body to disk and hands it to `use`; whatever lies in its folder is removed afterwards. What `use`
 * refuses with a sentence is answered with 422.
 * @param limits in place of the usual ones, for tests: bytes of a file, and milliseconds of silence
 */
export async function receive<T>(
  request: Readable & { headers?: { 'content-length'?: string } },
  name: string,
  use: (file: IncomingFile & { size: number }) => Promise<T>,
  { most = MAX_BYTES, silence = SILENCE_MS } = {},
): Promise<T> {
  const told = Number(request.headers?.['content-length'] ?? 0);
  const tooLarge = () =>
    new PayloadTooLargeException(
      `"${name}" is larger than the ${most / MB} MB that are taken. Save it smaller and import it again.`,
    );
  if (told > most) throw tooLarge();
  if (open >= MOST_AT_ONCE || bytesOpen + told > MOST_BYTES_AT_ONCE)
    throw new TooMany(`Too many files are coming in at once. Send "${name}" again in a moment.`);
  let size = 0;
  open++;
  try {
    return await inFolder(async (folder) => {
      const path = join(folder, 'file');
      const out = await openFile(path, 'w');
      try {
        for await (const piece of unlessSilent(request, name, silence)) {
          size += piece.length;
          bytesOpen += piece.length;
          if (size > most) throw tooLarge();
          await out.write(piece);
        }
      } finally {
        await out.close();
      }
      return refusing(() => use({ name, path, size }));
    });
  } finally {
    open--;
    bytesOpen -= size;
  }
}

/** Bytes that are here already, as a file that came in. */
export function asIncoming<T>(
  name: string,
  bytes: Uint8Array,
  use: (file: IncomingFile & { size: number }) => Promise<T>,
): Promise<T> {
  return inFolder(async (folder) => {
    const path = join(folder, 'file');
    await writeFile(path, bytes);
    return refusing(() => use({ name, path, size: bytes.length }));
  });
}

/** A folder of one's own while something is done with files in it. */
export async function inFolder<T>(use: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), PREFIX));
  try {
    return await use(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function refusing<T>(use: () => Promise<T>): Promise<T> {
  try {
    return await use();
  } catch (error) {
    if (error instanceof RefusedPicture) throw new UnprocessableEntityException(error.message);
    if (error instanceof BusyError) throw new TooMany(error.message);
    throw error;
  }
}

/** A request's bytes. It is left open where reading ends early: whoever sends it is still to be answered. */
async function* unlessSilent(request: Readable, name: string, silence: number): AsyncGenerator<Buffer> {
  const pieces = request[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
  for (;;) {
    let timer: NodeJS.Timeout | undefined;
    const silent = new Promise<never>((_, reject) => {
      timer = setTimeout(
        () =>
          reject(
            new RequestTimeoutException(
              `Nothing more of "${name}" came for ${silence / 1000} seconds. Send it again.`,
            ),
          ),
        silence,
      );
    });
    try {
      const { done, value } = await Promise.race([pieces.next(), silent]);
      if (done) return;
      yield value;
    } finally {
      clearTimeout(timer);
    }
  }
}

/** Cuts off who begins a request and does not go on with it; an upload is told why before (`receive`). */
export function cutSlowBodies(request: Request, _: Response, next: NextFunction): void {
  if (request.method !== 'GET' && request.method !== 'HEAD') {
    const { socket } = request;
    const cut = () => socket.destroy();
    socket.setTimeout(SILENCE_MS * 1.5, cut);
    request.once('close', () => socket.setTimeout(0).off('timeout', cut));
    request.once('end', () => socket.setTimeout(0).off('timeout', cut));
  }
  next();
}

/** Removes what a server that was killed left behind. */
export async function clearStale(): Promise<void> {
  for (const name of await readdir(tmpdir())) {
    if (!name.startsWith(PREFIX)) continue;
    const path = join(tmpdir(), name);
    const { mtimeMs } = await stat(path).catch(() => ({ mtimeMs: Date.now() }));
    if (Date.now() - mtimeMs > STALE_MS)
      await rm(path, { recursive: true, force: true }).catch(() => undefined);
  }
}
