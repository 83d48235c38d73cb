import type { ShotElement } from '@scenograph/core/elements/index';
import { writeLength } from '@scenograph/core/data/length';
import { useLengthUnit } from '../../ui/length-field';
import type { TrueSize } from './true-size';
import { msg } from '../../language/language';

/** Its real height beside the product, from its base up, every 50 millimetres or 2 inches marked; off true size it says by how much. */
export function MillimetreRule({
  element,
  size,
  zoom,
}: {
  element: ShotElement;
  size: TrueSize;
  zoom: number;
}) {
  const { unit } = useLengthUnit();
  const { box } = element;
  const { standing } = size;
  const foot = standing.at.y;
  const tall = standing.heightMm * size.pxPerMm * zoom;
  const apart = unit === 'in' ? 2 * 25.4 : 50;
  const ticks = Array.from({ length: Math.floor(standing.heightMm / apart) + 1 }, (_, i) => i * apart);
  const off = Math.abs(size.ratio - 1) > 0.005;
  return (
    <svg
      className="absolute overflow-visible"
      style={{ left: (box.x + box.width) * zoom + 22, top: foot * zoom - tall }}
      width="60"
      height={tall}
      aria-hidden
    >
      <g stroke="#00000088" strokeWidth="3">
        <path d={`M0.5 0V${tall}M0 .5h9M0 ${tall - 0.5}h9`} fill="none" />
      </g>
      <g stroke="#fff" strokeWidth="1">
        <path d={`M0.5 0V${tall}M0 .5h9M0 ${tall - 0.5}h9`} fill="none" />
        {ticks.slice(1).map((t) => (
          <path key={t} d={`M0 ${tall - t * size.pxPerMm * zoom}h5`} />
        ))}
      </g>
      <g className="measure" fill="#fff" stroke="#000000aa" strokeWidth="3" paintOrder="stroke">
        <text x="13" y="5">
          {writeLength(standing.heightMm, unit)}
        </text>
        {off && (
          <text x="13" y="20">
            {msg('{ratio} percent of true size', { ratio: Math.round(size.ratio * 100) })}
          </text>
        )}
        <text x="13" y={tall + 1}>
          0
        </text>
      </g>
    </svg>
  );
}
