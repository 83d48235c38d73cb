import type Konva from 'konva';
import { useEffect, useMemo, useRef } from 'react';
import { Layer, Rect, Stage as KonvaStage, Transformer } from 'react-konva';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { isGround, type ShotElement } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { Box } from '@scenograph/core/vector/box';
import { kindUi } from './kinds/index';
import type { KindUi } from './kinds/kind-ui';
import { boxFromShown, shownBox } from './shown-box';
import { useChoosingFrame } from './use-choosing-frame';

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

/** What a gesture on the picture does. */
export interface HandleEvents {
  onSelect(id: string | null): void;
  onChoose(id: string): void;
  /** Dragged by so many frame pixels since it was grabbed; `snap` is the reach in frame pixels. */
  onDrag(id: string, dx: number, dy: number, snap: number, done: boolean): void;
  /** Its content is asked for by a double click. */
  onInside(id: string): void;
  /** A handle is dragged. */
  onTransform(id: string, box: Box, proportional: boolean, done: boolean): void;
}

interface Place {
  /** Where the frame's corner is on the screen, and screen pixels per pixel of the frame. */
  left: number;
  top: number;
  zoom: number;
}

interface HandlesProps extends HandleEvents, Place {
  size: { width: number; height: number };
  resolved: ResolvedShot;
  selected: string | null;
  also: string[];
}

const movable = (e: ShotElement) => !isGround(e) && !e.locked;

const pointerOf = (event: Konva.KonvaEventObject<unknown>) =>
  event.target.getStage()?.getPointerPosition() ?? null;

/** A node's box in pixels of the frame; nodes turn about their middle, where x and y are kept. */
function boxOf(node: Konva.Node, { left, top, zoom }: Place): Box {
  const width = (node.width() * node.scaleX()) / zoom;
  const height = (node.height() * node.scaleY()) / zoom;
  return {
    x: (node.x() - left) / zoom - width / 2,
    y: (node.y() - top) / zoom - height / 2,
    width,
    height,
    rotation: node.rotation(),
  };
}

/** A frame over each element that can be pointed at, dragged and turned, and the handles of what is selected. */
export function Handles({ size, left, top, zoom, resolved, selected, also, ...events }: HandlesProps) {
  const transformer = useRef<Konva.Transformer>(null);
  const layer = useRef<Konva.Layer>(null);
  const grabbed = useRef<{ x: number; y: number } | null>(null);
  const choosing = useChoosingFrame(resolved, (at) => ({ x: (at.x - left) / zoom, y: (at.y - top) / zoom }));
  const element = resolved.elements.find((e) => e.id === selected);
  const resize = element ? kindUi(element).resize : 'corners';
  const ground = useMemo(() => groundOf(resolved.elements), [resolved]);
  const place = { left, top, zoom };

  useEffect(() => {
    const node =
      element && movable(element) && !element.hidden
        ? layer.current?.findOne(`#${CSS.escape(element.id)}`)
        : null;
    transformer.current?.nodes(node ? [node] : []);
  });

  const grab = (event: Konva.KonvaEventObject<MouseEvent>) => {
    const { target } = event;
    grabbed.current = pointerOf(event);
    if (target === target.getStage()) events.onSelect(null);
    if (!target.draggable() && grabbed.current && target.getParent()?.className !== 'Transformer')
      choosing.begin(grabbed.current, event.evt.shiftKey);
  };
  const dragged = (id: string, event: Konva.KonvaEventObject<DragEvent>, done: boolean) => {
    const at = pointerOf(event);
    const from = grabbed.current;
    if (!at || !from) return;
    const snap = event.evt.altKey ? 0 : SNAP / zoom;
    events.onDrag(id, (at.x - from.x) / zoom, (at.y - from.y) / zoom, snap, done);
  };
  const transformed = (e: ShotElement, node: Konva.Node, done: boolean) => {
    const proportional = !/middle|center/.test(transformer.current?.getActiveAnchor() ?? '');
    const box = boxFromShown(e, boxOf(node, place), ground, resolved);
    if (done) node.scale({ x: 1, y: 1 });
    events.onTransform(e.id, box, proportional, done);
  };

  return (
    <KonvaStage
      width={size.width}
      height={size.height}
      className="absolute inset-0"
      onMouseDown={grab}
      onMouseMove={(e) => choosing.to(pointerOf(e), e.evt.buttons)}
      onMouseUp={choosing.end}
      onTouchStart={(e) => {
        grabbed.current = pointerOf(e);
      }}
    >
      <Layer ref={layer}>
        {resolved.elements.map((e) =>
          e.hidden ? null : (
            <ElementFrame
              key={e.id}
              element={e}
              box={shownBox(e, ground, resolved)}
              place={place}
              also={also.includes(e.id)}
              onPress={(more) => {
                if (more && !isGround(e)) events.onChoose(e.id);
                else if (e.id !== selected) events.onSelect(e.id);
              }}
              onInside={() => !e.locked && kindUi(e).Inside && events.onInside(e.id)}
              onDragged={(event, done) => dragged(e.id, event, done)}
              onTransformed={(node, done) => transformed(e, node, done)}
            />
          ),
        )}
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

/** Where one element can be pointed at and dragged; dashed where it is chosen beside the selected one. */
function ElementFrame({
  element: e,
  box,
  place: { left, top, zoom },
  also,
  onPress,
  onInside,
  onDragged,
  onTransformed,
}: {
  element: ShotElement;
  box: Box;
  place: Place;
  also: boolean;
  onPress(more: boolean): void;
  onInside(): void;
  onDragged(event: Konva.KonvaEventObject<DragEvent>, done: boolean): void;
  onTransformed(node: Konva.Node, done: boolean): void;
}) {
  return (
    <Rect
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
      stroke={also ? '#12463a' : undefined}
      dash={[5, 4]}
      strokeWidth={1.5}
      draggable={movable(e)}
      onMouseDown={(event) => onPress(event.evt.shiftKey)}
      onTouchStart={() => onPress(false)}
      onDblClick={onInside}
      onDblTap={onInside}
      onDragMove={(event) => onDragged(event, false)}
      onDragEnd={(event) => onDragged(event, true)}
      onTransform={(event) => onTransformed(event.target, false)}
      onTransformEnd={(event) => onTransformed(event.target, true)}
    />
  );
}
