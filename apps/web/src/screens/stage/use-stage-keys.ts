import { useEffect } from 'react';
import { useKeyNotes } from '../../ui/actions';
import { ownerOfKeys, type KeyNotes } from '../../ui/keys';
import { kindUi } from './kinds/index';
import { useStage } from './store';
import { msg } from '../../language/language';

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const NOTES: KeyNotes = [
  [msg('Arrows'), msg('Move what is chosen by a pixel, with Shift by ten')],
  [msg('Shift and click'), msg('Choose several')],
  [msg('Alt and drag'), msg('Drag without snapping')],
  [msg('Ctrl C, X, V'), msg('Copy, cut, paste')],
  [msg('Space and drag'), msg('Move the view')],
  ['Enter', msg('Work on the content of what is chosen (or double click); Escape comes out')],
  ['Escape', msg('Choose nothing')],
];

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
  useKeyNotes('stage', NOTES);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.defaultPrevented) return;
      const owner = ownerOfKeys(e.target);
      if (owner === 'field') return;
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl && e.key.toLowerCase() === 'd') {
        e.preventDefault();
        duplicate();
      }
      if (ctrl || e.altKey) return;
      const [dx, dy] = ARROWS[e.key] ?? [0, 0];
      if ((dx || dy) && owner !== 'arrows') {
        e.preventDefault();
        const step = e.shiftKey ? 10 : 1;
        nudge(dx * step, dy * step);
      }
      if (e.key === 'Delete' || e.key === 'Backspace') {
        const slat = (e.target as Element).closest?.<HTMLElement>('[data-slat]')?.dataset.slat;
        if (slat) useStage.getState().select(slat);
        // On a button it would remove what one is not looking at.
        if (slat || owner === 'screen') remove();
      }
      if (e.key === 'Enter' && owner === 'screen') {
        const { document, selected, goInside } = useStage.getState();
        const element = document?.elements.find((x) => x.id === selected);
        if (element && !element.locked && kindUi(element).Inside) {
          e.preventDefault();
          goInside(element.id);
        }
      }
      if (e.key === 'Escape') useStage.getState().select(null);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [nudge, remove, duplicate]);
}
