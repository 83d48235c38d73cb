import { ArrowDown, ArrowUp, Eye, EyeOff, PanelLeftClose, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { verdictOf } from '@scenograph/core/cutout/confidence';
import type { CutoutRecipe, OutlineStep, Step } from '@scenograph/core/cutout/recipe';
import type { Outline } from '../../api/client';
import { Button, IconButton } from '../../ui/controls';
import { SavedOutlines } from './saved-outlines';
import { StepFields } from './step-fields';
import { msg } from '../../language/language';

/** What stands beside the automatic cutout: how far it can be trusted, as long as nobody has corrected or accepted it. */
function automaticSays(
  { automatic, steps }: CutoutRecipe,
  confidence: number | null,
  accepted: boolean,
): string {
  if (!automatic.on) return msg('off');
  if (steps.some((s) => s.on)) return msg('corrected');
  if (accepted) return msg('accepted');
  return confidence === null ? '' : msg(verdictOf(confidence));
}

const SIGNS: Record<Step['kind'], string> = {
  stroke: '+',
  paint: 'p',
  colour: 'C',
  trace: 'E',
  shape: 'S',
  invert: '/',
  outline: 'O',
  fibre: '~',
};

export function stepSign(step: Step): string {
  return step.kind === 'stroke' || step.kind === 'paint'
    ? step.side === 'keep'
      ? '+'
      : '-'
    : SIGNS[step.kind];
}

function stepValue(step: Step): string {
  if (!step.on) return msg('off');
  if (step.kind === 'stroke' || step.kind === 'paint' || step.kind === 'fibre')
    return `${Math.round(step.radius * 2)} px`;
  if (step.kind === 'colour') return msg('{seeds} picked', { seeds: step.seeds.length });
  if (step.kind === 'trace')
    return msg('{points, plural, one {# point} other {# points}}', { points: step.points.length });
  if (step.kind === 'shape' || step.kind === 'outline') return step.mode;
  return '';
}

/** Changes the recipe in one named step of history. */
type Edit = (label: string, change: (recipe: CutoutRecipe) => CutoutRecipe) => void;

const withSteps = (change: (steps: Step[]) => Step[]) => (r: CutoutRecipe) => ({
  ...r,
  steps: change(r.steps),
});

/** The steps with one moved by so many places, held within the list. */
function moved(steps: Step[], id: string, by: number): Step[] {
  const from = steps.findIndex((s) => s.id === id);
  const to = Math.min(steps.length - 1, Math.max(0, from + by));
  const next = [...steps];
  const [step] = next.splice(from, 1);
  next.splice(to, 0, step);
  return next;
}

/** How the edge was made: the automatic cutout, then each correction in the order it takes effect; saved outlines below. */
export function StepsPanel({
  recipe,
  confidence,
  accepted = false,
  chosen,
  outlines,
  onChoose,
  onEdit,
  onSaveOutline,
  onUseOutline,
  onRemoveOutline,
  onImportOutline,
  svgUrl,
}: {
  recipe: CutoutRecipe;
  confidence: number | null;
  /** A person has accepted the cutout as it is. */
  accepted?: boolean;
  chosen: string | null;
  outlines: Outline[];
  onChoose(id: string | null): void;
  onEdit: Edit;
  onSaveOutline(title: string): Promise<boolean>;
  onUseOutline(outline: Outline, mode: OutlineStep['mode']): void;
  onRemoveOutline(outline: Outline): void;
  onImportOutline(file: File): void;
  svgUrl(outline: Outline): string;
}) {
  // Where the window is narrow, the photo has the room until the steps are asked for.
  const [folded, setFolded] = useState(() => window.innerWidth < 1180);
  if (folded) return <Folded count={recipe.steps.length} onUnfold={() => setFolded(false)} />;
  return (
    <aside
      aria-label={msg('How this edge was made')}
      className="border-line bg-card flex w-59 shrink-0 flex-col overflow-y-auto border-r"
    >
      <h2 className="border-line flex h-9.5 shrink-0 items-center justify-between border-b pr-1.5 pl-3.5 font-semibold">
        {msg('How this edge was made')}
        <button
          type="button"
          aria-label={msg('Fold the steps away')}
          className="text-ink-2 hover:text-ink p-1.5"
          onClick={() => setFolded(true)}
        >
          <PanelLeftClose size={14} aria-hidden />
        </button>
      </h2>
      <ol>
        <AutomaticRow
          on={recipe.automatic.on}
          says={automaticSays(recipe, confidence, accepted)}
          onEdit={onEdit}
        />
        {recipe.steps.map((step, i) => (
          <StepRow
            key={step.id}
            step={step}
            open={chosen === step.id}
            first={i === 0}
            last={i === recipe.steps.length - 1}
            onChoose={onChoose}
            onEdit={onEdit}
          />
        ))}
      </ol>
      <AllSteps any={recipe.steps.length > 0} onEdit={onEdit} />
      <SavedOutlines
        outlines={outlines}
        onSave={onSaveOutline}
        onUse={onUseOutline}
        onRemove={onRemoveOutline}
        onImport={onImportOutline}
        svgUrl={svgUrl}
      />
    </aside>
  );
}

/** What is done with all steps at once. */
function AllSteps({ any, onEdit }: { any: boolean; onEdit: Edit }) {
  return (
    <div className="flex gap-2 px-3.5 py-2.5">
      <Button
        tone="quiet"
        onClick={() =>
          onEdit(
            msg('Invert'),
            withSteps((steps) => [
              ...steps,
              { id: crypto.randomUUID(), name: 'Invert', on: true, kind: 'invert' },
            ]),
          )
        }
      >
        {msg('Invert')}
      </Button>
      {any && (
        <Button
          tone="quiet"
          onClick={() =>
            onEdit(
              msg('Delete all steps'),
              withSteps(() => []),
            )
          }
        >
          {msg('Delete all steps')}
        </Button>
      )}
    </div>
  );
}

function Folded({ count, onUnfold }: { count: number; onUnfold(): void }) {
  return (
    <aside aria-label={msg('How this edge was made')} className="border-line bg-card w-9 shrink-0 border-r">
      <button
        type="button"
        aria-expanded={false}
        className="hover:bg-paper block h-full w-full pt-3.5 pr-2 text-left font-semibold [writing-mode:vertical-rl]"
        onClick={onUnfold}
      >
        {msg('How this edge was made')}
        {count > 0 && <span className="measure text-ink-2">, {count}</span>}
      </button>
    </aside>
  );
}

function AutomaticRow({ on, says, onEdit }: { on: boolean; says: string; onEdit: Edit }) {
  return (
    <li className="border-line flex h-9.5 items-center gap-2 border-b px-3.5">
      <Sign text="A" />
      <button
        type="button"
        aria-pressed={on}
        className={`grow text-left ${on ? '' : 'text-ink-2 line-through'}`}
        title={on ? msg('Begin with nothing') : msg('Begin with the automatic cutout')}
        onClick={() =>
          onEdit(on ? msg('Automatic off') : msg('Automatic on'), (r) => ({
            ...r,
            automatic: { ...r.automatic, on: !r.automatic.on },
          }))
        }
      >
        {msg('Automatic')}
      </button>
      <span className="measure text-ink-2">{says}</span>
    </li>
  );
}

/** One correction; what it can be told shows where it is chosen. */
function StepRow({
  step,
  open,
  first,
  last,
  onChoose,
  onEdit,
}: {
  step: Step;
  open: boolean;
  first: boolean;
  last: boolean;
  onChoose(id: string | null): void;
  onEdit: Edit;
}) {
  const patch = (label: string, value: Partial<Step>) =>
    onEdit(
      label,
      withSteps((steps) => steps.map((s) => (s.id === step.id ? ({ ...s, ...value } as Step) : s))),
    );
  const move = (by: number) =>
    onEdit(
      msg('Change the order of steps'),
      withSteps((steps) => moved(steps, step.id, by)),
    );
  const remove = () => {
    onChoose(null);
    onEdit(
      msg('Delete {step}', { step: step.name }),
      withSteps((steps) => steps.filter((s) => s.id !== step.id)),
    );
  };
  return (
    <li
      className={`border-line border-b ${open ? 'border-l-limelight-edge border-l-[3px] bg-[#f5fadb]' : ''}`}
    >
      <div className="flex h-9.5 items-center gap-2 px-3.5">
        <Sign text={stepSign(step)} dim={!step.on} />
        <button
          type="button"
          aria-expanded={open}
          className={`min-w-0 grow truncate text-left ${step.on ? '' : 'text-ink-2 line-through'}`}
          onClick={() => onChoose(open ? null : step.id)}
        >
          {step.name}
        </button>
        <span className="measure text-ink-2">{stepValue(step)}</span>
      </div>
      {open && (
        <div className="grid gap-2 px-3.5 pb-3">
          <StepFields
            step={step}
            onChange={(value) => patch(msg('Change {step}', { step: step.name }), value)}
          />
          <div className="flex gap-1">
            <IconButton
              label={step.on ? msg('Switch off') : msg('Switch on')}
              onClick={() =>
                patch(step.on ? msg('Switch a step off') : msg('Switch a step on'), { on: !step.on })
              }
            >
              {step.on ? <Eye size={14} aria-hidden /> : <EyeOff size={14} aria-hidden />}
            </IconButton>
            <IconButton label={msg('Earlier')} disabled={first} onClick={() => move(-1)}>
              <ArrowUp size={14} aria-hidden />
            </IconButton>
            <IconButton label={msg('Later')} disabled={last} onClick={() => move(1)}>
              <ArrowDown size={14} aria-hidden />
            </IconButton>
            <IconButton label={msg('Delete this step')} onClick={remove}>
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </div>
        </div>
      )}
    </li>
  );
}

function Sign({ text, dim }: { text: string; dim?: boolean }) {
  return (
    <span
      aria-hidden
      className={`bg-spruce-tint measure flex h-6 w-6 shrink-0 items-center justify-center rounded-sm ${dim ? 'text-ink-3' : 'text-spruce'}`}
    >
      {text}
    </span>
  );
}
