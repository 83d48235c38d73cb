import { useRef } from 'react';
import { useNavigate } from 'react-router';
import type { Board, ListingDetail } from '../../api/client';
import { useKeyNotes } from '../../ui/actions';
import type { KeyNotes } from '../../ui/keys';
import { BoardCell, ROW } from './board-cell';
import { cellAt } from './choice';
import { HEAD, SlotHead } from './slot-head';
import { useGridChoice } from './use-grid-choice';
import { useGridSight } from './use-grid-sight';
import { useShotOf } from './use-shot-of';
import type { Shown } from './use-shown';
import { NAMES, VariantHead } from './variant-head';
import { msg, rich } from '../../language/language';

const NOTES: KeyNotes = [
  [msg('Arrows'), msg('Go from cell to cell, with Shift choose a range')],
  ['Space', msg('Choose or let go of the cell')],
  ['Enter', msg('Open its shot in this slot')],
  [msg('Ctrl A'), msg('Choose all cells')],
  ['Escape', msg('Choose nothing')],
];

/**
 * Variants down, slots across. Only what is in view is in the page; cells are chosen with the pointer (with Shift a
 * range, with Ctrl one more) or with arrow keys, Space and Shift, and opened with Enter or a double click.
 */
export function BoardGrid({
  detail,
  board,
  shown: { columns, variants, rowOf, choice, setChoice },
  onFeed,
}: {
  detail: ListingDetail;
  board: Board | undefined;
  shown: Shown;
  onFeed(slotKey: string, shotId: string | null): void;
}) {
  useKeyNotes('board', NOTES);
  const scroller = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const sight = useGridSight(scroller, variants.length, columns);
  const { shotOf, shotBySlot } = useShotOf(detail);
  const open = (row: number, column: number) => {
    const { id } = variants[row];
    const { key } = columns[column];
    const shot = shotOf(id, key);
    if (shot) void navigate(`/shots/${shot.id}?slot=${encodeURIComponent(key)}&variant=${id}`);
  };
  const { at, pick, openCell, chooseColumn, chooseRow, onKey } = useGridChoice({
    rows: variants.length,
    columns: columns.length,
    choice,
    onChoice: setChoice,
    onOpen: open,
    onReach: sight.reach,
  });
  return (
    <div
      ref={scroller}
      className="border-line bg-card relative min-h-0 grow overflow-auto border-t"
      data-testid="board-scroller"
    >
      <div
        role="grid"
        aria-label={msg('Slot board')}
        aria-rowcount={variants.length + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        tabIndex={0}
        aria-activedescendant={`cell-${at[0]}-${at[1]}`}
        onKeyDown={onKey}
        className="relative focus-visible:outline-offset-[-2px]"
        style={{ height: sight.height, width: sight.width }}
      >
        <div role="row" className="sticky top-0 z-20" style={{ height: HEAD, marginBottom: -HEAD }}>
          <span role="columnheader" className="sr-only">
            {msg('Variant')}
          </span>
          {sight.columns.map((item) => (
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
        <Corner variants={variants.length} slots={columns.length} />
        {sight.rows.map((item) => {
          const variant = variants[item.index];
          return (
            <BoardRow
              key={variant.id}
              row={item.index}
              top={item.start}
              {...{ variant, sight, columns, choice, at, shotOf }}
              states={board?.rows[rowOf.get(variant.id) ?? -1]}
              onChoose={chooseRow}
              onPick={pick}
              onOpen={openCell}
            />
          );
        })}
      </div>
    </div>
  );
}

/** One variant's cells, as far as they are in view. */
function BoardRow({
  variant,
  row,
  top,
  sight,
  columns,
  choice,
  at,
  shotOf,
  states,
  onChoose,
  onPick,
  onOpen,
}: {
  variant: Shown['variants'][number];
  row: number;
  /** Pixels from the grid's upper edge. */
  top: number;
  sight: ReturnType<typeof useGridSight>;
  columns: Shown['columns'];
  choice: Shown['choice'];
  /** Row and column of the active cell. */
  at: readonly [number, number];
  shotOf: ReturnType<typeof useShotOf>['shotOf'];
  states: Board['rows'][number] | undefined;
  onChoose: ReturnType<typeof useGridChoice>['chooseRow'];
  onPick: ReturnType<typeof useGridChoice>['pick'];
  onOpen: ReturnType<typeof useGridChoice>['openCell'];
}) {
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      className="absolute top-0 left-0"
      style={{ transform: `translateY(${top}px)`, height: ROW, width: sight.width }}
    >
      <VariantHead variant={variant} row={row} onChoose={onChoose} />
      {sight.columns.map((column) => {
        const { key, slot, index } = columns[column.index];
        return (
          <BoardCell
            key={key}
            row={row}
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
            chosen={choice.has(cellAt(row, column.index))}
            active={at[0] === row && at[1] === column.index}
            onPick={onPick}
            onOpen={onOpen}
          />
        );
      })}
    </div>
  );
}

/** Where the heads meet: how much is shown. */
function Corner({ variants, slots }: { variants: number; slots: number }) {
  return (
    <div
      className="bg-card border-line sticky top-0 left-0 z-30 border-r border-b"
      style={{ height: HEAD, width: NAMES, marginBottom: -HEAD }}
    >
      <p className="text-ink-2 px-3 pt-3 text-[12px]">
        {rich(
          '<measure>{variants}</measure> {variants, plural, one {variant} other {variants}}, <measure>{slots}</measure> {slots, plural, one {slot} other {slots}}',
          { measure: (inside) => <span className="measure">{inside}</span>, variants, slots },
        )}
      </p>
    </div>
  );
}
