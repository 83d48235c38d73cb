import type { BackdropElement, Fill, GradientStop } from '@scenograph/core/elements/backdrop/definition';
import { Button, ColourField, NumberField, Segmented, Slider } from '../../../ui/controls';
import { reducedUrl, useServer, type Scene } from '../../../api/client';
import type { KindDeskProps } from './desk-props';

const START: Record<Exclude<Fill['type'], 'scene'>, (colour: string) => Fill> = {
  colour: (colour) => ({ type: 'colour', colour }),
  linear: (colour) => ({
    type: 'linear',
    angle: 90,
    stops: [
      { at: 0, colour: '#ffffff' },
      { at: 1, colour },
    ],
  }),
  radial: (colour) => ({
    type: 'radial',
    x: 0.5,
    y: 0.45,
    radius: 0.6,
    stops: [
      { at: 0, colour: '#ffffff' },
      { at: 1, colour },
    ],
  }),
};

export function BackdropDesk({ element, during, commit }: KindDeskProps<BackdropElement>) {
  const { data: scenes } = useServer<Scene[]>('/api/scenes');
  const { fill } = element;
  const colour =
    fill.type === 'colour'
      ? fill.colour
      : fill.type === 'scene'
        ? '#d9d4cb'
        : fill.stops[fill.stops.length - 1].colour;
  const toScene = (s: Scene) =>
    commit('Change backdrop', {
      name: s.title,
      fill: { type: 'scene', picture: s.picture, focus: { x: 0.5, y: 0.5 }, survey: s.survey },
    });
  return (
    <div className="grid gap-2.5">
      <Segmented
        label="Backdrop"
        value={fill.type}
        onChange={(type) => {
          if (type === 'scene') {
            if (scenes?.[0]) toScene(scenes[0]);
          } else commit('Change backdrop', { name: 'Backdrop', fill: START[type](colour) });
        }}
        options={[
          { value: 'colour', title: 'Colour' },
          { value: 'linear', title: 'Linear' },
          { value: 'radial', title: 'Radial' },
          { value: 'scene', title: 'Scene' },
        ]}
      />
      {fill.type === 'colour' && (
        <>
          <ColourField
            label="Colour"
            value={fill.colour}
            onChange={(c) => during({ fill: { ...fill, colour: c } })}
            onCommit={(c) => commit('Colour backdrop', { fill: { ...fill, colour: c } })}
          />
          <Button onClick={() => commit('Colour backdrop', { fill: { type: 'colour', colour: '#ffffff' } })}>
            Pure white
          </Button>
        </>
      )}
      {fill.type === 'linear' && (
        <NumberField
          label="Angle"
          unit="°"
          value={fill.angle}
          min={-360}
          max={360}
          onCommit={(angle) => commit('Turn gradient', { fill: { ...fill, angle } })}
        />
      )}
      {fill.type === 'radial' && (
        <>
          {(['x', 'y'] as const).map((axis) => (
            <Slider
              key={axis}
              label={axis === 'x' ? 'Centre across' : 'Centre down'}
              unit="%"
              value={Math.round(fill[axis] * 100)}
              onChange={(v) => during({ fill: { ...fill, [axis]: v / 100 } })}
              onCommit={(v) => commit('Move gradient', { fill: { ...fill, [axis]: v / 100 } })}
            />
          ))}
          <Slider
            label="Radius"
            unit="%"
            min={10}
            max={150}
            value={Math.round(fill.radius * 100)}
            onChange={(v) => during({ fill: { ...fill, radius: v / 100 } })}
            onCommit={(v) => commit('Widen gradient', { fill: { ...fill, radius: v / 100 } })}
          />
        </>
      )}
      {(fill.type === 'linear' || fill.type === 'radial') && (
        <Stops
          stops={fill.stops}
          onDuring={(stops) => during({ fill: { ...fill, stops } })}
          onCommit={(stops) => commit('Change gradient', { fill: { ...fill, stops } })}
        />
      )}
      {fill.type === 'scene' && (
        <>
          <div className="grid grid-cols-4 gap-1.5">
            {scenes?.map((s) => (
              <button
                key={s.id}
                type="button"
                title={s.title}
                aria-label={s.title}
                aria-pressed={s.picture === fill.picture}
                onClick={() => toScene(s)}
                className={`overflow-hidden rounded-sm border ${s.picture === fill.picture ? 'border-spruce ring-spruce ring-1' : 'border-line'}`}
              >
                <img src={reducedUrl(s.picture, 160)} alt="" className="aspect-[4/3] w-full object-cover" />
              </button>
            ))}
          </div>
          <p className="text-ink-2 text-[12px]">Place to keep in view when a slot crops the scene:</p>
          {(['x', 'y'] as const).map((axis) => (
            <Slider
              key={axis}
              label={axis === 'x' ? 'Focus across' : 'Focus down'}
              unit="%"
              value={Math.round(fill.focus[axis] * 100)}
              onChange={(v) => during({ fill: { ...fill, focus: { ...fill.focus, [axis]: v / 100 } } })}
              onCommit={(v) =>
                commit('Move focus', { fill: { ...fill, focus: { ...fill.focus, [axis]: v / 100 } } })
              }
            />
          ))}
        </>
      )}
    </div>
  );
}

function Stops({
  stops,
  onDuring,
  onCommit,
}: {
  stops: GradientStop[];
  onDuring(stops: GradientStop[]): void;
  onCommit(stops: GradientStop[]): void;
}) {
  const swap = (i: number, patch: Partial<GradientStop>) =>
    stops.map((s, j) => (j === i ? { ...s, ...patch } : s));
  return (
    <fieldset className="grid gap-1.5">
      <legend className="text-ink-2 mb-1 text-[12px]">Stops</legend>
      {stops.map((stop, i) => (
        <div key={i} className="flex items-center gap-2">
          <ColourField
            label={`Stop ${i + 1}`}
            value={stop.colour}
            onChange={(colour) => onDuring(swap(i, { colour }))}
            onCommit={(colour) => onCommit(swap(i, { colour }))}
          />
          <div className="w-20 shrink-0">
            <NumberField
              hideLabel
              label={`Place of stop ${i + 1}`}
              unit="%"
              min={0}
              max={100}
              value={Math.round(stop.at * 100)}
              onCommit={(v) => onCommit(swap(i, { at: v / 100 }))}
            />
          </div>
          <button
            type="button"
            aria-label={`Remove stop ${i + 1}`}
            disabled={stops.length <= 2}
            className="text-ink-2 disabled:opacity-30"
            onClick={() => onCommit(stops.filter((_, j) => j !== i))}
          >
            ×
          </button>
        </div>
      ))}
      <Button
        disabled={stops.length >= 12}
        onClick={() => onCommit([...stops, { at: 0.5, colour: '#cccccc' }].sort((a, b) => a.at - b.at))}
      >
        Add a stop
      </Button>
    </fieldset>
  );
}
