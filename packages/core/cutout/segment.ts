import { components } from '../raster/components';
import { grow, squaredDistance } from '../raster/distance';
import { fitBackground, type BackgroundModel } from './background';
import { fitColourModel, type ColourModel } from './colour-model';
import { minCut } from './min-cut';
import { shadingOf, type Shading } from './shading';

export interface SegmentOptions {
  /** Keep openings inside the product through which the backdrop shows. */
  holes: boolean;
  /** Treat soft shadows on the backdrop as backdrop. */
  shadows: boolean;
}

/** What a reduced photo has taught: everything a cut needs that does not depend on corrections. */
export interface Lesson {
  lab: Float32Array;
  width: number;
  height: number;
  options: SegmentOptions;
  model: BackgroundModel;
  shading: Shading;
  /** Lean of every pixel toward the product (above 0) or the backdrop (below 0), in units of log likelihood. */
  lean: Float32Array;
  /** Price of separating a pixel from its neighbour to the E, S, SE and SW. */
  weights: Float32Array[];
  /** The automatic outline, 1 where the product is; empty when nothing stands off the border. */
  product: Uint8Array;
  /** The backdrop is a pattern, known by its colours and not as a surface. */
  patterned: boolean;
}

/** What a correction says of a pixel. */
export const FREE = 0;
export const KEEP = 1;
export const DROP = 2;

/** Corrections as the cut sees them, both at the reduced size. */
export interface Constraints {
  /** FREE, KEEP or DROP, one a pixel. */
  hard: Uint8Array;
  /** Pixels whose colours teach the models: where a hand drew keep or drop strokes. */
  taught: Uint8Array;
}

/** No more is ever said for or against a pixel by its colour alone. */
const MOST = 9;
const CERTAIN = 1e4;
/** From this distance on, in noise units, no colour of the product's could make a pixel backdrop. */
const SURE = 13;
/** Shades of a pattern that are tried, as factors on OKLab. */
const SHADES = [0.86, 0.74, 0.62, 0.5];
/** A border whose own noise is above this is a pattern, not paper: it is described by its colours instead. */
const BUSY = 0.018;

/**
 * Product against backdrop on a reduced picture without any help: backdrop surface from the border, colour
 * models of both sides, minimum cut, then openings and specks. After Rother et al. 2004 ("GrabCut"), with the
 * backdrop's place dependent model in the stead of a user's rectangle.
 * @param lab OKLab floats, 3 a pixel
 */
export function learn(lab: Float32Array, width: number, height: number, options: SegmentOptions): Lesson {
  const n = width * height;
  const border = borderStrip(width, height);
  // A product that runs along a border can bend a curved surface to itself; a plane holds out longer.
  const [curved, plane] = ([6, 3] as const).map((terms) => fitBackground(lab, border, width, height, terms));
  let model = plane.sigma[0] < curved.sigma[0] * 0.7 ? plane : curved;
  const busy = model.sigma[0] > BUSY || Math.hypot(model.sigma[1], model.sigma[2]) > BUSY * 0.7;
  let pattern = busy ? fitColourModel(lab, border, 8) : null;
  let shading = pattern
    ? patternDistance(lab, pattern, border, options.shadows)
    : shadingOf(lab, width, height, model, options.shadows);
  let product: Uint8Array = Uint8Array.from(shading.residual, (r) => (r > 4 ? 1 : 0));
  const weights = smoothness(lab, width, height);
  let lean: Float32Array = new Float32Array(n);
  const lesson = (): Lesson => ({
    lab,
    width,
    height,
    options,
    model,
    shading,
    lean,
    weights,
    product,
    patterned: pattern !== null,
  });
  for (let round = 0; round < 2; round++) {
    const surelyProduct = new Uint8Array(n);
    const surelyBackdrop = new Uint8Array(n);
    const inner = grow(product, width, height, -1.5);
    const outer = grow(product, width, height, round === 0 ? 3 : 5);
    let backdropCount = 0;
    for (let i = 0; i < n; i++) {
      surelyProduct[i] = inner[i] && shading.residual[i] > 3 ? 1 : 0;
      surelyBackdrop[i] = outer[i] ? 0 : 1;
      backdropCount += surelyBackdrop[i];
    }
    const foreground = fitColourModel(lab, surelyProduct, 6);
    if (!foreground) {
      product = new Uint8Array(n);
      return lesson();
    }
    if (round === 1 && backdropCount > n * 0.04) {
      if (pattern) {
        pattern = fitColourModel(lab, surelyBackdrop, 8) ?? pattern;
        shading = patternDistance(lab, pattern, surelyBackdrop, options.shadows);
      } else {
        const wider = fitBackground(lab, surelyBackdrop, width, height, 10);
        // A surface that fits much worse than the border's own has taken in a part of the product.
        if (wider.sigma[0] < model.sigma[0] * 2.5 + 0.004) {
          model = wider;
          shading = shadingOf(lab, width, height, model, options.shadows);
        }
      }
    }
    lean = leanOf(lab, shading.residual, model, foreground, pattern);
    product = cut(lean, weights, width, height, null);
    // The first cut only teaches colours; openings and specks are seen to in the last.
    if (round > 0) product = tidy(product, lesson(), null);
  }
  return lesson();
}

