import { shapePoints } from '@scenograph/core/cutout/compile';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import { curveOutline } from '@scenograph/core/raster/footprint';
import type { CutoutRecipe, Point, Step } from '@scenograph/core/cutout/recipe';
import { pieceOutline } from '@scenograph/core/cutout/repair';
import type { DrawnBase } from '@scenograph/core/stage/base';
import type { Box } from './desk-canvas';
import { isBrush, type ToolId, type ToolOptions } from './tools';

/** What a pointer draws from press to release. */
export interface Gesture {
  tool: ToolId | 'neutral' | 'straighten' | 'crop';
  points: Point[];
  shift: boolean;
}

/** Everything that the tools show over the photo. */
export interface DeskTraces {
  /** From photo to screen pixels, and screen pixels per photo pixel. */
  toScreen(point: Point): Point;
  zoom: number;
  size: Box;
  tool: Gesture['tool'];
  options: ToolOptions;
  recipe: CutoutRecipe;
  chosen: Step | null;
  paths: Record<string, Point[]>;
  preview: ImageBitmap | null;
  doubts: readonly Doubt[];
  base: DrawnBase | null;
  draft: Point[];
  snapped: Point[];
  gesture: Gesture | null;
  pointer: Point | null;
  /** The pointer is moved by keys: the screen's own is elsewhere. */
  keyed: boolean;
}

const INK = '#171b19';
const SPRUCE = '#12463a';

export function drawTraces(c: CanvasRenderingContext2D, traces: DeskTraces): void {
  const { preview, toScreen, size, zoom } = traces;
  if (preview) {
    const [x, y] = toScreen([0, 0]);
    c.imageSmoothingEnabled = false;
    c.drawImage(preview, x, y, size.width * zoom, size.height * zoom);
  }
  const lines = linesOn(c, toScreen);
  drawDoubts(c, traces);
  drawToolsOwn(c, lines, traces);
  drawChosen(lines, traces);
  drawDraft(lines, traces);
  drawGesture(lines, traces);
  drawBrush(c, lines, traces);
  drawCross(c, lines, traces);
}

type Lines = ReturnType<typeof linesOn>;

/** Lines and dots that are seen on any photo. */
function linesOn(c: CanvasRenderingContext2D, toScreen: (point: Point) => Point) {
  /** Adds points of the photo to the current path. */
  const path = (points: readonly Point[], closed = false) => {
    points.forEach((p, i) => (i ? c.lineTo(...toScreen(p)) : c.moveTo(...toScreen(p))));
    if (closed) c.closePath();
  };
  return {
    path,
    /** Draws a path light on dark; `line` adds it. */
    twoTone(line: () => void, dashed = false) {
      c.beginPath();
      line();
      c.lineWidth = 3;
      c.strokeStyle = `${INK}cc`;
      c.setLineDash([]);
      c.stroke();
      c.lineWidth = 1.4;
      c.strokeStyle = '#ffffff';
      if (dashed) c.setLineDash([4, 4]);
      c.stroke();
      c.setLineDash([]);
    },
    dots(points: readonly Point[]) {
      for (const p of points) {
        const [x, y] = toScreen(p);
        c.beginPath();
        c.arc(x, y, 4.5, 0, 7);
        c.fillStyle = '#ffffff';
        c.fill();
        c.lineWidth = 1.5;
        c.strokeStyle = SPRUCE;
        c.stroke();
      }
    },
    /** The handles of a curve's nodes, three points each. */
    handles(points: readonly Point[]) {
      c.lineWidth = 1;
      c.strokeStyle = SPRUCE;
      for (let i = 0; i + 2 < points.length; i += 3) {
        c.beginPath();
        path(points.slice(i, i + 3));
        c.stroke();
      }
    },
    /** A stroke as wide as its brush. */
    stroke(points: readonly Point[], width: number, colour: string, opacity: number) {
      c.lineCap = c.lineJoin = 'round';
      c.globalAlpha = opacity;
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.beginPath();
      path(points.length > 1 ? points : [points[0], points[0]]);
      c.stroke();
      c.globalAlpha = 1;
    },
  };
}

function drawDoubts(c: CanvasRenderingContext2D, { doubts, toScreen, zoom }: DeskTraces): void {
  for (const d of doubts) {
    const [x, y] = toScreen([d.x, d.y]);
    c.beginPath();
    c.arc(x, y, Math.max(9, d.radius * zoom), 0, 7);
    c.lineWidth = 4;
    c.strokeStyle = `${INK}aa`;
    c.stroke();
    c.lineWidth = 2;
    c.strokeStyle = '#f0b23c';
    c.stroke();
  }
}

