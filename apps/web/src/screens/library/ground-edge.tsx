import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { Button } from '../../ui/controls';
import { msg } from '../../language/language';

type Point = [number, number];

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
