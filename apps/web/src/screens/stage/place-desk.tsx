import { ArrowDownToLine, ArrowUpToLine, Lock, LockOpen, Trash2 } from 'lucide-react';
import { BLEND_MODES } from '@scenograph/core/elements/base';
import type { Box } from '@scenograph/core/vector/box';
import { isGround, type ShotElement } from '@scenograph/core/elements/index';
import { Button, IconButton, NumberField, Select, Slider, TextField } from '../../ui/controls';
import { LengthField } from '../../ui/length-field';
import { ALIGNMENTS } from '@scenograph/core/shot/align';
import { SizingControl, useTypedSize } from './anchor';
import { kindUi } from './kinds/index';
import { useMoved } from './moving';
import type { TrueSize } from './true-size';
import type { Editing } from './use-editing';
import { msg } from '../../language/language';

/** Name, numbers, opacity and blend of the chosen element. */
export function PlaceDesk({
  element,
  size,
  several,
  editing,
  frame,
  onPlace,
}: {
  element: ShotElement;
  size: TrueSize | null;
  /** How many elements are chosen. */
  several: number;
  editing: Editing;
  frame: { width: number; height: number };
  onPlace: Place;
}) {
  const { patch: onChange, during: onDuring } = editing;
  const { box } = element;
  const ground = isGround(element);
  return (
    <div className="grid gap-2">
      <NameRow element={element} editing={editing} />
      {!ground && <Numbers element={element} size={size} onPlace={onPlace} />}
      {size && Math.abs(size.ratio - 1) > 0.005 && (
        <Button onClick={editing.trueSize}>
          {msg('{ratio} percent of true size: back to true', { ratio: Math.round(size.ratio * 100) })}
        </Button>
      )}
      {!ground && (
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={editing.duplicate}>{msg('Duplicate')}</Button>
          <Button
            onClick={() => onPlace(msg('Centre'), { ...box, x: (frame.width - box.width) / 2 }, false)}
            disabled={element.locked}
          >
            {msg('Centre')}
          </Button>
          {element.link && <Button onClick={() => editing.link(false)}>{msg('Unlink')}</Button>}
        </div>
      )}
      {several > 1 && <Several count={several} editing={editing} />}
      {several === 1 && !ground && (
        <p className="text-ink-2 text-[12px]">
          {msg('Shift-click another, or draw a frame round several, to align, size or link them.')}
        </p>
      )}
      <Slider
        label={msg('Opacity')}
        unit="%"
        value={Math.round(element.opacity * 100)}
        onChange={(v) => onDuring({ opacity: v / 100 })}
        onCommit={(v) => onChange(msg('Opacity'), { opacity: v / 100 })}
      />
      {!isGround(element) && (
        <div className="flex items-center gap-3">
          <span className="text-ink-2 w-19 shrink-0 text-[12px]">{msg('Blend')}</span>
          <Select
            label={msg('Blend mode')}
            className="grow"
            value={element.blend}
            onChange={(blend) => onChange(msg('Blend mode'), { blend })}
            options={BLEND_MODES.map((m) => ({ value: m, title: m }))}
          />
        </div>
      )}
    </div>
  );
}

type Place = (label: string, box: Box, proportional: boolean) => void;

/** The element's name, its depth, and whether it is locked. */
function NameRow({ element, editing }: { element: ShotElement; editing: Editing }) {
  const { patch: onChange, remove: onRemove, depth: onDepth } = editing;
  return (
    <div className="flex items-center gap-1.5">
      <div className="grow">
        <TextField
          hideLabel
          label={msg('Name')}
          value={element.name}
          onCommit={(name) => onChange(msg('Rename'), { name })}
        />
      </div>
      <IconButton label={msg('Send back')} onClick={() => onDepth(-1)}>
        <ArrowDownToLine size={14} className="rotate-90" aria-hidden />
      </IconButton>
      <IconButton label={msg('Bring forward')} onClick={() => onDepth(1)}>
        <ArrowUpToLine size={14} className="rotate-90" aria-hidden />
      </IconButton>
      <IconButton
        label={element.locked ? msg('Unlock') : msg('Lock')}
        onClick={() => onChange(element.locked ? msg('Unlock') : msg('Lock'), { locked: !element.locked })}
      >
        {element.locked ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}
      </IconButton>
      <IconButton label={msg('Remove')} onClick={onRemove} disabled={element.locked}>
        <Trash2 size={14} aria-hidden />
      </IconButton>
    </div>
  );
}

