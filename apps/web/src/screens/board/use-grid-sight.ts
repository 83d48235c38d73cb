import { useVirtualizer } from '@tanstack/react-virtual';
import type { RefObject } from 'react';
import { columnWidth, ROW } from './board-cell';
import { HEAD, type BoardColumn } from './slot-head';
import { NAMES } from './variant-head';

/** Which rows and columns of the board are in view: only they are in the page. */
export function useGridSight(
  scroller: RefObject<HTMLDivElement | null>,
  rowCount: number,
  columns: readonly BoardColumn[],
) {
  const getScrollElement = () => scroller.current;
  const rows = useVirtualizer({
    count: rowCount,
    getScrollElement,
    estimateSize: () => ROW,
    overscan: 2,
    paddingStart: HEAD,
    scrollPaddingStart: HEAD,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement,
    estimateSize: (i) => columnWidth(columns[i].slot),
    overscan: 1,
    paddingStart: NAMES,
    scrollPaddingStart: NAMES,
  });
  return {
    rows: rows.getVirtualItems(),
    columns: across.getVirtualItems(),
    height: rows.getTotalSize(),
    width: across.getTotalSize(),
    reach(row: number, column: number) {
      rows.scrollToIndex(row);
      across.scrollToIndex(column);
    },
  };
}
