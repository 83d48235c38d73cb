import { useCallback, useRef, useState, type KeyboardEvent } from 'react';
import type { Modifiers } from './board-cell';
import { between, cellAt, withCells, type Choice } from './choice';

type Place = [row: number, column: number];

/** How far a key moves in a grid of `columns` columns. */
const moveOf = (key: string, columns: number): Place | undefined =>
  (
    ({
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [5, 0],
      PageUp: [-5, 0],
      Home: [0, -columns],
      End: [0, columns],
    }) as Record<string, Place>
  )[key];

/**
 * Choosing cells of a grid by pointer and keys. The callbacks stay the same while the choice changes, so that a cell is
 * drawn again only when something of its own changes.
 */
export function useGridChoice(of: {
  rows: number;
  columns: number;
  choice: Choice;
  onChoice(choice: Choice): void;
  onOpen(row: number, column: number): void;
  /** Brings a cell into view. */
  onReach(row: number, column: number): void;
}) {
  const [at, setAt] = useState<Place>([0, 0]);
  const from = useRef<Place>([0, 0]);
  const now = useRef(of);
  now.current = of;
  const pick = useCallback((row: number, column: number, e: Modifiers) => {
    const { choice, onChoice } = now.current;
    const adds = e.ctrlKey || e.metaKey;
    if (e.shiftKey)
      onChoice(withCells(adds ? choice : new Set(), between(from.current, [row, column]), true));
    else {
      from.current = [row, column];
      onChoice(withCells(choice, [cellAt(row, column)], adds));
    }
    setAt([row, column]);
  }, []);
  const openCell = useCallback((row: number, column: number) => now.current.onOpen(row, column), []);
  const chooseMany = (cells: string[], e: Modifiers) =>
    now.current.onChoice(withCells(now.current.choice, cells, e.ctrlKey || e.metaKey));
  const chooseColumn = useCallback(
    (column: number, e: Modifiers) => chooseMany(between([0, column], [now.current.rows - 1, column]), e),
    [],
  );
  const chooseRow = useCallback(
    (row: number, e: Modifiers) => chooseMany(between([row, 0], [row, now.current.columns - 1]), e),
    [],
  );
  const onKey = (e: KeyboardEvent) => {
    const { rows, columns, choice, onChoice, onOpen, onReach } = of;
    const [row, column] = at;
    const move = moveOf(e.key, columns);
    if (move) {
      e.preventDefault();
      const inside = (n: number, count: number) => Math.min(count - 1, Math.max(0, n));
      const to: Place = [inside(row + move[0], rows), inside(column + move[1], columns)];
      setAt(to);
      onReach(...to);
      if (e.shiftKey) onChoice(new Set(between(from.current, to)));
      else from.current = to;
    } else if (e.key === ' ') {
      e.preventDefault();
      onChoice(withCells(choice, [cellAt(row, column)], true));
    } else if (e.key === 'Enter') onOpen(row, column);
    else if (e.key === 'Escape') onChoice(new Set());
    else if (e.key === 'a' && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      onChoice(new Set(between([0, 0], [rows - 1, columns - 1])));
    }
  };
  return { at, pick, openCell, chooseColumn, chooseRow, onKey };
}
