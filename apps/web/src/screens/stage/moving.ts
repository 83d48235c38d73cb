import { useLayoutEffect, useRef } from 'react';
import type { ShotElement } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { create } from 'zustand';
import { useStage } from './store';

/**
 * While something is dragged on the picture, only the picture and the numbers that are dragged follow at once. Bars, strips
 * and the desk stay as they were and come after: React would otherwise draw all of the stage at every move of the pointer.
 */
interface Moving {
  /** Something is dragged or scaled by its handles. */
  on: boolean;
  /** The chosen element as it is now; null while nothing is dragged. */
  element: ShotElement | null;
}

export const useMoving = create<Moving>(() => ({ on: false, element: null }));

/** Whether something is dragged on the picture; a gesture that was given up is over. */
export function useIsMoving(): boolean {
  const on = useMoving((s) => s.on);
  const going = useStage((s) => s.gestureBase !== null);
  return on && going;
}

/** Tells the numbers of the chosen element where it is by now. */
export function useTellMoving(resolved: ResolvedShot | null, selected: string | null, moving: boolean): void {
  useLayoutEffect(() => {
    const element = moving ? (resolved?.elements.find((e) => e.id === selected) ?? null) : null;
    if (useMoving.getState().element !== element) useMoving.setState({ element });
  }, [resolved, selected, moving]);
}

/** The element as it is dragged right now, or as it is given. */
export function useMoved<E extends ShotElement>(element: E): E {
  const moved = useMoving((s) => s.element);
  return moved?.id === element.id && moved.kind === element.kind ? (moved as E) : element;
}

/** A value as it was before something was held, until it is let go. */
export function useHeld<T>(value: T, held: boolean): T {
  const kept = useRef(value);
  if (!held) kept.current = value;
  return kept.current;
}