/** What the tool in hand has already left in the recipe. */
function drawToolsOwn(c: CanvasRenderingContext2D, lines: Lines, traces: DeskTraces): void {
  const { tool, recipe, base, toScreen, zoom } = traces;
  const { box, at } = recipe.automatic;
  if (tool === 'box' && box) {
    const corners: Point[] = [
      [box.x, box.y],
      [box.x + box.width, box.y + box.height],
    ];
    lines.twoTone(() => lines.path(shapePoints({ shape: 'rectangle', points: corners }), true), true);
  }
  if (tool === 'point') lines.dots(at);
  if (tool === 'base' && base) {
    const [x, y] = toScreen([base.x, base.y]);
    lines.twoTone(
      () => c.ellipse(x, y, base.halfWidth * zoom, Math.max(1, base.halfDepth * zoom), 0, 0, 7),
      recipe.base === null,
    );
    lines.dots(baseHandles(base));
  }
  if (tool === 'repair')
    for (const piece of recipe.repairs) {
      lines.twoTone(() => lines.path(pieceOutline(piece), true), true);
      lines.dots(piece.points);
    }
}

function drawChosen(lines: Lines, { chosen, paths, zoom }: DeskTraces): void {
  if (!chosen) return;
  if (chosen.kind === 'trace') {
    lines.twoTone(() => lines.path(paths[chosen.id] ?? chosen.points, true), true);
    lines.dots(chosen.points);
  } else if (chosen.kind === 'shape') {
    // Dashed where it may move to the edge, whole where it is cut as drawn.
    lines.twoTone(() => lines.path(shapePoints(chosen), true), chosen.snap > 0);
    if (chosen.shape === 'curve') lines.handles(chosen.points);
    if (chosen.shape !== 'freehand') lines.dots(chosen.points);
  } else if (chosen.kind === 'colour') lines.dots(chosen.seeds);
  else if ('points' in chosen) lines.stroke(chosen.points, chosen.radius * 2 * zoom, '#d3f04a', 0.35);
}

/** A path that is not closed yet. */
function drawDraft(lines: Lines, { draft, tool, pointer, snapped }: DeskTraces): void {
  if (!draft.length) return;
  if (tool === 'pen') {
    const open = pointer ? [...draft, pointer, pointer, pointer] : draft;
    const closing = curveOutline(open);
    const last = open[open.length - 2];
    const end = closing.findIndex((p) => p[0] === last[0] && p[1] === last[1]);
    lines.twoTone(() => lines.path(end > 0 ? closing.slice(0, end + 1) : closing));
    lines.handles(draft);
  } else lines.twoTone(() => lines.path(snapped.length ? snapped : pointer ? [...draft, pointer] : draft));
  lines.dots(draft);
}

const BRUSH_COLOURS: Partial<Record<Gesture['tool'], string>> = {
  drop: '#d9472f',
  'paint-drop': '#d9472f',
  fibre: '#b87503',
};

function drawGesture(lines: Lines, traces: DeskTraces): void {
  const { gesture, tool, options, zoom } = traces;
  if (!gesture?.points.length) return;
  const [first] = gesture.points;
  const last = gesture.points[gesture.points.length - 1];
  const spanned = (shape: 'rectangle' | 'ellipse') =>
    lines.twoTone(() => lines.path(shapePoints({ shape, points: [first, last] }), true));
  if (isBrush(tool))
    lines.stroke(gesture.points, options.radii[tool] * 2 * zoom, BRUSH_COLOURS[tool] ?? SPRUCE, 0.45);
  else if (tool === 'straighten') lines.twoTone(() => lines.path([first, last]));
  else if (tool === 'pen') {
    lines.handles([[2 * first[0] - last[0], 2 * first[1] - last[1]], first, last]);
    lines.dots([first, last]);
  } else if (tool === 'crop' || tool === 'box') spanned('rectangle');
  else if (tool === 'shape' || tool === 'repair') {
    const kind = tool === 'shape' ? options.shape : options.piece;
    if (kind === 'freehand' || kind === 'path') lines.twoTone(() => lines.path(gesture.points));
    else spanned(kind === 'ellipse' ? 'ellipse' : 'rectangle');
  }
}

/** The brush's ring and its width in photo pixels. */
function drawBrush(c: CanvasRenderingContext2D, lines: Lines, traces: DeskTraces): void {
  const { tool, options, pointer, toScreen, zoom } = traces;
  if (!isBrush(tool) || !pointer) return;
  const radius = options.radii[tool];
  const [x, y] = toScreen(pointer);
  lines.twoTone(() => c.arc(x, y, Math.max(1.5, radius * zoom), 0, 7));
  c.font = '11px "Spline Sans Mono Variable", monospace';
  const words = `${Math.round(radius * 2)} px`;
  const at = x + radius * zoom + 6;
  c.lineWidth = 3;
  c.strokeStyle = '#ffffff';
  c.strokeText(words, at, y + 4);
  c.fillStyle = INK;
  c.fillText(words, at, y + 4);
}

/** A cross where the keys have moved the pointer to, open in its middle. */
function drawCross(
  c: CanvasRenderingContext2D,
  lines: Lines,
  { keyed, pointer, toScreen }: DeskTraces,
): void {
  if (!keyed || !pointer) return;
  const [x, y] = toScreen(pointer);
  lines.twoTone(() => {
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      c.moveTo(x + dx * 4, y + dy * 4);
      c.lineTo(x + dx * 13, y + dy * 13);
    }
  });
}

/** The middle of a base, its right end and its front. */
export function baseHandles({ x, y, halfWidth, halfDepth }: DrawnBase): Point[] {
  return [
    [x, y],
    [x + halfWidth, y],
    [x, y + halfDepth],
  ];
}
