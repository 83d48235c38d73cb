import {
  ellipse,
  polygon,
  roundedRectangle,
  shrunk,
  star,
  turnedPath,
  type Bounds,
  type PathCommand,
} from '../../vector/outline';

export const BADGE_FORMS = ['circle', 'seal', 'pill', 'ribbon', 'starburst', 'corner'] as const;
export type BadgeForm = (typeof BADGE_FORMS)[number];

export const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;
export type Corner = (typeof CORNERS)[number];

export interface FormShape {
  outline: PathCommand[];
  /** The ring that runs inside the edge, `inset` pixels from it. */
  ring(inset: number): PathCommand[];
  /** Where words go, before they are turned by `turn` degrees about its middle. */
  inner: Bounds;
  inside: 'rectangle' | 'ellipse';
  turn: number;
}

/**
 * The largest circle within a star of radius 1 whose notches are at `1 - depth`: through its notches or, where they are
 * shallow, against the edges between tip and notch.
 */
function withinStar(tips: number, depth: number): number {
  const [notch, angle] = [1 - depth, Math.PI / tips];
  if (notch < Math.cos(angle)) return notch;
  return (notch * Math.sin(angle)) / Math.sqrt(1 + notch * notch - 2 * notch * Math.cos(angle));
}

/** What a form is drawn from. */
interface Drawn {
  box: Bounds;
  tips: number;
  depth: number;
  corner: Corner;
}

/** A round form: words stand in an ellipse of `within` of its box. */
function roundForm(
  { x, y, width, height }: Bounds,
  outline: PathCommand[],
  within: number,
  ring: (inset: number) => PathCommand[],
): FormShape {
  const inner = {
    x: x + (width * (1 - within)) / 2,
    y: y + (height * (1 - within)) / 2,
    width: width * within,
    height: height * within,
  };
  return { outline, ring, inner, inside: 'ellipse', turn: 0 };
}

/** An ellipse in the middle of a box, a share of its size, `inset` pixels in. */
function circleIn({ x, y, width, height }: Bounds, inset: number, share = 1): PathCommand[] {
  const radius = (side: number) => Math.max(1, (side * share) / 2 - inset);
  return ellipse(x + width / 2, y + height / 2, radius(width), radius(height));
}

function starForm({ box, tips, depth }: Drawn, round: boolean, within: number): FormShape {
  const { x, y, width, height } = box;
  const outline = star(
    { x: x + width / 2, y: y + height / 2 },
    { x: width / 2, y: height / 2 },
    tips,
    1 - depth,
    round,
  );
  const ring = (inset: number) => circleIn(box, inset, withinStar(tips, depth));
  return roundForm(box, outline, within * (1 - depth), ring);
}

function pillForm({ box }: Drawn): FormShape {
  const { x, y, width, height } = box;
  return {
    outline: roundedRectangle(box, height / 2),
    ring: (inset) => roundedRectangle(shrunk(box, inset), height / 2),
    inner: {
      x: x + height * 0.36,
      y: y + height * 0.26,
      width: width - height * 0.72,
      height: height * 0.48,
    },
    inside: 'rectangle',
    turn: 0,
  };
}

function ribbonForm({ box: { x, y, width, height } }: Drawn): FormShape {
  const notch = Math.min(height * 0.38, width * 0.12);
  const cy = y + height / 2;
  const banner = (i: number) =>
    polygon([
      { x: x + i * 1.6, y: y + i },
      { x: x + width - i * 1.6, y: y + i },
      { x: x + width - notch - i * 0.6, y: cy },
      { x: x + width - i * 1.6, y: y + height - i },
      { x: x + i * 1.6, y: y + height - i },
      { x: x + notch + i * 0.6, y: cy },
    ]);
  return {
    outline: banner(0),
    ring: banner,
    inner: { x: x + notch * 1.5, y: y + height * 0.26, width: width - notch * 3, height: height * 0.48 },
    inside: 'rectangle',
    turn: 0,
  };
}

const CORNER_TURNS: Record<Corner, number> = {
  'top-left': 0,
  'top-right': 90,
  'bottom-right': 180,
  'bottom-left': 270,
};

/** A band between two lines across a corner, drawn for the top left and turned into the others. */
function cornerForm({ box: { x, y, width, height }, corner }: Drawn): FormShape {
  const [cx, cy] = [x + width / 2, y + height / 2];
  const side = Math.min(width, height);
  const [from, to] = [0.5, 0.98];
  const band = (i: number) => {
    const [p, q] = [side * from + i * 1.4, side * to - i * 1.4];
    const [x0, y0] = [cx - side / 2, cy - side / 2];
    const shape = polygon([
      { x: x0 + p, y: y0 },
      { x: x0 + q, y: y0 },
      { x: x0, y: y0 + q },
      { x: x0, y: y0 + p },
    ]);
    return turnedPath(shape, CORNER_TURNS[corner], { x: cx, y: cy });
  };
  const middle = (from + to) / 2;
  const long = side * middle * Math.SQRT2 * 0.62;
  const high = (side * (to - from) * 0.58) / Math.SQRT2;
  // The band's middle seen from the corner, turned like the band.
  const away = side * (middle / 2 - 0.5);
  const [sx, sy] = [corner.endsWith('left') ? 1 : -1, corner.startsWith('top') ? 1 : -1];
  const [mx, my] = [cx + away * sx, cy + away * sy];
  return {
    outline: band(0),
    ring: band,
    inner: { x: mx - long / 2, y: my - high / 2, width: long, height: high },
    inside: 'rectangle',
    turn: sx === sy ? -45 : 45,
  };
}

const FORMS: Record<BadgeForm, (drawn: Drawn) => FormShape> = {
  circle: ({ box }) => roundForm(box, circleIn(box, 0), 0.84, (inset) => circleIn(box, inset)),
  seal: (drawn) => starForm(drawn, true, 0.82),
  starburst: (drawn) => starForm(drawn, false, 0.92),
  pill: pillForm,
  ribbon: ribbonForm,
  corner: cornerForm,
};

/** The outline of a badge in its box. `tips` are the points of a seal or a starburst, `depth` how deep they are cut. */
export function badgeShape(
  form: BadgeForm,
  box: Bounds,
  tips: number,
  depth: number,
  corner: Corner,
): FormShape {
  return FORMS[form]({ box, tips, depth, corner });
}
