import type { Histogram } from '@scenograph/core/retouch/histogram';
import { UNTIDIED, type Tidy } from '@scenograph/core/retouch/tidy';
import { Button, NumberField, Slider } from '../../ui/controls';
import type { Gesture } from './desk-traces';

/** Values of tone, with what is shown of them: `factor` times what is stored, within `reach` of 0. */
const SLIDERS = [
  { key: 'exposure', title: 'Exposure', unit: 'EV', reach: 3, factor: 1, step: 0.1 },
  { key: 'contrast', title: 'Contrast', unit: '%', reach: 100, factor: 100, step: 1 },
  { key: 'localContrast', title: 'Local contrast', unit: '%', reach: 100, factor: 100, step: 1 },
  { key: 'saturation', title: 'Saturation', unit: '%', reach: 100, factor: 100, step: 1 },
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
      <section aria-label="Histogram" className="border-line border-b px-3.5 py-3">
        <h2 className="font-semibold">Tidy the photo</h2>
        <p className="measure text-ink-2">
          {histogram
            ? `clipped: ${(histogram.clippedDark * 100).toFixed(1)} % dark, ${(histogram.clippedLight * 100).toFixed(1)} % light`
            : 'counting'}
        </p>
        <HistogramPlot histogram={histogram} />
      </section>
      <section aria-label="Tone" className="border-line border-b px-3.5 py-3">
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
          <span className="text-ink-2 w-19 text-[12px]">White balance</span>
          <Button onClick={() => toggle('neutral')} aria-pressed={tool === 'neutral'}>
            {tool === 'neutral' ? 'Click something grey' : 'Pick a neutral'}
          </Button>
          {tidy.neutral && (
            <>
              <span
                aria-label={`Neutral ${tidy.neutral}`}
                role="img"
                className="border-line h-5 w-5 border"
                style={{ background: tidy.neutral }}
              />
              <Button tone="quiet" onClick={() => finish('Leave the white balance', { neutral: null })}>
                Undo it
              </Button>
            </>
          )}
        </div>
      </section>
      <FrameSection tidy={tidy} tool={tool} onToggle={toggle} finish={finish} />
      <section className="flex gap-2 px-3.5 py-3">
        <Button onClick={() => finish('Untidy', UNTIDIED)}>As it was taken</Button>
        <Button onClick={onApplyToAll} disabled={!others}>
          Same for all {others + 1} photos
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
      aria-label="Histogram of red, green and blue"
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
    <section aria-label="Frame" className="border-line border-b px-3.5 py-3">
      <div className="flex items-center gap-2">
        <Button onClick={() => toggle('straighten')} aria-pressed={tool === 'straighten'}>
          {tool === 'straighten' ? 'Draw along an edge' : 'Straighten'}
        </Button>
        <NumberField
          label="Rotation"
          unit="°"
          digits={1}
          step={0.1}
          min={-45}
          max={45}
          value={tidy.straighten}
          onCommit={(straighten) => finish('Straighten', { straighten })}
        />
      </div>
      <div className="mt-2 flex items-center gap-2">
        <Button onClick={() => toggle('crop')} aria-pressed={tool === 'crop'}>
          {tool === 'crop' ? 'Draw the part to keep' : 'Crop'}
        </Button>
        {tidy.crop && (
          <>
            <span className="measure">
              {tidy.crop.width} x {tidy.crop.height} px
            </span>
            <Button tone="quiet" onClick={() => finish('Leave the crop', { crop: null })}>
              All of it
            </Button>
          </>
        )}
      </div>
    </section>
  );
}
