import { writeLength } from '@scenograph/core/data/length';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { elementKind } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { EXPORT_FORMATS, exportName, type ExportFormat } from '@scenograph/core/delivery/export-name';
import { MM_PER_INCH, trimRect, type Trim } from '@scenograph/core/shot/trim';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
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
  format: ExportFormat;
  /** Of a picture with a bleed: what is left when it is cut, or all of it. */
  area: 'trim' | 'bleed';
}

/** How the last picture was exported: the next begins like it. */
export const useLastExport = create<Pick<ExportForm, 'format' | 'area'> & Pick<Size, 'by' | 'dpi'>>()(
  persist(
    (): Pick<ExportForm, 'format' | 'area'> & Pick<Size, 'by' | 'dpi'> => ({
      ...{ format: 'jpeg', area: 'trim', by: 'pixels', dpi: 300 },
    }),
    { name: 'scenograph-export' },
  ),
);

/** A width in pixels and its density, dots an inch; pixels alone are taken at 72. */
const pixelsOf = ({ by, width, mm, dpi }: Size) =>
  by === 'pixels'
    ? { pixels: width, density: 72 }
    : { pixels: Math.round((mm / MM_PER_INCH) * dpi), density: dpi };

const TITLES: Record<ExportFormat, string> = {
  ...{ jpeg: 'JPEG', png: 'PNG', webp: 'WebP', avif: 'AVIF', tiff: 'TIFF' },
};

/** Like the last one; what was made for paper at its own size there, whatever came before. */
function begun(resolved: ResolvedShot, trim: Trim | null): ExportForm {
  const { format, area, by, dpi } = useLastExport.getState();
  const { width } = trim && area === 'trim' ? trimRect(resolved, trim) : resolved;
  if (trim && trim.unit !== 'px')
    return {
      ...{ format, area },
      size: { by: 'millimetres', width, mm: (width / trim.dpi) * MM_PER_INCH, dpi: trim.dpi },
    };
  return { format, area, size: { by, width, mm: 100, dpi } };
}

/** The shot as one file of a chosen size, in pixels or in millimetres and dots an inch. */
export function ExportDialog({
  shotId,
  title,
  trim,
  resolved,
  slot,
  variant,
  known,
  before,
  onClose,
}: {
  shotId: string;
  title: string;
  /** Of the shot's own picture; null for a slot's, and where there is none. */
  trim: Trim | null;
  resolved: ResolvedShot;
  slot: string | null;
  variant: string | null;
  known: ReadonlyMap<string, { width: number; height: number }>;
  before(): Promise<void>;
  onClose(): void;
}) {
  const { unit } = useLengthUnit();
  const form = useForm<ExportForm>({ defaultValues: begun(resolved, trim) });
  const size = useWatch({ control: form.control, name: 'size' });
  const area = useWatch({ control: form.control, name: 'area' });
  const part = trim && area === 'trim' ? trimRect(resolved, trim) : resolved;
  const { pixels, density } = pixelsOf(size);
  const scale = pixels / part.width;
  const make = async ({ format, area }: ExportForm) => {
    const query = new URLSearchParams({
      ...{ width: String(pixels), density: String(density), format, area },
      ...(slot && { slot }),
      ...(variant && { variant }),
    });
    await before();
    const [width, height] = [pixels, Math.round(part.height * scale)];
    const name = exportName({ shot: title, variant: null, width, height }, format);
    await download('GET', `/api/shots/${shotId}/export?${query}`, name);
    useLastExport.setState({ format, area, by: size.by, dpi: size.dpi });
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
              options={EXPORT_FORMATS.map((value) => ({ value, title: TITLES[value] }))}
            />
          )}
        />
        {trim && trim.bleedMm > 0 && (
          <Controller
            control={form.control}
            name="area"
            render={({ field }) => (
              <Segmented
                label={msg('What is exported')}
                value={field.value}
                onChange={(to: ExportForm['area']) => {
                  // The picture keeps its scale: with its bleed it is wider.
                  const next = to === 'trim' ? trimRect(resolved, trim) : resolved;
                  const k = next.width / part.width;
                  form.setValue('size', { ...size, width: Math.round(size.width * k), mm: size.mm * k });
                  field.onChange(to);
                }}
                options={[
                  { value: 'trim', title: msg('As it is cut') },
                  { value: 'bleed', title: msg('With its bleed') },
                ]}
              />
            )}
          />
        )}
        <p className="measure text-ink-2" data-testid="export-size">
          {msg('{across} x {down} px at {density} dpi, {width} wide', {
            across: pixels,
            down: Math.round(part.height * scale),
            density,
            width: writeLength((pixels / density) * MM_PER_INCH, unit),
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
