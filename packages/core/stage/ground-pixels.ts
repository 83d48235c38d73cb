import { grow } from '../raster/distance';
import { polygonCover } from '../raster/footprint';
import type { SceneSurvey } from './survey';

type Outline = [number, number][];

/** The pixels of the ground: within its edge, else around the measured rectangle, else the lower part of the picture. */
export function groundPixels(
  { edge, plane, wall, horizonY, width: w, height: h }: SceneSurvey,
  view: { width: number; height: number; k: number },
): Uint8Array {
  const within =
    edge ??
    (plane
      ? spread(plane.corners, 1.7)
      : ([
          [0, h * 0.6],
          [w, h * 0.6],
          [w, h],
          [0, h],
        ] as Outline));
  const cover = polygonCover({ ...view, left: 0, top: 0, k: 1 / view.k }, within);
  const top = (x: number) => {
    const far = (horizonY ?? 0) + h * 0.02;
    if (!wall) return far;
    const [[ax, ay], [bx, by]] = wall;
    return Math.max(far, ay + ((by - ay) * (x - ax)) / (bx - ax || 1));
  };
  const { width, height, k } = view;
  const inside = Uint8Array.from(cover.data, (v, i) => {
    const x = i % width;
    return v > 0.5 && (i - x) / width > top(x / k) * k ? 1 : 0;
  });
  // Its border mixes with what lies beyond.
  return grow(inside, width, height, -width / 160);
}

function spread(corners: Outline, by: number): Outline {
  const [mx, my] = [0, 1].map((c) => corners.reduce((sum, p) => sum + p[c], 0) / corners.length);
  return corners.map(([x, y]) => [mx + (x - mx) * by, my + (y - my) * by]);
}
