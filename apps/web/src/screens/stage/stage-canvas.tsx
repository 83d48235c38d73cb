import { isProduct } from '@scenograph/core/elements/product/model';
import type Konva from 'konva';
import { useEffect, useMemo, useRef } from 'react';
import { Layer, Rect, Stage as KonvaStage, Transformer } from 'react-konva';
import type { Box } from '@scenograph/core/vector/box';
import { isGround, type ShotElement } from '@scenograph/core/elements/index';
import { kindUi } from './kinds/index';
import type { KindUi } from './kinds/kind-ui';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { groundOf } from '@scenograph/core/elements/ground-of';
import type { Ground } from '@scenograph/core/stage/ground';
import { coveredRect } from '@scenograph/core/stage/lay-on-plane';
import type { Guide } from '@scenograph/core/stage/snap';
import { groundPlacement } from '@scenograph/core/stage/stand';
import { useSize } from '../../ui/use-size';
import { useChoosingFrame } from './use-choosing-frame';
import { usePainting } from './use-painting';
import { useStageView } from './use-stage-view';
import { ZoomBar } from './zoom-bar';

/** The picture being worked on: painted by the worker, with handles laid over it. */
export function StageCanvas({
  resolved,
  selected,
  also,
  guides,
  draft,
  onSelect,
  onChoose,
  onDrag,
  onTransform,
  overlay,
}: {
  resolved: ResolvedShot;
  selected: string | null;
  also: string[];
  guides: Guide[];
  /** While dragging: painted fast first, in full when it rests. */
  draft: boolean;
  onSelect(id: string | null): void;
  onChoose(id: string): void;
  /** Dragged by so many frame pixels since it was grabbed; `snap` is the reach in frame pixels. */
  onDrag(id: string, dx: number, dy: number, snap: number, done: boolean): void;
  /** A handle is dragged. */
  onTransform(id: string, box: Box, proportional: boolean, done: boolean): void;
  overlay?: (zoom: number) => React.ReactNode;
}) {
  const { ref: room, size } = useSize({ width: 800, height: 500 });
  const canvas = useRef<HTMLCanvasElement>(null);
  const chosen = resolved.elements.find((e) => e.id === selected)?.box ?? null;
  const { view, left, top, hands, pan } = useStageView(room, size, resolved, chosen);
  const { zoom } = view;
  const painting = usePainting(canvas, resolved, paintedScale(zoom, resolved), draft);
  return (
    <div
      ref={room}
      {...pan.handlers}
      data-drop-says="Drop on the picture to lay it in this shot, elsewhere to import photos"
      className={`relative min-h-0 grow overflow-hidden ${pan.space ? 'cursor-grab' : ''}`}
      style={{ background: 'var(--stage)' }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label="The shot as it will be delivered"
        data-testid="stage-picture"
        className="absolute outline outline-[#00000026]"
        style={{ left, top, width: resolved.width * zoom, height: resolved.height * zoom }}
      />
      {painting.trouble && <Unpainted trouble={painting.trouble} onTryAgain={painting.tryAgain} />}
      <Handles
        size={size}
        left={left}
        top={top}
        zoom={zoom}
        resolved={resolved}
        selected={selected}
        also={also}
        onSelect={onSelect}
        onChoose={onChoose}
        onDrag={onDrag}
        onTransform={onTransform}
      />
      <Guides guides={guides} left={left} top={top} zoom={zoom} frame={resolved} />
      <div className="pointer-events-none absolute" style={{ left, top }}>
        {overlay?.(zoom)}
      </div>
      {pan.space && <div className="absolute inset-0" />}
      <ZoomBar frame={resolved} zoom={zoom} hands={hands} anyChosen={chosen !== null} />
    </div>
  );
}

/** Pixels that a picture on the stage has at most. */
const MOST_PIXELS = 24e6;

/** Pixels painted for each of the frame's: as many as are seen, at most two, and no more in all than can be held. */
const paintedScale = (zoom: number, { width, height }: ResolvedShot) =>
  Math.min(2, zoom * window.devicePixelRatio, Math.max(1, Math.sqrt(MOST_PIXELS / (width * height))));

/** The picture is not what the shot says: why, and a way to paint it again. */
function Unpainted({ trouble, onTryAgain }: { trouble: string; onTryAgain(): void }) {
  return (
    <div
      role="alert"
      className="bg-card absolute inset-x-0 top-12 z-10 mx-auto flex w-fit max-w-lg items-center gap-3 rounded-md px-4 py-2"
    >
      <span>This picture could not be painted. {trouble}</span>
      <button
        type="button"
        className="text-spruce font-semibold whitespace-nowrap underline"
        onClick={onTryAgain}
      >
        Try again
      </button>
    </div>
  );
}

/** Lines that something snapped to. */
function Guides({
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

/** Handles by how a kind is resized. */
const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];
const SIDES = [...CORNERS, 'middle-left', 'middle-right'];
const ANCHORS: Record<KindUi<ShotElement>['resize'], string[]> = {
  free: [...SIDES, 'top-center', 'bottom-center'],
  sides: SIDES,
  corners: CORNERS,
  not: [],
};

/** How near, in screen pixels, things snap. */
const SNAP = 7;

function Handles({
  size,
  left,
  top,
  zoom,
  resolved,
  selected,
  also,
  onSelect,
  onChoose,
  onDrag,
  onTransform,
}: {
  size: { width: number; height: number };
  left: number;
  top: number;
  zoom: number;
  resolved: ResolvedShot;
  selected: string | null;
  also: string[];
  onSelect(id: string | null): void;
  onChoose(id: string): void;
  onDrag(id: string, dx: number, dy: number, snap: number, done: boolean): void;
  onTransform(id: string, box: Box, proportional: boolean, done: boolean): void;
}) {
  const transformer = useRef<Konva.Transformer>(null);
  const layer = useRef<Konva.Layer>(null);
  const grabbed = useRef<{ x: number; y: number } | null>(null);
  const choosing = useChoosingFrame(resolved, (at) => ({ x: (at.x - left) / zoom, y: (at.y - top) / zoom }));
  const element = resolved.elements.find((e) => e.id === selected);
  const movable = (e: ShotElement) => !isGround(e) && !e.locked;
  const resize = element ? kindUi(element).resize : 'corners';
  const ground = useMemo(() => groundOf(resolved.elements), [resolved]);

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
  /** A handle's box is of what is seen; what lies in perspective is scaled and turned by as much. */
  const placedBox = (e: (typeof resolved.elements)[number], node: Konva.Node): Box => {
    const box = read(node);
    const shown = shownBox(e, ground, resolved);
    if (shown === e.box) return box;
    const k = box.width / shown.width;
    const [width, height] = [e.box.width * k, e.box.height * k];
    return {
      x: e.box.x + (e.box.width - width) / 2,
      y: e.box.y + (e.box.height - height) / 2,
      width,
      height,
      rotation: e.box.rotation + box.rotation,
    };
  };
  const proportional = () => {
    const anchor = transformer.current?.getActiveAnchor() ?? '';
    return !/middle|center/.test(anchor);
  };
  const drag = (id: string, event: Konva.KonvaEventObject<DragEvent>, done: boolean) => {
    const at = event.target.getStage()?.getPointerPosition();
    if (!at || !grabbed.current) return;
    onDrag(
      id,
      (at.x - grabbed.current.x) / zoom,
      (at.y - grabbed.current.y) / zoom,
      event.evt.altKey ? 0 : SNAP / zoom,
      done,
    );
  };

  return (
    <KonvaStage
      width={size.width}
      height={size.height}
      className="absolute inset-0"
      onMouseDown={(e) => {
        grabbed.current = e.target.getStage()?.getPointerPosition() ?? null;
        if (e.target === e.target.getStage()) onSelect(null);
        if (!e.target.draggable() && grabbed.current && e.target.getParent()?.className !== 'Transformer')
          choosing.begin(grabbed.current, e.evt.shiftKey);
      }}
      onMouseMove={(e) => choosing.to(e.target.getStage()?.getPointerPosition() ?? null, e.evt.buttons)}
      onMouseUp={choosing.end}
      onTouchStart={(e) => {
        grabbed.current = e.target.getStage()?.getPointerPosition() ?? null;
      }}
    >
      <Layer ref={layer}>
        {resolved.elements.map((e) => {
          if (e.hidden) return null;
          const box = shownBox(e, ground, resolved);
          const choose = (more: boolean) => {
            if (more && !isGround(e)) onChoose(e.id);
            else if (e.id !== selected) onSelect(e.id);
          };
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
              stroke={also.includes(e.id) ? '#12463a' : undefined}
              dash={[5, 4]}
              strokeWidth={1.5}
              draggable={movable(e)}
              onMouseDown={(event) => choose(event.evt.shiftKey)}
              onTouchStart={() => choose(false)}
              onDragMove={(event) => drag(e.id, event, false)}
              onDragEnd={(event) => drag(e.id, event, true)}
              onTransform={(event) => onTransform(e.id, placedBox(e, event.target), proportional(), false)}
              onTransformEnd={(event) => {
                const next = placedBox(e, event.target);
                const keep = proportional();
                event.target.scale({ x: 1, y: 1 });
                onTransform(e.id, next, keep, true);
              }}
            />
          );
        })}
        {choosing.drawn && (
          <Rect {...choosing.drawn} listening={false} stroke="#12463a" dash={[4, 3]} fill="#12463a1a" />
        )}
        <Transformer
          ref={transformer}
          keepRatio
          rotateEnabled={resize !== 'not'}
          flipEnabled={false}
          rotationSnaps={[0, 90, 180, 270]}
          enabledAnchors={ANCHORS[resize]}
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

/** Where an element is seen: what lies flat on a ground shows shorter than its box. */
function shownBox(e: ShotElement, ground: Ground | null, frame: { width: number; height: number }): Box {
  if (!isProduct(e) || e.pose !== 'flat' || !ground) return e.box;
  const standing = groundPlacement(e, ground, frame);
  if (!standing) return e.box;
  const [w, h] = [e.box.width / standing.scale / 2, e.box.height / standing.scale / 2];
  const turned = {
    ...standing.stand,
    facing: standing.stand.facing - (e.box.rotation * Math.PI) / 180,
  };
  const rect = coveredRect(standing.camera, turned, { x0: -w, y0: -h, x1: w, y1: h }, frame);
  return rect ? { ...rect, rotation: 0 } : e.box;
}
