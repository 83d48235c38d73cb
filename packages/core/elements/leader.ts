import { polyline, type PathCommand, type Point } from '../vector/outline';
import type { Leader } from './spot';

/** The outline of a leader between two places. */
export function leaderPath(from: Point, to: Point, leader: Leader): PathCommand[] {
  if (leader === 'none') return [];
  if (leader === 'elbow') {
    // Level first, then slanting to the spot.
    const run = (to.x - from.x) * 0.55;
    return polyline([from, { x: from.x + run, y: from.y }, to]);
  }
  if (leader === 'curve') {
    const [dx, dy] = [to.x - from.x, to.y - from.y];
    return [
      { type: 'M', ...from },
      { type: 'Q', x1: from.x + dx * 0.5 - dy * 0.22, y1: from.y + dy * 0.5 + dx * 0.22, ...to },
    ];
  }
  return polyline([from, to]);
}

/** Where the way from a box's middle to a place leaves the box, or its ellipse. */
export function exitPoint(
  box: { x: number; y: number; width: number; height: number },
  to: Point,
  round: boolean,
): Point {
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const [dx, dy] = [to.x - cx, to.y - cy];
  const [rx, ry] = [box.width / 2, box.height / 2];
  const k = round
    ? 1 / Math.max(1e-6, Math.hypot(dx / rx, dy / ry))
    : Math.min(rx / Math.max(1e-6, Math.abs(dx)), ry / Math.max(1e-6, Math.abs(dy)));
  return { x: cx + dx * Math.min(1, k), y: cy + dy * Math.min(1, k) };
}
