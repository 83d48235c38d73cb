import { Pipette } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useRef, useState } from 'react';
import { HexColorPicker } from 'react-colorful';
import { hexOfOklch, oklchOf, type Oklch } from '@scenograph/core/raster/oklch';
import { readColour } from '@scenograph/core/raster/read-colour';
import { useRoute } from '../api/client';
import { IconButton, NumberField, TextField } from './controls';
import { msg } from '../language/language';

interface ColourProps {
  label: string;
  value: string;
  /** While a colour is dragged. */
  onChange?(value: string): void;
  /** A finished choice. */
  onCommit(value: string): void;
}

/** A colour: its code in a field, and behind the swatch a picker, OKLCH, the brand's palette and the screen's pixels. */
export function ColourField({ label, value, onChange, onCommit }: ColourProps) {
  const [refused, setRefused] = useState<string | null>(null);
  const take = (written: string) => {
    const colour = readColour(written);
    setRefused(colour ? null : written);
    if (colour && colour !== value) onCommit(colour);
  };
  return (
    <div className="min-w-0">
      <div className="flex items-center gap-2">
        <ColourButton label={label} value={value} onChange={onChange} onCommit={onCommit} />
        <div className="min-w-0 grow">
          <TextField label={msg('{label}, code', { label })} hideLabel mono value={value} onCommit={take} />
        </div>
      </div>
      {refused !== null && (
        <p role="alert" className="text-coral-ink mt-1 text-[12px]">
          {msg('“{refused}” is no colour. Write #rrggbb, rgb(…) or a colour’s name; {value} is kept.', {
            refused,
            value,
          })}
        </p>
      )}
    </div>
  );
}

/** The swatch alone, with all ways to choose behind it. */
export function ColourButton({ label, value, onChange, onCommit }: ColourProps) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          aria-label={`${label}: ${value}`}
          title={msg('Choose a colour')}
          className="border-ink-3 h-7 w-9 shrink-0 cursor-pointer rounded-md border"
          style={{ background: value }}
        />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          aria-label={label}
          className="border-line bg-card z-50 grid w-58 gap-2.5 rounded-lg border p-3 shadow-[0_12px_40px_rgba(23,27,25,0.22)]"
        >
          <ColourChoice label={label} value={value} onChange={onChange} onCommit={onCommit} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function ColourChoice({ label, value, onChange, onCommit }: ColourProps) {
  // While a colour is dragged it is shown here; it is kept when the drag ends.
  const [dragged, setDragged] = useState<string | null>(null);
  const drag = useRef<{ colour: string } | null>(null);
  const now = dragged ?? value;
  const begin = () => {
    drag.current = { colour: value };
    const finish = () => {
      const colour = drag.current?.colour;
      drag.current = null;
      setDragged(null);
      if (colour && colour !== value) onCommit(colour);
    };
    // It may end anywhere.
    window.addEventListener('pointerup', finish, { once: true });
  };
  const take = (colour: string) => {
    // Moved with the keyboard: each step is a choice.
    if (!drag.current) return onCommit(colour);
    drag.current.colour = colour;
    setDragged(colour);
    onChange?.(colour);
  };
  return (
    <>
      <div onPointerDown={begin}>
        <HexColorPicker color={now} style={{ width: '100%', height: 150 }} onChange={take} />
      </div>
      <OklchFields label={label} value={now} onCommit={onCommit} />
      <BrandColours value={now} onChoose={onCommit} />
      {Picker && (
        <IconButton
          label={msg('{label}, picked from the screen', { label })}
          onClick={() =>
            // Leaving the picker with Escape rejects: nothing was picked.
            void new Picker().open().then(
              ({ sRGBHex }) => onCommit(sRGBHex),
              () => undefined,
            )
          }
        >
          <Pipette size={14} aria-hidden />
        </IconButton>
      )}
    </>
  );
}

function OklchFields({ label, value, onCommit }: ColourProps) {
  const own = oklchOf(value);
  const put = (part: Partial<Oklch>) => onCommit(hexOfOklch({ ...own, ...part }));
  return (
    <fieldset className="grid gap-1.5" aria-label={msg('{label} in OKLCH', { label })}>
      <NumberField
        label={msg('Lightness')}
        unit="%"
        min={0}
        max={100}
        digits={1}
        value={own.l * 100}
        onCommit={(l) => put({ l: l / 100 })}
      />
      <NumberField
        label={msg('Chroma')}
        unit=""
        min={0}
        max={0.4}
        digits={3}
        step={0.01}
        value={own.c}
        onCommit={(c) => put({ c })}
      />
      <NumberField
        label={msg('Hue')}
        unit="°"
        min={0}
        max={360}
        digits={0}
        value={own.h}
        onCommit={(h) => put({ h })}
      />
    </fieldset>
  );
}

function BrandColours({ value, onChoose }: { value: string; onChoose(colour: string): void }) {
  const { data } = useRoute('GET /api/brand');
  const colours = data?.kit.colours ?? [];
  if (!colours.length) return null;
  return (
    <ul aria-label={msg('Colours of the brand')} className="flex flex-wrap gap-1.5">
      {colours.map((c) => (
        <li key={c.id}>
          <button
            type="button"
            aria-label={c.title}
            title={`${c.title}, ${c.colour}`}
            aria-pressed={c.colour === value}
            onClick={() => onChoose(c.colour)}
            className={`h-6 w-6 rounded-sm border ${c.colour === value ? 'border-spruce border-2' : 'border-ink-3'}`}
            style={{ background: c.colour }}
          />
        </li>
      ))}
    </ul>
  );
}

/** The browser's own colour picker (EyeDropper API), where it has one: any pixel of the stage can be picked. */
const Picker = (window as { EyeDropper?: new () => { open(): Promise<{ sRGBHex: string }> } }).EyeDropper;
