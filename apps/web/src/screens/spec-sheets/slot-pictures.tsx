import { Plus, Trash2 } from 'lucide-react';
import type { Slot } from '@scenograph/core/spec/slot';
import { Button, IconButton, NumberField, Segmented, Switch, TextField } from '../../ui/controls';
import { Group, Optional, Share, type Part } from './form-parts';
import { msg } from '../../language/language';

/** What is behind the product, and how large it stands. */
export function BackgroundGroup({ slot, onChange }: Part) {
  const { background } = slot;
  return (
    <Group title={msg('Background and product')}>
      <Segmented
        label={msg('Background')}
        value={background.kind}
        onChange={(kind) => onChange({ background: { ...background, kind } })}
        options={[
          { value: 'any', title: msg('Any') },
          { value: 'white', title: msg('Pure white') },
          { value: 'transparent', title: msg('Transparent') },
        ]}
      />
      {background.kind !== 'any' && (
        <div className="grid grid-cols-2 gap-2">
          {background.kind === 'white' && (
            <NumberField
              label={msg('Tolerance')}
              unit="/255"
              min={0}
              max={64}
              value={background.tolerance}
              onCommit={(tolerance) =>
                onChange({ background: { ...background, tolerance: Math.round(tolerance) } })
              }
            />
          )}
          <Share
            label={msg('Share')}
            value={background.minShare}
            onCommit={(minShare) => onChange({ background: { ...background, minShare } })}
          />
        </div>
      )}
      <Coverage slot={slot} onChange={onChange} />
      <Share
        label={msg('Margin')}
        value={slot.marginShare}
        max={40}
        onCommit={(marginShare) => onChange({ marginShare })}
      />
      <Switch
        label={msg('The whole product must be seen')}
        on={slot.whole}
        onChange={(whole) => onChange({ whole })}
      />
      <NumberField
        label={msg('Enlarged')}
        unit="%"
        min={10}
        max={1000}
        value={slot.maxEnlargement * 100}
        onCommit={(v) => onChange({ maxEnlargement: v / 100 })}
      />
    </Group>
  );
}

/** How much of the picture the product fills. */
function Coverage({ slot, onChange }: Part) {
  const { coverage } = slot;
  return (
    <>
      {(['min', 'max', 'wanted'] as const).map((key) => {
        const title = {
          min: msg('Minimum coverage'),
          max: msg('Maximum coverage'),
          wanted: msg('Wanted coverage'),
        }[key];
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
    </>
  );
}

/** What may lie over the picture. */
export function OverlaysGroup({ slot, onChange }: Part) {
  return (
    <Group title={msg('Overlays')}>
      <Segmented
        label={msg('Text and logos')}
        value={slot.overlays}
        onChange={(overlays) => onChange({ overlays })}
        options={[
          { value: 'allowed', title: msg('Text and logos taken') },
          { value: 'forbidden', title: msg('None taken') },
        ]}
      />
      <Optional
        label={msg('Maximum text')}
        on={slot.maxTextShare !== null}
        onChange={(on) => onChange({ maxTextShare: on ? 0.2 : null })}
      >
        <NumberField
          hideLabel
          label={msg('Maximum text')}
          unit="%"
          min={0}
          max={100}
          digits={1}
          value={slot.maxTextShare === null ? null : slot.maxTextShare * 100}
          onCommit={(v) => onChange({ maxTextShare: v / 100 })}
        />
      </Optional>
      <Switch
        label={msg('Watermarks taken')}
        on={slot.watermark === 'allowed'}
        onChange={(on) => onChange({ watermark: on ? 'allowed' : 'forbidden' })}
      />
    </Group>
  );
}

/** What a marketplace lays over the picture, and where. */
export function SafeZonesGroup({ slot, onChange }: Part) {
  return (
    <Group title={msg('Safe zones')}>
      <Share
        label={msg('Edge')}
        value={slot.safeShare}
        max={40}
        onCommit={(safeShare) => onChange({ safeShare })}
      />
      {slot.safeZones.map((zone, i) => (
        <SafeZone
          key={i}
          zone={zone}
          put={(patch) =>
            onChange({ safeZones: slot.safeZones.map((z, n) => (n === i ? { ...z, ...patch } : z)) })
          }
          onRemove={() => onChange({ safeZones: slot.safeZones.filter((_, n) => n !== i) })}
        />
      ))}
      <Button
        onClick={() =>
          onChange({
            safeZones: [...slot.safeZones, { title: 'badge', x: 0, y: 0, width: 0.25, height: 0.12 }],
          })
        }
      >
        <Plus size={14} aria-hidden /> {msg('Add a zone')}
      </Button>
    </Group>
  );
}

function SafeZone({
  zone,
  put,
  onRemove,
}: {
  zone: Slot['safeZones'][number];
  put(patch: Partial<Slot['safeZones'][number]>): void;
  onRemove(): void;
}) {
  return (
    <fieldset className="border-line grid gap-1.5 rounded-md border p-2">
      <div className="flex items-end gap-2">
        <div className="grow">
          <TextField label={msg('What lies there')} value={zone.title} onCommit={(title) => put({ title })} />
        </div>
        <IconButton label={msg('Remove {zone}', { zone: zone.title })} onClick={onRemove}>
          <Trash2 size={14} aria-hidden />
        </IconButton>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <Share label={msg('Left')} value={zone.x} onCommit={(x) => put({ x })} />
        <Share label={msg('Top')} value={zone.y} onCommit={(y) => put({ y })} />
        <Share label={msg('Width')} value={zone.width} onCommit={(width) => put({ width })} />
        <Share label={msg('Height')} value={zone.height} onCommit={(height) => put({ height })} />
      </div>
    </fieldset>
  );
}
