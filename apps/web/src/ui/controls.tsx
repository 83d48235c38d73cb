import {
  Checkbox as RadixCheckbox,
  Slider as RadixSlider,
  ToggleGroup,
  Select as RadixSelect,
  Switch as RadixSwitch,
} from 'radix-ui';
import { Check, ChevronDown, Minus } from 'lucide-react';
import { NumberField } from './number-field';
import { useId, type ButtonHTMLAttributes, type ReactNode } from 'react';
import { Tooltip } from './tooltip';
import { useDraft } from './use-draft';

export { NumberField };

type Tone = 'plain' | 'main' | 'quiet' | 'danger';

const TONES: Record<Tone, string> = {
  plain: 'border border-line bg-card text-ink hover:border-ink-3',
  main: 'border border-limelight-edge bg-limelight text-ink font-semibold hover:brightness-95',
  quiet: 'border border-transparent text-ink-2 hover:bg-spruce-tint hover:text-ink',
  danger: 'border border-line bg-card text-coral-ink hover:border-coral',
};

export function buttonClass(tone: Tone = 'plain', className = ''): string {
  return `inline-flex h-7 shrink-0 items-center justify-center gap-1.5 rounded-md px-3 text-[13px] font-medium whitespace-nowrap transition-colors disabled:opacity-45 ${TONES[tone]} ${className}`;
}

