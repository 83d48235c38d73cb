import { isProduct } from '@scenograph/core/elements/product/model';
import { useCallback, useMemo, useRef, useState } from 'react';
import { uprightBounds, type Box } from '@scenograph/core/vector/box';
import { elementKind, isGround, type ShotElement } from '@scenograph/core/elements/index';
import { alignMoves, distributeMoves, type Alignment } from '@scenograph/core/shot/align';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Shot } from '@scenograph/core/shot/document';
import { resolveBase, resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { snapBox } from '@scenograph/core/shot/snap-box';
import { snapBase, type Guide } from '@scenograph/core/stage/snap';
import { basePoint, movedOnGround, trueSizeBox } from '@scenograph/core/stage/stand';
import {
  addElement,
  moveDepth,
  newId,
  patchElement,
  placeElement,
  removeElement,
  type SlotTarget,
} from './editing';
import { useStage } from './store';

/** Everything a hand may do to the elements on the stage, in the base or in the slot that is shown. */
export function useEditing(
  resolved: ResolvedShot | null,
  target: SlotTarget | null,
  data: ProductData | null,
  onAdded: (element: ShotElement) => void,
) {
  const [guides, setGuides] = useState<Guide[]>([]);
  const begun = useRef<ResolvedShot | null>(null);
  const now = useRef(resolved);
  now.current = resolved;

  const patch = useCallback(
    (label: string, value: Partial<ShotElement>) => {
      const { selected: id } = useStage.getState();
      if (id) useStage.getState().finish(label, (s) => patchElement(s, id, value, target));
    },
    [target],
  );
  const during = useCallback(
    (value: Partial<ShotElement>) => {
      const { selected: id } = useStage.getState();
      if (id) useStage.getState().during((s) => patchElement(s, id, value, target));
    },
    [target],
  );

  /** A gesture changes from where things were when it began. */
  const gesture = (change: (from: ResolvedShot) => (shot: Shot) => Shot, label: string | null) => {
    begun.current ??= now.current;
    const from = begun.current;
    if (!from) return;
    if (label === null) useStage.getState().during(change(from));
    else {
      begun.current = null;
      setGuides([]);
      useStage.getState().finish(label, change(from));
    }
  };

  /** Moves an element and all linked with it; products on a ground keep their share of true size. */
  const moveBy = useCallback(
    (from: ResolvedShot, id: string, dx: number, dy: number) =>
      (shot: Shot): Shot =>
        movedTogether(from, id, dx, dy).reduce((s, [element, box]) => {
          const own = elementKind(element.kind).moved?.(element, dx, dy);
          return own
            ? patchElement(s, element.id, own as Partial<ShotElement>, target)
            : placeElement(s, baseLike(s, element, target), box, target, false, element);
        }, shot),
    [target],
  );

  /** Dragged by dx, dy frame pixels since it was grabbed; `snap` is the reach in frame pixels, 0 for none. */
  const drag = (id: string, dx: number, dy: number, snap: number, done: boolean) => {
    const from = begun.current ?? now.current;
    const element = from?.elements.find((e) => e.id === id);
    if (!from || !element) return;
    let [mx, my] = [dx, dy];
    if (isProduct(element) && snap > 0) {
      const at = basePoint(element);
      const ground = groundOf(from.elements);
      const linked = new Set(linkedWith(from, id).map((e) => e.id));
      const to = snapBase(
        { x: at.x + dx, y: at.y + dy },
        {
          frame: from,
          spots: ground?.spots ?? [],
          bases: from.elements.flatMap((e) =>
            isProduct(e) && !e.hidden && !linked.has(e.id) ? [{ name: e.name, ...basePoint(e) }] : [],
          ),
        },
        snap,
      );
      [mx, my] = [to.x - at.x, to.y - at.y];
      setGuides(done ? [] : to.guides);
    } else if (snap > 0 && elementKind(element.kind).role === 'overlay' && !elementKind(element.kind).moved) {
      const linked = new Set(linkedWith(from, id).map((e) => e.id));
      const others = from.elements.filter(
        (e) => !e.hidden && !e.spread && !linked.has(e.id) && elementKind(e.kind).role !== 'ground',
      );
      const b = uprightBounds(element.box);
      const to = snapBox(
        { ...b, x: b.x + dx, y: b.y + dy },
        others.map((e) => ({ name: e.name, ...uprightBounds(e.box) })),
        from,
        snap,
      );
      [mx, my] = [to.x - b.x, to.y - b.y];
      setGuides(done ? [] : to.guides);
    }
    gesture((f) => moveBy(f, id, mx, my), done ? `Move ${element.name}` : null);
  };

  const transform = (id: string, box: Box, proportional: boolean, done: boolean) => {
    const from = begun.current ?? now.current;
    const element = from?.elements.find((e) => e.id === id);
    if (!from || !element) return;
    const turned = element.box.rotation !== box.rotation;
    gesture(
      () => (s) => placeElement(s, baseLike(s, element, target), box, target, proportional, element),
      done ? `${turned ? 'Rotate' : 'Scale'} ${element.name}` : null,
    );
  };

  /** Numbers are taken as they are written; what is linked moves by as much. */
  const place = (label: string, element: ShotElement, box: Box, proportional: boolean) => {
    const { x, y, width, height, rotation } = element.box;
    const still = box.width === width && box.height === height && box.rotation === rotation;
    const others = still && now.current ? linkedWith(now.current, element.id).slice(1) : [];
    useStage
      .getState()
      .edit(`${label} ${element.name}`, (shot) =>
        others.reduce(
          (s, other) =>
            placeElement(
              s,
              baseLike(s, other, target),
              { ...other.box, x: other.box.x + box.x - x, y: other.box.y + box.y - y },
              target,
              false,
              other,
            ),
          placeElement(shot, baseLike(shot, element, target), box, target, proportional, element),
        ),
      );
  };

  const freshly = useCallback((): ResolvedShot | null => {
    const { document } = useStage.getState();
    if (!document) return null;
    return target ? resolveForSlot(document, target.key, target.slot, data) : resolveBase(document, data);
  }, [target, data]);

  const nudge = useCallback(
    (dx: number, dy: number) => {
      const { selected: id } = useStage.getState();
      const at = freshly();
      const element = at?.elements.find((e) => e.id === id);
      if (!at || !id || !element || element.locked || isGround(element)) return;
      useStage.getState().edit(`Nudge ${element.name}`, moveBy(at, id, dx, dy));
    },
    [freshly, moveBy],
  );

  const add = useCallback(
    (make: (shot: Shot) => ShotElement) => {
      const made = make(useStage.getState().document!);
      useStage.getState().edit(`Add ${made.name}`, (s) => addElement(s, made));
      useStage.getState().select(made.id);
      onAdded(made);
    },
    [onAdded],
  );

  const remove = useCallback(() => {
    const { selected: id, document: shot } = useStage.getState();
    const gone = shot?.elements.find((e) => e.id === id);
    if (!gone || gone.locked) return;
    useStage.getState().edit(`Remove ${gone.name}`, (s) => removeElement(s, gone.id));
    useStage.getState().select(null);
  }, []);

  const duplicate = useCallback(() => {
    const { selected: id, document: shot } = useStage.getState();
    const from = shot?.elements.find((e) => e.id === id);
    if (!shot || !from || isGround(from)) return;
    const at = { x: from.box.x + shot.frame.width * 0.06, y: from.box.y + shot.frame.height * 0.02 };
    const copy = {
      ...from,
      id: newId(from.kind, shot),
      name: `${from.name}, copy`,
      locked: false,
      link: null,
      box: { ...from.box, ...at },
    } as ShotElement;
    useStage.getState().edit(`Duplicate ${from.name}`, (s) => {
      const added = addElement(s, copy);
      return moveDepth(added, copy.id, s.elements.findIndex((e) => e.id === id) + 1);
    });
    useStage.getState().select(copy.id);
  }, []);

  const depth = useCallback((by: number) => {
    const { selected: id, document: shot } = useStage.getState();
    if (!id || !shot) return;
    const from = shot.elements.findIndex((e) => e.id === id);
    useStage.getState().edit(by > 0 ? 'Bring forward' : 'Send back', (s) => moveDepth(s, id, from + by));
  }, []);

  /** Moves of several chosen elements as one step of history. */
  const moveAll = useCallback(
    (label: string, moves: (chosen: ShotElement[]) => Map<string, { x: number; y: number }>) => {
      const { selected, also } = useStage.getState();
      const at = freshly();
      if (!at || !selected) return;
      const ids = [selected, ...also];
      const chosen = ids.flatMap((id) => at.elements.find((e) => e.id === id) ?? []);
      const list = [...moves(chosen.filter((e) => !e.locked && !isGround(e)))];
      useStage
        .getState()
        .edit(label, (shot) => list.reduce((s, [id, by]) => moveBy(at, id, by.x, by.y)(s), shot));
    },
    [freshly, moveBy],
  );
  const align = useCallback(
    (how: Alignment) => moveAll(`Align by ${how}`, (chosen) => alignMoves(chosen, how)),
    [moveAll],
  );
  const distribute = useCallback(
    (axis: 'x' | 'y') =>
      moveAll(axis === 'x' ? 'Distribute across' : 'Distribute down', (chosen) =>
        distributeMoves(chosen, axis),
      ),
    [moveAll],
  );
  const link = useCallback((on: boolean) => {
    const { selected, also } = useStage.getState();
    if (!selected) return;
    const ids = new Set([selected, ...also]);
    useStage.getState().edit(on ? 'Link' : 'Unlink', (s) => {
      const gone = s.elements.find((e) => e.id === selected)?.link;
      return {
        ...s,
        elements: s.elements.map((e) =>
          on
            ? ids.has(e.id) && !isGround(e)
              ? { ...e, link: `link-${selected}` }
              : e
            : ids.has(e.id) || (gone && e.link === gone)
              ? { ...e, link: null }
              : e,
        ),
      };
    });
  }, []);

  const trueSize = useCallback(() => {
    const { selected } = useStage.getState();
    const at = freshly();
    const element = at?.elements.find((e) => e.id === selected);
    if (!at || !(element && isProduct(element))) return;
    const box = trueSizeBox(element, groundOf(at.elements), at);
    if (box) place('True size of', element, box, true);
  }, [freshly, target]);

  return useMemo(
    () => ({
      guides, patch, during, drag, transform, place, nudge, add, remove, duplicate, depth, align, distribute, link, trueSize,
    }), // prettier-ignore
    // Gestures read what they need through refs: only what is shown makes a new set.
    [guides, patch, during, nudge, add, remove, duplicate, depth, align, distribute, link, trueSize, target],
  );
}

export type Editing = ReturnType<typeof useEditing>;

/** An element with all that move with it; it comes first. */
function linkedWith(from: ResolvedShot, id: string): ShotElement[] {
  const element = from.elements.find((e) => e.id === id);
  if (!element) return [];
  const others = element.link
    ? from.elements.filter((e) => e.link === element.link && e.id !== id && !e.locked)
    : [];
  return [element, ...others];
}

function movedTogether(from: ResolvedShot, id: string, dx: number, dy: number): [ShotElement, Box][] {
  const ground = groundOf(from.elements);
  return linkedWith(from, id).map((element) => {
    const { box } = element;
    if (!isProduct(element)) return [element, { ...box, x: box.x + dx, y: box.y + dy }];
    const at = basePoint(element);
    return [element, movedOnGround(element, { x: at.x + dx, y: at.y + dy }, ground, from)];
  });
}

/** The element to scale from: in the base as it is written, in a slot as it is placed there. */
export function baseLike(
  shot: { elements: ShotElement[] },
  at: ShotElement,
  target: SlotTarget | null,
): ShotElement {
  if (target) return at;
  return shot.elements.find((e) => e.id === at.id) ?? at;
}
