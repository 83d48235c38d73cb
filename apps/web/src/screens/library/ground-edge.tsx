import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { reducedUrl } from '../../api/client';
import { msg } from '../../language/language';
import { Button } from '../../ui/controls';
import { say } from '../../ui/notices';
import { groundEdgeSeen } from '../../workers/surveying';
import { LookButton } from './look-button';

type Point = [number, number];

/** Where the standing surface ends: begun, found in the picture, or taken away. */
export function GroundEdge({
  picture,
  survey,
  commit,
}: {
  picture: string;
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
      <div className="flex flex-wrap gap-2">
        {survey.edge ? (
          <Button onClick={() => commit({ edge: null })}>{msg('Remove the edge')}</Button>
        ) : (
          <Button onClick={() => commit({ edge: firstEdge(survey) })}>
            {msg('Draw where the ground ends')}
          </Button>
        )}
        {survey.plane && <FindEdge {...{ picture, survey, commit }} />}
      </div>
    </div>
  );
}

/** Looks for where the surface of the measured rectangle ends; what is found is a beginning to drag. */
function FindEdge({ picture, survey, commit }: Parameters<typeof GroundEdge>[0]) {
  return (
    <LookButton
      title={msg('Find the edge in the picture')}
      meanwhile={msg('Looking for the edge')}
      onLook={async () => {
        const edge = await groundEdgeSeen(reducedUrl(picture, 2048), survey);
        if (!edge)
          return say(
            'look',
            msg('The ground looks the same wherever it could be. Where it ends, draw its edge by hand.'),
          );
        commit({ edge });
      }}
    />
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
