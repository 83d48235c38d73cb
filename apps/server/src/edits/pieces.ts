import { isDeepStrictEqual } from 'node:util';

/** What several people change, in pieces by key, such as `price` of a variant or one cell of a board. */
export type Pieces = Readonly<Record<string, unknown>>;

/** One piece before and after a step; `null` where it is not there, else its value in a list of one. */
export interface Piece {
  key: string;
  before: [unknown] | null;
  after: [unknown] | null;
}

const at = (pieces: Pieces, key: string): [unknown] | null =>
  Object.hasOwn(pieces, key) ? [pieces[key]] : null;

/** The pieces that differ. */
export function differences(before: Pieces, after: Pieces): Piece[] {
  const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
  const changed: Piece[] = [];
  for (const key of keys) {
    // Most are the same, and there may be very many.
    if (Object.is(before[key], after[key]) && before[key] !== undefined) continue;
    const piece = { key, before: at(before, key), after: at(after, key) };
    if (!isDeepStrictEqual(piece.before, piece.after)) changed.push(piece);
  }
  return changed;
}

/** The pieces with values put in their places, or taken away where they are `null`. */
export function withPieces(now: Pieces, values: readonly (readonly [string, [unknown] | null])[]): Pieces {
  const next = new Map(Object.entries(now));
  for (const [key, value] of values)
    if (value) next.set(key, value[0]);
    else next.delete(key);
  // A key may be called as every object has one.
  return Object.fromEntries(next);
}

/**
 * A step taken back, or done again, as far as it is still its maker's: pieces that were changed again since stay as they
 * are.
 * @returns what stands then, and how many pieces were left to those who changed them since
 */
export function turned(
  now: Pieces,
  step: readonly Piece[],
  way: 'undo' | 'redo',
): { next: Pieces; left: number } {
  const own = step.filter((p) => isDeepStrictEqual(at(now, p.key), way === 'undo' ? p.after : p.before));
  const values = own.map((p) => [p.key, way === 'undo' ? p.before : p.after] as const);
  return { next: withPieces(now, values), left: step.length - own.length };
}
