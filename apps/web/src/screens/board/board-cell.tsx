import { isProduct } from '@scenograph/core/elements/product/model';
import { memo } from 'react';
import type { Slot } from '@scenograph/core/spec/slot';
import type { ShotRow, Variant } from '../../api/client';
import { StatusMark } from '../../ui/status';
import { BoardPicture } from './board-picture';
import { CELL_STATES, DIFFERENCES } from './cell-state';
import { msg } from '../../language/language';

export const ROW = 104;
const WIDEST = 168;
const TALLEST = 64;

export interface Modifiers {
  shiftKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
}

const pictureSize = ({ width, height }: Slot) => {
  const k = Math.min(WIDEST / width, TALLEST / height);
  return { width: Math.max(10, Math.round(width * k)), height: Math.max(8, Math.round(height * k)) };
};
export const columnWidth = (slot: Slot) => Math.max(132, pictureSize(slot).width + 24);

/** One cell: its picture at its true shape, its state as shape and word, the mark of a difference. */
export const BoardCell = memo(function BoardCell({
  row,
  column,
  left,
  width,
  slotKey,
  slot,
  variant,
  shot,
  letter,
  differs,
  says,
  chosen,
  active,
  onPick,
  onOpen,
}: {
  row: number;
  column: number;
  left: number;
  width: number;
  slotKey: string;
  slot: Slot;
  variant: Variant;
  shot: ShotRow | null;
  letter: string;
  differs: string;
  says: string;
  chosen: boolean;
  active: boolean;
  onPick(row: number, column: number, e: Modifiers): void;
  onOpen(row: number, column: number): void;
}) {
  const { data } = variant;
  const state = CELL_STATES[letter];
  const size = pictureSize(slot);
  const follows = shot?.document.elements.some((e) => isProduct(e) && e.followsVariant);
  const text = says || (state?.title ?? '');
  const label = [
    `${data.variant || data.title}, ${slot.title}: ${state?.title ?? msg('measuring')}${says ? `, ${says}` : ''}`,
    DIFFERENCES[differs],
  ];
  return (
    <div
      id={`cell-${row}-${column}`}
      role="gridcell"
      aria-selected={chosen}
      aria-label={label.filter(Boolean).join('. ')}
      onClick={(e) => onPick(row, column, e)}
      onDoubleClick={() => onOpen(row, column)}
      className={`border-line absolute top-0 flex flex-col items-center justify-center gap-1.5 border-r border-b select-none ${chosen ? 'bg-spruce-tint' : 'hover:bg-spruce-tint/50'} ${active ? 'outline-spruce z-[5] outline-2 outline-offset-[-2px]' : ''}`}
      style={{ left, width, height: ROW }}
    >
      {shot && (data.cutout || !follows) ? (
        <BoardPicture shot={shot} slotKey={slotKey} slot={slot} data={data} {...size} />
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
        <span className="truncate" title={text}>
          {text.toLowerCase()}
        </span>
      </span>
    </div>
  );
});
