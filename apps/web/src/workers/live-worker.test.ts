import { expect, test } from '@jest/globals';
import { expose, type Endpoint } from 'comlink';
import { liveWorker, runWorker } from './live-worker';

interface Sum {
  add(a: number, b: number): number;
  never(): Promise<void>;
}

/** Two ends between which messages go, as between a page and its worker. */
function channel(): [Endpoint, Endpoint] {
  const [a, b] = [new EventTarget(), new EventTarget()];
  const end = (mine: EventTarget, other: EventTarget): Endpoint => ({
    postMessage: (data: unknown) =>
      queueMicrotask(() => other.dispatchEvent(new MessageEvent('message', { data }))),
    addEventListener: mine.addEventListener.bind(mine),
    removeEventListener: mine.removeEventListener.bind(mine),
  });
  return [end(a, b), end(b, a)];
}

/** Stands in for a worker; it can be made to break down. */
function fakeWorker() {
  const [page, thread] = channel();
  expose(
    { add: (a: number, b: number) => a + b, never: () => new Promise(() => undefined) } satisfies Sum,
    thread,
  );
  const broken = new EventTarget();
  let ended = false;
  const worker = {
    ...page,
    addEventListener: (type: string, listener: EventListener) =>
      (type === 'error' ? broken : page).addEventListener(type, listener),
    terminate: () => (ended = true),
  };
  return {
    worker: worker as unknown as Worker,
    breakDown: () => broken.dispatchEvent(new Event('error')),
    ended: () => ended,
  };
}

test('it is started when it is first asked, and once', async () => {
  let opened = 0;
  const made = fakeWorker();
  const sums = liveWorker<Sum>(() => (opened++, made.worker));
  expect(opened).toBe(0);
  expect(await sums.ask((w) => w.add(2, 3))).toBe(5);
  expect(await sums.ask((w) => w.add(4, 5))).toBe(9);
  expect(opened).toBe(1);
});

test('what was asked when it broke down is refused with a sentence; what is asked next goes to a new one', async () => {
  const made = [fakeWorker(), fakeWorker()];
  let opened = 0;
  const sums = liveWorker<Sum>(() => made[opened++].worker);
  const lost = sums.ask((w) => w.never());
  made[0].breakDown();
  await expect(lost).rejects.toThrow(/stopped working. Try again/);
  expect(made[0].ended()).toBe(true);
  expect(await sums.ask((w) => w.add(1, 1))).toBe(2);
  expect(opened).toBe(2);
});

test('a worker of one’s own tells when it stops, and is ended by hand', async () => {
  const first = fakeWorker();
  const running = runWorker<Sum>(() => first.worker);
  expect(await running.remote.add(1, 2)).toBe(3);
  running.end();
  expect(first.ended()).toBe(true);
  const second = fakeWorker();
  const broken = runWorker<Sum>(() => second.worker);
  second.breakDown();
  await expect(broken.stopped).rejects.toThrow(/Try again/);
});
