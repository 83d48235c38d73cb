import { useEffect, useMemo, useRef } from 'react';
import { landOnContent } from './landing';

/**
 * For a dialog that no button of its own opens: the focus goes back to where it was, or to the screen's content where that
 * is gone. Without it the keyboard would begin again at the top of the page.
 */
export function useReturnFocus() {
  const from = useRef<Element | null>(null);
  return useMemo(
    () => ({
      onOpenAutoFocus() {
        from.current = document.activeElement;
      },
      onCloseAutoFocus(e: Event) {
        e.preventDefault();
        // What was done there may have put the focus elsewhere on purpose.
        if (document.activeElement && document.activeElement !== document.body) return;
        const back = from.current;
        if (back instanceof HTMLElement && back.isConnected && back !== document.body) back.focus();
        else landOnContent();
      },
    }),
    [],
  );
}

/** For a field or layer that goes by itself when one is done with it: the keyboard goes on in the screen's content. */
export function useLeaveToContent() {
  useEffect(
    () => () => {
      if (document.activeElement === document.body) landOnContent();
    },
    [],
  );
}