/** What a cut was made from and what it gave, before openings and specks were seen to. */
export interface CutState {
  lean: Float32Array;
  labels: Uint8Array;
}

/**
 * The outline with corrections: strokes have taught their colours near where they were drawn, and what they
 * cover is certain. Without corrections this is the automatic outline.
 * @param before the last cut of the same lesson: only around what leans otherwise now is it made again
 */
export function label(
  lesson: Lesson,
  constraints: Constraints | null,
  before: CutState | null = null,
): { product: Uint8Array; state: CutState | null } {
  if (!constraints) return { product: lesson.product, state: null };
  const { lab, width, height } = lesson;
  const { hard, taught } = constraints;
  const lean = Float32Array.from(lesson.lean);
  teach(lean, lab, width, height, hard, taught);
  for (let i = 0; i < hard.length; i++) {
    if (hard[i] === KEEP) lean[i] = CERTAIN;
    else if (hard[i] === DROP) lean[i] = -CERTAIN;
  }
  const labels = cut(lean, lesson.weights, width, height, before);
  return { product: tidy(labels, lesson, hard), state: { lean, labels } };
}

/** Adds what the strokes' colours say to the lean, strongest near the strokes. */
function teach(
  lean: Float32Array,
  lab: Float32Array,
  width: number,
  height: number,
  hard: Uint8Array,
  taught: Uint8Array,
): void {
  const pick = (side: number) => {
    const set = new Uint8Array(hard.length);
    for (let i = 0; i < set.length; i++) if (taught[i] && hard[i] === side) set[i] = 1;
    return set;
  };
  const sides = [KEEP, DROP].map((side) => {
    const set = pick(side);
    if (!set.includes(1)) return null;
    const model = fitColourModel(lab, set, 3);
    if (!model) return null;
    let sum = 0;
    let count = 0;
    for (let i = 0; i < set.length; i++)
      if (set[i]) {
        sum += model.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]);
        count++;
      }
    return { model, typical: sum / count, distance: roughDistance(set, width, height) };
  });
  const [kept, dropped] = sides;
  if (!kept && !dropped) return;
  const reach = 2 * (Math.max(width, height) * 0.1) ** 2;
  const likeness = (side: (typeof sides)[number], i: number): number => {
    if (!side) return 0;
    const far = side.distance(i);
    if (far > 3 * reach) return 0;
    const near = Math.exp(-far / reach);
    const cost = side.model.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]) - side.typical;
    return near * Math.exp(-Math.max(0, cost - 1) * 0.4);
  };
  for (let i = 0; i < lean.length; i++) {
    if (hard[i]) continue;
    // A pixel that leans all the way is moved only by the other side: most need one look.
    let difference = lean[i] < MOST ? likeness(kept, i) : 0;
    if (lean[i] > -MOST || difference >= 0.02) difference -= likeness(dropped, i);
    if (lean[i] >= MOST && difference <= -0.02) difference += likeness(kept, i);
    if (Math.abs(difference) < 0.02) continue;
    const next = lean[i] + difference * 14;
    lean[i] = next > MOST ? MOST : next < -MOST ? -MOST : next;
  }
}

