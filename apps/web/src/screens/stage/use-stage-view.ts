import { useEffect, useMemo, useState, type MouseEvent, type PointerEvent, type RefObject } from 'react';
import type { Box } from '@scenograph/core/vector/box';
import { useActions, type Action } from '../../ui/actions';
import { isSilenced, ownerOfKeys } from '../../ui/keys';
import { toggleAlone } from './alone';
import { toggleGrid, toggleRulers } from './rulers';
import { boxView, fitView, movedView, zoomedView, type StageView } from './stage-view';
import { msg } from '../../language/language';

interface Size {
  width: number;
  height: number;
}

/** One press of a key or a button. */
const STEP = 1.5;
const MIDDLE = { x: 0, y: 0 };

/**
 * How the stage is looked at: fitted until one zooms (wheel, pinch, keys, buttons) or moves it (Space and drag, middle
 * button). A frame of another size is fitted again.
 * @param chosen the box that is fitted by "Fit what is chosen"; null where nothing is
 */
export function useStageView(
  room: RefObject<HTMLElement | null>,
  size: Size,
  frame: Size,
  chosen: Box | null,
) {
  const key = `${frame.width}x${frame.height}`;
  const [looked, setLooked] = useState<{ key: string; view: StageView } | null>(null);
  const fitted = useMemo(() => fitView(size, frame), [size, frame.width, frame.height]);
  const view = looked?.key === key ? looked.view : fitted;
  const set = (next: StageView | null) => setLooked(next && { key, view: next });
  const hands = {
    fit: () => set(null),
    actual: () => set({ ...view, zoom: 1 }),
    chosen: () => chosen && set(boxView(size, chosen)),
    closer: () => set(zoomedView(view, STEP, MIDDLE, fitted.zoom)),
    farther: () => set(zoomedView(view, 1 / STEP, MIDDLE, fitted.zoom)),
  };
  const pan = usePan((dx, dy) => set(movedView(view, dx, dy, frame)));

  useEffect(() => {
    const target = room.current;
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      const { left, top } = target!.getBoundingClientRect();
      const at = { x: e.clientX - left - size.width / 2, y: e.clientY - top - size.height / 2 };
      // A pinch comes as a wheel with Ctrl, in smaller steps.
      set(zoomedView(view, Math.exp(-e.deltaY * (e.ctrlKey ? 0.01 : 0.0016)), at, fitted.zoom));
    };
    target?.addEventListener('wheel', onWheel, { passive: false });
    return () => target?.removeEventListener('wheel', onWheel);
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isSilenced(e)) return;
      if (e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey || ownerOfKeys(e.target) === 'field')
        return;
      const does: Record<string, () => void> = {
        '+': hands.closer,
        '=': hands.closer,
        '-': hands.farther,
        f: hands.fit,
        F: hands.chosen,
        a: hands.actual,
        '.': toggleAlone,
        r: toggleRulers,
        g: toggleGrid,
      };
      if (!does[e.key]) return;
      e.preventDefault();
      does[e.key]();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  useActions('stage-view', useViewActions(hands));
  return {
    view,
    left: size.width / 2 - view.x * view.zoom,
    top: size.height / 2 - view.y * view.zoom,
    hands,
    pan,
  };
}

export type ViewHands = ReturnType<typeof useStageView>['hands'];

/** The same list as long as the stage is open: what it does is read when it is done. */
function useViewActions(hands: ViewHands): Action[] {
  const [now] = useState({ hands });
  now.hands = hands;
  return useMemo(
    () => [
      {
        id: 'fit',
        title: msg('Fit the picture to the view'),
        group: msg('View'),
        keys: 'F',
        run: () => now.hands.fit(),
      },
      {
        id: 'actual',
        title: msg('Actual pixels, 100 %'),
        group: msg('View'),
        keys: 'A',
        run: () => now.hands.actual(),
      },
      {
        id: 'chosen',
        title: msg('Fit what is chosen'),
        group: msg('View'),
        keys: msg('Shift F'),
        run: () => void now.hands.chosen(),
      },
      { id: 'alone', title: msg('The picture alone'), group: msg('View'), keys: '.', run: toggleAlone },
      {
        id: 'rulers',
        title: msg('Show or hide rulers and guides'),
        group: msg('View'),
        keys: 'R',
        run: toggleRulers,
      },
      { id: 'grid', title: msg('Show or hide the grid'), group: msg('View'), keys: 'G', run: toggleGrid },
      { id: 'in', title: msg('Zoom in'), group: msg('View'), keys: '+', run: () => now.hands.closer() },
      { id: 'out', title: msg('Zoom out'), group: msg('View'), keys: '-', run: () => now.hands.farther() },
    ],
    [now],
  );
}

/**
 * Moves the view with the middle button, or with Space held down.
 * @returns whether Space is held, and what the element needs that is dragged on
 */
function usePan(move: (dx: number, dy: number) => void) {
  const [space, setSpace] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== ' ') return;
      if (e.type === 'keyup') return setSpace(false);
      if (ownerOfKeys(e.target) !== 'screen') return;
      e.preventDefault();
      setSpace(true);
    };
    const letGo = () => setSpace(false);
    window.addEventListener('keydown', onKey);
    window.addEventListener('keyup', onKey);
    window.addEventListener('blur', letGo);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('keyup', onKey);
      window.removeEventListener('blur', letGo);
    };
  }, []);
  const [last] = useState<{ at: { x: number; y: number } | null }>({ at: null });
  const handlers = {
    onPointerDownCapture(e: PointerEvent<HTMLElement>) {
      if (e.button !== 1 && !(e.button === 0 && space)) return;
      e.preventDefault();
      e.stopPropagation();
      e.currentTarget.setPointerCapture(e.pointerId);
      last.at = { x: e.clientX, y: e.clientY };
    },
    // The handles' library listens to the mouse.
    onMouseDownCapture(e: MouseEvent<HTMLElement>) {
      if (last.at) e.stopPropagation();
    },
    onPointerMove(e: PointerEvent<HTMLElement>) {
      if (!last.at) return;
      move(e.clientX - last.at.x, e.clientY - last.at.y);
      last.at = { x: e.clientX, y: e.clientY };
    },
    onPointerUp() {
      last.at = null;
    },
  };
  return { space, handlers };
}
