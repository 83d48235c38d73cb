import { useRef, useState } from 'react';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import type { useMending } from './use-mending';

/** Takes the strokes that cover a mark, over the surveyed picture. */
export function MendLayer({
  survey,
  px,
  at,
  mending,
}: {
  survey: SceneSurvey;
  /** Picture pixels a screen pixel. */
  px: number;
  at(e: React.PointerEvent): [number, number];
  mending: ReturnType<typeof useMending>;
}) {
  const { tool, setTool, stroke, progress } = mending;
  const [pointer, setPointer] = useState<[number, number] | null>(null);
  const [points, setPoints] = useState<[number, number][]>([]);
  const drawing = useRef(false);
  if (!tool) return null;
  const { radius, source, offset } = tool;
  const copied = pointer && (offset ? [pointer[0] + offset[0], pointer[1] + offset[1]] : source);
  const path = points.length > 1 ? `M${points.map((p) => p.join(' ')).join('L')}` : '';
  return (
    <g>
      <rect
        data-testid="mend-layer"
        width={survey.width}
        height={survey.height}
        fill="transparent"
        className="cursor-crosshair"
        onPointerDown={(e) => {
          if (progress !== null) return;
          const now = at(e);
          if (tool.kind === 'copy' && e.altKey) return setTool({ ...tool, source: now, offset: null });
          e.currentTarget.setPointerCapture(e.pointerId);
          drawing.current = true;
          setPoints([now]);
        }}
        onPointerMove={(e) => {
          const now = at(e);
          setPointer(now);
          if (drawing.current) setPoints((p) => [...p, now]);
        }}
        onPointerUp={() => {
          if (!drawing.current) return;
          drawing.current = false;
          stroke(points);
          setPoints([]);
        }}
        onPointerLeave={() => setPointer(null)}
      />
      {points.length > 0 && (
        <path
          d={path || `M${points[0].join(' ')}h0.1`}
          fill="none"
          stroke="#d3f04a"
          strokeOpacity={0.5}
          strokeWidth={radius * 2}
          strokeLinecap="round"
          strokeLinejoin="round"
          pointerEvents="none"
        />
      )}
      {pointer && (
        <circle
          cx={pointer[0]}
          cy={pointer[1]}
          r={radius}
          fill="none"
          stroke="#ffffff"
          strokeWidth={1.5 * px}
          pointerEvents="none"
          style={{ mixBlendMode: 'difference' }}
        />
      )}
      {tool.kind === 'copy' && copied && (
        <circle
          cx={copied[0]}
          cy={copied[1]}
          r={radius}
          fill="none"
          stroke="#d3f04a"
          strokeDasharray={`${4 * px} ${4 * px}`}
          strokeWidth={1.5 * px}
          pointerEvents="none"
        />
      )}
    </g>
  );
}
