/** jsdom lays nothing out: from here on every element is as large as a window, so that lists show what would be in view. */
export function layOut(): void {
  for (const side of ['clientWidth', 'clientHeight', 'offsetWidth', 'offsetHeight'])
    Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => 1200 });
}