/** Kinds whose width and height may be set apart. */
const FREE = ['free', 'sides'];

/** Place, size and rotation as numbers; real height where it is known. */
function Numbers({
  element: given,
  size,
  onPlace,
}: {
  element: ShotElement;
  size: TrueSize | null;
  onPlace: Place;
}) {
  const element = useMoved(given);
  const { box } = element;
  const free = FREE.includes(kindUi(element).resize);
  const { inShape, byWidth, byHeight } = useTypedSize(element, free);
  return (
    <div className="grid grid-cols-2 gap-2">
      <NumberField
        label={msg('Left')}
        unit="px"
        digits={1}
        value={box.x}
        onCommit={(x) => onPlace(msg('Move'), { ...box, x }, false)}
        disabled={element.locked}
      />
      <NumberField
        label={msg('Top')}
        unit="px"
        digits={1}
        value={box.y}
        onCommit={(y) => onPlace(msg('Move'), { ...box, y }, false)}
        disabled={element.locked}
      />
      <NumberField
        label={msg('Width')}
        unit="px"
        digits={1}
        min={4}
        value={box.width}
        onCommit={(width) => onPlace(inShape ? msg('Scale') : msg('Resize'), byWidth(width), inShape)}
        disabled={element.locked}
      />
      <NumberField
        label={msg('Height')}
        unit="px"
        digits={1}
        min={4}
        value={box.height}
        onCommit={(height) => onPlace(inShape ? msg('Scale') : msg('Resize'), byHeight(height), inShape)}
        disabled={element.locked}
      />
      <NumberField
        label={msg('Rotation')}
        unit="°"
        digits={1}
        min={-360}
        max={360}
        value={box.rotation}
        onCommit={(rotation) => onPlace(msg('Rotate'), { ...box, rotation }, false)}
        disabled={element.locked}
      />
      {size && (
        <LengthField
          label={msg('Height, real')}
          min={1}
          value={size.standing.heightMm * size.ratio}
          onCommit={(mm) =>
            onPlace(msg('Scale'), byWidth((box.width * mm) / (size.standing.heightMm * size.ratio)), true)
          }
          disabled={element.locked}
        />
      )}
      <div className="col-span-2">
        <SizingControl element={element} free={free} />
      </div>
    </div>
  );
}

/** What is done to several chosen elements at once. */
function Several({ count: several, editing }: { count: number; editing: Editing }) {
  return (
    <fieldset className="border-line grid gap-1.5 rounded-md border p-2">
      <legend className="text-ink-2 px-1 text-[12px]">{msg('{several} chosen', { several })}</legend>
      <div className="flex flex-wrap gap-1.5">
        {ALIGNMENTS.map((how) => (
          <Button key={how} className="px-2" onClick={() => editing.align(how)}>
            {how[0].toUpperCase() + how.slice(1)}
          </Button>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button disabled={several < 3} onClick={() => editing.distribute('x')}>
          {msg('Distribute across')}
        </Button>
        <Button disabled={several < 3} onClick={() => editing.distribute('y')}>
          {msg('Down')}
        </Button>
        <Button onClick={() => editing.sameSize('width')}>{msg('Same width')}</Button>
        <Button onClick={() => editing.sameSize('height')}>{msg('Same height')}</Button>
        <Button onClick={() => editing.link(true)}>{msg('Link')}</Button>
      </div>
    </fieldset>
  );
}
