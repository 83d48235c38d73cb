import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { STEP_TITLES, type RecipeStep } from '@scenograph/core/recipe/recipe';
import type { SpecSheet } from '@scenograph/core/spec/slot';
import type { ListedTemplate } from '../../api/client';
import type { Scene } from '../../api/client';
import { Button, Checkbox, Select, Slider, TextField } from '../../ui/controls';
import { msg } from '../../language/language';

/** The settings of one step, and what it comes after. */
export function StepDesk({
  step,
  steps,
  scenes,
  sheets,
  templates,
  onPut,
  onRemove,
}: {
  step: RecipeStep;
  steps: RecipeStep[];
  scenes: Scene[] | undefined;
  sheets: SpecSheet[] | undefined;
  templates: ListedTemplate[] | undefined;
  onPut(patch: Partial<RecipeStep>): void;
  onRemove(): void;
}) {
  return (
    <aside
      aria-label={msg('Step')}
      className="border-line bg-card grid w-72 shrink-0 content-start gap-3 overflow-y-auto border-l p-4"
    >
      <h2 className="font-display text-[16px] font-bold">{msg(STEP_TITLES[step.kind])}</h2>
      <TextField
        label={msg('Name')}
        value={step.title}
        onCommit={(title) => title.trim() && onPut({ title: title.trim() })}
      />
      {step.kind === 'tidy' && <TidyPart step={step} onPut={onPut} />}
      {step.kind === 'arrange' && (
        <Select
          label={msg('How it sits')}
          value={step.pose}
          onChange={(pose) => onPut({ pose })}
          options={[
            { value: 'stand', title: msg('Stands') },
            { value: 'float', title: msg('Floats') },
            { value: 'flat', title: msg('Lies flat') },
          ]}
        />
      )}
      {step.kind === 'stage' && scenes && (
        <Select
          label={msg('Scene')}
          value={step.scene}
          onChange={(scene) => onPut({ scene, title: scenes.find((s) => s.id === scene)!.title })}
          options={scenes.map((s) => ({ value: s.id, title: s.title }))}
        />
      )}
      {step.kind === 'template' && templates && (
        <Select
          label={msg('Template')}
          value={step.template}
          onChange={(template) => onPut({ template, title: templates.find((t) => t.id === template)!.title })}
          options={templates.map((t) => ({ value: t.id, title: t.title }))}
        />
      )}
      {step.kind === 'fit' && (
        <fieldset>
          <legend className="text-ink-2 mb-1 text-[12px]">{msg('Spec sheets')}</legend>
          {sheets?.map((s) => (
            <label key={s.id} className="flex h-7 items-center gap-2">
              <Checkbox
                checked={step.sheets.includes(s.id)}
                onChange={(on) =>
                  onPut({
                    sheets: on ? [...step.sheets, s.id] : step.sheets.filter((x) => x !== s.id),
                  })
                }
              />
              {s.marketplace}
            </label>
          ))}
        </fieldset>
      )}
      <fieldset>
        <legend className="text-ink-2 mb-1 text-[12px]">{msg('Comes after')}</legend>
        {steps
          .filter((s) => s.id !== step.id)
          .map((s) => (
            <label key={s.id} className="flex h-6.5 items-center gap-2">
              <Checkbox
                checked={step.after.includes(s.id)}
                onChange={(on) =>
                  onPut({
                    after: on ? [...step.after, s.id] : step.after.filter((a) => a !== s.id),
                  })
                }
              />
              <span className="truncate">{s.title}</span>
            </label>
          ))}
      </fieldset>
      <Button tone="danger" onClick={onRemove}>
        <Trash2 size={14} aria-hidden /> {msg('Remove this step')}
      </Button>
    </aside>
  );
}

function TidyPart({
  step,
  onPut,
}: {
  step: Extract<RecipeStep, { kind: 'tidy' }>;
  onPut(patch: Partial<RecipeStep>): void;
}) {
  const { tidy } = step;
  const [held, setHeld] = useState<Record<string, number>>({});
  const slider = (
    label: string,
    key: 'exposure' | 'contrast' | 'localContrast' | 'saturation',
    reach: number,
    unit = '',
  ) => (
    <Slider
      label={label}
      unit={unit}
      min={-reach}
      max={reach}
      step={0.01}
      digits={2}
      value={held[key] ?? tidy[key]}
      onChange={(v) => setHeld({ ...held, [key]: v })}
      onCommit={(v) => {
        setHeld({});
        onPut({ tidy: { ...tidy, [key]: v } });
      }}
    />
  );
  return (
    <div>
      {slider(msg('Exposure'), 'exposure', 3, 'EV')}
      {slider(msg('Contrast'), 'contrast', 1)}
      {slider(msg('Local contrast'), 'localContrast', 1)}
      {slider(msg('Saturation'), 'saturation', 1)}
      <p className="text-ink-2 text-[12px]">{msg("The rest of tidying is left to each photo's own desk.")}</p>
    </div>
  );
}
