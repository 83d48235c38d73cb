/** Which cells of a board are chosen: row and column numbers, as `row:column`. */
export type Choice = ReadonlySet<string>;

export const cellAt = (row: number, column: number) => `${row}:${column}`;

export const placeOf = (id: string): [row: number, column: number] => {
  const [row, column] = id.split(':').map(Number);
  return [row, column];
};

/** All cells in the rectangle between two. */
export function between([r1, c1]: readonly [number, number], [r2, c2]: readonly [number, number]): string[] {
  const list: string[] = [];
  for (let r = Math.min(r1, r2); r <= Math.max(r1, r2); r++)
    for (let c = Math.min(c1, c2); c <= Math.max(c1, c2); c++) list.push(cellAt(r, c));
  return list;
}

/** Cells chosen anew; taken away where all of them were chosen and `toggles` is held. */
export function withCells(choice: Choice, cells: readonly string[], keeps: boolean): Choice {
  if (!keeps) return new Set(cells);
  const next = new Set(choice);
  const all = cells.every((c) => next.has(c));
  for (const c of cells)
    if (all) next.delete(c);
    else next.add(c);
  return next;
}
