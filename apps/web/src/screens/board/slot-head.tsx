import { memo } from 'react';
import type { Slot, SpecSheet } from '@scenograph/core/spec/slot';
import type { ShotRow } from '../../api/client';
import { Select } from '../../ui/controls';
import type { Modifiers } from './board-cell';
import { msg } from '../../language/language';

export const HEAD = 94;

export interface BoardColumn {
  key: string;
  slot: Slot;
  sheet: SpecSheet;
  /** Its place in the server's rows. */
  index: number;
}

/** The head of a column: marketplace, slot, its size, and the shot that fills it. */
export const SlotHead = memo(function SlotHead({
  column: { key, slot, sheet },
  n,
  left,
  width,
  shots,
  fedBy,
  onChoose,
  onFeed,
}: {
  column: BoardColumn;
  n: number;
  left: number;
  width: number;
  shots: ShotRow[];
  fedBy: string | null;
  onChoose(column: number, e: Modifiers): void;
  onFeed(slotKey: string, shotId: string | null): void;
}) {
  return (
    <div
      role="columnheader"
      className="border-line bg-card absolute top-0 overflow-hidden border-r border-b"
      style={{ left, width, height: HEAD }}
    >
      <span className="bg-spruce block truncate px-2 py-1 text-[11.5px] font-semibold text-white">
        {sheet.marketplace}
      </span>
      <button
        type="button"
        className="hover:bg-spruce-tint block w-full px-2 pt-1 text-left focus-visible:outline-offset-[-2px]"
        aria-label={msg('Choose all cells of {slot}, {marketplace}', {
          slot: slot.title,
          marketplace: sheet.marketplace,
        })}
        onClick={(e) => onChoose(n, e)}
      >
        <span className="block truncate text-[12.5px] font-semibold">
          {slot.title}
          {!slot.required && <span className="text-ink-2 font-normal"> {msg('optional')}</span>}
        </span>
        <span className="measure text-ink-2 block">
          {slot.width} x {slot.height}
        </span>
      </button>
      <div className="px-1.5 pb-1">
        <Select
          label={msg('Shot for {marketplace} {slot}', { marketplace: sheet.marketplace, slot: slot.title })}
          className="w-full !h-6.5 !text-[12px]"
          value={fedBy ?? 'none'}
          onChange={(v) => onFeed(key, v === 'none' ? null : v)}
          options={[
            { value: 'none', title: msg('missing') },
            ...shots.map((s) => ({ value: s.id, title: s.title })),
          ]}
        />
      </div>
    </div>
  );
});
