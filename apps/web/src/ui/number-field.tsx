import { Popover } from 'radix-ui';
import { useEffect, useId, useState } from 'react';
import { readTyped } from '@scenograph/core/data/read-number';
import { useDraft } from './use-draft';
import { decimalComma, msg, numberText } from '../language/language';

/**
 * A number with its unit: typed as people write numbers, also as a sum ("2 * 40") or in another unit of length; stepped
 * with the arrow keys, ten times as far with Shift. Enter and leaving the field commit, Escape restores.
 */
export function NumberField({
  label,
  value,
  unit,
  onCommit,
  min = -100000,
  max = 100000,
  step = 1,
  digits = 0,
  hideLabel = false,
  disabled,
}: {
  label: string;
  value: number | null;
  unit: string;
  /** Gives null, at once or later, where the value was refused. */
  onCommit(value: number): unknown;
  min?: number;
  max?: number;
  step?: number;
  digits?: number;
  hideLabel?: boolean;
  disabled?: boolean;
}) {
  const id = useId();
  const shown = value === null ? '' : numberText(value, digits);
  const { text, setText, settled, restore, commit } = useDraft(shown);
  const [unread, setUnread] = useState(false);
  useEffect(() => setUnread(false), [shown]);
  const put = (next: number) => {
    const held = Math.min(max, Math.max(min, next));
    setUnread(false);
    // Where nothing changes outside, the field still says what counts.
    commit(numberText(held, digits), () => onCommit(held));
  };
  const read = () => readTyped(text, unit, { pointGroups: digits === 0, decimalComma: decimalComma() });
  /** Takes what was typed; what was not changed stays as exact as it is. */
  const take = (): boolean => {
    if (settled()) return true;
    const typed = read();
    if (typed === null) return false;
    put(typed);
    return true;
  };
  return (
    <div className="flex items-center gap-1.5">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'text-ink-2 w-14 shrink-0 text-[12px]'}>
        {label}
      </label>
      <Unread id={`${id}-unread`} open={unread} unit={unit}>
        <div
          className={`bg-card flex h-6.5 w-full min-w-0 items-center rounded-md border px-1.5 ${unread ? 'border-coral' : 'border-line focus-within:border-spruce'}`}
        >
          <input
            id={id}
            inputMode="decimal"
            disabled={disabled}
            aria-invalid={unread || undefined}
            aria-describedby={unread ? `${id}-unread` : undefined}
            className="measure w-full min-w-0 bg-transparent text-right outline-none disabled:text-ink-3"
            value={text}
            onChange={(e) => setText(e.target.value)}
            onBlur={() => {
              if (!take()) restore();
              setUnread(false);
            }}
            onKeyDown={(e) => {
              if (e.key === 'Enter') {
                // The number is taken; the form around it is not sent.
                e.preventDefault();
                setUnread(!take());
              }
              if (e.key === 'Escape') {
                restore();
                setUnread(false);
              }
              if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
                e.preventDefault();
                const by = (e.key === 'ArrowUp' ? 1 : -1) * step * (e.shiftKey ? 10 : 1);
                const from = text === shown ? (value ?? 0) : (read() ?? value ?? 0);
                put(from + by);
              }
              e.stopPropagation();
            }}
          />
          <span className="measure text-ink-2 pl-1">{unit}</span>
        </div>
      </Unread>
    </div>
  );
}

/** Says that a number cannot be read, beside its field and over what lies there. */
function Unread({
  id,
  open,
  unit,
  children,
}: {
  id: string;
  open: boolean;
  unit: string;
  children: React.ReactNode;
}) {
  return (
    <Popover.Root open={open}>
      <Popover.Anchor asChild>{children}</Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          id={id}
          role="alert"
          side="bottom"
          align="end"
          sideOffset={4}
          collisionPadding={8}
          // One goes on typing in the field.
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          className="border-coral bg-card text-coral-ink z-50 w-56 rounded-md border px-2 py-1 text-[12px] shadow-sm"
        >
          {msg('This cannot be read as a number of {unit}. Write one such as 12.5 or 2 * 40.', {
            unit: unit || msg('this kind'),
          })}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
