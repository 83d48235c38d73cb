import Joi from 'joi';
import { MATERIALS, type PrintMaterial } from './material';
import { SurveyError, type Pair } from './homography';

/** How a print area lies in space. */
export const AREA_SHAPES = ['flat', 'cylinder', 'cone', 'bulge'] as const;
export type AreaShape = (typeof AREA_SHAPES)[number];

/** Points along an area's edges, nine each, equally spaced on the surface: top and bottom from the left, sides from the top. */
export interface AreaEdges {
  top: Pair[];
  bottom: Pair[];
  left: Pair[] | null;
  right: Pair[] | null;
}

/** A part of a blank item that takes artwork; places in the picture's pixels. */
export interface PrintArea {
  id: string;
  title: string;
  shape: AreaShape;
  /** Clockwise from the top left. */
  corners: Pair[];
  /** Null for a flat area. */
  edges: AreaEdges | null;
  /** Measured on the surface, in its middle. */
  widthMm: number;
  heightMm: number;
  /** The angle a round area reaches around its body; null where it is not known. */
  wrapDeg: number | null;
  /** How far the middle of a bulge stands out beyond what its bent edges do, in mm. */
  bulgeMm: number;
  material: PrintMaterial;
  /** Whether the item itself is light or dark there: dark stock gets a white layer under the ink. */
  stock: 'light' | 'dark';
}

/** Points on each edge. */
export const EDGE_POINTS = 9;

const point = Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2).required();
const edge = Joi.array().items(point).length(EDGE_POINTS);
const length = Joi.number().greater(0).max(1e5).required();

export const areaSchema = Joi.object({
  id: Joi.string().max(60).required(),
  title: Joi.string().max(120).required(),
  shape: Joi.string()
    .valid(...AREA_SHAPES)
    .required(),
  corners: Joi.array().items(point).length(4).required(),
  edges: Joi.object({
    top: edge.required(),
    bottom: edge.required(),
    left: edge.allow(null).required(),
    right: edge.allow(null).required(),
  })
    .allow(null)
    .required(),
  widthMm: length,
  heightMm: length,
  wrapDeg: Joi.number().greater(0).max(200).allow(null).required(),
  bulgeMm: Joi.number().min(-500).max(500).required(),
  material: Joi.string()
    .valid(...MATERIALS)
    .required(),
  stock: Joi.string().valid('light', 'dark').required(),
});

/** Throws SurveyError, with what to do, where an area's corners cross, fold in, turn over or enclose nothing. */
export function checkArea({ title, corners }: Pick<PrintArea, 'title' | 'corners'>): void {
  const turns = corners.map((_, i) => {
    const [ax, ay] = corners[i];
    const [bx, by] = corners[(i + 1) % 4];
    const [cx, cy] = corners[(i + 2) % 4];
    return (bx - ax) * (cy - by) - (by - ay) * (cx - bx);
  });
  const longest = Math.max(
    ...corners.map(([x, y], i) => Math.hypot(x - corners[(i + 1) % 4][0], y - corners[(i + 1) % 4][1])),
  );
  if (longest < 4 || turns.every((t) => Math.abs(t) < 0.002 * longest * longest))
    throw new SurveyError(
      `The corners of "${title}" lie in a line or on one spot; nothing could be printed there. Drag them apart.`,
    );
  if (turns.some((t) => t > 0) && turns.some((t) => t < 0))
    throw new SurveyError(
      `The corners of "${title}" cross or fold in. Drag them so that they go round: top left, top right, bottom right, bottom left.`,
    );
  if (turns.every((t) => t <= 0))
    throw new SurveyError(
      `The corners of "${title}" go round the wrong way, so a print would be mirrored. Order them top left, top right, bottom right, bottom left.`,
    );
}

/** An edge of nine points between two corners that bends like the one given, or straight. */
export function edgeBetween(from: Pair, to: Pair, like: readonly Pair[] | null = null): Pair[] {
  if (!like)
    return Array.from({ length: EDGE_POINTS }, (_, i): Pair => {
      const t = i / (EDGE_POINTS - 1);
      return [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t];
    });
  // The similarity that carries the old ends to the new ones.
  const [a, b] = [like[0], like[like.length - 1]];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const [ex, ey] = [to[0] - from[0], to[1] - from[1]];
  const n = dx * dx + dy * dy || 1;
  const c = (ex * dx + ey * dy) / n;
  const s = (ey * dx - ex * dy) / n;
  return like.map(([x, y]): Pair => {
    const [px, py] = [x - a[0], y - a[1]];
    return [from[0] + c * px - s * py, from[1] + s * px + c * py];
  });
}

/** An edge whose points all lie so near to the line between its ends, in shares of its length, is straight. */
const STRAIGHT = 0.004;

/** Whether an edge bends at all. */
export function isBent(edge: readonly Pair[]): boolean {
  const [a, b] = [edge[0], edge[edge.length - 1]];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dy * dy || 1;
  return edge.some(([x, y]) => Math.abs((x - a[0]) * dy - (y - a[1]) * dx) > STRAIGHT * square);
}

/** The edge bent so that its middle lies at a place: every point moves along, the ends stay. */
export function bendEdge(edge: readonly Pair[], middle: Pair): Pair[] {
  const last = edge.length - 1;
  const [mx, my] = edge[last / 2];
  const [dx, dy] = [middle[0] - mx, middle[1] - my];
  return edge.map(([x, y], i): Pair => {
    // Points equally spaced round a body seen from the side move as a half circle does.
    const k = Math.sin((Math.PI * i) / last);
    return [x + dx * k, y + dy * k];
  });
}
