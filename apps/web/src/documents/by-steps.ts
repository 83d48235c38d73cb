/** Keys that change a value a step at a time, and again while they are held. */
const STEPPING = new Set([
  ...['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'PageUp', 'PageDown'],
  ...['+', '-', '=', '[', ']'],
]);

let stepping = false;
let watched = false;

/**
 * Whether what happens now comes from such a key or from the wheel. Its changes follow one another at once, and are one
 * step to be undone, whatever control they went through: a slider, a number, a handle, the content of an element.
 */
export function isByStep(): boolean {
  return stepping;
}

/** Begins to listen for them, once. */
export function watchSteps(): void {
  if (watched) return;
  watched = true;
  const begin = () => {
    stepping = true;
    // After everybody has heard the event.
    setTimeout(() => (stepping = false));
  };
  window.addEventListener('keydown', (e) => STEPPING.has(e.key) && !e.ctrlKey && !e.metaKey && begin(), true);
  window.addEventListener('wheel', begin, { capture: true, passive: true });
}
