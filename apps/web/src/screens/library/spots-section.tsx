import { levelOfScale, onPlane, scaleAt, type Camera } from '@scenograph/core/stage/camera';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { Button } from '../../ui/controls';
import { msg } from '../../language/language';

const tenth = (v: number) => Math.round(v * 10) / 10;

/** The survey's points with one more at a place of the picture; null where no standing plane is there. */
export function withSpot(
  { spots }: SceneSurvey,
  camera: Camera | null,
  x: number,
  y: number,
): SceneSurvey['spots'] | null {
  const at = camera && onPlane(camera, { x, y });
  if (!camera || !at) return null;
  const ids = new Set(spots.map((s) => s.id));
  let n = spots.length + 1;
  while (ids.has(`spot-${n}`)) n++;
  const pxPerMm = Math.round(scaleAt(camera, at).up * 1e4) / 1e4;
  return [...spots, { id: `spot-${n}`, x: tenth(x), y: tenth(y), pxPerMm }];
}

/** Points at which products stand by preference. */
export function SpotsSection({
  survey: { spots },
  camera,
  placing,
  onPlacing,
  commit,
}: {
  survey: SceneSurvey;
  camera: Camera | null;
  placing: boolean;
  onPlacing(on: boolean): void;
  commit(value: Partial<SceneSurvey>): void;
}) {
  return (
    <>
      <ul className="grid gap-1.5">
        {spots.map((s, i) => (
          <li key={s.id} className="flex items-center gap-2">
            <span className="grow truncate">{s.id}</span>
            <span className="measure text-ink-2">
              {msg('{pxPerMm} px/mm', { pxPerMm: s.pxPerMm.toFixed(2) })}
            </span>
            {camera && levelOfScale(camera, s, s.pxPerMm) > 0 && (
              <span className="measure text-ink-2">
                {msg('{camera} mm up', { camera: Math.round(levelOfScale(camera, s, s.pxPerMm)) })}
              </span>
            )}
            <Button tone="quiet" onClick={() => commit({ spots: spots.filter((_, j) => j !== i) })}>
              {msg('Remove')}
            </Button>
          </li>
        ))}
      </ul>
      <Button className="mt-2" aria-pressed={placing} onClick={() => onPlacing(!placing)}>
        {placing ? msg('Click on the picture') : msg('Add a point')}
      </Button>
    </>
  );
}
