import { Select } from '../../ui/controls';
import { SharedView, type View } from '../../ui/shared-view';
import { bytesText } from '../../ui/status';
import type { Trial } from './use-trials';
import { describe } from './way';
import { msg } from '../../language/language';

/** One of the two pictures that are compared: as painted, or as one of the ways wrote it. */
export function Side({
  label,
  trial,
  trials,
  painted,
  size,
  view,
  onView,
  frame,
  onChoose,
}: {
  label: string;
  /** Null is as painted. */
  trial: Trial | null;
  trials: Trial[];
  /** Address of the picture as painted. */
  painted: string;
  size: { width: number; height: number };
  view: View;
  onView(view: View): void;
  frame: { width: number; height: number };
  onChoose(id: number | null): void;
}) {
  const result = trial?.result?.ok ? trial.result : null;
  const address = trial ? result && `/api/shots/tried/${result.file}` : painted;
  return (
    <figure className="relative min-w-0 overflow-hidden">
      <SharedView
        label={trial ? describe(trial.encoding) : msg('As painted, without loss')}
        {...size}
        view={view}
        onView={onView}
        frame={frame}
      >
        {address && <img src={address} alt="" draggable={false} />}
      </SharedView>
      <figcaption className="bg-card/95 border-line absolute bottom-2 left-2 flex items-center gap-2 rounded-md border px-2 py-1">
        <Select
          label={label}
          value={trial ? String(trial.id) : 'painted'}
          onChange={(v) => onChoose(v === 'painted' ? null : Number(v))}
          options={[
            { value: 'painted', title: msg('As painted') },
            ...trials.map((t) => ({ value: String(t.id), title: describe(t.encoding) })),
          ]}
        />
        {result && <span className="measure whitespace-nowrap">{bytesText(result.size)}</span>}
      </figcaption>
    </figure>
  );
}
