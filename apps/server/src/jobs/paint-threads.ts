import { fileURLToPath } from 'node:url';
import { HttpException } from '@nestjs/common';
import type { Response } from 'express';
import { Piscina } from 'piscina';
import { TooMany } from '../http/refusals';
import type { Task, ResultOf } from './paint-thread';

export const THREADS = Symbol('threads');

/** Pictures that may wait for a thread; what is asked for beyond is refused for now. */
const MOST_WAITING = 40;

/** Pictures that somebody waits for just now. */
let painting = 0;

/** A pool of threads that paint; none is started before there is work. */
export function paintThreads(most: number): Piscina {
  return new Piscina({
    filename: fileURLToPath(new URL('./paint-thread.mjs', import.meta.url)),
    minThreads: 0,
    maxThreads: most,
    idleTimeout: 60_000,
  });
}

/**
 * Paints for somebody who waits: in a thread, so that nobody else does; given up where they leave. Refused with 429 where
 * too many wait already.
 */
export async function paintFor<T extends Task>(
  threads: Piscina,
  task: T,
  response?: Response,
): Promise<ResultOf<T>> {
  if (painting >= MOST_WAITING)
    throw new TooMany('Too many pictures are being painted at once. Try again in a moment.');
  painting++;
  const leaving = new AbortController();
  const leave = () => leaving.abort();
  response?.once('close', leave);
  // They may have left while the shot was read.
  if (response?.destroyed) leave();
  try {
    return (await threads.run(task, { signal: leaving.signal })) as ResultOf<T>;
  } catch (error) {
    if (leaving.signal.aborted) throw new HttpException('Nobody waits for this any more.', 499);
    throw error;
  } finally {
    painting--;
    response?.off('close', leave);
  }
}
