import { act, render } from '@testing-library/react';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import useSWR, { SWRConfig } from 'swr';
import { setRevision } from '../documents/open-revisions';
import { useServerEvents } from './events';

/** The server's line of events, opened and spoken into by a test. */
class Line {
  static last: Line;
  onopen: (() => void) | null = null;
  onmessage: ((message: { data: string }) => void) | null = null;
  closed = false;
  constructor(readonly url: string) {
    Line.last = this;
  }
  close() {
    this.closed = true;
  }
  says(event: object) {
    act(() => this.onmessage?.({ data: JSON.stringify(event) }));
  }
}

const PATHS = [
  '/api/listings',
  '/api/listings/l1/board?x',
  '/api/photos',
  '/api/products',
  '/api/shots/s1',
  '/api/recipes',
];
let fetched: string[] = [];

function Watcher({ path }: { path: string }) {
  useSWR(path, (key: string) => {
    fetched.push(key);
    return key;
  });
  return null;
}
function Screen() {
  useServerEvents();
  return PATHS.map((path) => <Watcher key={path} path={path} />);
}

/** Shows what watches every path; gives what is fetched from then on, once a moment has passed. */
async function watching() {
  const shown = render(
    <SWRConfig value={{ dedupingInterval: 0 }}>
      <Screen />
    </SWRConfig>,
  );
  await act(() => Promise.resolve());
  fetched = [];
  const moment = async () => {
    await act(async () => {
      jest.advanceTimersByTime(300);
      await Promise.resolve();
    });
    const list = [...new Set(fetched)].sort();
    fetched = [];
    return list;
  };
  return { ...shown, line: Line.last, moment };
}

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { EventSource: Line });
});
afterEach(() => void jest.useRealTimers());

test('the line is opened once and closed when the screen goes', async () => {
  const { line, unmount } = await watching();
  expect(line.url).toBe('/api/events');
  unmount();
  expect(line.closed).toBe(true);
});

test('an open document is only fetched for a revision that this window does not have', async () => {
  setRevision('shot', 's1', 4);
  const { line, moment } = await watching();
  line.says({ topic: 'shot', id: 's1', revision: 4 });
  line.says({ topic: 'shot', id: 'never-open', revision: 9 });
  expect(await moment()).toEqual([]);
  line.says({ topic: 'shot', id: 's1', revision: 5 });
  expect(await moment()).toEqual(['/api/shots/s1']);
});

test('what follows from an event is fetched too, once for many events of a moment', async () => {
  const { line, moment } = await watching();
  for (let i = 0; i < 20; i++) line.says({ topic: 'photo', id: `p${i}` });
  const list = await moment();
  expect(list).toEqual(['/api/listings', '/api/listings/l1/board?x', '/api/photos', '/api/products']);
  line.says({ topic: 'recipe', id: 'r1' });
  expect(await moment()).toEqual(['/api/recipes']);
});

test('a finished picture changes how boards stand, and nothing that they are made of', async () => {
  const { line, moment } = await watching();
  line.says({ topic: 'delivery', id: 'd1' });
  expect(await moment()).toEqual(['/api/listings/l1/board?x']);
});

test('after the line was cut everything on the screen is fetched anew', async () => {
  const { line, moment } = await watching();
  act(() => line.onopen?.());
  expect(await moment()).toEqual([]);
  act(() => line.onopen?.());
  expect(await moment()).toEqual([...PATHS].sort());
});
