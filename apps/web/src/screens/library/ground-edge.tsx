import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { Button } from '../../ui/controls';
import { msg } from '../../language/language';
import type { MakeHandle } from './survey-handle';

type Point = [number, number];

/** Points that an edge may have. */
const FEWEST = 3;
const MOST = 60;

/** Where the standing surface ends: begun, or taken away. */
export function GroundEdge({
  survey,
  commit,
}: {
  survey: SceneSurvey;
  commit(value: Partial<SceneSurvey>): void;
}) {
  return (
    <div role="group" aria-label={msg('Edge of the ground')} className="border-line grid gap-2 border-t pt-2">
      <p className="text-ink-2 text-[12px]">
        {survey.edge
          ? msg(
              'Shadows and reflections end at this border. Drag its points to where the surface ends; the small ones between them add a point, Delete removes one.',
            )
          : msg('A shelf, a plinth or a table ends somewhere: shadows and reflections are to end there too.')}
      </p>
      {survey.edge ? (
        <Button onClick={() => commit({ edge: null })}>{msg('Remove the edge')}</Button>
      ) : (
        <Button onClick={() => commit({ edge: firstEdge(survey) })}>
          {msg('Draw where the ground ends')}
        </Button>
      )}
    </div>
  );
}

/** Around the measured rectangle, or the lower half of the picture. */
function firstEdge({ plane, width: w, height: h }: SceneSurvey): Point[] {
  if (!plane)
    return [
      [w * 0.05, h * 0.55],
      [w * 0.95, h * 0.55],
      [w * 0.95, h * 0.95],
      [w * 0.05, h * 0.95],
    ];
  const [mx, my] = [0, 1].map((i) => plane.corners.reduce((s, c) => s + c[i], 0) / plane.corners.length);
  return plane.corners.map(([x, y]): Point => [mx + (x - mx) * 1.15, my + (y - my) * 1.15]);
}

/** The edge over the picture: its points, and between each two a smaller one that adds a point there. */
export function EdgeHandles({
  edge,
  px,
  handle,
  commit,
}: {
  edge: Point[];
  px: number;
  handle: MakeHandle;
  commit(value: Partial<SceneSurvey>): void;
}) {
  const between = (i: number): Point => {
    const [[x, y], [nx, ny]] = [edge[i], edge[(i + 1) % edge.length]];
    return [(x + nx) / 2, (y + ny) / 2];
  };
  const add = (i: number) => commit({ edge: edge.toSpliced(i + 1, 0, between(i)) });
  return (
    <g>
      <path
        d={`M${edge.map((p) => p.join(' ')).join('L')}Z`}
        fill="none"
        stroke="#ffffff"
        strokeWidth={2 * px}
        strokeDasharray={`${7 * px} ${5 * px}`}
        pointerEvents="none"
      />
      {edge.length < MOST &&
        edge.map((_, i) => (
          <circle
            key={i}
            role="button"
            tabIndex={0}
            aria-label={msg('Add a point after point {n} of the edge', { n: i + 1 })}
            cx={between(i)[0]}
            cy={between(i)[1]}
            r={5 * px}
            fill="#ffffff"
            stroke="#12463a"
            strokeWidth={2 * px}
            className="cursor-pointer"
            onClick={() => add(i)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter' && e.key !== ' ') return;
              e.preventDefault();
              add(i);
            }}
          />
        ))}
      {edge.map((at, i) =>
        handle(msg('Point {n} of the edge', { n: i + 1 }), at, (to) => ({ edge: edge.with(i, to) }), {
          colour: '#d3f04a',
          snaps: true,
          ...(edge.length > FEWEST && { without: { edge: edge.toSpliced(i, 1) } }),
        }),
      )}
    </g>
  );
}
