import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useMemo, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { useNavigate } from 'react-router';
import type { Slot, SpecSheet } from '@scenograph/core/spec/slot';
import { reducedUrl, type Board, type ListingDetail, type ShotRow, type Variant } from '../../api/client';
import { Select } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { BoardPicture } from './board-picture';
import { CELL_STATES, DIFFERENCES } from './cell-state';
import { between, cellAt, withCells, type Choice } from './choice';

const ROW = 104;
const HEAD = 94;
const NAMES = 208;
const PICTURE = 64;

export interface BoardColumn {
  key: string;
  slot: Slot;
  sheet: SpecSheet;
  /** Its place in the server's rows. */
  index: number;
}

const pictureSize = ({ width, height }: Slot) => {
  const k = Math.min(168 / width, PICTURE / height);
  return { width: Math.max(10, Math.round(width * k)), height: Math.max(8, Math.round(height * k)) };
};
const columnWidth = (slot: Slot) => Math.max(132, pictureSize(slot).width + 24);

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
  const open = (row: number, column: number) => {
    const shot = shotOf(variants[row].id, columns[column].key);
    if (shot)
      void navigate(
        `/shots/${shot.id}?slot=${encodeURIComponent(columns[column].key)}&variant=${variants[row].id}`,
      );
  };
  const pick = (
    row: number,
    column: number,
    e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean },
  ) => {
    const adds = e.ctrlKey || e.metaKey;
    if (e.shiftKey)
      onChoice(withCells(adds ? choice : new Set(), between(from.current, [row, column]), true));
    else {
      from.current = [row, column];
      onChoice(withCells(choice, [cellAt(row, column)], adds));
    }
    setAt([row, column]);
  };
  const pickMany = (cells: string[], e: MouseEvent) =>
    onChoice(withCells(choice, cells, e.ctrlKey || e.metaKey));
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
          {shownColumns.map((item) => {
            const { key, slot, sheet } = columns[item.index];
            return (
              <div
                key={key}
                role="columnheader"
                className="border-line bg-card absolute top-0 overflow-hidden border-r border-b"
                style={{ left: item.start, width: item.size, height: HEAD }}
              >
                <span className="bg-spruce block truncate px-2 py-1 text-[11.5px] font-semibold text-white">
                  {sheet.marketplace}
                </span>
                <button
                  type="button"
                  className="hover:bg-spruce-tint block w-full px-2 pt-1 text-left focus-visible:outline-offset-[-2px]"
                  aria-label={`Choose all cells of ${slot.title}, ${sheet.marketplace}`}
                  onClick={(e) => pickMany(between([0, item.index], [variants.length - 1, item.index]), e)}
                >
                  <span className="block truncate text-[12.5px] font-semibold">
                    {slot.title}
                    {!slot.required && <span className="text-ink-2 font-normal"> optional</span>}
                  </span>
                  <span className="measure text-ink-2 block">
                    {slot.width} x {slot.height}
                  </span>
                </button>
                <div className="px-1.5 pb-1">
                  <Select
                    label={`Shot for ${sheet.marketplace} ${slot.title}`}
                    className="w-full !h-6.5 !text-[12px]"
                    value={shotBySlot.get(key)?.id ?? 'none'}
                    onChange={(v) => onFeed(key, v === 'none' ? null : v)}
                    options={[
                      { value: 'none', title: 'owed' },
                      ...detail.shots.map((s) => ({ value: s.id, title: s.title })),
                    ]}
                  />
                </div>
              </div>
            );
          })}
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
                  onClick={(e) => pickMany(between([item.index, 0], [item.index, columns.length - 1]), e)}
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
                const letter = states?.states[index] ?? '';
                const state = CELL_STATES[letter];
                const differs = states?.differs[index] ?? '.';
                const shot = shotOf(variant.id, key);
                const chosen = choice.has(cellAt(item.index, column.index));
                const active = at[0] === item.index && at[1] === column.index;
                const size = pictureSize(slot);
                const follows = shot?.document.elements.some((e) => e.kind === 'product' && e.followsVariant);
                const says = states?.says[index] ?? state?.title ?? '';
                return (
                  <div
                    key={key}
                    id={`cell-${item.index}-${column.index}`}
                    role="gridcell"
                    aria-selected={chosen}
                    aria-label={`${variant.data.variant || variant.data.title}, ${slot.title}: ${state?.title ?? 'measuring'}${says && says !== state?.title ? `, ${says}` : ''}${differs !== '.' ? `. ${DIFFERENCES[differs]}` : ''}`}
                    onClick={(e) => pick(item.index, column.index, e)}
                    onDoubleClick={() => open(item.index, column.index)}
                    className={`border-line absolute top-0 flex flex-col items-center justify-center gap-1.5 border-r border-b select-none ${chosen ? 'bg-spruce-tint' : 'hover:bg-spruce-tint/50'} ${active ? 'outline-spruce z-[5] outline-2 outline-offset-[-2px]' : ''}`}
                    style={{ left: column.start, width: column.size, height: ROW }}
                  >
                    {shot && (variant.data.cutout || !follows) ? (
                      <BoardPicture shot={shot} slotKey={key} slot={slot} data={variant.data} {...size} />
                    ) : (
                      <span className="border-ink-3 block border border-dashed" style={size} />
                    )}
                    {differs !== '.' && (
                      <span
                        title={DIFFERENCES[differs]}
                        className={`border-spruce absolute top-1.5 right-1.5 h-2 w-2 border-[1.5px] ${differs === 'd' ? '' : differs === 'o' ? 'bg-spruce' : 'rounded-full'}`}
                      />
                    )}
                    <span className="text-ink-2 flex max-w-full items-center gap-1.5 px-2 text-[11.5px]">
                      <StatusMark mark={state?.mark ?? 'working'} size={9} />
                      <span className="truncate" title={says}>
                        {state ? says.toLowerCase() : ''}
                      </span>
                    </span>
                  </div>
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
}
