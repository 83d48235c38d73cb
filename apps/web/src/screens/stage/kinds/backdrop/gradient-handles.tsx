import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import type { GradientFill } from '@scenograph/core/elements/backdrop/gradient';
import { msg } from '../../../../language/language';

/** A gradient's two ends on the picture, to be dragged. */
export function GradientHandles({
  element,
  frame,
  zoom,
  during,
  commit,
}: {
  element: BackdropElement;
  frame: { width: number; height: number };
  zoom: number;
  during(value: Partial<BackdropElement>): void;
  commit(label: string, value: Partial<BackdropElement>): void;
}) {
  if (element.fill.type !== 'gradient') return null;
  const fill: GradientFill = element.fill;
  const [w, h] = [frame.width * zoom, frame.height * zoom];
  const moved = (end: 'from' | 'to', e: React.PointerEvent): Partial<BackdropElement> => {
    const r = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    const at = {
      x: Math.round(((e.clientX - r.left) / w) * 1000) / 1000,
      y: Math.round(((e.clientY - r.top) / h) * 1000) / 1000,
    };
    return { fill: { ...fill, [end]: at } };
  };
  return (
    <svg className="absolute overflow-visible" width={w} height={h}>
      {['#000000aa', '#ffffff'].map((stroke, i) => (
        <line
          key={stroke}
          x1={fill.from.x * w}
          y1={fill.from.y * h}
          x2={fill.to.x * w}
          y2={fill.to.y * h}
          stroke={stroke}
          strokeWidth={i ? 1 : 3}
        />
      ))}
      {(['from', 'to'] as const).map((end) => (
        <circle
          key={end}
          role="button"
          tabIndex={0}
          aria-label={end === 'from' ? msg('Start of the gradient') : msg('End of the gradient')}
          cx={fill[end].x * w}
          cy={fill[end].y * h}
          r="9"
          fill={fill.stops[end === 'from' ? 0 : fill.stops.length - 1].colour}
          stroke="#12463a"
          strokeWidth="2.5"
          className="pointer-events-auto cursor-grab"
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={(e) => e.buttons && during(moved(end, e))}
          onPointerUp={(e) => commit(msg('Move the gradient'), moved(end, e))}
        />
      ))}
    </svg>
  );
}
