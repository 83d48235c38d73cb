import type { Histogram } from '@scenograph/core/retouch/histogram';
import { UNTIDIED, type Tidy } from '@scenograph/core/retouch/tidy';
import { Button, NumberField, Slider } from '../../ui/controls';
import type { Gesture } from './desk-traces';
import { msg } from '../../language/language';

/** Values of tone, with what is shown of them: `factor` times what is stored, within `reach` of 0. */
const SLIDERS = [
  { key: 'exposure', title: msg('Exposure'), unit: 'EV', reach: 3, factor: 1, step: 0.1 },
  { key: 'contrast', title: msg('Contrast'), unit: '%', reach: 100, factor: 100, step: 1 },
  { key: 'localContrast', title: msg('Local contrast'), unit: '%', reach: 100, factor: 100, step: 1 },
  { key: 'saturation', title: msg('Saturation'), unit: '%', reach: 100, factor: 100, step: 1 },
] as const;

/** Tidying the photo before it is cut out; the original is never altered. */
export function TidyDesk({
  tidy,
  histogram,
  tool,
  onTool,
  during,
  finish,
  onApplyToAll,
  others,
}: {
  tidy: Tidy;
  histogram: Histogram | null;
  tool: Gesture['tool'];
  onTool(tool: Gesture['tool']): void;
  during(value: Partial<Tidy>): void;
  finish(label: string, value: Partial<Tidy>): void;
  onApplyToAll(): void;
  others: number;
}) {
  const toggle = (which: 'neutral' | 'straighten' | 'crop') => onTool(tool === which ? 'keep' : which);
  return (
    <>
      <section aria-label={msg('Histogram')} className="border-line border-b px-3.5 py-3">
        <h2 className="font-semibold">{msg('Tidy the photo')}</h2>
        <p className="measure text-ink-2">
          {histogram
            ? msg('clipped: {clippedDark} % dark, {clippedLight} % light', {
                clippedDark: (histogram.clippedDark * 100).toFixed(1),
                clippedLight: (histogram.clippedLight * 100).toFixed(1),
              })
            : msg('counting')}
        </p>
        <HistogramPlot histogram={histogram} />
      </section>
      <section aria-label={msg('Tone')} className="border-line border-b px-3.5 py-3">
        {SLIDERS.map(({ key, title, unit, reach, factor, step }) => (
          <Slider
            key={key}
            label={title}
            unit={unit}
            min={-reach}
            max={reach}
            step={step}
            digits={step < 1 ? 1 : 0}
            value={tidy[key] * factor}
            onChange={(v) => during({ [key]: v / factor })}
            onCommit={(v) => finish(title, { [key]: v / factor })}
          />
        ))}
        <div className="mt-1 flex items-center gap-2">
          <span className="text-ink-2 w-19 text-[12px]">{msg('White balance')}</span>
          <Button onClick={() => toggle('neutral')} aria-pressed={tool === 'neutral'}>
            {tool === 'neutral' ? msg('Click something grey') : msg('Pick a neutral')}
          </Button>
          {tidy.neutral && (
            <>
              <span
                aria-label={msg('Neutral {neutral}', { neutral: tidy.neutral })}
                role="img"
                className="border-line h-5 w-5 border"
                style={{ background: tidy.neutral }}
              />
              <Button tone="quiet" onClick={() => finish(msg('Leave the white balance'), { neutral: null })}>
                {msg('Undo it')}
              </Button>
            </>
          )}
        </div>
      </section>
      <FrameSection tidy={tidy} tool={tool} onToggle={toggle} finish={finish} />
      <section className="flex gap-2 px-3.5 py-3">
        <Button onClick={() => finish(msg('Untidy'), UNTIDIED)}>{msg('As it was taken')}</Button>
        <Button onClick={onApplyToAll} disabled={!others}>
          {msg('Same for {others, plural, one {the other photo} other {all # photos}}', {
            others: others + 1,
          })}
        </Button>
      </section>
    </>
  );
}

/** How many pixels are how bright, by channel; what is clipped is marked at the ends. */
function HistogramPlot({ histogram }: { histogram: Histogram | null }) {
  return (
    <svg
      viewBox="0 0 256 64"
      preserveAspectRatio="none"
      className="border-line mt-2 block h-16 w-full border"
      role="img"
      aria-label={msg('Histogram of red, green and blue')}
    >
      {histogram &&
        (
          [
            ['red', '#c8452f'],
            ['green', '#2f8f58'],
            ['blue', '#3566b8'],
          ] as const
        ).map(([channel, colour]) => (
          <path
            key={channel}
            fill={colour}
            fillOpacity="0.28"
            stroke={colour}
            strokeWidth="1"
            d={`M0 64${histogram[channel].map((v, i) => `L${i * 4.06} ${64 - v ** 0.5 * 62}`).join('')}L256 64Z`}
          />
        ))}
      {histogram && histogram.clippedDark > 0.001 && <path d="M0 0h4v64h-4z" fill="var(--color-coral)" />}
      {histogram && histogram.clippedLight > 0.001 && <path d="M252 0h4v64h-4z" fill="var(--color-coral)" />}
    </svg>
  );
}

/** Straightening and crop. */
function FrameSection({
  tidy,
  tool,
  onToggle: toggle,
  finish,
}: {
  tidy: Tidy;
  tool: Gesture['tool'];
  onToggle(which: 'straighten' | 'crop'): void;
  finish(label: string, value: Partial<Tidy>): void;
}) {
  return (
    <section aria-label={msg('Frame')} className="border-line border-b px-3.5 py-3">
      <div className="flex items-center gap-2">
        <Button onClick={() => toggle('straighten')} aria-pressed={tool === 'straighten'}>
          {tool === 'straighten' ? msg('Draw along an edge') : msg('Straighten')}
        </Button>
        <NumberField
          label={msg('Rotation')}
          unit="°"
          digits={1}
          step={0.1}
          min={-45}
          max={45}
          value={tidy.straighten}
          onCommit={(straighten) => finish(msg('Straighten'), { straighten })}
        />
      </div>
      <div className="mt-2 flex items-center gap-2">
        <Button onClick={() => toggle('crop')} aria-pressed={tool === 'crop'}>
          {tool === 'crop' ? msg('Draw the part to keep') : msg('Crop')}
        </Button>
        {tidy.crop && (
          <>
            <span className="measure">
              {msg('{width} x {height} px', { width: tidy.crop.width, height: tidy.crop.height })}
            </span>
            <Button tone="quiet" onClick={() => finish(msg('Leave the crop'), { crop: null })}>
              {msg('All of it')}
            </Button>
          </>
        )}
      </div>
    </section>
  );
}
