import { writeLength } from '@scenograph/core/data/length';
import { useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { elementKind } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { EXPORT_FORMATS, exportName, type ExportFormat } from '@scenograph/core/delivery/export-name';
import { MM_PER_INCH, trimRect, type Trim } from '@scenograph/core/shot/trim';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { NumberField, Segmented, Switch } from '../../ui/controls';
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
  /** Of a PDF. */
  marks: boolean;
  words: 'text' | 'outlines';
}

type Last = Omit<ExportForm, 'size'> & Pick<Size, 'by' | 'dpi'>;

/** How the last picture was exported: the next begins like it. */
export const useLastExport = create<Last>()(
  persist(
    (): Last => ({
      ...{ format: 'jpeg', area: 'trim', marks: false, words: 'text' },
      ...{ by: 'pixels', dpi: 300 },
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
  ...{ jpeg: 'JPEG', png: 'PNG', webp: 'WebP', avif: 'AVIF', tiff: 'TIFF', pdf: 'PDF' },
};

/** Like the last one; what was made for paper at its own size there, whatever came before. */
function begun(resolved: ResolvedShot, trim: Trim | null): ExportForm {
  const { by, dpi, ...last } = useLastExport.getState();
  const { width } = trim && last.area === 'trim' ? trimRect(resolved, trim) : resolved;
  if (trim && trim.unit !== 'px') {
    const mm = (width / trim.dpi) * MM_PER_INCH;
    return { ...last, size: { by: 'millimetres', width, mm, dpi: trim.dpi } };
  }
  return { ...last, size: { by, width, mm: 100, dpi } };
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
  const make = async ({ size: { by, dpi }, ...file }: ExportForm) => {
    const { format, marks, words } = file;
    const query = new URLSearchParams({
      ...{ width: String(pixels), density: String(density), format, area: file.area },
      ...(format === 'pdf' && { marks: marks ? 'crop' : 'none', words }),
      ...(slot && { slot }),
      ...(variant && { variant }),
    });
    await before();
    const page = format === 'pdf' ? MM_PER_INCH / density : 1;
    const [width, height] = [pixels * page, part.height * scale * page];
    const name = exportName({ shot: title, variant: null, width, height }, format);
    await download('GET', `/api/shots/${shotId}/export?${query}`, name);
    useLastExport.setState({ ...file, by, dpi });
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
        <FileFields form={form} frame={resolved} trim={trim} />
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

/** The format, what of a picture with a bleed is exported, and what a PDF is like. */
function FileFields({
  form,
  frame,
  trim,
}: {
  form: UseFormReturn<ExportForm>;
  frame: ResolvedShot;
  trim: Trim | null;
}) {
  const [format, area, size, marks, words] = useWatch({
    control: form.control,
    name: ['format', 'area', 'size', 'marks', 'words'],
  });
  const show = (to: ExportForm['area']) => {
    // The picture keeps its scale: with its bleed it is wider.
    const widthOf = (a: ExportForm['area']) => (a === 'trim' ? trimRect(frame, trim!) : frame).width;
    const k = widthOf(to) / widthOf(area);
    form.setValue('size', { ...size, width: Math.round(size.width * k), mm: size.mm * k });
    form.setValue('area', to);
  };
  return (
    <>
      <Segmented
        label={msg('Format')}
        value={format}
        onChange={(to: ExportFormat) => form.setValue('format', to)}
        options={EXPORT_FORMATS.map((value) => ({ value, title: TITLES[value] }))}
      />
      {trim && trim.bleedMm > 0 && (
        <Segmented
          label={msg('What is exported')}
          value={area}
          onChange={show}
          options={[
            { value: 'trim', title: msg('As it is cut') },
            { value: 'bleed', title: msg('With its bleed') },
          ]}
        />
      )}
      {format === 'pdf' && (
        <>
          <Segmented
            label={msg('Words')}
            value={words}
            onChange={(to: ExportForm['words']) => form.setValue('words', to)}
            options={[
              { value: 'text', title: msg('Words as text') },
              { value: 'outlines', title: msg('Words as outlines') },
            ]}
          />
          <Switch label={msg('Crop marks')} on={marks} onChange={(on) => form.setValue('marks', on)} />
          <p className="text-ink-2 text-[12px]">
            {msg(
              'Words, shapes and signs in front stay sharp at any size; all below them is one picture at the density above. Colours are sRGB.',
            )}
          </p>
        </>
      )}
    </>
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
