import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, render, screen } from '@testing-library/react';
import { layOut } from '../../test/lay-out';
import { VirtualGrid } from './virtual-grid';

const names = Array.from({ length: 500 }, (_, i) => `Photo ${i}`);
const RealObserver = window.ResizeObserver;

/** Every element is 1200 pixels wide and high. */
class Laid {
  constructor(private readonly tell: ResizeObserverCallback) {}
  observe(target: Element) {
    const size = { width: 1200, height: 1200 };
    this.tell([{ target, contentRect: size } as ResizeObserverEntry], this);
  }
  unobserve() {}
  disconnect() {}
}

beforeEach(() => {
  layOut();
  window.ResizeObserver = Laid;
});
afterEach(() => {
  window.ResizeObserver = RealObserver;
});

const show = (items: string[]) =>
  render(
    <main>
      <VirtualGrid items={items} idOf={(name) => name} least={286} usual={1200}>
        {(name) => <b>{name}</b>}
      </VirtualGrid>
    </main>,
  );
const shown = () => screen.getAllByRole('listitem').map((li) => li.textContent);

test('only the rows near the view are in the page, in as many columns as there is room for', () => {
  show(names);
  const first = shown();
  // Four columns of at least 286 pixels; a row in view and two beyond.
  expect(first).toEqual(names.slice(0, first.length));
  expect(first.length % 4).toBe(0);
  expect(first.length).toBeLessThanOrEqual(20);
});

test('what comes into view is there, at its place among all', async () => {
  show(names);
  const main = screen.getByRole('main');
  screen.getByRole('list').getBoundingClientRect = () => new DOMRect(0, -main.scrollTop, 1200, 1200);
  await act(async () => {
    main.scrollTop = 60 * 1214;
    main.dispatchEvent(new Event('scroll'));
    await new Promise((done) => setTimeout(done, 50));
  });
  const item = screen.getByText('Photo 240').closest('li')!;
  expect(item.getAttribute('aria-posinset')).toBe('241');
  expect(item.getAttribute('aria-setsize')).toBe('500');
  expect(shown()).not.toContain('Photo 0');
});

test('few are all shown, none is an empty list', () => {
  show(names.slice(0, 3));
  expect(shown()).toEqual(['Photo 0', 'Photo 1', 'Photo 2']);
  show([]);
  expect(screen.getAllByRole('list')[1].children).toHaveLength(0);
});

test('before there is a layout only a screenful is made', () => {
  window.ResizeObserver = class extends Laid {
    override observe() {}
  };
  show(names);
  expect(shown()).toEqual(names.slice(0, 60));
});
