import { checkArea } from './area';
import { carry, homography, SurveyError, type Pair } from './homography';

/**
 * The size of an area by a rectangle of known size that lies on the same surface: its corners in the rectangle's plane.
 * @param rectangle where its corners are seen, clockwise from the top left, in pixels
 * @param corners the area's own, clockwise from the top left
 * @returns mm across and down, each the mean of the two sides
 * @throws SurveyError where the rectangle's corners cross, or the area reaches beyond its plane's horizon
 */
export function sizeByRectangle(
  rectangle: readonly Pair[],
  { widthMm: w, heightMm: h }: { widthMm: number; heightMm: number },
  corners: readonly Pair[],
): { widthMm: number; heightMm: number } {
  checkArea({ title: 'The rectangle', corners: [...rectangle] });
  const mm = homography(rectangle, [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ]);
  const middle = carry(mm, ...centre(rectangle));
  const [a, b, c, d] = corners.map(([x, y]): Pair => {
    const [u, v, depth] = carry(mm, x, y);
    if (!(depth * middle[2] > 0))
      throw new SurveyError(
        'The area reaches beyond the plane of the rectangle. Draw the rectangle nearer to it.',
      );
    return [u, v];
  });
  const long = (p: Pair, q: Pair) => Math.hypot(q[0] - p[0], q[1] - p[1]);
  const round = (v: number) => Math.round(v * 10) / 10;
  return {
    widthMm: round((long(a, b) + long(d, c)) / 2),
    heightMm: round((long(a, d) + long(b, c)) / 2),
  };
}

const centre = (points: readonly Pair[]): Pair =>
  [0, 1].map((i) => points.reduce((s, p) => s + p[i], 0) / points.length) as Pair;