/** Squared distance to the nearest set pixel, found on a quarter of the size: enough for a soft falloff. */
function roughDistance(set: Uint8Array, width: number, height: number): (i: number) => number {
  const w = Math.ceil(width / 4);
  const h = Math.ceil(height / 4);
  const rough = new Uint8Array(w * h);
  for (let i = 0; i < set.length; i++) {
    if (!set[i]) continue;
    const x = i % width;
    rough[(((i - x) / width) >> 2) * w + (x >> 2)] = 1;
  }
  const distance = squaredDistance(rough, w, h);
  return (i) => {
    const x = i % width;
    return distance[(((i - x) / width) >> 2) * w + (x >> 2)] * 16;
  };
}

function borderStrip(width: number, height: number): Uint8Array {
  const strip = new Uint8Array(width * height);
  const depth = Math.max(1, Math.round(Math.min(width, height) * 0.04));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (x < depth || y < depth || x >= width - depth || y >= height - depth) strip[y * width + x] = 1;
  return strip;
}

/** How unlikely a colour is among a pattern's, in the open or in some shade, which costs by its depth. */
function shadedCost(pattern: ColourModel, lab: Float32Array, j: number, shadows: boolean): number {
  let best = pattern.cost(lab[j], lab[j + 1], lab[j + 2]);
  if (!shadows) return best;
  for (const shade of SHADES) {
    const cost = pattern.cost(lab[j] / shade, lab[j + 1] / shade, lab[j + 2] / shade) + (1 - shade) * 8;
    if (cost < best) best = cost;
  }
  return best;
}

/** The distance to a patterned backdrop, by how unlikely a colour is among the backdrop's colours. */
function patternDistance(
  lab: Float32Array,
  pattern: ColourModel,
  known: Uint8Array,
  shadows: boolean,
): Shading {
  const n = known.length;
  const cost = new Float32Array(n);
  const costs: number[] = [];
  for (let i = 0; i < n; i++) {
    cost[i] = shadedCost(pattern, lab, i * 3, shadows);
    if (known[i] && i % 3 === 0) costs.push(cost[i]);
  }
  costs.sort((a, b) => a - b);
  const usual = costs[Math.floor(costs.length * 0.85)] ?? 0;
  const residual = cost.map((c) => Math.min(20, Math.sqrt(Math.max(0, 2 * (c - usual))) * 1.2));
  return { residual, deep: residual, shade: new Float32Array(n).fill(1) };
}

/** Price of separating neighbours: high within even areas, low across contrast. */
function smoothness(lab: Float32Array, width: number, height: number): Float32Array[] {
  const n = width * height;
  let sum = 0;
  let count = 0;
  const differences = [
    [1, 0],
    [0, 1],
    [1, 1],
    [-1, 1],
  ].map(([dx, dy]) => {
    const plane = new Float32Array(n);
    for (let y = 0; y < height - dy; y++) {
      for (let x = Math.max(0, -dx); x < width - Math.max(0, dx); x++) {
        const i = y * width + x;
        const a = i * 3;
        const b = (i + dy * width + dx) * 3;
        const d0 = lab[a] - lab[b];
        const d1 = lab[a + 1] - lab[b + 1];
        const d2 = lab[a + 2] - lab[b + 2];
        const d = d0 * d0 + 2 * (d1 * d1 + d2 * d2);
        plane[i] = d;
        sum += d;
      }
    }
    count += n;
    return plane;
  });
  const beta = 1 / (2 * Math.max(2e-5, sum / count));
  const strength = 3.2;
  for (const [k, plane] of differences.entries()) {
    const reach = k < 2 ? strength : strength / Math.SQRT2;
    for (let i = 0; i < n; i++) plane[i] = reach * Math.exp(-beta * plane[i]) + 0.05;
  }
  return differences;
}

