import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { reducedUrl, type Board, type ListingDetail, type ShotRow, type Variant } from '../../api/client';
import { BoardCell, columnWidth, ROW, type Modifiers } from './board-cell';
import { between, cellAt, withCells, type Choice } from './choice';
import { HEAD, SlotHead, type BoardColumn } from './slot-head';

const NAMES = 208;

/**
 * Variants down, slots across. Only what is in view is in the page; cells are chosen with the pointer (with Shift a
 * range, with Ctrl one more) or with arrow keys, Space and Shift, and opened with Enter or a double click.
 */
export function BoardGrid({
  detail,
  board,
  columns,
  variants,
  rowOf,
  choice,
  onChoice,
  onFeed,
}: {
  detail: ListingDetail;
  board: Board | undefined;
  columns: BoardColumn[];
  variants: Variant[];
  /** A variant's row in the server's board. */
  rowOf: ReadonlyMap<string, number>;
  choice: Choice;
  onChoice(choice: Choice): void;
  onFeed(slotKey: string, shotId: string | null): void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const [at, setAt] = useState<[number, number]>([0, 0]);
  const from = useRef<[number, number]>([0, 0]);
  const rows = useVirtualizer({
    count: variants.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 2,
    paddingStart: HEAD,
    scrollPaddingStart: HEAD,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => columnWidth(columns[i].slot),
    overscan: 1,
    paddingStart: NAMES,
    scrollPaddingStart: NAMES,
  });
  const shotById = useMemo(() => new Map(detail.shots.map((s) => [s.id, s])), [detail.shots]);
  const shotBySlot = useMemo(
    () => new Map(detail.shots.flatMap((s) => s.feeds.map((f) => [f, s] as const))),
    [detail.shots],
  );
  const ownFeeds = useMemo(
    () => new Map(detail.cellFeeds.map((f) => [`${f.variantId} ${f.slotKey}`, f.shotId])),
    [detail.cellFeeds],
  );
  const shotOf = useCallback(
    (variantId: string, slotKey: string): ShotRow | null => {
      const own = ownFeeds.get(`${variantId} ${slotKey}`);
      return (own === undefined ? shotBySlot.get(slotKey) : own && shotById.get(own)) || null;
    },
    [ownFeeds, shotBySlot, shotById],
  );
  // Cells are drawn again only when something of their own changes: what they call stays the same.
  const now = useRef({ choice, onChoice, variants, columns, shotOf });
  now.current = { choice, onChoice, variants, columns, shotOf };
  const open = useCallback(
    (row: number, column: number) => {
      const { variants: rowsNow, columns: columnsNow, shotOf: shotNow } = now.current;
      const { id } = rowsNow[row];
      const { key } = columnsNow[column];
      const shot = shotNow(id, key);
      if (shot) void navigate(`/shots/${shot.id}?slot=${encodeURIComponent(key)}&variant=${id}`);
    },
    [navigate],
  );
  const pick = useCallback((row: number, column: number, e: Modifiers) => {
    const { choice: chosen, onChoice: choose } = now.current;
    const adds = e.ctrlKey || e.metaKey;
    if (e.shiftKey) choose(withCells(adds ? chosen : new Set(), between(from.current, [row, column]), true));
    else {
      from.current = [row, column];
      choose(withCells(chosen, [cellAt(row, column)], adds));
    }
    setAt([row, column]);
  }, []);
  const chooseMany = useCallback((cells: string[], e: Modifiers) => {
    const { choice: chosen, onChoice: choose } = now.current;
    choose(withCells(chosen, cells, e.ctrlKey || e.metaKey));
  }, []);
  const chooseColumn = useCallback(
    (column: number, e: Modifiers) =>
      chooseMany(between([0, column], [now.current.variants.length - 1, column]), e),
    [chooseMany],
  );
  const chooseRow = (row: number, e: Modifiers) =>
    chooseMany(between([row, 0], [row, columns.length - 1]), e);
  const onKey = (e: KeyboardEvent) => {
    const [row, column] = at;
    const moves: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [5, 0],
      PageUp: [-5, 0],
      Home: [0, -columns.length],
      End: [0, columns.length],
    };
    const move = moves[e.key];
    if (move) {
      e.preventDefault();
      const to: [number, number] = [
        Math.min(variants.length - 1, Math.max(0, row + move[0])),
        Math.min(columns.length - 1, Math.max(0, column + move[1])),
      ];
      setAt(to);
      rows.scrollToIndex(to[0]);
      across.scrollToIndex(to[1]);
      if (e.shiftKey) onChoice(new Set(between(from.current, to)));
      else from.current = to;
    } else if (e.key === ' ') {
      e.preventDefault();
      onChoice(withCells(choice, [cellAt(row, column)], true));
    } else if (e.key === 'Enter') open(row, column);
    else if (e.key === 'Escape') onChoice(new Set());
    else if (e.key === 'a' && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      onChoice(new Set(between([0, 0], [variants.length - 1, columns.length - 1])));
    }
  };
  const shownRows = rows.getVirtualItems();
  const shownColumns = across.getVirtualItems();
  return (
    <div
      ref={scroller}
      className="border-line bg-card relative min-h-0 grow overflow-auto border-t"
      data-testid="board-scroller"
    >
      <div
        role="grid"
        aria-label="Slot board"
        aria-rowcount={variants.length + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        tabIndex={0}
        aria-activedescendant={`cell-${at[0]}-${at[1]}`}
        onKeyDown={onKey}
        className="relative focus-visible:outline-offset-[-2px]"
        style={{ height: rows.getTotalSize(), width: across.getTotalSize() }}
      >
        <div role="row" className="sticky top-0 z-20" style={{ height: HEAD, marginBottom: -HEAD }}>
          <span role="columnheader" className="sr-only">
            Variant
          </span>
          {shownColumns.map((item) => (
            <SlotHead
              key={columns[item.index].key}
              column={columns[item.index]}
              n={item.index}
              left={item.start}
              width={item.size}
              shots={detail.shots}
              fedBy={shotBySlot.get(columns[item.index].key)?.id ?? null}
              onChoose={chooseColumn}
              onFeed={onFeed}
            />
          ))}
        </div>
        <div
          className="bg-card border-line sticky top-0 left-0 z-30 border-r border-b"
          style={{ height: HEAD, width: NAMES, marginBottom: -HEAD }}
        >
          <p className="text-ink-2 px-3 pt-3 text-[12px]">
            <span className="measure">{variants.length}</span> variant{variants.length === 1 ? '' : 's'},{' '}
            <span className="measure">{columns.length}</span> slot{columns.length === 1 ? '' : 's'}
          </p>
        </div>
        {shownRows.map((item) => {
          const variant = variants[item.index];
          const states = board?.rows[rowOf.get(variant.id) ?? -1];
          return (
            <div
              key={variant.id}
              role="row"
              aria-rowindex={item.index + 2}
              className="absolute top-0 left-0"
              style={{ transform: `translateY(${item.start}px)`, height: ROW, width: across.getTotalSize() }}
            >
              <div
                role="rowheader"
                className="bg-card border-line sticky left-0 z-10 border-r border-b"
                style={{ width: NAMES, height: ROW }}
              >
                <button
                  type="button"
                  className="hover:bg-spruce-tint flex h-full w-full items-center gap-2.5 px-2.5 text-left focus-visible:outline-offset-[-2px]"
                  aria-label={`Choose all cells of ${variant.data.variant || variant.data.title}`}
                  onClick={(e) => chooseRow(item.index, e)}
                >
                  <span className="border-line flex h-11 w-11 shrink-0 items-center justify-center border bg-white p-0.5">
                    {variant.data.cutout && (
                      <img
                        src={reducedUrl(variant.data.cutout.picture, 160)}
                        alt=""
                        className="max-h-full max-w-full"
                      />
                    )}
                  </span>
                  <span className="min-w-0">
                    <span className="block truncate text-[13px] font-semibold">
                      {variant.data.variant || variant.data.title}
                    </span>
                    <span className="measure text-ink-2 block truncate">{variant.data.sku}</span>
                  </span>
                </button>
              </div>
              {shownColumns.map((column) => {
                const { key, slot, index } = columns[column.index];
                return (
                  <BoardCell
                    key={key}
                    row={item.index}
                    column={column.index}
                    left={column.start}
                    width={column.size}
                    slotKey={key}
                    slot={slot}
                    variant={variant}
                    shot={shotOf(variant.id, key)}
                    letter={states?.states[index] ?? ''}
                    differs={states?.differs[index] ?? '.'}
                    says={states?.says[index] ?? ''}
                    chosen={choice.has(cellAt(item.index, column.index))}
                    active={at[0] === item.index && at[1] === column.index}
                    onPick={pick}
                    onOpen={open}
                  />
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
}
