import { useMemo, useRef } from 'react';
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
