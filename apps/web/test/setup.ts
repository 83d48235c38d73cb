import 'fake-indexeddb/auto';
import '@testing-library/jest-dom/jest-globals';
import { afterAll, afterEach, beforeAll } from '@jest/globals';
import { cleanup, configure } from '@testing-library/react';
import { mutate } from 'swr';
import { server } from './server';

// A machine that does other work beside is slow, not wrong.
configure({ asyncUtilTimeout: 10_000 });

// What jsdom lacks and Radix asks for.
class Observer {
  observe(_target?: Element) {}
  unobserve() {}
  disconnect() {}
}
Blob.prototype.text ??= function (this: Blob) {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error ?? new Error('This file cannot be read.'));
    reader.readAsText(this);
  });
};

/** Everything is in view at once. */
class InView extends Observer {
  constructor(private readonly tell: IntersectionObserverCallback) {
    super();
  }
  override observe(target?: Element) {
    const entry = { isIntersecting: true, target } as IntersectionObserverEntry;
    queueMicrotask(() => this.tell([entry], this as unknown as IntersectionObserver));
  }
}
Object.assign(window, { ResizeObserver: Observer, IntersectionObserver: InView });
Object.assign(Element.prototype, {
  scrollIntoView() {},
  hasPointerCapture: () => false,
  setPointerCapture() {},
  releasePointerCapture() {},
});

beforeAll(() => server.listen({ onUnhandledRequest: 'error' }));
afterEach(async () => {
  cleanup();
  server.resetHandlers();
  // The next test has fetched nothing yet.
  await mutate(() => true, undefined, { revalidate: false });
});
afterAll(() => server.close());
