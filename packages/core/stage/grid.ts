import { onPlane, project, scaleAt, type Camera } from './camera';

export interface PerspectiveGrid {
  /** Lines on the plane, every `step` mm. */
  lines: { x1: number; y1: number; x2: number; y2: number }[];
  /** Upright marks of a known height, so that an error is seen. */
  posts: { x: number; y: number; topX: number; topY: number; mm: number }[];
  step: number;
}

/** Heights that are shown, in mm. */
const POST = 100;

/**
 * The plane's grid as the camera sees it, over the part of the plane that shows in the picture's lower half, with
 * posts of 100 mm standing on it.
 */
export function perspectiveGrid(camera: Camera, width: number, height: number): PerspectiveGrid {
  const seen = [0.1, 0.5, 0.9].flatMap((u) =>
    [0.62, 0.75, 0.92].flatMap((v) => onPlane(camera, { x: width * u, y: height * v }) ?? []),
  );
  if (!seen.length) return { lines: [], posts: [], step: 0 };
  const middle = seen[Math.floor(seen.length / 2)];
  const across = width / scaleAt(camera, middle).across;
  const step = [10, 20, 50, 100, 200, 500, 1000].find((s) => across / s < 16) ?? 2000;
  const range = (values: number[]) => {
    const low = Math.floor(Math.min(...values) / step) * step;
    const high = Math.ceil(Math.max(...values) / step) * step;
    const most = 24;
    return Array.from(
      { length: Math.min(most, Math.round((high - low) / step)) + 1 },
      (_, i) => low + i * step,
    );
  };
  const X = range(seen.map((p) => p.X));
  const Y = range(seen.map((p) => p.Y));
  const lines: PerspectiveGrid['lines'] = [];
  const line = (a: { X: number; Y: number }, b: { X: number; Y: number }) => {
    // In short pieces: an end behind the camera must not take the rest along.
    const p = project(camera, { ...a, Z: 0 });
    const q = project(camera, { ...b, Z: 0 });
    if (p && q) lines.push({ x1: p.x, y1: p.y, x2: q.x, y2: q.y });
  };
  for (const x of X) for (let i = 0; i + 1 < Y.length; i++) line({ X: x, Y: Y[i] }, { X: x, Y: Y[i + 1] });
  for (const y of Y) for (let i = 0; i + 1 < X.length; i++) line({ X: X[i], Y: y }, { X: X[i + 1], Y: y });
  const posts = X.flatMap((x, i) =>
    Y.flatMap((y, j) => {
      if (i % 3 !== 1 || j % 3 !== 1) return [];
      const foot = project(camera, { X: x, Y: y, Z: 0 });
      const top = project(camera, { X: x, Y: y, Z: POST });
      if (!foot || !top || foot.x < 0 || foot.x > width || foot.y > height) return [];
      return [{ x: foot.x, y: foot.y, topX: top.x, topY: top.y, mm: POST }];
    }),
  );
  return { lines, posts, step };
}
