import { useCallback, useMemo } from 'react';
import { isGround, type ShotElement } from '@scenograph/core/elements/index';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { isProduct } from '@scenograph/core/elements/product/model';
import type { ProductData } from '@scenograph/core/data/product-data';
import { alignMoves, distributeMoves, sameSizeBoxes, type Alignment } from '@scenograph/core/shot/align';
import type { Shot } from '@scenograph/core/shot/document';
import { resolveBase, resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { trueSizeBox } from '@scenograph/core/stage/stand';
import type { Box } from '@scenograph/core/vector/box';
import * as commands from './commands';
import { patchElement, type SlotTarget } from './editing';
import { movedBy, placed } from './moves';
import { useStage } from './store';
import { useGestures } from './use-gestures';
import { msg } from '../../language/language';

/** Everything that may be done to the elements on the stage, in the base or in the slot that is shown. */
export function useEditing(
  resolved: ResolvedShot | null,
  target: SlotTarget | null,
  data: ProductData | null,
  onAdded: (element: ShotElement) => void,
) {
  const { guides, now, drag, transform } = useGestures(resolved, target);
  const { patch, during } = usePatches(target);
  const moves = useMoves(target, data);
  const { freshly } = moves;

  /** Numbers are taken as they are written; what is linked moves by as much. */
  const place = (label: string, element: ShotElement, box: Box, proportional: boolean) => {
    const change = placed(now.current!, element, box, proportional, target);
    useStage.getState().edit(`${label} ${element.name}`, change);
  };
  const trueSize = useCallback(() => {
    const at = freshly();
    const element = at?.elements.find((e) => e.id === useStage.getState().selected);
    if (!at || !(element && isProduct(element))) return;
    const box = trueSizeBox(element, groundOf(at.elements), at);
    if (box) place(msg('True size of'), element, box, true);
  }, [freshly, target]);
  const add = useCallback((make: (shot: Shot) => ShotElement) => onAdded(commands.add(make)), [onAdded]);
  return useMemo(
    () => ({ ...commands, ...moves, guides, patch, during, drag, transform, place, add, trueSize }),
    // Gestures read what they need through refs: only what is shown makes a new set.
    [guides, patch, during, moves, add, trueSize],
  );
}

export type Editing = ReturnType<typeof useEditing>;

/** Values of the chosen element, finished or while they are dragged. */
function usePatches(target: SlotTarget | null) {
  return useMemo(() => {
    const change = (value: Partial<ShotElement>) => {
      const { selected: id } = useStage.getState();
      return id ? (s: Shot) => patchElement(s, id, value, target) : null;
    };
    return {
      patch(label: string, value: Partial<ShotElement>) {
        const make = change(value);
        if (make) useStage.getState().finish(label, make);
      },
      during(value: Partial<ShotElement>) {
        const make = change(value);
        if (make) useStage.getState().during(make);
      },
    };
  }, [target]);
}

/** Moves by key and by command, from where things are now. */
function useMoves(target: SlotTarget | null, data: ProductData | null) {
  return useMemo(() => {
    const freshly = (): ResolvedShot | null => {
      const { document } = useStage.getState();
      if (!document) return null;
      return target ? resolveForSlot(document, target.key, target.slot, data) : resolveBase(document, data);
    };
    /** Moves of all chosen elements as one step. */
    const moveAll = (
      label: string,
      moves: (chosen: ShotElement[]) => Map<string, { x: number; y: number }>,
    ) => {
      const { selected, also } = useStage.getState();
      const at = freshly();
      if (!at || !selected) return;
      const chosen = [selected, ...also].flatMap((id) => at.elements.find((e) => e.id === id) ?? []);
      const list = [...moves(chosen.filter((e) => !e.locked && !isGround(e)))];
      useStage
        .getState()
        .edit(label, (shot) => list.reduce((s, [id, by]) => movedBy(at, id, by.x, by.y, target)(s), shot));
    };
    return {
      freshly,
      /** All that are chosen get the first one's width or height, in their own proportions. */
      sameSize(side: 'width' | 'height') {
        const { selected, also } = useStage.getState();
        const at = freshly();
        if (!at || !selected) return;
        const chosen = [selected, ...also].flatMap((id) => at.elements.find((e) => e.id === id) ?? []);
        const boxes = sameSizeBoxes(
          chosen.filter((e) => !e.locked && !isGround(e)),
          side,
        );
        const change = (shot: Shot) =>
          chosen.reduce((s, e) => {
            const box = boxes.get(e.id);
            return box ? placed(at, e, box, true, target)(s) : s;
          }, shot);
        useStage.getState().edit(msg('Same {side}', { side }), change);
      },
      /** Moves the chosen element; steps of a held key are one step of history. */
      nudge(dx: number, dy: number) {
        const { selected: id } = useStage.getState();
        const at = freshly();
        const element = at?.elements.find((e) => e.id === id);
        if (!at || !element || element.locked || isGround(element)) return;
        useStage
          .getState()
          .repeat(msg('Nudge {element}', { element: element.name }), movedBy(at, element.id, dx, dy, target));
      },
      align: (how: Alignment) => moveAll(msg('Align by {how}', { how }), (chosen) => alignMoves(chosen, how)),
      distribute: (axis: 'x' | 'y') =>
        moveAll(axis === 'x' ? msg('Distribute across') : msg('Distribute down'), (chosen) =>
          distributeMoves(chosen, axis),
        ),
    };
  }, [target, data]);
}
