import { fileName } from '@scenograph/core/spec/file-name';
import { FORMATS, type Format, type Slot } from '@scenograph/core/spec/slot';
import { Checkbox, NumberField, Segmented, Switch, TextField } from '../../ui/controls';
import { Group, Optional, type Part } from './form-parts';
import { msg } from '../../language/language';

/** How the file is written. */
export function FileGroup({ slot, onChange }: Part) {
  return (
    <Group title={msg('File')}>
      <Formats slot={slot} onChange={onChange} />
      <NumberField
        label={msg('Maximum')}
        unit="KB"
        min={1}
        max={900_000}
        digits={1}
        value={slot.maxBytes / 1024}
        onCommit={(kb) => onChange({ maxBytes: Math.round(kb * 1024) })}
      />
      <Segmented
        label={msg('Colour space')}
        value={slot.colourSpace}
        onChange={(colourSpace) => onChange({ colourSpace })}
        options={[
          { value: 'srgb', title: 'sRGB' },
          { value: 'p3', title: 'Display P3' },
          { value: 'any', title: msg('Any') },
        ]}
      />
      <Optional
        label={msg('Density')}
        on={slot.density !== null}
        onChange={(on) => onChange({ density: on ? 300 : null })}
      >
        <NumberField
          hideLabel
          label={msg('Density')}
          unit="ppi"
          min={1}
          max={2400}
          value={slot.density}
          onCommit={(density) => onChange({ density })}
        />
      </Optional>
      <FileNamePattern slot={slot} onChange={onChange} />
      <Switch
        label={msg('Alternative text required')}
        on={slot.altText === 'required'}
        onChange={(on) => onChange({ altText: on ? 'required' : 'optional' })}
      />
    </Group>
  );
}

/** File formats that are taken, in order of preference. */
function Formats({ slot, onChange }: Part) {
  return (
    <fieldset>
      <legend className="text-ink-2 mb-1 text-[12px]">{msg('Formats, the first is preferred')}</legend>
      <div className="flex gap-3">
        {[...slot.formats, ...FORMATS.filter((f) => !slot.formats.includes(f))].map((f: Format) => (
          <label key={f} className="flex items-center gap-1.5">
            <Checkbox
              checked={slot.formats.includes(f)}
              disabled={slot.formats.length === 1 && slot.formats[0] === f}
              onChange={(on) =>
                onChange({
                  formats: on ? [...slot.formats, f] : slot.formats.filter((x) => x !== f),
                })
              }
            />
            <span className="measure">{f}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What a file would be called by a pattern, or why it gives no name. */
function exampleName(slot: Slot): string {
  try {
    return fileName(slot.fileName, {
      sku: 'MB-PL-160',
      listing: 'Autumn planters',
      marketplace: 'Kestrel Market',
      slot: slot.id,
      variant: 'Teal glaze',
      shot: 'Morning sill',
      n: 1,
    });
  } catch (e) {
    return (e as Error).message;
  }
}

/** The pattern of file names, with an example. */
function FileNamePattern({ slot, onChange }: Part) {
  return (
    <>
      <TextField
        mono
        label={msg('File name; a slash makes a folder')}
        value={slot.fileName}
        onCommit={(pattern) => onChange({ fileName: pattern })}
      />
      <p className="measure text-ink-2">{exampleName(slot)}</p>
      <p className="text-ink-2 text-[12px]">{'{sku} {listing} {marketplace} {slot} {variant} {shot} {n}'}</p>
    </>
  );
}
