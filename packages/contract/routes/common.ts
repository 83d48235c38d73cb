import type { Shot } from '@scenograph/core/shot/document';
import Joi from 'joi';
import {
  either,
  id,
  integer,
  list,
  nullable,
  number,
  of,
  oneOf,
  optional,
  shape,
  text,
  usually,
} from '../schema';

/** A document that the core reads and refuses by itself. */
export const documentOf = <T>() => of<T>(Joi.object().unknown(true));

/** A shot as it is sent: checked by `readShot`, which says what is wrong with it. */
export const sentShot = documentOf<object>();
export const storedShot = documentOf<Shot>();

/** A file's name, beside its bytes. */
export const fileName = shape({ name: text({ max: 255 }) });

export const removed = shape({ removed: id() });

/** Which part of a list is wanted; without a limit of its own it comes as a whole, up to 5,000. */
export const pages = (most = 5000) => ({
  from: usually(integer({ min: 0 }), 0),
  limit: usually(integer({ min: 1, max: 5000 }), most),
});

export const slotKey = text({ max: 200 });
export const way = shape({ way: oneOf('undo', 'redo') });
/**
 * The label of one's own step that was taken back or done again, null where there was none; in how many of its pieces it
 * was, and how many stayed as they were, since somebody changed them since.
 */
export const turned = shape({
  label: nullable(text()),
  done: integer(),
  left: integer(),
  revision: integer(),
});
/** What one can undo and redo, by its label. */
export const editState = shape({ undo: nullable(text()), redo: nullable(text()) });
export const ids = (max: number) => list(id(), { min: 1, max });

const patches = list(
  shape({
    op: oneOf('add', 'remove', 'replace'),
    path: list(either(text(), number())),
    value: optional(of<unknown>()),
  }),
);
/** Steps that can be undone and redone, each as immer patches there and back. */
const historyOf = (steps: number, letters: number) => {
  const edits = list(shape({ label: text({ max: letters }), forward: patches, inverse: patches }), {
    max: steps,
  });
  return shape({ past: edits, future: edits });
};
export const shotHistory = historyOf(300, 120);
/** History of what is sent whole; without one, nothing can be undone any more. */
export const documentHistory = historyOf(200, 200);
export const sentHistory = usually(documentHistory, { past: [], future: [] });
export const cutoutHistory = historyOf(200, 200);
