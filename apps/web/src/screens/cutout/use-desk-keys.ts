import { useEffect, useRef } from 'react';
import { useKeyNotes, type Action } from '../../ui/actions';
import { isSilenced } from '../../ui/keys';
import { OTHER_KEYS } from './tools';

interface Hands {
  zoomBy(factor: number): void;
  brushBy(factor: number): void;
  closePath(): void;
  giveUp(): void;
  remove(): void;
}

/** The desk's keys: the single letters of its actions, and what has no action of its own. */
export function useDeskKeys(actions: readonly Action[], hands: Hands): void {
  useKeyNotes('cutout', OTHER_KEYS);
  const now = useRef({ actions, hands });
  useEffect(() => {
    now.current = { actions, hands };
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (
        (e.target as HTMLElement).closest(
          'input, textarea, [role$="dialog"], [role="menu"], [role="listbox"]',
        )
      )
        return;
      if (isSilenced(e)) return;
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl || e.altKey) return;
      const { zoomBy, brushBy, closePath, giveUp, remove } = now.current.hands;
      const other: Record<string, () => void> = {
        '+': () => zoomBy(1.5),
        '=': () => zoomBy(1.5),
        '-': () => zoomBy(1 / 1.5),
        '.': () => brushBy(1.25),
        ',': () => brushBy(0.8),
        Enter: closePath,
        Escape: giveUp,
        Delete: remove,
        Backspace: remove,
      };
      const key = e.key.toLowerCase();
      const named = now.current.actions.find((a) => a.keys?.length === 1 && a.keys.toLowerCase() === key);
      if (named) named.run();
      else other[e.key]?.();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
