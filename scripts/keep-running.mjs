/** Processes that are started again when they end without having been told to. */

/** So many times within so many milliseconds it is started again before it is given up. */
const TRIES = 5;
const WITHIN = 60_000;
/** Milliseconds before the first new start; twice as long before each further one. */
const PAUSE = 250;

/**
 * @param {string} name what it is called when it ends
 * @param {() => { child: import('node:child_process').ChildProcess, ready: Promise<unknown> }} start
 * @param {{ stopping(): boolean, giveUp(): void, say?(text: string): void }} hooks `stopping` is asked whether it was
 * told to end; `giveUp` is called once it has ended too often
 * @returns a promise that it is ready for the first time; rejected when it never was
 */
export function keepRunning(name, start, { stopping, giveUp, say = console.error }) {
  let ends = [];
  let ran = false;
  const begin = () => {
    const { child, ready } = start();
    void ready.then(
      () => (ran = true),
      () => undefined,
    );
    child.once('exit', () => {
      // What never ran is told by the promise: to start it again would not mend it.
      if (stopping() || !ran) return;
      ends = [...ends.filter((at) => at > Date.now() - WITHIN), Date.now()];
      if (ends.length > TRIES) {
        say(`${name} ended ${ends.length} times within a minute; giving up.`);
        giveUp();
        return;
      }
      say(`${name} ended unexpectedly and is started again.`);
      setTimeout(() => !stopping() && begin().catch(() => undefined), PAUSE * 2 ** (ends.length - 1));
    });
    return ready;
  };
  return begin();
}
