import { useRef, useState } from 'react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import { freshId, withWork, type MockupElement } from './editing';
import { useMockupTools } from './tools';
import { msg } from '../../../language/language';

/** Takes strokes of shade over the mockup. */
export function ShadeLayer({
  element,
  zoom,
  frame,
  during,
  commit,
}: {
  element: MockupElement;
  zoom: number;
  frame: { width: number; height: number };
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}) {
  const { shade } = useMockupTools();
  const points = useRef<[number, number][] | null>(null);
  // The strokes there were before the one being drawn.
  const before = useRef(element.fill.item.shade);
  const [at, setAt] = useState<[number, number] | null>(null);
  const { box, fill } = element;
  const k = (box.width / fill.survey.width) * zoom;
  const place = (e: React.PointerEvent): [number, number] => {
    const r = e.currentTarget.getBoundingClientRect();
    const x = (e.clientX - r.left - box.x * zoom) / k;
    const y = (e.clientY - r.top - box.y * zoom) / k;
    return [Math.round(x * 10) / 10, Math.round(y * 10) / 10];
  };
  const strokes = (list: [number, number][]) => {
    const id = freshId('shade', before.current);
    return withWork(element, { shade: [...before.current, { id, points: list, hidden: false, ...shade }] });
  };
  return (
    <svg
      data-testid="shade-layer"
      role="application"
      aria-label={msg('Paint shade here')}
      className="pointer-events-auto absolute cursor-none touch-none overflow-hidden"
      width={frame.width * zoom}
      height={frame.height * zoom}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        before.current = fill.item.shade;
        points.current = [place(e)];
        during(strokes(points.current));
      }}
      onPointerMove={(e) => {
        const now = place(e);
        setAt(now);
        if (!points.current || !e.buttons) return;
        const last = points.current[points.current.length - 1];
        if (Math.hypot(now[0] - last[0], now[1] - last[1]) < shade.radius / 8) return;
        points.current = [...points.current, now];
        during(strokes(points.current));
      }}
      onPointerUp={() => {
        const list = points.current;
        points.current = null;
        if (list) commit(shade.amount < 0 ? msg('Dark stroke') : msg('Light stroke'), strokes(list));
      }}
      onPointerLeave={() => setAt(null)}
    >
      {at && (
        <circle
          cx={box.x * zoom + at[0] * k}
          cy={box.y * zoom + at[1] * k}
          r={shade.radius * k}
          fill="none"
          stroke="#ffffff"
          strokeWidth={1.5}
          style={{ mixBlendMode: 'difference' }}
        />
      )}
    </svg>
  );
}

/** Takes a rectangle that becomes the frame: the item shown closer. The picture keeps everything. */
export function FrameLayer({
  element,
  zoom,
  frame,
  onFrame,
}: {
  element: MockupElement;
  zoom: number;
  frame: { width: number; height: number };
  onFrame(value: Partial<BackdropElement>): void;
}) {
  const [drawn, setDrawn] = useState<{ x: number; y: number; width: number } | null>(null);
  const from = useRef<[number, number] | null>(null);
  const aspect = frame.height / frame.width;
  const place = (e: React.PointerEvent): [number, number] => {
    const r = e.currentTarget.getBoundingClientRect();
    return [(e.clientX - r.left) / zoom, (e.clientY - r.top) / zoom];
  };
  return (
    <svg
      data-testid="frame-layer"
      role="application"
      aria-label={msg('Draw what is to fill the frame')}
      className="pointer-events-auto absolute cursor-crosshair touch-none"
      width={frame.width * zoom}
      height={frame.height * zoom}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = place(e);
      }}
      onPointerMove={(e) => {
        if (!from.current || !e.buttons) return;
        const [x0, y0] = from.current;
        const [x, y] = place(e);
        const width = Math.max(Math.abs(x - x0), Math.abs(y - y0) / aspect);
        setDrawn({ x: x < x0 ? x0 - width : x0, y: y < y0 ? y0 - width * aspect : y0, width });
      }}
      onPointerUp={() => {
        from.current = null;
        setDrawn(null);
        if (drawn && drawn.width > frame.width * 0.05) onFrame(framed(element, drawn, frame));
      }}
    >
      <path
        fill="#171b19"
        fillOpacity={drawn ? 0.35 : 0}
        fillRule="evenodd"
        d={`M0 0H${frame.width * zoom}V${frame.height * zoom}H0Z${drawn ? `M${drawn.x * zoom} ${drawn.y * zoom}h${drawn.width * zoom}v${drawn.width * aspect * zoom}h${-drawn.width * zoom}Z` : ''}`}
      />
    </svg>
  );
}

/** The fill that shows a rectangle of the present frame as the whole frame. */
export function framed(
  { fill, box }: MockupElement,
  part: { x: number; y: number; width: number },
  frame: { width: number; height: number },
): Partial<BackdropElement> {
  const { survey } = fill;
  const zoom = Math.min(20, Math.max(1, (fill.zoom * frame.width) / part.width));
  const height = (part.width * frame.height) / frame.width;
  return {
    fill: {
      ...fill,
      zoom: Math.round(zoom * 1000) / 1000,
      focus: {
        x: share((part.x + part.width / 2 - box.x) / (box.width || survey.width)),
        y: share((part.y + height / 2 - box.y) / (box.height || survey.height)),
      },
    },
  };
}

const share = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 1e4) / 1e4;