/** What colour and place say of each pixel: far from the backdrop nothing argues for it; near it, the product's own colours may still win. */
function leanOf(
  lab: Float32Array,
  residual: Float32Array,
  model: BackgroundModel,
  foreground: ColourModel,
  pattern: ColourModel | null,
): Float32Array {
  const lean = new Float32Array(residual.length);
  let patternFloor = 0;
  if (pattern) {
    // The usual cost of the backdrop's own colours, so that both sides are measured alike.
    let sum = 0;
    let count = 0;
    for (let i = 0; i < lean.length; i += 11)
      if (residual[i] === 0) {
        sum += pattern.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]);
        count++;
      }
    patternFloor = count ? sum / count : 0;
  }
  const logNoise = Math.log(model.sigma[0] * model.sigma[1] * model.sigma[2] * 8);
  for (let i = 0; i < lean.length; i++) {
    const r = residual[i];
    if (r > SURE) {
      lean[i] = MOST;
      continue;
    }
    const j = i * 3;
    const asBackdrop = pattern ? 0.5 * r * r + patternFloor : 0.5 * r * r + logNoise;
    const asProduct = foreground.cost(lab[j], lab[j + 1], lab[j + 2]);
    const v = (asBackdrop - asProduct) * 0.35 + (pattern ? 0 : (r - 3.2) * 0.9);
    lean[i] = v > MOST ? MOST : v < -MOST ? -MOST : v;
  }
  return lean;
}

/**
 * The minimum cut by lean and contrast. Where a pixel and all around it lean as far as they can the same way,
 * nothing could turn it: only the others, and a ring of the settled ones, take part.
 */
function cut(
  lean: Float32Array,
  weights: Float32Array[],
  width: number,
  height: number,
  before: CutState | null,
): Uint8Array {
  const n = lean.length;
  const settled = new Uint8Array(n);
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const v = lean[i];
      if (v < MOST && v > -MOST) continue;
      const left = x > 0 ? -1 : 0;
      const right = x < width - 1 ? 1 : 0;
      const same = (q: number) => (v > 0 ? lean[q] >= MOST : lean[q] <= -MOST);
      if (same(i + left) && same(i + right) && same(i + up) && same(i + down)) settled[i] = 1;
    }
  }
  const part = before ? changedAround(before.lean, lean, width, height) : null;
  if (before && !part) return before.labels;
  const source = new Float32Array(n);
  const sink = new Float32Array(n);
  const labels = new Uint8Array(n);
  const active = new Int32Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    const x = i % width;
    if (part) {
      const y = (i - x) / width;
      if (x < part.left || x > part.right || y < part.top || y > part.bottom) {
        labels[i] = before!.labels[i];
        continue;
      }
      // The rim of the part holds on to what was there.
      if (x === part.left || x === part.right || y === part.top || y === part.bottom) {
        active[count++] = i;
        if (before!.labels[i]) source[i] = 1e4;
        else sink[i] = 1e4;
        continue;
      }
    }
    if (settled[i]) {
      const free =
        (x > 0 && !settled[i - 1]) ||
        (x < width - 1 && !settled[i + 1]) ||
        (i >= width && !settled[i - width]) ||
        (i + width < n && !settled[i + width]);
      if (lean[i] > 0) labels[i] = 1;
      if (!free) continue;
    }
    active[count++] = i;
    if (lean[i] > 0) source[i] = settled[i] ? 1e4 : lean[i];
    else sink[i] = settled[i] ? 1e4 : -lean[i];
  }
  const [east, south, southEast, southWest] = weights;
  const chosen = minCut({
    width,
    height,
    sourceCapacity: source,
    sinkCapacity: sink,
    east,
    south,
    southEast,
    southWest,
    active: active.subarray(0, count),
  });
  for (let k = 0; k < count; k++) labels[active[k]] = chosen[active[k]];
  return labels;
}

