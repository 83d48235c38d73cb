import { useVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { useSize } from './use-size';

const GAP = 14;
/** So many cards are there before the room for them is known. */
const BEFORE = 60;

/**
 * Cards in as many columns as there is room for, of which only those near the view are in the page: thousands cost no more
 * than a screenful. It scrolls with the screen's main part.
 */
export function VirtualGrid<T>({
  items,
  idOf,
  least,
  usual,
  className = '',
  children,
}: {
  items: readonly T[];
  idOf(item: T): string;
  /** The least width of a card, in CSS pixels. */
  least: number;
  /** A card's usual height; those in view are measured. */
  usual: number;
  className?: string;
  children(item: T): ReactNode;
}) {
  const { ref: list, width } = useSize<HTMLUListElement>();
  const scroller = useRef<HTMLElement | null>(null);
  const [above, setAbove] = useState(0);
  useLayoutEffect(() => {
    scroller.current = list.current!.closest('main');
    if (!scroller.current) return;
    const top = list.current!.getBoundingClientRect().top - scroller.current.getBoundingClientRect().top;
    setAbove(Math.round(top + scroller.current.scrollTop));
  });
  const columns = Math.max(1, Math.floor((width + GAP) / (least + GAP)));
  const rows = useVirtualizer({
    count: Math.ceil(items.length / columns),
    getScrollElement: () => scroller.current,
    estimateSize: () => usual,
    gap: GAP,
    scrollMargin: above,
    overscan: 2,
  });
  const seen = width ? rows.getVirtualItems() : [];
  const [first, last] = [seen[0], seen[seen.length - 1]];
  const from = first ? first.index * columns : 0;
  const to = last ? (last.index + 1) * columns : width ? 0 : BEFORE;
  return (
    <ul
      ref={list}
      className={`grid ${className}`}
      style={{
        gap: GAP,
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        paddingTop: first ? first.start - above : 0,
        paddingBottom: last ? Math.max(0, rows.getTotalSize() - (last.end - above)) : 0,
      }}
    >
      {items.slice(from, to).map((item, i) => (
        <li
          key={idOf(item)}
          data-index={Math.floor((from + i) / columns)}
          ref={(from + i) % columns ? undefined : rows.measureElement}
          aria-setsize={items.length}
          aria-posinset={from + i + 1}
        >
          {children(item)}
        </li>
      ))}
    </ul>
  );
}
