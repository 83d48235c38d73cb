import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { msg } from '../../language/language';
import type { MakeHandle } from './survey-handle';

/** Focus and haze over the picture: points to be dragged, the soft one with a disc as large as its blur. */
export function DepthMarks({
  survey: { focus, haze },
  px,
  handle,
}: {
  survey: SceneSurvey;
  /** Picture pixels a screen pixel. */
  px: number;
  handle: MakeHandle;
}) {
  return (
    <g>
      {focus && (
        <>
          <path
            d={`M${focus.sharp.join(' ')}L${focus.soft.join(' ')}`}
            stroke="#ffffff"
            strokeWidth={1.5 * px}
            strokeDasharray={`${6 * px} ${5 * px}`}
          />
          <circle
            cx={focus.soft[0]}
            cy={focus.soft[1]}
            // A disc's standard deviation is half its radius.
            r={Math.max(2 * focus.blurPx, 9 * px)}
            fill="#ffffff33"
            stroke="#ffffff"
            strokeWidth={1.5 * px}
          />
          {handle(msg('Where it is sharp'), focus.sharp, (sharp) => ({ focus: { ...focus, sharp } }), {
            colour: '#d3f04a',
          })}
          {handle(msg('Where it is soft'), focus.soft, (soft) => ({ focus: { ...focus, soft } }))}
        </>
      )}
      {haze &&
        handle(msg('Place of the haze'), haze.at, (at) => ({ haze: { ...haze, at } }), {
          colour: haze.colour,
        })}
    </g>
  );
}