/** The rectangle, with room around it, in which two leans differ; null where they do not. */
function changedAround(
  a: Float32Array,
  b: Float32Array,
  width: number,
  height: number,
): { left: number; right: number; top: number; bottom: number } | null {
  let left = width;
  let right = -1;
  let top = height;
  let bottom = -1;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      if (Math.abs(a[i] - b[i]) > 0.05) {
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < top) top = y;
        bottom = y;
      }
  if (right < 0) return null;
  const room = 28;
  return {
    left: Math.max(0, left - room),
    right: Math.min(width - 1, right + room),
    top: Math.max(0, top - room),
    bottom: Math.min(height - 1, bottom + room),
  };
}

/**
 * Drops specks, and fills enclosed openings that are highlights and not holes: a hole shows the backdrop's
 * hue at some shade of it, evenly; a highlight on a curved glaze does not. What a hand has kept or dropped is
 * left alone.
 */
function tidy(product: Uint8Array, lesson: Lesson, hard: Uint8Array | null): Uint8Array {
  const { width, height, lab, model, shading, options } = lesson;
  const n = product.length;
  const out = Uint8Array.from(product);
  const { labels, list } = components(product, width, height);
  const largest = list.reduce((m, c) => Math.max(m, c.area), 0);
  const touched = (labelsOf: Int32Array, count: number, side: number) => {
    const set = new Uint8Array(count + 1);
    if (hard) for (let i = 0; i < n; i++) if (hard[i] === side) set[labelsOf[i]] = 1;
    return set;
  };
  const kept = touched(labels, list.length, KEEP);
  for (let i = 0; i < n; i++)
    if (labels[i] && !kept[labels[i]] && list[labels[i] - 1].area < largest * 0.004) out[i] = 0;

  const clear = out.map((v) => (v ? 0 : 1));
  const outside = components(clear, width, height);
  const dropped = touched(outside.labels, outside.list.length, DROP);
  // Edges mix both colours: an opening is judged by its inside where it has one.
  const core = grow(clear, width, height, -1);
  const surface = model.surface();
  const stats = outside.list.map(() => ({ n: 0, deep: 0, l: 0, l2: 0, chroma: 0 }));
  const hasCore = new Uint8Array(outside.list.length + 1);
  for (let i = 0; i < n; i++) if (core[i]) hasCore[outside.labels[i]] = 1;
  for (let i = 0; i < n; i++) {
    const l = outside.labels[i];
    if (!l || outside.list[l - 1].touchesBorder || (hasCore[l] && !core[i])) continue;
    const s = stats[l - 1];
    const ratio = lab[i * 3] / surface[i * 3];
    s.n++;
    s.deep += shading.deep[i];
    s.l += ratio;
    s.l2 += ratio * ratio;
    s.chroma += Math.hypot(surface[i * 3 + 1], surface[i * 3 + 2]);
  }
  const minimum = Math.max(3, n * 0.00001);
  const real = stats.map((s, k) => {
    if (!options.holes || outside.list[k].area < minimum || !s.n) return false;
    const mean = s.l / s.n;
    const spread = Math.sqrt(Math.max(0, s.l2 / s.n - mean * mean));
    // Coloured paper vouches for itself by its hue; grey and white only by lying close and even.
    const coloured = s.chroma / s.n > 0.05;
    return s.deep / s.n < (coloured ? 9 : 4) && spread < (coloured ? 0.2 : 0.1) && mean > 0.4 && mean < 1.06;
  });
  for (let i = 0; i < n; i++) {
    const l = outside.labels[i];
    if (l && !outside.list[l - 1].touchesBorder && !real[l - 1] && !dropped[l]) out[i] = 1;
  }
  return out;
}
