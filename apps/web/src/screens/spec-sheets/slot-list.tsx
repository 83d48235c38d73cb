import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Slot } from '@scenograph/core/spec/slot';
import { IconButton } from '../../ui/controls';
import { moved, withCopy, withNew } from './slots';
import { msg } from '../../language/language';

/** A sheet's slots in their order, one of them chosen; added, copied, moved and removed. */
export function SlotList({
  slots,
  at,
  onChoose,
  onChange,
}: {
  slots: Slot[];
  /** The chosen slot's place; null where something else is shown. */
  at: number | null;
  onChoose(at: number): void;
  onChange(label: string, slots: Slot[], at: number): void;
}) {
  const here = Math.min(at ?? 0, slots.length - 1);
  const slot = slots[here];
  const button = (label: string, icon: ReactNode, run: () => void, off = false) => (
    <IconButton label={label} disabled={off} onClick={run}>
      {icon}
    </IconButton>
  );
  return (
    <>
      <ul className="border-line min-h-0 grow overflow-y-auto border-t">
        {slots.map((s, i) => (
          <li key={i}>
            <SlotButton slot={s} current={i === at} onClick={() => onChoose(i)} />
          </li>
        ))}
      </ul>
      <div className="border-line flex gap-1 border-t p-2">
        {button(msg('Add a slot'), <Plus size={14} aria-hidden />, () =>
          onChange(msg('Add a slot'), withNew(slots, slot), slots.length),
        )}
        {button(msg('Copy this slot'), <Copy size={14} aria-hidden />, () =>
          onChange(msg('Copy {slot}', { slot: slot.title }), withCopy(slots, slot), slots.length),
        )}
        {button(
          msg('Earlier'),
          <ArrowUp size={14} aria-hidden />,
          () => onChange(msg('Move {slot}', { slot: slot.title }), moved(slots, here, -1), here - 1),
          here === 0,
        )}
        {button(
          msg('Later'),
          <ArrowDown size={14} aria-hidden />,
          () => onChange(msg('Move {slot}', { slot: slot.title }), moved(slots, here, 1), here + 1),
          here === slots.length - 1,
        )}
        {button(
          msg('Remove this slot'),
          <Trash2 size={14} aria-hidden />,
          () =>
            onChange(
              msg('Remove {slot}', { slot: slot.title }),
              slots.filter((s) => s !== slot),
              Math.max(0, here - 1),
            ),
          slots.length === 1,
        )}
      </div>
    </>
  );
}

function SlotButton({ slot, current, onClick }: { slot: Slot; current: boolean; onClick(): void }) {
  return (
    <button
      type="button"
      aria-current={current}
      onClick={onClick}
      className={`border-line flex w-full items-baseline justify-between gap-2 border-b px-3 py-1.5 text-left focus-visible:outline-offset-[-2px] ${current ? 'bg-spruce-tint' : 'hover:bg-spruce-tint/50'}`}
    >
      <span className="truncate font-medium">
        {slot.title}
        {slot.count > 1 && <span className="measure text-ink-2"> x{slot.count}</span>}
      </span>
      <span className="measure text-ink-2 whitespace-nowrap">
        {slot.width}x{slot.height}
      </span>
    </button>
  );
}
