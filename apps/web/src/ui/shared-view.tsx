import { useRef, type PointerEvent, type ReactNode, type WheelEvent } from 'react';
import { msg } from '../language/language';

/** What several pictures of one size are looked at through: 1 shows their own pixels; null shows all of each. */
export interface View {
  zoom: number | null;
  /** The middle of what is seen, in shares of the picture. */
  x: number;
  y: number;
}

export const WHOLE: View = { zoom: null, x: 0.5, y: 0.5 };

const clamp = (v: number) => Math.min(1, Math.max(0, v));

/** A window on a picture that shares zoom and place with others: drag to move, wheel to zoom. */
export function SharedView({
  label,
  width,
  height,
  view,
  onView,
  frame,
  children,
}: {
  label: string;
  /** The picture's own size. */
  width: number;
  height: number;
  view: View;
  onView(view: View): void;
  /** The window's size. */
  frame: { width: number; height: number };
  /** The picture; it is stretched to its place. */
  children: ReactNode;
}) {
  const drag = useRef<{ x: number; y: number; view: View } | null>(null);
  const whole = Math.min(frame.width / width, frame.height / height, 1);
  // Pictures are looked at in the screen's own pixels.
  const k = view.zoom === null ? whole : view.zoom / window.devicePixelRatio;
  const centre = view.zoom === null ? { x: 0.5, y: 0.5 } : view;
  const left = frame.width / 2 - centre.x * width * k;
  const top = frame.height / 2 - centre.y * height * k;
  const down = (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = {
      x: e.clientX,
      y: e.clientY,
      view: { ...view, zoom: view.zoom ?? whole * window.devicePixelRatio },
    };
  };
  const move = (e: PointerEvent) => {
    const from = drag.current;
    if (!from) return;
    onView({
      ...from.view,
      x: clamp(from.view.x - (e.clientX - from.x) / (width * k)),
      y: clamp(from.view.y - (e.clientY - from.y) / (height * k)),
    });
  };
  const wheel = (e: WheelEvent) => {
    const now = view.zoom ?? whole * window.devicePixelRatio;
    const zoom = Math.min(8, Math.max(whole * window.devicePixelRatio, now * Math.exp(-e.deltaY * 0.002)));
    onView({ ...view, zoom });
  };
  return (
    <div
      role="img"
      aria-label={label}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => (drag.current = null)}
      onDoubleClick={() => onView(WHOLE)}
      onWheel={wheel}
      className="relative cursor-grab touch-none overflow-hidden active:cursor-grabbing"
      style={{ ...frame, background: 'var(--stage)' }}
    >
      <div
        className="pointer-events-none absolute [&>*]:h-full [&>*]:w-full"
        style={{
          left,
          top,
          width: width * k,
          height: height * k,
          imageRendering: k * window.devicePixelRatio >= 2 ? 'pixelated' : 'auto',
        }}
      >
        {children}
      </div>
    </div>
  );
}

export const ZOOMS: { value: string; title: string; zoom: number | null }[] = [
  { value: 'whole', title: msg('Whole'), zoom: null },
  { value: '1', title: '100 %', zoom: 1 },
  { value: '2', title: '200 %', zoom: 2 },
  { value: '4', title: '400 %', zoom: 4 },
];

export const zoomValue = (view: View) => ZOOMS.find((z) => z.zoom === view.zoom)?.value ?? '';
