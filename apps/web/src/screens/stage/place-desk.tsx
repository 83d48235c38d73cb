import { ArrowDownToLine, ArrowUpToLine, Lock, LockOpen, Trash2 } from 'lucide-react';
import { BLEND_MODES, type Box } from '@scenograph/core/elements/element';
import type { ShotElement } from '@scenograph/core/elements/index';
import { Button, IconButton, NumberField, Select, Slider, TextField } from '../../ui/controls';
import type { TrueSize } from './true-size';

/** Name, numbers, opacity and blend of the chosen element. */
export function PlaceDesk({
  element,
  size,
  onPlace,
  onChange,
  onDuring,
  onRemove,
  onDepth,
}: {
  element: ShotElement;
  size: TrueSize | null;
  onPlace(label: string, box: Box, proportional: boolean): void;
  onChange(label: string, patch: Partial<ShotElement>): void;
  onDuring(patch: Partial<ShotElement>): void;
  onRemove(): void;
  onDepth(by: number): void;
}) {
  const { box } = element;
  const aspect = box.height / box.width;
  /** Scaled about the middle of the lower edge, where a product stands. */
  const scaled = (width: number): Box => ({
    ...box,
    width,
    height: width * aspect,
    x: box.x + (box.width - width) / 2,
    y: box.y + box.height - width * aspect,
  });
  return (
    <div className="grid gap-2">
      <div className="flex items-center gap-1.5">
        <div className="grow">
          <TextField
            hideLabel
            label="Name"
            value={element.name}
            onCommit={(name) => onChange('Rename', { name })}
          />
        </div>
        <IconButton label="Send back" onClick={() => onDepth(-1)}>
          <ArrowDownToLine size={14} className="rotate-90" aria-hidden />
        </IconButton>
        <IconButton label="Bring forward" onClick={() => onDepth(1)}>
          <ArrowUpToLine size={14} className="rotate-90" aria-hidden />
        </IconButton>
        <IconButton
          label={element.locked ? 'Unlock' : 'Lock'}
          onClick={() => onChange(element.locked ? 'Unlock' : 'Lock', { locked: !element.locked })}
        >
          {element.locked ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}
        </IconButton>
        <IconButton label="Remove" onClick={onRemove} disabled={element.locked}>
          <Trash2 size={14} aria-hidden />
        </IconButton>
      </div>
      {element.kind !== 'backdrop' && (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Left"
            unit="px"
            digits={1}
            value={box.x}
            onCommit={(x) => onPlace('Move', { ...box, x }, false)}
            disabled={element.locked}
          />
          <NumberField
            label="Top"
            unit="px"
            digits={1}
            value={box.y}
            onCommit={(y) => onPlace('Move', { ...box, y }, false)}
            disabled={element.locked}
          />
          <NumberField
            label="Width"
            unit="px"
            digits={1}
            min={4}
            value={box.width}
            onCommit={(width) => onPlace('Scale', scaled(width), true)}
            disabled={element.locked}
          />
          <NumberField
            label="Height"
            unit="px"
            digits={1}
            min={4}
            value={box.height}
            onCommit={(height) =>
              element.kind === 'text'
                ? onPlace('Resize', { ...box, height }, false)
                : onPlace('Scale', scaled(height / aspect), true)
            }
            disabled={element.locked}
          />
          <NumberField
            label="Turn"
            unit="°"
            digits={1}
            min={-360}
            max={360}
            value={box.rotation}
            onCommit={(rotation) => onPlace('Turn', { ...box, rotation }, false)}
            disabled={element.locked}
          />
          {size && (
            <NumberField
              label="Real"
              unit="mm"
              min={1}
              value={box.width / size.pxPerMm}
              onCommit={(mm) => onPlace('Scale', scaled(mm * size.pxPerMm), true)}
              disabled={element.locked}
            />
          )}
        </div>
      )}
      {size && Math.abs(size.ratio - 1) > 0.005 && (
        <Button onClick={() => onPlace('True size of', scaled(box.width / size.ratio), true)}>
          Back to true size, now {Math.round(size.ratio * 100)} %
        </Button>
      )}
      <Slider
        label="Opacity"
        unit="%"
        value={Math.round(element.opacity * 100)}
        onChange={(v) => onDuring({ opacity: v / 100 })}
        onCommit={(v) => onChange('Opacity', { opacity: v / 100 })}
      />
      {element.kind !== 'backdrop' && (
        <div className="flex items-center gap-3">
          <span className="text-ink-2 w-19 shrink-0 text-[12px]">Blend</span>
          <Select
            label="Blend mode"
            className="grow"
            value={element.blend}
            onChange={(blend) => onChange('Blend mode', { blend })}
            options={BLEND_MODES.map((m) => ({ value: m, title: m }))}
          />
        </div>
      )}
    </div>
  );
}
