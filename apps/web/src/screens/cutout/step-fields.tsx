import { X } from 'lucide-react';
import type { Step } from '@scenograph/core/cutout/recipe';
import { NumberField, Segmented, Slider, TextField } from '../../ui/controls';

const MODES = [
  { value: 'add', title: 'Add' },
  { value: 'take', title: 'Subtract' },
  { value: 'overlap', title: 'Overlap' },
] as const;

/** The values of one step. */
export function StepFields({ step, onChange }: { step: Step; onChange(value: Partial<Step>): void }) {
  return (
    <>
      <TextField label="Name" hideLabel value={step.name} onCommit={(name) => onChange({ name })} />
      {(step.kind === 'stroke' || step.kind === 'paint') && (
        <Segmented
          label="What the stroke does"
          value={step.side}
          onChange={(side) => onChange({ side })}
          options={[
            { value: 'keep', title: 'Keep' },
            { value: 'drop', title: 'Drop' },
          ]}
        />
      )}
      {(step.kind === 'stroke' || step.kind === 'paint' || step.kind === 'fibre') && (
        <NumberField
          label="Width"
          unit="px"
          min={1}
          max={2000}
          value={step.radius * 2}
          onCommit={(v) => onChange({ radius: v / 2 })}
        />
      )}
      {step.kind === 'paint' && (
        <NumberField
          label="Softness"
          unit="%"
          min={0}
          max={100}
          value={step.softness * 100}
          onCommit={(v) => onChange({ softness: v / 100 })}
        />
      )}
      {(step.kind === 'colour' || step.kind === 'trace' || step.kind === 'shape') && (
        <Segmented
          label="What it does"
          value={step.mode}
          onChange={(mode) => onChange({ mode })}
          options={[...MODES]}
        />
      )}
      {step.kind === 'colour' && <ColourFields {...{ step, onChange }} />}
      {step.kind === 'shape' && (
        <NumberField
          label="Snap"
          unit="px"
          min={0}
          max={400}
          value={step.snap}
          onCommit={(snap) => onChange({ snap })}
        />
      )}
      {step.kind === 'shape' && step.snap === 0 && (
        <p className="text-ink-2 text-[12px]">Snap off: cut exactly as drawn.</p>
      )}
      {step.kind === 'trace' && (
        <p className="text-ink-2 text-[12px]">Drag a point to move it; Delete over a point removes it.</p>
      )}
    </>
  );
}

/** How near a colour and how far away is taken, and the places where colours were picked. */
function ColourFields({
  step,
  onChange,
}: {
  step: Extract<Step, { kind: 'colour' }>;
  onChange(value: Partial<Step>): void;
}) {
  return (
    <>
      <Slider
        label="Tolerance"
        unit="ΔE"
        min={0}
        max={40}
        value={step.tolerance}
        onChange={() => undefined}
        onCommit={(tolerance) => onChange({ tolerance })}
      />
      <Segmented
        label="How far it reaches"
        value={step.reach}
        onChange={(reach) => onChange({ reach })}
        options={[
          { value: 'touching', title: 'Touching' },
          { value: 'anywhere', title: 'Anywhere' },
        ]}
      />
      <ol aria-label="Picked colours" className="flex flex-wrap gap-1">
        {step.seeds.map((seed, i) => (
          <li key={`${seed.join()}-${i}`} className="bg-paper flex items-center rounded-sm pl-1.5">
            <span className="measure text-[11px]">
              {Math.round(seed[0])}, {Math.round(seed[1])}
            </span>
            <button
              type="button"
              aria-label={`Remove the pick at ${Math.round(seed[0])}, ${Math.round(seed[1])}`}
              disabled={step.seeds.length < 2}
              className="text-ink-2 hover:text-ink px-1.5 py-0.5 disabled:opacity-40"
              onClick={() => onChange({ seeds: step.seeds.filter((_, k) => k !== i) })}
            >
              <X size={11} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
    </>
  );
}
