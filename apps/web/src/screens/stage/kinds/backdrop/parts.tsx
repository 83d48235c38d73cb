import type { BackdropElement, Fill } from '@scenograph/core/elements/backdrop/model';
import { GRADIENT_FORMS, type GradientFill } from '@scenograph/core/elements/backdrop/gradient';
import { MATERIALS, type Material } from '@scenograph/core/stage/materials';
import type { SetFill } from '@scenograph/core/stage/set';
import { ColourField } from '../../../../ui/colour-field';
import { Button, NumberField, Select, Slider, Switch } from '../../../../ui/controls';
import { GradientBar } from './gradient-bar';
import { LightDome } from '../../light-dome';
import type { KindDeskProps } from '../desk-props';
import { msg } from '../../../../language/language';

/** Colours taken from the product. */
export function Palette({ palette, onPick }: { palette: string[]; onPick(colour: string): void }) {
  if (!palette.length) return null;
  return (
    <div className="flex items-center gap-1.5">
      <span className="text-ink-2 text-[12px]">{msg('From the product')}</span>
      {palette.map((c) => (
        <button
          key={c}
          type="button"
          aria-label={msg('Use {c}', { c })}
          title={c}
          onClick={() => onPick(c)}
          className="border-line h-5 w-5 rounded-sm border"
          style={{ background: c }}
        />
      ))}
    </div>
  );
}

interface PartProps<F extends Fill> {
  fill: F;
  during: KindDeskProps<BackdropElement>['during'];
  commit: KindDeskProps<BackdropElement>['commit'];
  palette: string[];
}

export function GradientPart({ fill, during, commit, palette }: PartProps<GradientFill>) {
  const [first, last] = [fill.stops[0].colour, fill.stops[fill.stops.length - 1].colour];
  return (
    <>
      <Select
        label={msg('Form of the gradient')}
        value={fill.form}
        onChange={(form) => commit(msg('Form of the gradient'), { fill: { ...fill, form } })}
        options={GRADIENT_FORMS.map((f) => ({ value: f, title: f[0].toUpperCase() + f.slice(1) }))}
      />
      <p className="text-ink-2 text-[12px]">{msg('Drag its two ends on the picture, or set them here.')}</p>
      <div className="grid grid-cols-2 gap-2">
        {(['from', 'to'] as const).flatMap((end) =>
          (['x', 'y'] as const).map((axis) => (
            <NumberField
              key={end + axis}
              label={`${end === 'from' ? msg('Start') : msg('End')} ${axis === 'x' ? msg('across') : msg('down')}`}
              unit="%"
              min={-300}
              max={400}
              value={Math.round(fill[end][axis] * 100)}
              onCommit={(v) =>
                commit(msg('Move the gradient'), {
                  fill: { ...fill, [end]: { ...fill[end], [axis]: v / 100 } },
                })
              }
            />
          )),
        )}
      </div>
      <GradientBar
        stops={fill.stops}
        onDuring={(stops) => during({ fill: { ...fill, stops } })}
        onCommit={(stops) => commit(msg('Change gradient'), { fill: { ...fill, stops } })}
      >
        {(choose) => <Palette palette={palette} onPick={choose} />}
      </GradientBar>
      <Button
        onClick={() =>
          commit(msg('Reverse the gradient'), {
            fill: { ...fill, stops: fill.stops.map((s) => ({ ...s, at: 1 - s.at })).reverse() },
          })
        }
      >
        {msg('Reverse: {last} to {first}', { last, first })}
      </Button>
    </>
  );
}

export function SetPart({ fill, during, commit, palette }: PartProps<SetFill>) {
  const set = (label: string, value: Partial<SetFill>) => commit(label, { fill: { ...fill, ...value } });
  const slide = (
    label: string,
    key: 'pitchDeg' | 'standAt' | 'spot' | 'gloss' | 'widthMm',
    unit: string,
    by: number,
    [min, max]: readonly [number, number],
  ) => (
    <Slider
      label={label}
      unit={unit}
      min={min}
      max={max}
      value={Math.round(fill[key] * by)}
      onChange={(v) => during({ fill: { ...fill, [key]: v / by } })}
      onCommit={(v) => set(msg('{label} of the set', { label }), { [key]: v / by })}
    />
  );
  return (
    <>
      <Select<Material>
        label={msg('Material')}
        value={fill.material}
        onChange={(material) => set(msg('Material of the set'), { material })}
        options={MATERIALS.map((m) => ({ value: m, title: msg(m[0].toUpperCase() + m.slice(1)) }))}
      />
      <ColourField
        label={msg('Table')}
        value={fill.colour}
        onChange={(c) => during({ fill: { ...fill, colour: c } })}
        onCommit={(c) => set(msg('Colour of the set'), { colour: c })}
      />
      <Switch
        label={msg('A wall of another colour')}
        on={fill.wall !== null}
        onChange={(on) => set(msg('Wall of the set'), { wall: on ? '#e9e4da' : null })}
      />
      {fill.wall && (
        <ColourField
          label={msg('Wall')}
          value={fill.wall}
          onChange={(c) => during({ fill: { ...fill, wall: c } })}
          onCommit={(c) => set(msg('Wall of the set'), { wall: c })}
        />
      )}
      <Palette palette={palette} onPick={(c) => set(msg('Colour of the set'), { colour: c })} />
      {slide(msg('Seen from above'), 'pitchDeg', '°', 1, [4, 90])}
      {slide(msg('Standing place'), 'standAt', '%', 100, [20, 95])}
      {slide(msg('Shows across'), 'widthMm', 'mm', 1, [100, 2000])}
      <Switch
        label={msg('A line where table meets wall')}
        on={fill.tableLine !== null}
        onChange={(on) =>
          set(msg('Table line'), { tableLine: on ? Math.max(0.2, fill.standAt - 0.22) : null })
        }
      />
      {fill.tableLine !== null && (
        <Slider
          label={msg('Table line')}
          unit="%"
          value={Math.round(fill.tableLine * 100)}
          onChange={(v) => during({ fill: { ...fill, tableLine: v / 100 } })}
          onCommit={(v) => set(msg('Table line'), { tableLine: v / 100 })}
        />
      )}
      {slide(msg('Spotlight'), 'spot', '%', 100, [0, 100])}
      {slide(msg('Gloss'), 'gloss', '%', 100, [0, 100])}
      <div className="flex items-end gap-2">
        <div className="grow">
          <NumberField
            label={msg('Seed')}
            unit=""
            min={0}
            max={999999}
            value={fill.seed}
            onCommit={(seed) => set(msg('Seed of the set'), { seed: Math.round(seed) })}
          />
        </div>
        <Button onClick={() => set(msg('Another set'), { seed: (fill.seed * 7919 + 104729) % 1_000_000 })}>
          {msg('Another')}
        </Button>
      </div>
      <LightDome
        light={fill.light}
        onChange={(light) => during({ fill: { ...fill, light } })}
        onCommit={(light) => set(msg('Light of the set'), { light })}
      />
    </>
  );
}
