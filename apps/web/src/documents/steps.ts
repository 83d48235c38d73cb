import { applyPatches } from 'immer';
import { isByStep, watchSteps } from './by-steps';
import { difference, KEPT_STEPS } from './difference';
import type { History } from './document';

/** What of a document's state its steps read and change. */
export interface Steps<T> extends History {
  document: T | null;
  /** While a gesture goes on: the document that it began with. */
  gestureBase: T | null;
}

/** Milliseconds within which repeated changes go on as one step. */
const GOES_ON = 700;

/**
 * Changes as steps that can be undone, each with the patches there and back. A gesture is one step, whatever it shows on
 * its way.
 * @param change sets the state; `changed` follows once a step is there to be stored
 */
export function stepsOf<T extends object>(
  get: () => Steps<T>,
  change: (value: Partial<Steps<T>>) => void,
  changed: () => void,
) {
  watchSteps();
  /** The step that a repeated change joins, and until when. */
  let open: { label: string; until: number } | null = null;

  const commit = (label: string, before: T, after: T, repeats = isByStep()) => {
    const { past } = get();
    const joins = repeats && open?.label === label && Date.now() < open.until && past.length > 0;
    const earlier = joins ? past.slice(0, -1) : past;
    const start = joins ? applyPatches(before, past[past.length - 1].inverse) : before;
    const [forward, inverse] = difference(start, after);
    open = repeats ? { label, until: Date.now() + GOES_ON } : null;
    change({ gestureBase: null, document: after });
    if (!forward.length && !joins) return;
    const step = forward.length ? [{ label, forward, inverse }] : [];
    change({ past: [...earlier, ...step].slice(-KEPT_STEPS), future: [] });
    changed();
  };
  const walk = (from: 'past' | 'future') => {
    const { document, gestureBase, past, future } = get();
    const step = from === 'past' ? past[past.length - 1] : future[0];
    // A gesture that goes on is given up: steps are of finished changes.
    const base = gestureBase ?? document;
    open = null;
    if (!step || !base) return;
    change({
      document: applyPatches(base, from === 'past' ? step.inverse : step.forward),
      gestureBase: null,
      past: from === 'past' ? past.slice(0, -1) : [...past, step],
      future: from === 'past' ? [step, ...future] : future.slice(1),
    });
    changed();
  };
  /** Makes a change from the finished document. */
  const from = (then: (base: T, document: T) => void) => {
    const { document, gestureBase } = get();
    if (document) then(gestureBase ?? document, document);
  };
  return {
    /** One finished change. */
    edit: (label: string, make: (document: T) => T) => from((base) => commit(label, base, make(base))),
    /** A change that may follow another of its kind at once, as under a held key: together they are one step. */
    repeat: (label: string, make: (document: T) => T) =>
      from((base) => commit(label, base, make(base), true)),
    /** A change while dragging: shown at once, from the document that the gesture began with. */
    during: (make: (document: T) => T) => from((base) => change({ gestureBase: base, document: make(base) })),
    /** Ends a gesture as one step of history. */
    finish: (label: string, make?: (document: T) => T) =>
      from((base, document) => commit(label, base, make ? make(base) : document)),
    /** Ends a gesture with nothing changed. */
    abandon() {
      const { gestureBase } = get();
      if (gestureBase) change({ document: gestureBase, gestureBase: null });
    },
    undo: () => walk('past'),
    redo: () => walk('future'),
  };
}
