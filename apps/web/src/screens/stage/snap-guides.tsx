import type { Guide } from '@scenograph/core/stage/snap';

/** Lines that something snapped to. */
export function SnapGuides({
  guides,
  left,
  top,
  zoom,
  frame,
}: {
  guides: Guide[];
  left: number;
  top: number;
  zoom: number;
  frame: { width: number; height: number };
}) {
  if (!guides.length) return null;
  const [w, h] = [frame.width * zoom, frame.height * zoom];
  return (
    <svg
      className="pointer-events-none absolute overflow-visible"
      style={{ left, top }}
      width={w}
      height={h}
      aria-hidden
    >
      {guides.map((g, i) => (
        <g key={i}>
          <path
            d={g.axis === 'x' ? `M${g.at * zoom} 0V${h}` : `M0 ${g.at * zoom}H${w}`}
            stroke="#000000aa"
            strokeWidth="2.5"
          />
          <path
            d={g.axis === 'x' ? `M${g.at * zoom} 0V${h}` : `M0 ${g.at * zoom}H${w}`}
            stroke="#d3f04a"
            strokeWidth="1"
          />
          <text
            className="measure"
            x={g.axis === 'x' ? g.at * zoom + 5 : 6}
            y={g.axis === 'x' ? 14 : g.at * zoom - 5}
            fill="#fff"
            stroke="#000000aa"
            strokeWidth="3"
            paintOrder="stroke"
          >
            {g.label}
          </text>
        </g>
      ))}
    </svg>
  );
}
