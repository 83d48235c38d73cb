import { createPlane } from '../raster/pixels';
import type { Body, Turn } from './body';
import type { GroundShadow } from './cast-shadow';

/**
 * How much of the sky a body takes from the plane around its foot: dark in the crease, gone within one and a half
 * of its own widths. A floating body leaves a pool that widens and pales with the distance. The occlusion of a wall of height
 * h at distance d is (1 - d / sqrt(d^2 + h^2)) / 2 of the light from above.
 */
export function contactShadow(body: Body, lift = 0, cells = 96): GroundShadow {
  const { halfWidth: a, halfDepth: b } = body.foot;
  const reach = Math.max(a, b) * 1.4 + lift * 1.2;
  const mmPerPx = (2 * (a + reach)) / (cells * 2);
  const width = Math.ceil((2 * (a + reach)) / mmPerPx);
  const height = Math.ceil((2 * (b + reach)) / mmPerPx);
  const plane = createPlane(width, height);
  const x0 = -(width * mmPerPx) / 2;
  const y0 = -(height * mmPerPx) / 2;
  const wall = Math.min(body.height, a * 1.8) * 0.7;
  const crease = a * 0.045;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const px = x0 + (x + 0.5) * mmPerPx;
      const py = y0 + (y + 0.5) * mmPerPx;
      const d = body.turn
        ? outsideTurned(px, py, body.turn, a)
        : body.round
          ? outsideEllipse(px, py, a, b)
          : outsideBox(px, py, a, b);
      let v: number;
      if (lift > 0) {
        // Seen from the plane the foot shrinks with its distance.
        const size = Math.sqrt((a * b) / (a * b + 2.2 * lift * lift));
        const soft = lift * 0.8 + crease;
        v =
          size /
          (1 + Math.exp((d / soft) * 2.2 - 1)) /
          (1 / (1 + Math.exp(-1 - (Math.min(a, b) / soft) * 2.2)));
      } else if (d <= 0) v = 1;
      else {
        const open = 1 - d / Math.hypot(d, wall);
        v = 0.2 * open + 0.55 * Math.exp(-d / crease);
      }
      // Nothing is left at the grid's rim.
      const rim = Math.max(0, d) / reach;
      plane.data[y * width + x] = Math.min(1, v) * Math.max(0, 1 - rim * rim);
    }
  return { plane, x0, y0, mmPerPx };
}

/** Distance outside an ellipse about the origin, below 0 inside, to first order. */
function outsideEllipse(x: number, y: number, a: number, b: number): number {
  const f = Math.hypot(x / a, y / b);
  const slope = Math.hypot(x / (a * a), y / (b * b));
  return slope < 1e-9 ? -Math.min(a, b) : (f * (f - 1)) / slope;
}

function outsideBox(x: number, y: number, a: number, b: number): number {
  const dx = Math.abs(x) - a;
  const dy = Math.abs(y) - b;
  return dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy);
}

function outsideTurned(x: number, y: number, { angle, along, across }: Turn, half: number): number {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return outsideBox(x * cos + y * sin, y * cos - x * sin, along * half, across * half);
}