export function Button({
  tone = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { tone?: Tone }) {
  return <button type="button" className={buttonClass(tone, className)} {...rest} />;
}

export function IconButton({
  label,
  className = '',
  children,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { label: string }) {
  return (
    <Tooltip text={label}>
      <button
        type="button"
        aria-label={label}
        className={`inline-flex h-7 w-8 shrink-0 items-center justify-center rounded-md border border-line bg-card text-ink hover:border-ink-3 disabled:text-ink-3 disabled:opacity-60 ${className}`}
        {...rest}
      >
        {children}
      </button>
    </Tooltip>
  );
}

export function Slider({
  label,
  value,
  min = 0,
  max = 100,
  step = 1,
  digits = 0,
  unit,
  onChange,
  onCommit,
}: {
  label: string;
  value: number;
  min?: number;
  max?: number;
  step?: number;
  digits?: number;
  unit: string;
  onChange(value: number): void;
  onCommit(value: number): void;
}) {
  return (
    <div className="flex h-8 items-center gap-3">
      <span className="text-ink-2 w-19 shrink-0 text-[12px]">{label}</span>
      <RadixSlider.Root
        className="relative flex h-5 grow touch-none items-center select-none"
        min={min}
        max={max}
        step={step}
        value={[value]}
        onValueChange={([v]) => onChange(v)}
        onValueCommit={([v]) => onCommit(v)}
      >
        <RadixSlider.Track className="bg-line relative h-[3px] grow rounded-full">
          <RadixSlider.Range className="bg-spruce absolute h-full rounded-full" />
        </RadixSlider.Track>
        <RadixSlider.Thumb aria-label={label} className="bg-ink block h-3.5 w-1.5 rounded-[2px]" />
      </RadixSlider.Root>
      <div className="w-19 shrink-0">
        <NumberField
          label={label}
          hideLabel
          value={value}
          unit={unit}
          step={step}
          digits={digits}
          min={min}
          max={max}
          onCommit={onCommit}
        />
      </div>
    </div>
  );
}

export function Segmented<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: { value: T; title: ReactNode; label?: string }[];
  onChange(value: T): void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(v) => v && onChange(v as T)}
      className="border-line bg-card flex overflow-hidden rounded-md border"
    >
      {options.map((o) => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          aria-label={o.label}
          className="border-line text-ink-2 data-[state=on]:bg-spruce-tint data-[state=on]:text-spruce flex h-7 grow items-center justify-center border-l px-2.5 text-[12px] font-medium whitespace-nowrap first:border-l-0 focus-visible:outline-offset-[-2px] data-[state=on]:font-semibold"
        >
          {o.title}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

export function Select<T extends string>({
  label,
  value,
  options,
  onChange,
  className = '',
}: {
  label: string;
  value: T;
  options: { value: T; title: string }[];
  onChange(value: T): void;
  className?: string;
}) {
  return (
    <RadixSelect.Root value={value} onValueChange={(v) => onChange(v as T)}>
      <RadixSelect.Trigger
        aria-label={label}
        className={`border-line bg-card hover:border-ink-3 inline-flex h-7 min-w-0 items-center justify-between gap-2 rounded-md border px-2.5 text-[13px] ${className}`}
      >
        <span className="truncate">
          <RadixSelect.Value placeholder={label} />
        </span>
        <RadixSelect.Icon>
          <ChevronDown size={14} aria-hidden />
        </RadixSelect.Icon>
      </RadixSelect.Trigger>
      <RadixSelect.Portal>
        <RadixSelect.Content
          position="popper"
          sideOffset={4}
          className="border-line bg-card z-50 max-h-80 overflow-hidden rounded-lg border shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
        >
          <RadixSelect.Viewport className="p-1">
            {options.map((o) => (
              <RadixSelect.Item
                key={o.value}
                value={o.value}
                className="data-[highlighted]:bg-spruce-tint flex h-7 items-center justify-between gap-4 rounded-sm px-2.5 text-[13px] outline-none"
              >
                <RadixSelect.ItemText>{o.title}</RadixSelect.ItemText>
                <RadixSelect.ItemIndicator>
                  <Check size={13} aria-hidden />
                </RadixSelect.ItemIndicator>
              </RadixSelect.Item>
            ))}
          </RadixSelect.Viewport>
        </RadixSelect.Content>
      </RadixSelect.Portal>
    </RadixSelect.Root>
  );
}

export function Switch({ label, on, onChange }: { label: string; on: boolean; onChange(on: boolean): void }) {
  const id = useId();
  return (
    <div className="flex h-8 items-center justify-between gap-3">
      <label htmlFor={id} className="text-[12.5px]">
        {label}
      </label>
      <RadixSwitch.Root
        id={id}
        checked={on}
        onCheckedChange={onChange}
        className="bg-ink-3 data-[state=checked]:bg-spruce relative h-4.5 w-8 rounded-full transition-colors"
      >
        <RadixSwitch.Thumb className="block h-3.5 w-3.5 translate-x-0.5 rounded-full bg-white transition-transform data-[state=checked]:translate-x-4" />
      </RadixSwitch.Root>
    </div>
  );
}

/** The state of a box for all of a list, by how many of it are chosen. */
export const allTicked = (chosen: number, all: number): boolean | 'indeterminate' =>
  chosen === 0 ? false : chosen === all ? true : 'indeterminate';

/** A box that is ticked or not; some of several are `'indeterminate'`. Words beside it are its label's. */
export function Checkbox({
  checked,
  disabled,
  label,
  onChange,
}: {
  checked: boolean | 'indeterminate';
  disabled?: boolean;
  /** Its name, where no label stands around it. */
  label?: string;
  onChange(on: boolean): void;
}) {
  return (
    <RadixCheckbox.Root
      aria-label={label}
      checked={checked}
      disabled={disabled}
      onCheckedChange={(on) => onChange(on === true)}
      className="border-ink-3 bg-card data-[state=unchecked]:hover:border-ink data-[state=checked]:border-spruce data-[state=checked]:bg-spruce data-[state=indeterminate]:border-spruce data-[state=indeterminate]:bg-spruce inline-flex h-4 w-4 shrink-0 items-center justify-center rounded-sm border text-white disabled:opacity-45"
    >
      <RadixCheckbox.Indicator>
        {checked === 'indeterminate' ? <Minus size={12} aria-hidden /> : <Check size={12} aria-hidden />}
      </RadixCheckbox.Indicator>
    </RadixCheckbox.Root>
  );
}

export function TextField({
  label,
  value,
  onCommit,
  multiline,
  hideLabel,
  mono,
  placeholder,
}: {
  label: string;
  value: string;
  /** Gives null, at once or later, where the value was refused. */
  onCommit(value: string): unknown;
  multiline?: boolean;
  hideLabel?: boolean;
  mono?: boolean;
  placeholder?: string;
}) {
  const id = useId();
  const { text, setText, settled, restore, commit } = useDraft(value);
  const common = {
    id,
    value: text,
    placeholder,
    onChange: (e: { target: { value: string } }) => setText(e.target.value),
    onBlur: () => !settled() && commit(text, () => onCommit(text)),
    onKeyDown: (e: React.KeyboardEvent) => {
      e.stopPropagation();
      if (e.key === 'Escape') restore();
      if (e.key === 'Enter' && (!multiline || e.ctrlKey || e.metaKey)) (e.target as HTMLElement).blur();
    },
    className: `border-line focus:border-spruce bg-card w-full min-w-0 rounded-md border px-2 outline-none ${mono ? 'measure' : 'text-[13px]'} ${multiline ? 'min-h-16 resize-y py-1.5' : 'h-7'}`,
  };
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'text-ink-2 mb-1 block text-[12px]'}>
        {label}
      </label>
      {multiline ? <textarea {...common} /> : <input {...common} />}
    </div>
  );
}
