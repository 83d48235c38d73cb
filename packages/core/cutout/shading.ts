import type { BackgroundModel } from './background';

/** How dark a shadow may make the backdrop, as a factor on OKLab lightness (its cube is the factor on light). */
const DARKEST_SHADE = 0.4;
/** The same where no soft slope leads from the open backdrop to the dark place. */
const DARKEST_HARD_SHADE = 0.62;
/** Steepest lightness step from pixel to pixel that a shadow's slope may have. */
const SOFT_STEP = 0.02;

/** How far pixels are from the backdrop, and in which shade of it they are nearest. */
export interface Shading {
  /** Distance to the (possibly shaded) backdrop in noise units, one a pixel. */
  residual: Float32Array;
  /** Distance to the nearest shade alone, with nothing charged for its depth. */
  deep: Float32Array;
  /** That shade: 1 is the open backdrop. */
  shade: Float32Array;
}

/**
 * Distance of each pixel to the backdrop in noise units. A shadow scales linear light, hence all three OKLab
 * values by one factor (its cube root): with `shadows`, the nearest shade of the backdrop counts. Shadows on
 * paper have slopes, product parts have edges: where a chain of small steps leads from the open backdrop to a
 * dark place, its shade is cheap; where only a hard edge does, it costs by its depth and hardness.
 * @param lab OKLab floats, 3 a pixel
 */
export function shadingOf(
  lab: Float32Array,
  width: number,
  height: number,
  model: BackgroundModel,
  shadows: boolean,
): Shading {
  const n = width * height;
  const residual = new Float32Array(n);
  const deep = new Float32Array(n);
  const shade = new Float32Array(n);
  const edge = edgeStrength(lab, width, height);
  const surface = model.surface();
  // Lightness varies more than hue across a sweep, so it counts less.
  const sl = 1 / (Math.max(model.sigma[0], 0.0055) * 1.6);
  const sa = 1 / Math.max(model.sigma[1], 0.003);
  const sb = 1 / Math.max(model.sigma[2], 0.003);
  for (let i = 0, j = 0; i < n; i++, j += 3) {
    const l = lab[j];
    const a = lab[j + 1];
    const c = lab[j + 2];
    const bl = surface[j];
    const ba = surface[j + 1];
    const bb = surface[j + 2];
    let t = 1;
    if (shadows) {
      t = (l * bl + a * ba + c * bb) / (bl * bl + ba * ba + bb * bb);
      t = t > 1.02 ? 1.02 : t < DARKEST_SHADE ? DARKEST_SHADE : t;
    }
    // In shade the light from the surroundings has a colour of its own: a little more room.
    let room = t < 1 ? 1 / (2 - t) : 1;
    let dl = (l - t * bl) * sl;
    let da = (a - t * ba) * sa * room;
    let db = (c - t * bb) * sb * room;
    const nearest = Math.sqrt(dl * dl + da * da + db * db);
    deep[i] = nearest;
    shade[i] = t;
    if (!shadows) {
      residual[i] = nearest;
      continue;
    }
    if (t >= DARKEST_HARD_SHADE) {
      residual[i] = nearest;
    } else {
      t = DARKEST_HARD_SHADE;
      room = 1 / (2 - t);
      dl = (l - t * bl) * sl;
      da = (a - t * ba) * sa * room;
      db = (c - t * bb) * sb * room;
      residual[i] = Math.sqrt(dl * dl + da * da + db * db);
    }
    const depth = t < 0.97 ? (0.97 - t) / 0.05 : 0;
    // On coloured paper the hue is evidence for a shadow, however hard its edge.
    const grey = 1 / (1 + (ba * ba + bb * bb) / 0.0016);
    if (depth > 0) residual[i] += depth * grey * (0.35 + 0.6 * Math.min(3, edge[i] / 0.03));
  }
  if (!shadows) return { residual, deep, shade };
  const soft = softlyReached(lab, width, height, deep, shade);
  for (let i = 0; i < n; i++) if (soft[i]) residual[i] = Math.min(residual[i], deep[i] + depthCost(shade[i]));
  return { residual, deep, shade };
}

/** What a soft shadow is charged for its depth. */
function depthCost(shade: number): number {
  return Math.max(0, 0.97 - shade) * 6;
}

/** Lightness step across each pixel, the larger of the two ways. */
function edgeStrength(lab: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const across = lab[(x < width - 1 ? i + 1 : i) * 3] - lab[(x > 0 ? i - 1 : i) * 3];
      const along = lab[(i + down) * 3] - lab[(i + up) * 3];
      out[i] = Math.max(Math.abs(across), Math.abs(along));
    }
  }
  return out;
}

/** Pixels that a chain of small lightness steps joins to the open, unshaded backdrop, all of them in the backdrop's hue. */
function softlyReached(
  lab: Float32Array,
  width: number,
  height: number,
  deep: Float32Array,
  shade: Float32Array,
): Uint8Array {
  const n = width * height;
  const reached = new Uint8Array(n);
  const stack = new Int32Array(n);
  let top = 0;
  for (let i = 0; i < n; i++) {
    if (shade[i] > 0.95 && deep[i] < 3) {
      reached[i] = 1;
      stack[top++] = i;
    }
  }
  while (top > 0) {
    const p = stack[--top];
    const x = p % width;
    for (let d = 0; d < 4; d++) {
      if ((d === 0 && x === 0) || (d === 1 && x === width - 1)) continue;
      const q = p + (d === 0 ? -1 : d === 1 ? 1 : d === 2 ? -width : width);
      if (q < 0 || q >= n || reached[q] || deep[q] > 3.5) continue;
      if (Math.abs(lab[q * 3] - lab[p * 3]) > SOFT_STEP) continue;
      reached[q] = 1;
      stack[top++] = q;
    }
  }
  return reached;
}
