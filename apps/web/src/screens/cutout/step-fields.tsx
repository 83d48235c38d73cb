import { X } from 'lucide-react';
import type { Step } from '@scenograph/core/cutout/recipe';
import { NumberField, Segmented, Slider, TextField } from '../../ui/controls';
import { msg } from '../../language/language';

const MODES = [
  { value: 'add', title: msg('Add') },
  { value: 'take', title: msg('Subtract') },
  { value: 'overlap', title: msg('Overlap') },
] as const;

/** The values of one step. */
export function StepFields({ step, onChange }: { step: Step; onChange(value: Partial<Step>): void }) {
  return (
    <>
      <TextField label={msg('Name')} hideLabel value={step.name} onCommit={(name) => onChange({ name })} />
      {(step.kind === 'stroke' || step.kind === 'paint') && (
        <Segmented
          label={msg('What the stroke does')}
          value={step.side}
          onChange={(side) => onChange({ side })}
          options={[
            { value: 'keep', title: msg('Keep') },
            { value: 'drop', title: msg('Drop') },
          ]}
        />
      )}
      {(step.kind === 'stroke' || step.kind === 'paint' || step.kind === 'fibre') && (
        <NumberField
          label={msg('Width')}
          unit="px"
          min={1}
          max={2000}
          value={step.radius * 2}
          onCommit={(v) => onChange({ radius: v / 2 })}
        />
      )}
      {step.kind === 'paint' && (
        <NumberField
          label={msg('Softness')}
          unit="%"
          min={0}
          max={100}
          value={step.softness * 100}
          onCommit={(v) => onChange({ softness: v / 100 })}
        />
      )}
      {(step.kind === 'colour' || step.kind === 'trace' || step.kind === 'shape') && (
        <Segmented
          label={msg('What it does')}
          value={step.mode}
          onChange={(mode) => onChange({ mode })}
          options={[...MODES]}
        />
      )}
      {step.kind === 'colour' && <ColourFields {...{ step, onChange }} />}
      {step.kind === 'shape' && (
        <NumberField
          label={msg('Snap')}
          unit="px"
          min={0}
          max={400}
          value={step.snap}
          onCommit={(snap) => onChange({ snap })}
        />
      )}
      {step.kind === 'shape' && step.snap === 0 && (
        <p className="text-ink-2 text-[12px]">{msg('Snap off: cut exactly as drawn.')}</p>
      )}
      {step.kind === 'trace' && (
        <p className="text-ink-2 text-[12px]">
          {msg('Drag a point to move it; Delete over a point removes it.')}
        </p>
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
        label={msg('Tolerance')}
        unit="ΔE"
        min={0}
        max={40}
        value={step.tolerance}
        onChange={() => undefined}
        onCommit={(tolerance) => onChange({ tolerance })}
      />
      <Segmented
        label={msg('How far it reaches')}
        value={step.reach}
        onChange={(reach) => onChange({ reach })}
        options={[
          { value: 'touching', title: msg('Touching') },
          { value: 'anywhere', title: msg('Anywhere') },
        ]}
      />
      <ol aria-label={msg('Picked colours')} className="flex flex-wrap gap-1">
        {step.seeds.map((seed, i) => (
          <li key={`${seed.join()}-${i}`} className="bg-paper flex items-center rounded-sm pl-1.5">
            <span className="measure text-[11px]">
              {Math.round(seed[0])}, {Math.round(seed[1])}
            </span>
            <button
              type="button"
              aria-label={msg('Remove the pick at {seed}, {seed2}', {
                seed: Math.round(seed[0]),
                seed2: Math.round(seed[1]),
              })}
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
