import { Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import type { GradientStop } from '@scenograph/core/elements/backdrop/gradient';
import {
  addStop,
  LEAST_STOPS,
  moveStop,
  removeStop,
  widestGap,
  type ChangedStops,
} from '@scenograph/core/elements/backdrop/gradient-stops';
import { ColourField } from '../../../../ui/colour-field';
import { Button, IconButton, NumberField } from '../../../../ui/controls';
import { msg } from '../../../../language/language';

/** Dragged so many pixels away from the bar a stop is taken off. */
const AWAY = 36;

const css = (stops: readonly GradientStop[]) =>
  `linear-gradient(to right, ${stops.map((s) => `${s.colour} ${s.at * 100}%`).join(', ')})`;

const withColour = (stops: GradientStop[], index: number, colour: string) =>
  stops.map((s, i) => (i === index ? { ...s, colour } : s));

/**
 * The run of a gradient as a bar with its stops: dragged along it, or away from it to take one off; a press on the bar adds
 * one. With the focus on a stop arrow keys move it (ten percent with Shift) and Delete takes it off.
 */
export function GradientBar({
  stops,
  onDuring,
  onCommit,
  children,
}: {
  stops: GradientStop[];
  onDuring(stops: GradientStop[]): void;
  onCommit(stops: GradientStop[]): void;
  /** Further ways to colour the chosen stop. */
  children?: (choose: (colour: string) => void) => React.ReactNode;
}) {
  const [chosen, setChosen] = useState(0);
  const bar = useRef<HTMLDivElement>(null);
  const drag = useRef<{ from: GradientStop[]; index: number; last: ChangedStops | null } | null>(null);
  const index = Math.min(chosen, stops.length - 1);
  const take = ({ stops: next, index: now }: ChangedStops) => {
    setChosen(now);
    onCommit(next);
  };
  const placeOf = (clientX: number) => {
    const { left, width } = bar.current!.getBoundingClientRect();
    return Math.round(Math.min(1, Math.max(0, (clientX - left) / width)) * 1000) / 1000;
  };
  const dragTo = (e: React.PointerEvent) => {
    const d = drag.current;
    if (!d || !(e.buttons & 1)) return;
    const { top, bottom } = bar.current!.getBoundingClientRect();
    const off = e.clientY < top - AWAY || e.clientY > bottom + AWAY;
    d.last = off ? removeStop(d.from, d.index) : moveStop(d.from, d.index, placeOf(e.clientX));
    setChosen(d.last.index);
    onDuring(d.last.stops);
  };
  const drop = () => {
    const last = drag.current?.last;
    drag.current = null;
    if (last) take(last);
  };
  const onKeyDown = (e: React.KeyboardEvent, i: number) => {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[e.key];
    if (by)
      take(moveStop(stops, i, Math.round((stops[i].at + by * (e.shiftKey ? 0.1 : 0.01)) * 1000) / 1000));
    else if (e.key === 'Delete' || e.key === 'Backspace') take(removeStop(stops, i));
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <fieldset className="grid gap-2">
      <legend className="text-ink-2 mb-1 text-[12px]">{msg('Colours along the gradient')}</legend>
      <div
        ref={bar}
        data-testid="gradient-bar"
        className="border-line relative mx-2 mb-3.5 h-6 cursor-copy touch-none rounded-sm border"
        style={{ background: css(stops) }}
        title={msg('Press to add a colour')}
        onPointerDown={(e) => {
          if (e.target === e.currentTarget) take(addStop(stops, placeOf(e.clientX)));
        }}
        onPointerMove={dragTo}
        onPointerUp={drop}
      >
        {stops.map((s, i) => (
          <div
            key={i}
            role="slider"
            tabIndex={0}
            aria-label={msg('Stop {i}, {colour}', { i: i + 1, colour: s.colour })}
            aria-valuenow={Math.round(s.at * 100)}
            aria-valuetext={`${Math.round(s.at * 100)} %`}
            className={`absolute top-3.5 h-5 w-3.5 -translate-x-1/2 cursor-ew-resize touch-none rounded-sm border-2 shadow-[0_0_0_1px_#171b1966] ${i === index ? 'border-spruce z-10' : 'border-card'}`}
            style={{ left: `${s.at * 100}%`, background: s.colour }}
            onFocus={() => !drag.current && setChosen(i)}
            onKeyDown={(e) => onKeyDown(e, i)}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              drag.current = { from: stops, index: i, last: null };
              setChosen(i);
            }}
          />
        ))}
      </div>
      <ChosenStop {...{ stops, index, onDuring, onCommit }} onTake={take} />
      {children?.((colour) => onCommit(withColour(stops, index, colour)))}
      <Button onClick={() => take(addStop(stops, widestGap(stops)))}>{msg('Add a colour')}</Button>
    </fieldset>
  );
}

/** The chosen stop's colour and place; and a way to remove it. */
function ChosenStop({
  stops,
  index,
  onDuring,
  onCommit,
  onTake,
}: {
  stops: GradientStop[];
  index: number;
  onDuring(stops: GradientStop[]): void;
  onCommit(stops: GradientStop[]): void;
  onTake(changed: ChangedStops): void;
}) {
  const stop = stops[index];
  const coloured = (colour: string) => withColour(stops, index, colour);
  return (
    <div className="flex items-center gap-2">
      <ColourField
        label={msg('Stop {index}', { index: index + 1 })}
        value={stop.colour}
        onChange={(colour) => onDuring(coloured(colour))}
        onCommit={(colour) => onCommit(coloured(colour))}
      />
      <div className="w-20 shrink-0">
        <NumberField
          hideLabel
          label={msg('Place of stop {index}', { index: index + 1 })}
          unit="%"
          min={0}
          max={100}
          digits={1}
          value={stop.at * 100}
          onCommit={(v) => onTake(moveStop(stops, index, v / 100))}
        />
      </div>
      <IconButton
        label={msg('Remove stop {index}', { index: index + 1 })}
        disabled={stops.length <= LEAST_STOPS}
        onClick={() => onTake(removeStop(stops, index))}
      >
        <Trash2 size={13} aria-hidden />
      </IconButton>
    </div>
  );
}
