import type { Slot } from '@scenograph/core/spec/slot';
import { NumberField, Segmented, Switch, TextField } from '../../ui/controls';
import { Group, Optional, type Part } from './form-parts';
import { FileGroup } from './slot-file';
import { BackgroundGroup, OverlaysGroup, SafeZonesGroup } from './slot-pictures';
import { msg } from '../../language/language';

/** All rules of one slot, in the order in which a picture meets them. */
export function SlotForm(part: Part) {
  return (
    <div className="grid max-w-4xl grid-cols-2 gap-x-8 gap-y-5">
      <NameGroup {...part} />
      <PixelsGroup {...part} />
      <FileGroup {...part} />
      <BackgroundGroup {...part} />
      <OverlaysGroup {...part} />
      <SafeZonesGroup {...part} />
    </div>
  );
}

/** What the slot is called and how many pictures it takes. */
function NameGroup({ slot, onChange }: Part) {
  return (
    <Group title={msg('The slot')}>
      <TextField label={msg('Title')} value={slot.title} onCommit={(title) => onChange({ title })} />
      <TextField
        mono
        label={msg('Id, by which shots fill it')}
        value={slot.id}
        onCommit={(id) => onChange({ id })}
      />
      <Switch label={msg('Required')} on={slot.required} onChange={(required) => onChange({ required })} />
      <NumberField
        label={msg('Pictures')}
        unit="max"
        min={1}
        max={20}
        value={slot.count}
        onCommit={(count) => onChange({ count })}
      />
      <TextField
        label={msg('Note')}
        multiline
        value={slot.note ?? ''}
        onCommit={(note) => onChange({ note: note || undefined })}
      />
    </Group>
  );
}

/** The size that is made, and the sizes that are taken. */
function PixelsGroup({ slot, onChange }: Part) {
  const { limits } = slot;
  return (
    <Group title={msg('Pixels')}>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={msg('Width')}
          unit="px"
          min={16}
          max={12000}
          value={slot.width}
          onCommit={(width) => onChange({ width })}
        />
        <NumberField
          label={msg('Height')}
          unit="px"
          min={16}
          max={12000}
          value={slot.height}
          onCommit={(height) => onChange({ height })}
        />
      </div>
      <Segmented
        label={msg('Which sizes are taken')}
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
          { value: 'exact', title: msg('Exactly this size') },
          { value: 'limits', title: msg('Within limits') },
        ]}
      />
      {limits && (
        <>
          <Limit
            label={msg('Minimum width')}
            of="minWidth"
            unit="px"
            digits={0}
            slot={slot}
            onChange={onChange}
          />
          <Limit
            label={msg('Maximum width')}
            of="maxWidth"
            unit="px"
            digits={0}
            slot={slot}
            onChange={onChange}
          />
          <Limit
            label={msg('Minimum height')}
            of="minHeight"
            unit="px"
            digits={0}
            slot={slot}
            onChange={onChange}
          />
          <Limit
            label={msg('Maximum height')}
            of="maxHeight"
            unit="px"
            digits={0}
            slot={slot}
            onChange={onChange}
          />
          <Limit
            label={msg('Minimum aspect ratio')}
            of="minAspect"
            unit="w/h"
            digits={3}
            slot={slot}
            onChange={onChange}
          />
          <Limit
            label={msg('Maximum aspect ratio')}
            of="maxAspect"
            unit="w/h"
            digits={3}
            slot={slot}
            onChange={onChange}
          />
        </>
      )}
    </Group>
  );
}

/** One limit of the sizes that are taken. */
function Limit({
  label,
  of: key,
  unit,
  digits,
  slot,
  onChange,
}: Part & { label: string; of: keyof NonNullable<Slot['limits']>; unit: string; digits: number }) {
  const limits = slot.limits!;
  const put = (value: number | null) => onChange({ limits: { ...limits, [key]: value } });
  return (
    <Optional label={label} on={limits[key] !== null} onChange={(on) => put(on ? startOf(key, slot) : null)}>
      <NumberField
        hideLabel
        label={label}
        unit={unit}
        min={digits ? 0.05 : 16}
        max={digits ? 50 : 12000}
        digits={digits}
        value={limits[key]}
        onCommit={put}
      />
    </Optional>
  );
}

function startOf(key: keyof NonNullable<Slot['limits']>, { width, height }: Slot): number {
  if (key === 'minAspect' || key === 'maxAspect') return Math.round((width / height) * 1000) / 1000;
  return key.endsWith('Width') ? width : height;
}
