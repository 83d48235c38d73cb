import type Konva from 'konva';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { Layer, Rect, Stage as KonvaStage, Transformer } from 'react-konva';
import type { Box } from '@scenograph/core/elements/element';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { paintStage } from '../../workers/painters';

const PAD = 36;

/** The picture under the hand: painted by the worker, with handles laid over it. */
export function StageCanvas({
  resolved,
  selected,
  onSelect,
  onPlace,
  onPlaced,
  overlay,
}: {
  resolved: ResolvedShot;
  selected: string | null;
  onSelect(id: string | null): void;
  /** While a handle is dragged. */
  onPlace(id: string, box: Box, proportional: boolean): void;
  onPlaced(id: string, box: Box, proportional: boolean): void;
  overlay?: (zoom: number) => React.ReactNode;
}) {
  const room = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 800, height: 500 });
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) =>
      setSize({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    observer.observe(room.current!);
    return () => observer.disconnect();
  }, []);
  const zoom = Math.min(
    (size.width - 2 * PAD) / resolved.width,
    (size.height - 2 * PAD) / resolved.height,
    Math.max(1, 420 / resolved.width),
  );
  usePainting(canvas, resolved, Math.min(2, zoom * window.devicePixelRatio));

  const left = (size.width - resolved.width * zoom) / 2;
  const top = (size.height - resolved.height * zoom) / 2;
  return (
    <div ref={room} className="relative min-h-0 grow overflow-hidden" style={{ background: 'var(--stage)' }}>
      <canvas
        ref={canvas}
        role="img"
        aria-label="The shot as it will be delivered"
        data-testid="stage-picture"
        className="absolute outline outline-[#00000026]"
        style={{ left, top, width: resolved.width * zoom, height: resolved.height * zoom }}
      />
      <Handles
        size={size}
        left={left}
        top={top}
        zoom={zoom}
        resolved={resolved}
        selected={selected}
        onSelect={onSelect}
        onPlace={onPlace}
        onPlaced={onPlaced}
      />
      <div className="pointer-events-none absolute" style={{ left, top }}>
        {overlay?.(zoom)}
      </div>
      <div className="absolute top-3 left-3 flex gap-1.5">
        <span className="measure bg-card/95 rounded-sm px-2 py-1">
          {resolved.width} x {resolved.height}
        </span>
        <span className="measure bg-card/95 rounded-sm px-2 py-1">Fit {Math.round(zoom * 100)} %</span>
      </div>
    </div>
  );
}

/** Paints the newest state as soon as the painter is free; states in between are skipped. */
function usePainting(
  canvas: React.RefObject<HTMLCanvasElement | null>,
  resolved: ResolvedShot,
  scale: number,
): void {
  const wish = useRef<{ resolved: ResolvedShot; scale: number } | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    wish.current = { resolved, scale };
    const paint = async () => {
      if (busy.current) return;
      busy.current = true;
      while (wish.current) {
        const { resolved: shot, scale: at } = wish.current;
        wish.current = null;
        try {
          const bitmap = await paintStage(shot, at);
          const target = canvas.current;
          if (target) {
            target.width = bitmap.width;
            target.height = bitmap.height;
            target.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
            target.dataset.painted = String(Number(target.dataset.painted ?? 0) + 1);
          }
        } catch (error) {
          console.error(error);
        }
      }
      busy.current = false;
    };
    void paint();
  }, [canvas, resolved, scale]);
}

function Handles({
  size,
  left,
  top,
  zoom,
  resolved,
  selected,
  onSelect,
  onPlace,
  onPlaced,
}: {
  size: { width: number; height: number };
  left: number;
  top: number;
  zoom: number;
  resolved: ResolvedShot;
  selected: string | null;
  onSelect(id: string | null): void;
  onPlace(id: string, box: Box, proportional: boolean): void;
  onPlaced(id: string, box: Box, proportional: boolean): void;
}) {
  const transformer = useRef<Konva.Transformer>(null);
  const layer = useRef<Konva.Layer>(null);
  const element = resolved.elements.find((e) => e.id === selected);
  const movable = (e: (typeof resolved.elements)[number]) => e.kind !== 'backdrop' && !e.locked;

  useEffect(() => {
    const node =
      element && movable(element) && !element.hidden
        ? layer.current?.findOne(`#${CSS.escape(element.id)}`)
        : null;
    transformer.current?.nodes(node ? [node] : []);
  });

  const read = (node: Konva.Node): Box => {
    const width = (node.width() * node.scaleX()) / zoom;
    const height = (node.height() * node.scaleY()) / zoom;
    // Nodes turn about their middle, where x and y are kept.
    return {
      x: (node.x() - left) / zoom - width / 2,
      y: (node.y() - top) / zoom - height / 2,
      width,
      height,
      rotation: node.rotation(),
    };
  };
  const proportional = () => {
    const anchor = transformer.current?.getActiveAnchor() ?? '';
    return !/middle/.test(anchor);
  };

  return (
    <KonvaStage
      width={size.width}
      height={size.height}
      className="absolute inset-0"
      onMouseDown={(e) => {
        if (e.target === e.target.getStage()) onSelect(null);
      }}
    >
      <Layer ref={layer}>
        {resolved.elements.map((e) => {
          if (e.hidden) return null;
          const { box } = e;
          return (
            <Rect
              key={e.id}
              id={e.id}
              x={left + (box.x + box.width / 2) * zoom}
              y={top + (box.y + box.height / 2) * zoom}
              offsetX={(box.width * zoom) / 2}
              offsetY={(box.height * zoom) / 2}
              width={box.width * zoom}
              height={box.height * zoom}
              scaleX={1}
              scaleY={1}
              rotation={box.rotation}
              fill="transparent"
              draggable={movable(e)}
              onMouseDown={() => onSelect(e.id)}
              onTouchStart={() => onSelect(e.id)}
              onDragMove={(event) => onPlace(e.id, read(event.target), false)}
              onDragEnd={(event) => onPlaced(e.id, read(event.target), false)}
              onTransform={(event) => {
                onPlace(e.id, read(event.target), proportional());
              }}
              onTransformEnd={(event) => {
                const next = read(event.target);
                const keep = proportional();
                event.target.scale({ x: 1, y: 1 });
                onPlaced(e.id, next, keep);
              }}
            />
          );
        })}
        <Transformer
          ref={transformer}
          keepRatio
          rotateEnabled
          flipEnabled={false}
          rotationSnaps={[0, 90, 180, 270]}
          enabledAnchors={
            element?.kind === 'text'
              ? ['top-left', 'top-right', 'bottom-left', 'bottom-right', 'middle-left', 'middle-right']
              : ['top-left', 'top-right', 'bottom-left', 'bottom-right']
          }
          anchorSize={10}
          anchorCornerRadius={5}
          anchorStroke="#12463a"
          anchorFill="#ffffff"
          borderStroke="#12463a"
          rotateAnchorOffset={22}
          ignoreStroke
        />
      </Layer>
    </KonvaStage>
  );
}
