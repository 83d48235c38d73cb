import 'fake-indexeddb/auto';
import '@testing-library/jest-dom/jest-globals';
import { afterAll, afterEach, beforeAll } from '@jest/globals';
import { cleanup } from '@testing-library/react';
import { server } from './server';

// What jsdom lacks and Radix asks for.
class Observer {
  observe() {}
  unobserve() {}
  disconnect() {}
}
Object.assign(window, { ResizeObserver: Observer });
Object.assign(Element.prototype, {
  scrollIntoView() {},
  hasPointerCapture: () => false,
  setPointerCapture() {},
  releasePointerCapture() {},
});

beforeAll(() => server.listen({ onUnhandledRequest: 'error' }));
afterEach(() => {
  cleanup();
  server.resetHandlers();
});
afterAll(() => server.close());
