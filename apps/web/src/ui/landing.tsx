import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';
import { msg } from '../language/language';

/** Puts the focus on the content of the screen; false where there is none yet. */
export function landOnContent(): boolean {
  const main = document.querySelector('main');
  if (!main) return false;
  if (!main.hasAttribute('tabindex')) main.tabIndex = -1;
  main.focus({ preventScroll: true });
  return true;
}

/** Whether somebody works already where they have come: in the content, or in a dialog over it. */
const hasLanded = () => !!document.activeElement?.closest('main, [role$="dialog"]');

/**
 * After a change of the screen the keyboard goes on in its content, not in the bar or nowhere: as soon as there is some,
 * and unless a field there has taken the focus. The first screen is left to the browser.
 */
export function useLanding() {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    if (before.current === pathname) return;
    before.current = pathname;
    const land = () => hasLanded() || landOnContent();
    if (land()) return;
    const left = document.activeElement;
    /** Somebody has begun with something else meanwhile. */
    const busy = () => ![document.body, left].includes(document.activeElement);
    const watch = new MutationObserver(() => {
      if (busy() || land()) watch.disconnect();
    });
    watch.observe(document.body, { childList: true, subtree: true });
    return () => watch.disconnect();
  }, [pathname]);
}

/** The first thing that Tab reaches: past the bar, to the content. */
export function SkipLink() {
  return (
    <button
      type="button"
      className="bg-ink absolute top-2 left-2 z-[80] -translate-y-16 rounded-md px-3 py-1.5 font-medium text-white focus:translate-y-0"
      onClick={landOnContent}
    >
      {msg('Skip to the content')}
    </button>
  );
}
