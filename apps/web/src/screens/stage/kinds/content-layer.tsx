import { useEffect, useRef } from 'react';
import type { Box } from '@scenograph/core/vector/box';
import { useLeaveToContent } from '../../../ui/return-focus';
import { msg } from '../../../language/language';

/** One press of an arrow key moves content by so much of its box; with Shift ten times as far. */
const STEP = 0.01;
const CLOSER = 1.1;

/**
 * Lies over an element whose content is worked on: dragged, or moved by arrow keys; scaled by the wheel, + and -. Escape, Enter
 * and a press beside it come out.
 */
export function ContentLayer({
  label,
  box,
  zoom,
  onMove,
  onScale,
  onLeave,
}: {
  label: string;
  box: Box;
  /** Screen pixels per pixel of the frame. */
  zoom: number;
  /** The content is moved by so many pixels of the frame, along the box's own sides. */
  onMove(dx: number, dy: number, done: boolean): void;
  onScale(times: number): void;
  onLeave(): void;
}) {
  useLeaveToContent();
  const layer = useRef<HTMLDivElement>(null);
  const from = useRef<{ x: number; y: number } | null>(null);
  useEffect(() => layer.current?.focus(), []);
  useEffect(() => {
    const target = layer.current;
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      e.stopPropagation();
      onScale(Math.exp(-e.deltaY * 0.0016));
    };
    target?.addEventListener('wheel', onWheel, { passive: false });
    return () => target?.removeEventListener('wheel', onWheel);
  });
  const turned = (e: { clientX: number; clientY: number }): [number, number] => {
    const a = (-box.rotation * Math.PI) / 180;
    const [x, y] = [(e.clientX - from.current!.x) / zoom, (e.clientY - from.current!.y) / zoom];
    return [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)];
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    const arrows: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const by = arrows[e.key];
    const step = STEP * (e.shiftKey ? 10 : 1);
    if (by) onMove(by[0] * step * box.width, by[1] * step * box.width, true);
    else if (e.key === '+' || e.key === '=') onScale(CLOSER);
    else if (e.key === '-') onScale(1 / CLOSER);
    else if (e.key === 'Escape' || e.key === 'Enter') onLeave();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div
      ref={layer}
      role="application"
      aria-label={label}
      aria-description={msg(
        'Arrow keys move the content, with Shift ten times as far; + and - scale it; Escape comes out.',
      )}
      tabIndex={0}
      className="outline-spruce pointer-events-auto absolute cursor-move touch-none outline-2 outline-offset-2 outline-dashed"
      style={{
        left: box.x * zoom,
        top: box.y * zoom,
        width: box.width * zoom,
        height: box.height * zoom,
        rotate: `${box.rotation}deg`,
      }}
      data-content-layer
      // From one half of an element to the other one stays inside.
      onBlur={(e) => !e.relatedTarget?.matches('[data-content-layer]') && onLeave()}
      onKeyDown={onKeyDown}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerMove={(e) => from.current && e.buttons && onMove(...turned(e), false)}
      onPointerUp={(e) => {
        if (!from.current) return;
        const [dx, dy] = turned(e);
        from.current = null;
        if (dx || dy) onMove(dx, dy, true);
      }}
    />
  );
}
