import { digitsOf, fromMillimetres, toMillimetres, type LengthUnit } from '@scenograph/core/data/length';
import type { ComponentProps } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { NumberField, Slider } from './controls';

/** The unit of lengths on this browser; chosen in the command menu. */
export const useLengthUnit = create<{ unit: LengthUnit }>()(
  persist((): { unit: LengthUnit } => ({ unit: 'mm' }), { name: 'scenograph-length-unit' }),
);

const STEP = { mm: 1, in: 0.1 };

/** A length in millimetres, shown and typed in the unit one has chosen; another may be written after the number. */
export function LengthField({
  value,
  min,
  max,
  digits = 0,
  onCommit,
  ...rest
}: Omit<ComponentProps<typeof NumberField>, 'unit' | 'step'>) {
  const { unit } = useLengthUnit();
  const shown = (mm: number | undefined) => (mm === undefined ? undefined : fromMillimetres(mm, unit));
  return (
    <NumberField
      {...rest}
      unit={unit}
      step={STEP[unit]}
      digits={digitsOf(unit, digits)}
      value={value === null ? null : fromMillimetres(value, unit)}
      min={shown(min)}
      max={shown(max)}
      onCommit={(v) => onCommit(toMillimetres(v, unit))}
    />
  );
}

/** The same as a slider. */
export function LengthSlider({
  value,
  min = 0,
  max = 100,
  onChange,
  onCommit,
  label,
}: {
  label: string;
  value: number;
  min?: number;
  max?: number;
  onChange(mm: number): void;
  onCommit(mm: number): void;
}) {
  const { unit } = useLengthUnit();
  return (
    <Slider
      label={label}
      unit={unit}
      step={unit === 'in' ? 0.05 : 1}
      digits={digitsOf(unit, 0)}
      min={fromMillimetres(min, unit)}
      max={fromMillimetres(max, unit)}
      value={fromMillimetres(value, unit)}
      onChange={(v) => onChange(toMillimetres(v, unit))}
      onCommit={(v) => onCommit(toMillimetres(v, unit))}
    />
  );
}
