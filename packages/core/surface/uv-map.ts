import type { Rect } from '../raster/pixels';
import type { AreaSurface } from './area-surface';

/** Which place of a print area shows at each pixel of a part of the picture; NaN where none does. */
export interface UvMap extends Rect {
  u: Float32Array;
  v: Float32Array;
}

/** A range of the area: 0..1 is the area itself. */
export interface Reach {
  u0: number;
  v0: number;
  u1: number;
  v1: number;
}

/** A little beyond the area, so that its border can be smoothed. */
export const AREA_REACH: Reach = { u0: -0.02, v0: -0.02, u1: 1.02, v1: 1.02 };

/** Cells of the mesh are about this many pixels. */
const CELL = 6;

/**
 * The inverse of a surface over the pixels of a picture `scale` times the surveyed one's size. Flat areas by their
 * homography; others by a mesh of small cells, each inverted as a bilinear patch by Newton's method.
 */
export function uvMap(
  surface: AreaSurface,
  scale: number,
  picture: { width: number; height: number },
  reach: Reach = AREA_REACH,
): UvMap {
  const { nodes, columns, rows } = meshNodes(surface, scale, reach);
  const rect = boundsOf(nodes, picture);
  const u = new Float32Array(rect.width * rect.height).fill(NaN);
  const v = new Float32Array(rect.width * rect.height).fill(NaN);
  const map = { ...rect, u, v };
  if (surface.back) fillFlat(map, surface, scale, reach);
  else fillMesh(map, nodes, columns, rows, reach);
  return map;
}

function meshNodes(surface: AreaSurface, scale: number, reach: Reach) {
  const { corners } = surface.area;
  const side = (i: number, j: number) =>
    Math.hypot(corners[i][0] - corners[j][0], corners[i][1] - corners[j][1]) * scale;
  const across = Math.max(side(0, 1), side(3, 2)) * (reach.u1 - reach.u0);
  const down = Math.max(side(0, 3), side(1, 2)) * (reach.v1 - reach.v0);
  const columns = Math.min(400, Math.max(16, Math.ceil(across / CELL)));
  const rows = Math.min(400, Math.max(16, Math.ceil(down / CELL)));
  const nodes = new Float64Array((columns + 1) * (rows + 1) * 2).fill(NaN);
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i <= columns; i++) {
      const u = reach.u0 + ((reach.u1 - reach.u0) * i) / columns;
      const v = reach.v0 + ((reach.v1 - reach.v0) * j) / rows;
      if (!surface.faces(u, v)) continue;
      const [x, y] = surface.at(u, v);
      const k = (j * (columns + 1) + i) * 2;
      nodes[k] = x * scale;
      nodes[k + 1] = y * scale;
    }
  return { nodes, columns, rows };
}

function boundsOf(nodes: Float64Array, { width, height }: { width: number; height: number }): Rect {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < nodes.length; k += 2) {
    if (Number.isNaN(nodes[k])) continue;
    x0 = Math.min(x0, nodes[k]);
    x1 = Math.max(x1, nodes[k]);
    y0 = Math.min(y0, nodes[k + 1]);
    y1 = Math.max(y1, nodes[k + 1]);
  }
  const left = Math.min(width, Math.max(0, Math.floor(x0) - 1));
  const top = Math.min(height, Math.max(0, Math.floor(y0) - 1));
  return {
    x: left,
    y: top,
    width: Math.max(0, Math.min(width, Math.ceil(x1) + 1) - left),
    height: Math.max(0, Math.min(height, Math.ceil(y1) + 1) - top),
  };
}

function fillFlat(map: UvMap, surface: AreaSurface, scale: number, reach: Reach): void {
  for (let y = 0, i = 0; y < map.height; y++)
    for (let x = 0; x < map.width; x++, i++) {
      const [u, v] = surface.back!((map.x + x + 0.5) / scale, (map.y + y + 0.5) / scale);
      if (u < reach.u0 || u > reach.u1 || v < reach.v0 || v > reach.v1 || !surface.faces(u, v)) continue;
      map.u[i] = u;
      map.v[i] = v;
    }
}

function fillMesh(map: UvMap, nodes: Float64Array, columns: number, rows: number, reach: Reach): void {
  const du = (reach.u1 - reach.u0) / columns;
  const dv = (reach.v1 - reach.v0) / rows;
  const stride = (columns + 1) * 2;
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const k = j * stride + i * 2;
      const [ax, ay, bx, by] = [nodes[k], nodes[k + 1], nodes[k + 2], nodes[k + 3]];
      const m = k + stride;
      const [cx, cy, dx, dy] = [nodes[m], nodes[m + 1], nodes[m + 2], nodes[m + 3]];
      const x0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx, dx) - map.x - 0.5 - 1e-6));
      const x1 = Math.min(map.width - 1, Math.floor(Math.max(ax, bx, cx, dx) - map.x - 0.5 + 1e-6));
      const y0 = Math.max(0, Math.ceil(Math.min(ay, by, cy, dy) - map.y - 0.5 - 1e-6));
      const y1 = Math.min(map.height - 1, Math.floor(Math.max(ay, by, cy, dy) - map.y - 0.5 + 1e-6));
      if (!(x1 >= x0 && y1 >= y0)) continue;
      const [ex, ey, fx, fy] = [bx - ax, by - ay, cx - ax, cy - ay];
      const [gx, gy] = [ax - bx - cx + dx, ay - by - cy + dy];
      for (let y = y0; y <= y1; y++)
        for (let x = x0; x <= x1; x++) {
          const [px, py] = [map.x + x + 0.5 - ax, map.y + y + 0.5 - ay];
          let s = 0.5;
          let t = 0.5;
          for (let round = 0; round < 3; round++) {
            const [hx, hy] = [ex + t * gx, ey + t * gy];
            const [kx, ky] = [fx + s * gx, fy + s * gy];
            const rx = s * ex + t * fx + s * t * gx - px;
            const ry = s * ey + t * fy + s * t * gy - py;
            const det = hx * ky - hy * kx;
            if (det === 0) break;
            s -= (rx * ky - ry * kx) / det;
            t -= (hx * ry - hy * rx) / det;
          }
          if (!(s >= -1e-4 && s <= 1.0001 && t >= -1e-4 && t <= 1.0001)) continue;
          const n = y * map.width + x;
          map.u[n] = reach.u0 + (i + s) * du;
          map.v[n] = reach.v0 + (j + t) * dv;
        }
    }
}

/** The same map with every pixel looking `dx`, `dy` pixels (planes of the map's size) further. */
export function shiftedMap(map: UvMap, dx: Float32Array, dy: Float32Array): UvMap {
  const { width, height } = map;
  const out = { ...map, u: new Float32Array(map.u.length), v: new Float32Array(map.v.length) };
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const sx = Math.min(width - 1.001, Math.max(0, x + dx[i]));
      const sy = Math.min(height - 1.001, Math.max(0, y + dy[i]));
      const k = Math.floor(sy) * width + Math.floor(sx);
      const fx = sx - Math.floor(sx);
      const fy = sy - Math.floor(sy);
      const mix = (a: Float32Array) =>
        (a[k] * (1 - fx) + a[k + 1] * fx) * (1 - fy) + (a[k + width] * (1 - fx) + a[k + width + 1] * fx) * fy;
      const u = mix(map.u);
      out.u[i] = Number.isNaN(u) ? map.u[i] : u;
      out.v[i] = Number.isNaN(u) ? map.v[i] : mix(map.v);
    }
  return out;
}
