import { useMemo } from 'react';
import { slotKey } from '@scenograph/core/spec/slot';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import type { BoardColumn } from './slot-head';

/** Every slot of the sheets as a column of the board, in the order of the sheets. */
export function useColumns(sheets: readonly SpecSheet[]): BoardColumn[] {
  return useMemo(
    () =>
      sheets
        .flatMap((sheet) => sheet.slots.map((slot) => ({ sheet, slot, key: slotKey(sheet, slot) })))
        .map((column, index) => ({ ...column, index })),
    [sheets],
  );
}
