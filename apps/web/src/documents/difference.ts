import { enablePatches, produceWithPatches, type Patch } from 'immer';

enablePatches();

/** One undoable step. */
export interface Edit {
  label: string;
  forward: Patch[];
  inverse: Patch[];
}

/** How many steps back are kept with a document. */
export const KEPT_STEPS = 200;

/** The patches between two documents, through immer: only what differs. */
export function difference<T extends object>(before: T, after: T): [Patch[], Patch[]] {
  const [, forward, inverse] = produceWithPatches(before, (draft) => {
    assign(draft as unknown as Json, before as unknown as Json, after as unknown as Json);
  });
  return [forward, inverse];
}

type Json = Record<string, unknown>;
const isObject = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v);

function assign(draft: Json, before: Json, after: Json): void {
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const a = before[key];
    const b = after[key];
    if (a === b) continue;
    if (!(key in after) || b === undefined) delete draft[key];
    else if (isObject(a) && isObject(b)) assign(draft[key] as Json, a, b);
    else if (sameElements(a, b))
      (b as Json[]).forEach((item, i) => assign((draft[key] as Json[])[i], (a as Json[])[i], item));
    else if (JSON.stringify(a) !== JSON.stringify(b)) draft[key] = b;
  }
}

/** Two lists of the same elements in the same order: what changed lies within them. */
function sameElements(a: unknown, b: unknown): boolean {
  return (
    Array.isArray(a) &&
    Array.isArray(b) &&
    a.length === b.length &&
    a.every((item, i) => isObject(item) && isObject(b[i]) && item.id !== undefined && item.id === b[i].id)
  );
}
