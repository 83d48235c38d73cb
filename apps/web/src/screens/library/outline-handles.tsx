import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { msg } from '../../language/language';
import type { MakeHandle } from './survey-handle';

type Point = [number, number];

/** Points that an outline may have. */
const FEWEST = 3;
const MOST = 60;

/** An outline over the picture: its points, and between each two a smaller one that adds a point there. */
export function OutlineHandles({
  outline,
  what,
  px,
  handle,
  commit,
  change,
}: {
  outline: Point[];
  /** What it is the outline of, as it is called after "of". */
  what: string;
  /** Picture pixels a screen pixel. */
  px: number;
  handle: MakeHandle;
  commit(value: Partial<SceneSurvey>): void;
  /** The survey's change for another outline. */
  change(outline: Point[]): Partial<SceneSurvey>;
}) {
  const between = (i: number): Point => {
    const [[x, y], [nx, ny]] = [outline[i], outline[(i + 1) % outline.length]];
    return [(x + nx) / 2, (y + ny) / 2];
  };
  const add = (i: number) => commit(change(outline.toSpliced(i + 1, 0, between(i))));
  return (
    <g>
      <path
        d={`M${outline.map((p) => p.join(' ')).join('L')}Z`}
        fill="none"
        stroke="#ffffff"
        strokeWidth={2 * px}
        strokeDasharray={`${7 * px} ${5 * px}`}
        pointerEvents="none"
      />
      {outline.length < MOST &&
        outline.map((_, i) => (
          <circle
            key={i}
            role="button"
            tabIndex={0}
            aria-label={msg('Add a point after point {n} of {what}', { n: i + 1, what })}
            cx={between(i)[0]}
            cy={between(i)[1]}
            r={3.5 * px}
            fill="#ffffff"
            stroke="#12463a"
            strokeWidth={1.5 * px}
            className="cursor-pointer"
            onClick={() => add(i)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter' && e.key !== ' ') return;
              e.preventDefault();
              add(i);
            }}
          />
        ))}
      {outline.map((at, i) =>
        handle(msg('Point {n} of {what}', { n: i + 1, what }), at, (to) => change(outline.with(i, to)), {
          colour: '#d3f04a',
          snaps: true,
          small: true,
          ...(outline.length > FEWEST && { without: change(outline.toSpliced(i, 1)) }),
        }),
      )}
    </g>
  );
}
