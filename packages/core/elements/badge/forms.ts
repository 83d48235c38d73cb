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

/** The outline of a badge in its box. `tips` are the points of a seal or a starburst, `depth` how deep they are cut. */
export function badgeShape(
  form: BadgeForm,
  box: Bounds,
  tips: number,
  depth: number,
  corner: Corner,
): FormShape {
  const { x, y, width, height } = box;
  const [cx, cy] = [x + width / 2, y + height / 2];
  const share = (of: number): Bounds => ({
    x: cx - (width * of) / 2,
    y: cy - (height * of) / 2,
    width: width * of,
    height: height * of,
  });
  const round = (
    outline: PathCommand[],
    within: number,
    ring: (inset: number) => PathCommand[],
  ): FormShape => ({
    outline,
    ring,
    inner: share(within),
    inside: 'ellipse',
    turn: 0,
  });
  const circle = (inset: number, share = 1) =>
    ellipse(cx, cy, Math.max(1, (width * share) / 2 - inset), Math.max(1, (height * share) / 2 - inset));
  switch (form) {
    case 'circle':
      return round(circle(0), 0.84, circle);
    case 'seal':
      return round(star(cx, cy, width / 2, height / 2, tips, 1 - depth, true), 0.82 * (1 - depth), (i) =>
        circle(i, withinStar(tips, depth)),
      );
    case 'starburst':
      return round(star(cx, cy, width / 2, height / 2, tips, 1 - depth), 0.92 * (1 - depth), (i) =>
        circle(i, withinStar(tips, depth)),
      );
    case 'pill':
      return {
        outline: roundedRectangle(box, height / 2),
        ring: (i) => roundedRectangle(shrunk(box, i), height / 2),
        inner: {
          x: x + height * 0.36,
          y: y + height * 0.26,
          width: width - height * 0.72,
          height: height * 0.48,
        },
        inside: 'rectangle',
        turn: 0,
      };
    case 'ribbon': {
      const notch = Math.min(height * 0.38, width * 0.12);
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
    case 'corner': {
      // A band between two lines across the corner, drawn for the top left and turned into the others.
      const side = Math.min(width, height);
      const turns = { 'top-left': 0, 'top-right': 90, 'bottom-right': 180, 'bottom-left': 270 };
      const [from, to] = [0.5, 0.98];
      const band = (i: number) => {
        const [p, q] = [side * from + i * 1.4, side * to - i * 1.4];
        const x0 = cx - side / 2;
        const y0 = cy - side / 2;
        const shape = polygon([
          { x: x0 + p, y: y0 },
          { x: x0 + q, y: y0 },
          { x: x0, y: y0 + q },
          { x: x0, y: y0 + p },
        ]);
        return turnedPath(shape, turns[corner], { x: cx, y: cy });
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
  }
}
