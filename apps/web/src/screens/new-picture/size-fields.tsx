import {
  lengthOf,
  mmOf,
  SIZE_UNITS,
  type SizeUnit,
  type Trim,
  type TrimmedSize,
} from '@scenograph/core/shot/trim';
import { msg } from '../../language/language';
import { NumberField, Segmented } from '../../ui/controls';

/** Digits after the point that tell a pixel's worth of a unit. */
const DIGITS: Record<SizeUnit, number> = { px: 0, mm: 1, cm: 2, in: 3 };

/** A picture's trimmed size in pixels or on paper, and what is kept around and within it. */
export function SizeFields({ size, onChange }: { size: TrimmedSize; onChange(size: TrimmedSize): void }) {
  const { unit, dpi, width, height } = size;
  const side = (key: 'width' | 'height', label: string) => (
    <NumberField
      label={label}
      unit={unit}
      digits={DIGITS[unit]}
      min={0}
      value={size[key]}
      onCommit={(v) => onChange({ ...size, [key]: v })}
    />
  );
  return (
    <div className="grid gap-2">
      <Segmented
        label={msg('Size in')}
        value={unit}
        onChange={(to) => onChange(inUnit(size, to))}
        options={SIZE_UNITS.map((value) => ({ value, title: value }))}
      />
      <div className="grid grid-cols-2 gap-2">
        {side('width', msg('Width'))}
        {side('height', msg('Height'))}
        <NumberField
          label={msg('Density')}
          unit="dpi"
          min={10}
          max={2400}
          value={dpi}
          onCommit={(v) => onChange({ ...size, dpi: Math.round(v) })}
        />
        <button
          type="button"
          onClick={() => onChange({ ...size, width: height, height: width })}
          className="border-line hover:border-ink-3 h-6.5 rounded-md border text-[12px]"
        >
          {msg('Swap sides')}
        </button>
        <PaperLength size={size} of="bleedMm" label={msg('Bleed')} most={50} onChange={onChange} />
        <PaperLength size={size} of="safeMm" label={msg('Safe')} most={100} onChange={onChange} />
      </div>
    </div>
  );
}

/** A length on paper, in the size's unit; in millimetres where that is pixels. */
function PaperLength({
  size,
  of,
  label,
  most,
  onChange,
}: {
  size: TrimmedSize;
  of: keyof Pick<Trim, 'bleedMm' | 'safeMm'>;
  label: string;
  most: number;
  onChange(size: TrimmedSize): void;
}) {
  const unit = size.unit === 'px' ? 'mm' : size.unit;
  return (
    <NumberField
      label={label}
      unit={unit}
      digits={DIGITS[unit]}
      min={0}
      max={lengthOf(most, unit, size.dpi)}
      value={lengthOf(size[of], unit, size.dpi)}
      onCommit={(v) => onChange({ ...size, [of]: mmOf(v, unit, size.dpi) })}
    />
  );
}

/** The same picture, its sides told in another unit. */
function inUnit(size: TrimmedSize, unit: SizeUnit): TrimmedSize {
  const told = (length: number) => {
    const same = lengthOf(mmOf(length, size.unit, size.dpi), unit, size.dpi);
    return Number(same.toFixed(DIGITS[unit]));
  };
  return { ...size, unit, width: told(size.width), height: told(size.height) };
}
