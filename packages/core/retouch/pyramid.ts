import { squaredDistance } from '../raster/distance';
import { CHANNELS, type PatchField, type PatchTask } from './patch-match';

/** The hole of a coarse level begun from a membrane: Laplace's equation by successive over-relaxation. */
export function membrane({ width, height, texture, inside }: PatchTask): void {
  const mean = new Array<number>(CHANNELS).fill(0);
  let known = 0;
  for (let i = 0; i < inside.length; i++)
    if (!inside[i]) {
      for (let c = 0; c < CHANNELS; c++) mean[c] += texture[i * CHANNELS + c];
      known++;
    }
  for (let i = 0; i < inside.length; i++)
    if (inside[i])
      for (let c = 0; c < CHANNELS; c++) texture[i * CHANNELS + c] = mean[c] / Math.max(1, known);
  const right = width > 1 ? CHANNELS : 0;
  const down = height > 1 ? width * CHANNELS : 0;
  for (let round = 0; round < 300; round++) {
    let change = 0;
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++) {
        if (!inside[i]) continue;
        const j = i * CHANNELS;
        const l = x > 0 ? j - CHANNELS : j + right;
        const r = x + 1 < width ? j + CHANNELS : j - right;
        const t = y > 0 ? j - width * CHANNELS : j + down;
        const b = y + 1 < height ? j + width * CHANNELS : j - down;
        for (let c = 0; c < CHANNELS; c++) {
          const value = (texture[l + c] + texture[r + c] + texture[t + c] + texture[b + c]) / 4;
          const step = 1.8 * (value - texture[j + c]);
          texture[j + c] += step;
          change = Math.max(change, Math.abs(step));
        }
      }
    if (change < 0.05) break;
  }
}

/** How deep a hole is: the longest way out of it. */
export function holeSize({ inside, width, height }: PatchTask): number {
  const outside = new Uint8Array(inside.length);
  for (let i = 0; i < inside.length; i++) outside[i] = inside[i] ? 0 : 1;
  const d = squaredDistance(outside, width, height);
  let most = 0;
  for (let i = 0; i < d.length; i++) if (inside[i]) most = Math.max(most, d[i]);
  return Math.sqrt(most);
}

export function halved({ width, height, texture, inside }: PatchTask): PatchTask {
  const w = Math.ceil(width / 2);
  const h = Math.ceil(height / 2);
  const out: PatchTask = {
    width: w,
    height: h,
    texture: new Float32Array(w * h * CHANNELS),
    inside: new Uint8Array(w * h),
  };
  for (let y = 0, o = 0; y < h; y++)
    for (let x = 0; x < w; x++, o++) {
      let n = 0;
      let open = 0;
      for (let dy = 0; dy < 2; dy++)
        for (let dx = 0; dx < 2; dx++) {
          const [px, py] = [x * 2 + dx, y * 2 + dy];
          if (px >= width || py >= height) continue;
          const i = py * width + px;
          if (inside[i]) open++;
          else {
            n++;
            for (let c = 0; c < CHANNELS; c++) out.texture[o * CHANNELS + c] += texture[i * CHANNELS + c];
          }
        }
      out.inside[o] = open ? 1 : 0;
      if (open) out.texture.fill(0, o * CHANNELS, (o + 1) * CHANNELS);
      else for (let c = 0; c < CHANNELS; c++) out.texture[o * CHANNELS + c] /= n;
    }
  return out;
}

/** What a level half as large made of the hole, as this level's beginning. */
export function carryDown(from: PatchTask, to: PatchTask): void {
  for (let y = 0, i = 0; y < to.height; y++)
    for (let x = 0; x < to.width; x++, i++) {
      if (!to.inside[i]) continue;
      const sx = Math.min(from.width - 1.001, Math.max(0, (x + 0.5) / 2 - 0.5));
      const sy = Math.min(from.height - 1.001, Math.max(0, (y + 0.5) / 2 - 0.5));
      const k = (Math.floor(sy) * from.width + Math.floor(sx)) * CHANNELS;
      const [fx, fy] = [sx - Math.floor(sx), sy - Math.floor(sy)];
      const below = from.width * CHANNELS;
      for (let c = 0; c < CHANNELS; c++)
        to.texture[i * CHANNELS + c] =
          (from.texture[k + c] * (1 - fx) + from.texture[k + CHANNELS + c] * fx) * (1 - fy) +
          (from.texture[k + below + c] * (1 - fx) + from.texture[k + below + CHANNELS + c] * fx) * fy;
    }
}

/** The field of a level half as large, for this one. */
export function enlarged(field: PatchField, { width, height }: PatchTask): PatchField {
  const out: PatchField = {
    width,
    height,
    sx: new Int16Array(width * height),
    sy: new Int16Array(width * height),
    cost: new Float32Array(width * height),
  };
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const k = Math.min(field.height - 1, y >> 1) * field.width + Math.min(field.width - 1, x >> 1);
      out.sx[i] = field.sx[k] * 2 + (x & 1);
      out.sy[i] = field.sy[k] * 2 + (y & 1);
    }
  return out;
}
