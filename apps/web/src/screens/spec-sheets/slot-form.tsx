import { Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { fileName } from '@scenograph/core/spec/file-name';
import { FORMATS, type Format, type Slot } from '@scenograph/core/spec/slot';
import { Button, IconButton, NumberField, Segmented, Switch, TextField } from '../../ui/controls';

/** All rules of one slot, in the order in which a picture meets them. */
export function SlotForm({ slot, onChange }: { slot: Slot; onChange(patch: Partial<Slot>): void }) {
  const { limits, coverage, background } = slot;
  const share = (label: string, value: number | null, put: (share: number) => void, most = 100) => (
    <NumberField
      label={label}
      unit="%"
      min={0}
      max={most}
      digits={2}
      value={value === null ? null : Math.round(value * 10000) / 100}
      onCommit={(v) => put(v / 100)}
    />
  );
  const limit = (label: string, key: keyof NonNullable<Slot['limits']>, unit: string, digits = 0) => (
    <Optional
      label={label}
      on={limits![key] !== null}
      onChange={(on) =>
        onChange({
          limits: {
            ...limits!,
            [key]: on ? startOf(key, slot) : null,
          },
        })
      }
    >
      <NumberField
        hideLabel
        label={label}
        unit={unit}
        min={digits ? 0.05 : 16}
        max={digits ? 50 : 12000}
        digits={digits}
        value={limits![key]}
        onCommit={(v) => onChange({ limits: { ...limits!, [key]: v } })}
      />
    </Optional>
  );
  let example = '';
  try {
    example = fileName(slot.fileName, {
      sku: 'MB-PL-160',
      listing: 'Autumn planters',
      marketplace: 'Kestrel Market',
      slot: slot.id,
      variant: 'Teal glaze',
      shot: 'Morning sill',
      n: 1,
    });
  } catch (e) {
    example = (e as Error).message;
  }
  return (
    <div className="grid max-w-4xl grid-cols-2 gap-x-8 gap-y-5">
      <Group title="The slot">
        <TextField label="Title" value={slot.title} onCommit={(title) => onChange({ title })} />
        <TextField
          mono
          label="Id, by which shots fill it"
          value={slot.id}
          onCommit={(id) => onChange({ id })}
        />
        <Switch label="Required" on={slot.required} onChange={(required) => onChange({ required })} />
        <NumberField
          label="Pictures"
          unit="max"
          min={1}
          max={20}
          value={slot.count}
          onCommit={(count) => onChange({ count })}
        />
        <TextField
          label="Note"
          multiline
          value={slot.note ?? ''}
          onCommit={(note) => onChange({ note: note || undefined })}
        />
      </Group>
      <Group title="Pixels">
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Width"
            unit="px"
            min={16}
            max={12000}
            value={slot.width}
            onCommit={(width) => onChange({ width })}
          />
          <NumberField
            label="Height"
            unit="px"
            min={16}
            max={12000}
            value={slot.height}
            onCommit={(height) => onChange({ height })}
          />
        </div>
        <Segmented
          label="Which sizes are taken"
          value={limits ? 'limits' : 'exact'}
          onChange={(v) =>
            onChange({
              limits:
                v === 'exact'
                  ? null
                  : {
                      minWidth: slot.width,
                      minHeight: slot.height,
                      maxWidth: null,
                      maxHeight: null,
                      minAspect: null,
                      maxAspect: null,
                    },
            })
          }
          options={[
            { value: 'exact', title: 'Exactly this size' },
            { value: 'limits', title: 'Within limits' },
          ]}
        />
        {limits && (
          <>
            {limit('Minimum width', 'minWidth', 'px')}
            {limit('Maximum width', 'maxWidth', 'px')}
            {limit('Minimum height', 'minHeight', 'px')}
            {limit('Maximum height', 'maxHeight', 'px')}
            {limit('Minimum aspect ratio', 'minAspect', 'w/h', 3)}
            {limit('Maximum aspect ratio', 'maxAspect', 'w/h', 3)}
          </>
        )}
      </Group>
      <Group title="File">
        <fieldset>
          <legend className="text-ink-2 mb-1 text-[12px]">Formats, the first is preferred</legend>
          <div className="flex gap-3">
            {[...slot.formats, ...FORMATS.filter((f) => !slot.formats.includes(f))].map((f: Format) => (
              <label key={f} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-spruce"
                  checked={slot.formats.includes(f)}
                  disabled={slot.formats.length === 1 && slot.formats[0] === f}
                  onChange={(e) =>
                    onChange({
                      formats: e.target.checked ? [...slot.formats, f] : slot.formats.filter((x) => x !== f),
                    })
                  }
                />
                <span className="measure">{f}</span>
              </label>
            ))}
          </div>
        </fieldset>
        <NumberField
          label="Maximum"
          unit="KB"
          min={1}
          max={900_000}
          digits={1}
          value={slot.maxBytes / 1024}
          onCommit={(kb) => onChange({ maxBytes: Math.round(kb * 1024) })}
        />
        <Segmented
          label="Colour space"
          value={slot.colourSpace}
          onChange={(colourSpace) => onChange({ colourSpace })}
          options={[
            { value: 'srgb', title: 'sRGB' },
            { value: 'p3', title: 'Display P3' },
            { value: 'any', title: 'Any' },
          ]}
        />
        <Optional
          label="Density"
          on={slot.density !== null}
          onChange={(on) => onChange({ density: on ? 300 : null })}
        >
          <NumberField
            hideLabel
            label="Density"
            unit="ppi"
            min={1}
            max={2400}
            value={slot.density}
            onCommit={(density) => onChange({ density })}
          />
        </Optional>
        <TextField
          mono
          label="File name; a slash makes a folder"
          value={slot.fileName}
          onCommit={(pattern) => onChange({ fileName: pattern })}
        />
        <p className="measure text-ink-2">{example}</p>
        <p className="text-ink-2 text-[12px]">
          {'{sku} {listing} {marketplace} {slot} {variant} {shot} {n}'}
        </p>
        <Switch
          label="Alternative text required"
          on={slot.altText === 'required'}
          onChange={(on) => onChange({ altText: on ? 'required' : 'optional' })}
        />
      </Group>
      <Group title="Background and product">
        <Segmented
          label="Background"
          value={background.kind}
          onChange={(kind) => onChange({ background: { ...background, kind } })}
          options={[
            { value: 'any', title: 'Any' },
            { value: 'white', title: 'Pure white' },
            { value: 'transparent', title: 'Transparent' },
          ]}
        />
        {background.kind !== 'any' && (
          <div className="grid grid-cols-2 gap-2">
            {background.kind === 'white' && (
              <NumberField
                label="Tolerance"
                unit="/255"
                min={0}
                max={64}
                value={background.tolerance}
                onCommit={(tolerance) =>
                  onChange({ background: { ...background, tolerance: Math.round(tolerance) } })
                }
              />
            )}
            {share('Share', background.minShare, (minShare) =>
              onChange({ background: { ...background, minShare } }),
            )}
          </div>
        )}
        {(['min', 'max', 'wanted'] as const).map((key) => {
          const title = { min: 'Minimum coverage', max: 'Maximum coverage', wanted: 'Wanted coverage' }[key];
          return (
            <Optional
              key={key}
              label={title}
              on={coverage[key] !== null}
              onChange={(on) =>
                onChange({
                  coverage: { ...coverage, [key]: on ? { min: 0.3, max: 0.95, wanted: 0.8 }[key] : null },
                })
              }
            >
              <NumberField
                hideLabel
                label={title}
                unit="%"
                min={0}
                max={100}
                digits={1}
                value={coverage[key] === null ? null : coverage[key] * 100}
                onCommit={(v) => onChange({ coverage: { ...coverage, [key]: v / 100 } })}
              />
            </Optional>
          );
        })}
        {share('Margin', slot.marginShare, (marginShare) => onChange({ marginShare }), 40)}
        <Switch
          label="The whole product must be seen"
          on={slot.whole}
          onChange={(whole) => onChange({ whole })}
        />
        <NumberField
          label="Enlarged"
          unit="%"
          min={10}
          max={1000}
          value={slot.maxEnlargement * 100}
          onCommit={(v) => onChange({ maxEnlargement: v / 100 })}
        />
      </Group>
      <Group title="Overlays">
        <Segmented
          label="Text and logos"
          value={slot.overlays}
          onChange={(overlays) => onChange({ overlays })}
          options={[
            { value: 'allowed', title: 'Text and logos taken' },
            { value: 'forbidden', title: 'None taken' },
          ]}
        />
        <Optional
          label="Maximum text"
          on={slot.maxTextShare !== null}
          onChange={(on) => onChange({ maxTextShare: on ? 0.2 : null })}
        >
          <NumberField
            hideLabel
            label="Maximum text"
            unit="%"
            min={0}
            max={100}
            digits={1}
            value={slot.maxTextShare === null ? null : slot.maxTextShare * 100}
            onCommit={(v) => onChange({ maxTextShare: v / 100 })}
          />
        </Optional>
        <Switch
          label="Watermarks taken"
          on={slot.watermark === 'allowed'}
          onChange={(on) => onChange({ watermark: on ? 'allowed' : 'forbidden' })}
        />
      </Group>
      <Group title="Safe zones">
        {share('Edge', slot.safeShare, (safeShare) => onChange({ safeShare }), 40)}
        {slot.safeZones.map((zone, i) => {
          const put = (patch: Partial<typeof zone>) =>
            onChange({ safeZones: slot.safeZones.map((z, n) => (n === i ? { ...z, ...patch } : z)) });
          return (
            <fieldset key={i} className="border-line grid gap-1.5 rounded-md border p-2">
              <div className="flex items-end gap-2">
                <div className="grow">
                  <TextField
                    label="What lies there"
                    value={zone.title}
                    onCommit={(title) => put({ title })}
                  />
                </div>
                <IconButton
                  label={`Remove ${zone.title}`}
                  onClick={() => onChange({ safeZones: slot.safeZones.filter((_, n) => n !== i) })}
                >
                  <Trash2 size={14} aria-hidden />
                </IconButton>
              </div>
              <div className="grid grid-cols-2 gap-2">
                {share('Left', zone.x, (x) => put({ x }))}
                {share('Top', zone.y, (y) => put({ y }))}
                {share('Width', zone.width, (width) => put({ width }))}
                {share('Height', zone.height, (height) => put({ height }))}
              </div>
            </fieldset>
          );
        })}
        <Button
          onClick={() =>
            onChange({
              safeZones: [...slot.safeZones, { title: 'badge', x: 0, y: 0, width: 0.25, height: 0.12 }],
            })
          }
        >
          <Plus size={14} aria-hidden /> Add a zone
        </Button>
      </Group>
    </div>
  );
}

function startOf(key: keyof NonNullable<Slot['limits']>, { width, height }: Slot): number {
  if (key === 'minAspect' || key === 'maxAspect') return Math.round((width / height) * 1000) / 1000;
  return key.endsWith('Width') ? width : height;
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="grid content-start gap-2">
      <h2 className="font-display border-line border-b pb-1 text-[15px] font-bold">{title}</h2>
      {children}
    </section>
  );
}

/** A rule that may be left out. */
function Optional({
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
        <input
          type="checkbox"
          className="accent-spruce"
          checked={on}
          onChange={(e) => onChange(e.target.checked)}
        />
        {label}
      </label>
      <div className="grow">{on ? children : <span className="text-ink-2">not limited</span>}</div>
    </div>
  );
}
