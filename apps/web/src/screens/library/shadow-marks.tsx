import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { msg } from '../../language/language';
import { OutlineHandles } from './outline-handles';
import { outlineName, type ChosenOutline, type OutlineKind } from './shadows-section';
import type { MakeHandle } from './survey-handle';

const COLOURS: Record<OutlineKind, string> = { things: '#12463a33', shades: '#00000055' };

/** What shadows meet, over the picture: the wall's foot and the outlines, of which the chosen one is dragged. */
export function ShadowMarks({
  survey,
  chosen,
  onChoose,
  px,
  handle,
  commit,
}: {
  survey: SceneSurvey;
  chosen: ChosenOutline | null;
  onChoose(outline: ChosenOutline): void;
  /** Picture pixels a screen pixel. */
  px: number;
  handle: MakeHandle;
  commit(value: Partial<SceneSurvey>): void;
}) {
  const { wall } = survey;
  const kinds: OutlineKind[] = ['things', 'shades'];
  const now = chosen && survey[chosen.kind]?.[chosen.n];
  return (
    <g>
      {kinds.flatMap((kind) =>
        (survey[kind] ?? []).map((outline, n) => (
          <path
            key={`${kind}-${n}`}
            d={`M${outline.map((p) => p.join(' ')).join('L')}Z`}
            fill={COLOURS[kind]}
            stroke="#ffffff"
            strokeWidth={1.5 * px}
            className="cursor-pointer"
            onPointerDown={() => onChoose({ kind, n })}
          />
        )),
      )}
      {wall && (
        <path
          d={`M${wall[0].join(' ')}L${wall[1].join(' ')}`}
          stroke="#ffffff"
          strokeWidth={2 * px}
          strokeDasharray={`${7 * px} ${5 * px}`}
          pointerEvents="none"
        />
      )}
      {wall &&
        [msg('Left end of the foot of the wall'), msg('Right end of the foot of the wall')].map((label, i) =>
          handle(label, wall[i], (to) => ({ wall: i ? [wall[0], to] : [to, wall[1]] }), {
            colour: '#d3f04a',
          }),
        )}
      {chosen && now && (
        <OutlineHandles
          outline={now}
          what={outlineName(chosen)}
          change={(next) => ({ [chosen.kind]: survey[chosen.kind]!.with(chosen.n, next) })}
          {...{ px, handle, commit }}
        />
      )}
    </g>
  );
}
