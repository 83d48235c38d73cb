import { useRef, useState } from 'react';
import { guidesIn } from '@scenograph/core/shot/guides';
import type { Shot } from '@scenograph/core/shot/document';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { Guide } from '@scenograph/core/stage/snap';
import type { Box } from '@scenograph/core/vector/box';
import { placeElement, type SlotTarget } from './editing';
import { baseLike, movedBy, snapped } from './moves';
import { useMoving } from './moving';
import { useStage } from './store';
import { msg } from '../../language/language';

/** Dragging and scaling on the stage: each a gesture, which changes from where things were when it began. */
export function useGestures(resolved: ResolvedShot | null, target: SlotTarget | null) {
  const [guides, setGuides] = useState<Guide[]>([]);
  const begun = useRef<ResolvedShot | null>(null);
  const now = useRef(resolved);
  now.current = resolved;

  /** @param label what the step is called when it is done; null while it goes on */
  const gesture = (change: (from: ResolvedShot) => (shot: Shot) => Shot, label: string | null) => {
    begun.current ??= now.current;
    const from = begun.current;
    if (!from) return;
    if (label === null) {
      if (!useMoving.getState().on) useMoving.setState({ on: true });
      return useStage.getState().during(change(from));
    }
    begun.current = null;
    useMoving.setState({ on: false });
    setGuides([]);
    useStage.getState().finish(label, change(from));
  };
  const grabbed = (id: string) => {
    const from = begun.current ?? now.current;
    const element = from?.elements.find((e) => e.id === id);
    return from && element ? { from, element } : null;
  };
  return {
    guides,
    now,
    /** Dragged by dx, dy frame pixels since it was grabbed; `snap` is the reach in frame pixels, 0 for none. */
    drag(id: string, dx: number, dy: number, snap: number, done: boolean) {
      const at = grabbed(id);
      if (!at) return;
      const to = snapped(at.from, at.element, dx, dy, snap, guidesIn(useStage.getState().document!, at.from));
      if (snap > 0) setGuides(done ? [] : to.guides);
      gesture(
        (f) => movedBy(f, id, to.dx, to.dy, target),
        done ? msg('Move {element}', { element: at.element.name }) : null,
      );
    },
    transform(id: string, box: Box, proportional: boolean, done: boolean) {
      const element = grabbed(id)?.element;
      if (!element) return;
      const word = element.box.rotation !== box.rotation ? msg('Rotate') : msg('Scale');
      gesture(
        () => (s) => placeElement(s, baseLike(s, element, target), box, target, proportional, element),
        done ? `${word} ${element.name}` : null,
      );
    },
  };
}
