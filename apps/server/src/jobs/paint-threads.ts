import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';

export const THREADS = Symbol('threads');

/** A pool of threads that paint; none is started before there is work. */
export function paintThreads(most: number): Piscina {
  return new Piscina({
    filename: fileURLToPath(new URL('./paint-thread.mjs', import.meta.url)),
    minThreads: 0,
    maxThreads: most,
    idleTimeout: 60_000,
  });
}
