import type { Shot } from '@scenograph/core/shot/document';
import Joi from 'joi';
import { either, id, list, nullable, number, of, oneOf, optional, shape, text } from '../schema';

/** A document that the core reads and refuses by itself. */
export const documentOf = <T>() => of<T>(Joi.object().unknown(true));

/** A shot as it is sent: checked by `readShot`, which says what is wrong with it. */
export const sentShot = documentOf<object>();
export const storedShot = documentOf<Shot>();

/** A file's name, beside its bytes. */
export const fileName = shape({ name: text({ max: 255 }) });

export const removed = shape({ removed: id() });

export const slotKey = text({ max: 200 });
export const way = shape({ way: oneOf('undo', 'redo') });
/** The label of the step that was taken back or done again; null where there was none. */
export const turned = shape({ label: nullable(text()) });
/** What can be undone and redone, by its label. */
export const editState = shape({ undo: nullable(text()), redo: nullable(text()) });
export const ids = (max: number) => list(id(), { min: 1, max });

const patches = list(
  shape({
    op: oneOf('add', 'remove', 'replace'),
    path: list(either(text({ empty: true }), number())),
    value: optional(of<unknown>()),
  }),
);
/** One undoable step: immer patches there and back. */
const edit = shape({ label: text({ max: 200 }), forward: patches, inverse: patches });
export const history = shape({ past: list(edit, { max: 300 }), future: list(edit, { max: 300 }) });
