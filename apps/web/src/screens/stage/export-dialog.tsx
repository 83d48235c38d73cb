import { writeLength } from '@scenograph/core/data/length';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { elementKind } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { Format } from '@scenograph/core/spec/slot';
import { NumberField, Segmented } from '../../ui/controls';
import { LengthField, useLengthUnit } from '../../ui/length-field';
import { FormDialog } from '../../ui/form-dialog';
import { download } from './download';
import { msg } from '../../language/language';

interface Size {
  by: 'pixels' | 'millimetres';
  /** Pixels. */
  width: number;
  mm: number;
  dpi: number;
}

interface ExportForm {
  size: Size;
  format: Format;
}

/** A width in pixels and its density, dots an inch; pixels alone are taken at 72. */
const pixelsOf = ({ by, width, mm, dpi }: Size) =>
  by === 'pixels' ? { pixels: width, density: 72 } : { pixels: Math.round((mm / 25.4) * dpi), density: dpi };

/** The shot as one file of a chosen size, in pixels or in millimetres and dots an inch. */
export function ExportDialog({
  shotId,
  resolved,
  slot,
  variant,
  known,
  before,
  onClose,
}: {
  shotId: string;
  resolved: ResolvedShot;
  slot: string | null;
  variant: string | null;
  known: ReadonlyMap<string, { width: number; height: number }>;
  before(): Promise<void>;
  onClose(): void;
}) {
  const { unit } = useLengthUnit();
  const form = useForm<ExportForm>({
    defaultValues: { size: { by: 'pixels', width: resolved.width, mm: 100, dpi: 300 }, format: 'jpeg' },
  });
  const size = useWatch({ control: form.control, name: 'size' });
  const { pixels, density } = pixelsOf(size);
  const scale = pixels / resolved.width;
  const make = async ({ format }: ExportForm) => {
    const query = new URLSearchParams({
      width: String(pixels),
      density: String(density),
      format,
      ...(slot && { slot }),
      ...(variant && { variant }),
    });
    await before();
    const name = `shot.${format === 'jpeg' ? 'jpg' : format}`;
    await download('GET', `/api/shots/${shotId}/export?${query}`, name);
    onClose();
  };
  return (
    <FormDialog
      form={form}
      onSend={make}
      send={form.formState.isSubmitting ? msg('Making the picture') : msg('Export')}
      onClose={onClose}
      title={msg('Export one picture')}
    >
      <div className="grid gap-3">
        <SizeFields size={size} set={(value) => form.setValue('size', { ...size, ...value })} />
        <Controller
          control={form.control}
          name="format"
          render={({ field }) => (
            <Segmented
              label={msg('Format')}
              value={field.value}
              onChange={field.onChange}
              options={[
                { value: 'jpeg', title: 'JPEG' },
                { value: 'png', title: 'PNG' },
                { value: 'webp', title: 'WebP' },
              ]}
            />
          )}
        />
        <p className="measure text-ink-2" data-testid="export-size">
          {msg('{across} x {down} px at {density} dpi, {width} wide', {
            across: pixels,
            down: Math.round(resolved.height * scale),
            density,
            width: writeLength((pixels / density) * 25.4, unit),
          })}
        </p>
        {enlargedIn(resolved, known, scale).map((s) => (
          <p key={s.name} className="text-amber-ink text-[12.5px]">
            {msg(
              '“{s}” is enlarged to {factor} percent of its own pixels and will look soft. Import it larger, or export smaller.',
              { s: s.name, factor: Math.round(s.factor * 100) },
            )}
          </p>
        ))}
      </div>
    </FormDialog>
  );
}

function SizeFields({ size, set }: { size: Size; set(value: Partial<Size>): void }) {
  const { unit } = useLengthUnit();
  return (
    <>
      <Segmented
        label={msg('Size by')}
        value={size.by}
        onChange={(by) => set({ by })}
        options={[
          { value: 'pixels', title: msg('Pixels') },
          { value: 'millimetres', title: unit === 'in' ? msg('Inches') : msg('Millimetres') },
        ]}
      />
      <div className="grid grid-cols-2 gap-3">
        {size.by === 'pixels' ? (
          <NumberField
            label={msg('Width')}
            unit="px"
            min={16}
            max={20000}
            value={size.width}
            onCommit={(v) => set({ width: Math.round(v) })}
          />
        ) : (
          <>
            <LengthField
              label={msg('Width')}
              min={5}
              max={2000}
              value={size.mm}
              onCommit={(mm) => set({ mm })}
            />
            <NumberField
              label={msg('Density')}
              unit="dpi"
              min={10}
              max={2400}
              value={size.dpi}
              onCommit={(v) => set({ dpi: Math.round(v) })}
            />
          </>
        )}
      </div>
    </>
  );
}

/** What would be shown at more than its own pixels, the worst first. */
function enlargedIn(
  shot: ResolvedShot,
  known: ReadonlyMap<string, { width: number; height: number }>,
  scale: number,
): { name: string; factor: number }[] {
  return shot.elements
    .filter((e) => !e.hidden)
    .flatMap((e) => {
      const kind = elementKind(e.kind);
      if (kind.enlarged) return kind.enlarged(e, known);
      return kind.needs(e).pictures.flatMap((hash) => {
        const size = known.get(hash);
        return size
          ? [{ name: e.name, factor: Math.min(e.box.width / size.width, e.box.height / size.height) }]
          : [];
      });
    })
    .map(({ name, factor }) => ({ name, factor: factor * scale }))
    .filter(({ factor }) => factor > 1.05)
    .sort((a, b) => b.factor - a.factor);
}
