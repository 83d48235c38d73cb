import { useEffect } from 'react';
import { useStage } from './store';

/** The stage's keys: duplicate, remove, nudge, let go. */
export function useStageKeys({
  nudge,
  remove,
  duplicate,
}: {
  nudge(dx: number, dy: number): void;
  remove(): void;
  duplicate(): void;
}): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = (e.target as HTMLElement).closest(
        'input, textarea, [role="slider"], [role="dialog"], [role="menu"], [role="listbox"]',
      );
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl && e.key.toLowerCase() === 'd' && !typing) {
        e.preventDefault();
        duplicate();
        return;
      }
      if (typing || ctrl || e.altKey) return;
      const step = e.shiftKey ? 10 : 1;
      const arrows: Record<string, [number, number]> = {
        ArrowLeft: [-step, 0],
        ArrowRight: [step, 0],
        ArrowUp: [0, -step],
        ArrowDown: [0, step],
      };
      const inStrip = (e.target as HTMLElement).closest(
        '[data-radix-collection-item], [aria-roledescription="sortable"]',
      );
      if (arrows[e.key] && !inStrip) {
        e.preventDefault();
        nudge(...arrows[e.key]);
      }
      if (e.key === 'Delete' || e.key === 'Backspace') remove();
      if (e.key === 'Escape') useStage.getState().select(null);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [nudge, remove, duplicate]);
}
