import { Trash2 } from 'lucide-react';
import { PLAIN_ENCODING, type Encoding } from '@scenograph/core/delivery/encoding';
import { FORMATS, type Format, type Slot } from '@scenograph/core/spec/slot';
import { Button, IconButton, Select } from '../../ui/controls';
import type { Trial } from './use-trials';
import { Options, Outcome } from './way';
import { msg } from '../../language/language';

/** Why the slot cannot be written so; null where it can. */
export function refusalOf({ encoding, result }: Trial, slot: Slot): string | null {
  if (!slot.formats.includes(encoding.format ?? slot.formats[0]))
    return msg('The slot does not take this format');
  if (!result) return msg('Not written yet');
  if (!result.ok) return result.reason;
  return result.size > slot.maxBytes ? msg('The file is larger than the slot takes') : null;
}

/** One way to write the picture: its settings, what came of it, and whether it is the one in use. */
export function WayCard({
  trial,
  slot,
  inUse,
  shown,
  only,
  onChange,
  onLook,
  onUse,
  onRemove,
}: {
  trial: Trial;
  slot: Slot;
  inUse: boolean;
  /** It is the one on the right. */
  shown: boolean;
  only: boolean;
  onChange(patch: Partial<Encoding>): void;
  onLook(): void;
  onUse(): void;
  onRemove(): void;
}) {
  const { encoding, result } = trial;
  const format = encoding.format ?? slot.formats[0];
  const refused = refusalOf(trial, slot);
  return (
    <li className={`rounded-lg border p-2.5 ${shown ? 'border-spruce' : 'border-line'}`}>
      <div className="flex items-center gap-2">
        <Select<Format>
          label={msg('Format')}
          className="w-24"
          value={format}
          onChange={(to) =>
            onChange({ ...PLAIN_ENCODING, format: to, quality: to === 'png' ? null : encoding.quality })
          }
          options={FORMATS.map((f) => ({ value: f, title: f }))}
        />
        <Button onClick={onLook} aria-pressed={shown}>
          {msg('Look')}
        </Button>
        <Button
          tone={inUse ? 'main' : 'plain'}
          disabled={!!refused}
          title={refused ?? undefined}
          onClick={onUse}
        >
          {inUse ? msg('In use') : msg('Use it')}
        </Button>
        <IconButton label={msg('Remove this way')} className="ml-auto" disabled={only} onClick={onRemove}>
          <Trash2 size={14} aria-hidden />
        </IconButton>
      </div>
      <Options encoding={encoding} format={format} onChange={onChange} />
      <Outcome result={result} maxBytes={slot.maxBytes} pixels={slot.width * slot.height} />
    </li>
  );
}
