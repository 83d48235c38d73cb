import { ProgressBar } from '../../ui/status';
import { Eye, EyeOff, Trash2 } from 'lucide-react';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { Button, IconButton, Segmented, Slider } from '../../ui/controls';
import type { useMending } from './use-mending';
import { msg } from '../../language/language';

/** Covering what is already printed on a blank, or a scratch; each step can be switched off and removed. */
export function MendSection({
  survey,
  mending,
}: {
  survey: SceneSurvey;
  mending: ReturnType<typeof useMending>;
}) {
  const { tool, setTool, progress, cancel, carryOut } = mending;
  const { mends } = survey;
  return (
    <div className="grid gap-2">
      <p className="text-ink-2 text-[12px]">
        {msg('Cover a mark that is already there, or a scratch. The picture itself stays as it is.')}
      </p>
      <Segmented
        label={msg('How a mark is covered')}
        value={tool?.kind ?? 'none'}
        onChange={(kind) =>
          setTool(
            kind === 'none'
              ? null
              : {
                  kind: kind,
                  radius: tool?.radius ?? Math.round(survey.width / 50),
                  softness: tool?.softness ?? 0.5,
                  offset: null,
                  source: null,
                },
          )
        }
        options={[
          { value: 'none', title: msg('No tool') },
          { value: 'fill', title: msg('Fill') },
          { value: 'copy', title: msg('Copy') },
        ]}
      />
      {tool && <ToolFields tool={tool} onChange={setTool} />}
      {progress !== null && (
        <div className="flex items-center gap-2" role="status">
          <ProgressBar share={progress} label={msg('Covering')} />
          <span className="measure">{Math.round(progress * 100)} %</span>
          <Button onClick={cancel}>{msg('Cancel')}</Button>
        </div>
      )}
      {mends.length > 0 && (
        <ul aria-label={msg('Steps')} className="grid gap-1">
          {mends.map((step) => (
            <MendStepRow
              key={step.id}
              step={step}
              onChange={(to) => void carryOut(mends.flatMap((m) => (m === step ? (to ?? []) : m)))}
            />
          ))}
        </ul>
      )}
    </div>
  );
}

type MendTool = NonNullable<ReturnType<typeof useMending>['tool']>;

/** How the tool in hand is used, and its width. */
function ToolFields({ tool, onChange }: { tool: MendTool; onChange(tool: MendTool): void }) {
  return (
    <>
      <p className="text-ink-2 text-[12px]">
        {tool.kind === 'fill'
          ? msg('Paint over the mark: it grows over from its surroundings, with their shading and grain.')
          : tool.source
            ? msg('Paint over the mark. The source moves along; hold Alt and click to choose another.')
            : msg('Hold Alt and click on a clean place to copy from, then paint over the mark.')}
      </p>
      <Slider
        label={msg('Width')}
        unit="px"
        min={4}
        max={600}
        value={Math.round(tool.radius * 2)}
        onChange={(v) => onChange({ ...tool, radius: v / 2 })}
        onCommit={() => undefined}
      />
      {tool.kind === 'copy' && (
        <Slider
          label={msg('Soft tip')}
          unit="%"
          value={Math.round(tool.softness * 100)}
          onChange={(v) => onChange({ ...tool, softness: v / 100 })}
          onCommit={() => undefined}
        />
      )}
    </>
  );
}

type MendStep = SceneSurvey['mends'][number];

/** One step; without a step to change to it is removed. */
function MendStepRow({ step, onChange }: { step: MendStep; onChange(to: MendStep | null): void }) {
  return (
    <li className="flex items-center gap-1">
      <span className="grow">{step.name}</span>
      <span className="measure text-ink-2">
        {msg('{radius} px', { radius: Math.round(step.radius * 2) })}
      </span>
      {step.kind === 'fill' && (
        <Button tone="quiet" onClick={() => onChange({ ...step, seed: (step.seed + 17) % 999_999 })}>
          {msg('Another')}
        </Button>
      )}
      <IconButton
        label={
          step.hidden ? msg('Show {step}', { step: step.name }) : msg('Hide {step}', { step: step.name })
        }
        onClick={() => onChange({ ...step, hidden: !step.hidden })}
      >
        {step.hidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
      </IconButton>
      <IconButton label={msg('Remove {step}', { step: step.name })} onClick={() => onChange(null)}>
        <Trash2 size={13} aria-hidden />
      </IconButton>
    </li>
  );
}
