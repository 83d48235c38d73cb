import type { ReactNode } from 'react';
import type { Slot } from '@scenograph/core/spec/slot';
import { Checkbox, NumberField } from '../../ui/controls';
import { msg } from '../../language/language';

export interface Part {
  slot: Slot;
  onChange(patch: Partial<Slot>): void;
}

/** A share of the whole, typed in percent. */
export function Share({
  label,
  value,
  max = 100,
  onCommit,
}: {
  label: string;
  value: number | null;
  max?: number;
  onCommit(share: number): void;
}) {
  return (
    <NumberField
      label={label}
      unit="%"
      min={0}
      max={max}
      digits={2}
      value={value === null ? null : Math.round(value * 10000) / 100}
      onCommit={(v) => onCommit(v / 100)}
    />
  );
}

export function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="grid content-start gap-2">
      <h2 className="font-display border-line border-b pb-1 text-[15px] font-bold">{title}</h2>
      {children}
    </section>
  );
}

/** A rule that may be left out. */
export function Optional({
  label,
  on,
  onChange,
  children,
}: {
  label: string;
  on: boolean;
  onChange(on: boolean): void;
  children: ReactNode;
}) {
  return (
    <div className="flex h-7 items-center gap-2">
      <label className="flex w-40 shrink-0 items-center gap-2">
        <Checkbox checked={on} onChange={onChange} />
        {label}
      </label>
      <div className="grow">{on ? children : <span className="text-ink-2">{msg('not limited')}</span>}</div>
    </div>
  );
}
