import { wrap, type Remote } from 'comlink';

/** What was asked of a worker that broke down meanwhile. */
export class WorkerStopped extends Error {
  constructor() {
    super('The part of Scenograph that computes in the background stopped working. Try again.');
  }
}

export interface Running<T> {
  remote: Remote<T>;
  /** Rejected with WorkerStopped when the worker breaks down, or could not be fetched at all. */
  stopped: Promise<never>;
  end(): void;
}

/** Starts a worker and watches whether it lives. */
export function runWorker<T>(open: () => Worker): Running<T> {
  const raw = open();
  const stopped = new Promise<never>((_, reject) => {
    raw.addEventListener('error', () => {
      raw.terminate();
      reject(new WorkerStopped());
    });
  });
  // Whoever waits for nothing hears nothing of it.
  stopped.catch(() => undefined);
  return { remote: wrap<T>(raw), stopped, end: () => raw.terminate() };
}

/**
 * A worker that is started when it is first asked, and anew when it is asked after it has broken down: what it was asked
 * when it did is refused.
 */
export function liveWorker<T>(open: () => Worker) {
  let running: Running<T> | null = null;
  return {
    ask<R>(job: (remote: Remote<T>) => Promise<R>): Promise<R> {
      if (!running) {
        const begun = runWorker<T>(open);
        running = begun;
        begun.stopped.catch(() => {
          if (running === begun) running = null;
        });
      }
      return Promise.race([job(running.remote), running.stopped]);
    },
  };
}
