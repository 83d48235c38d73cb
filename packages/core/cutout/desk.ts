import { oklabPixels } from '../raster/colour';
import { boundsAbove, crop, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { reduceTo, resize } from '../raster/resample';
import { compileSteps, fibreZone, type StepSources } from './compile';
import { applyEdgeControls, edgeReach } from './edge-controls';
import { applyExactSteps } from './exact-steps';
import { expandMatte, type Expanded } from './expand-matte';
import { bandAround, edgeContrast, scaleLabels, settleLabels } from './fine-labels';
import { solveFineMatte, type FineMatte } from './fine-matte';
import type { View } from './footprint';
import { findGlass, seeThrough, type Glass } from './glass';
import { recoverOwnShadow, type OwnShadow } from './own-shadow';
import type { CutoutRecipe, Point } from './recipe';
import { addRepairs } from './repair';
import { DROP, learn, label, type CutState, type Lesson } from './segment';
import { edgeCost, traceEdge } from './trace';

/** Long side of the picture on which the outline is cut, and of the one on which the matte is solved. */
const SMALL = 480;
const FINE = 1280;
/** The same for a view under the hand. */
const QUICK = 640;

/** A tidied photo opened for cutting: its reduced copies and what has been learnt from them. */
export interface CutoutSource {
  photo: Rgba;
  fine: Rgba;
  small: Rgba;
  quick: Rgba;
  lab: Float32Array;
  /** The photo came with transparency around the product: its own matte is where everything begins. */
  given: boolean;
  /** Photo pixels a fine and a small pixel. */
  fineK: number;
  smallK: number;
  lessons: Map<string, Lesson>;
  cost: Float32Array | null;
  paths: Map<string, Point[]>;
  /** Saved outlines by content hash, as they lie over the tidied photo. */
  outlines: Map<string, Plane>;
  /** The last part of the photo that was shown: most views are asked for again with another matte. */
  shown: { key: string; picture: Rgba } | null;
}

/** A recipe carried out as far as the fine matte; views of any part and size come from it. */
export interface Solved {
  recipe: CutoutRecipe;
  lesson: Lesson;
  cut: CutState | null;
  /** The outline at the small and at the fine size. */
  product: Uint8Array;
  labels: Uint8Array;
  fine: FineMatte;
  /** Photo pixels a pixel of the fine matte. */
  fineK: number;
  /** The contrast that is usual along the edge; kept from solve to solve, so that parts agree with the whole. */
  contrast: number;
  glass: Glass | null;
  confidence: number;
}

/** @param photo 8-bit sRGB, straight alpha, tidied, at least 8 pixels on each side */
export function openSource(photo: Rgba): CutoutSource {
  const fine = reduceTo(photo, FINE);
  const quick = reduceTo(fine, QUICK);
  const small = reduceTo(quick, SMALL);
  return {
    photo,
    fine,
    quick,
    small,
    lab: oklabPixels(small),
    given: hasClearGround(photo),
    fineK: photo.width / fine.width,
    smallK: photo.width / small.width,
    lessons: new Map(),
    cost: null,
    paths: new Map(),
    outlines: new Map(),
    shown: null,
  };
}

/** A photo that comes with transparency around the product is a cutout already. */
function hasClearGround({ width, height, data }: Rgba): boolean {
  let clear = 0;
  for (let j = 3; j < data.length; j += 4) if (data[j] < 8) clear++;
  return clear >= width * height * 0.02;
}

/** What steps need from outside: saved outlines that were put into `source.outlines`, and traced paths. */
export function sourcesOf(source: CutoutSource): StepSources {
  return {
    outline: (hash) => source.outlines.get(hash),
    trace(points) {
      const key = JSON.stringify(points);
      let path = source.paths.get(key);
      if (!path) {
        const { fine, fineK } = source;
        source.cost ??= edgeCost(fine);
        path = traceEdge(
          source.cost,
          fine.width,
          fine.height,
          points.map(([x, y]) => [x / fineK, y / fineK]),
        ).map(([x, y]): Point => [x * fineK, y * fineK]);
        source.paths.set(key, path);
        if (source.paths.size > 60) source.paths.delete(source.paths.keys().next().value!);
      }
      return path;
    },
  };
}

function lessonOf(source: CutoutSource, { holes, shadows }: CutoutRecipe['automatic']): Lesson {
  const key = `${holes}:${shadows}`;
  let lesson = source.lessons.get(key);
  if (!lesson) {
    lesson = learn(source.lab, source.small.width, source.small.height, { holes, shadows });
    if (source.given) givenLesson(lesson, source.small);
    source.lessons.set(key, lesson);
  }
  return lesson;
}

function givenLesson(lesson: Lesson, small: Rgba): void {
  for (let i = 0; i < lesson.product.length; i++) {
    const inside = small.data[i * 4 + 3] > 127;
    lesson.product[i] = inside ? 1 : 0;
    lesson.lean[i] = inside ? 9 : -9;
  }
}

/**
 * Carries out a recipe: corrections become certain pixels, the cut is made again with what they teach, its
 * outline is settled on the fine picture, and the matte is solved in a band around it.
 * @param quick the matte at half the fine size and with fewer rounds, for a view under the hand
 * @param before what was solved last, by the same photo: where its outline stays, so does its matte
 */
export function solve(
  source: CutoutSource,
  recipe: CutoutRecipe,
  quick = false,
  before: Solved | null = null,
): Solved {
  const { photo, small } = source;
  const fine = quick ? source.quick : source.fine;
  const fineK = photo.width / fine.width;
  const lesson = lessonOf(source, recipe.automatic);
  const constraints = compileSteps(recipe, lesson, photo, sourcesOf(source));
  const glass = recipe.automatic.glass && !source.given ? findGlass(lesson) : null;
  const cut = label(lesson, constraints, before?.lesson === lesson ? before.cut : null);
  let { product } = cut;
  if (glass) {
    // Clear parts are inside the outline unless a correction says otherwise.
    product = product.map((v, i) => (constraints?.hard[i] === DROP ? 0 : v | glass.envelope[i]));
  }
  const zone = fibreZone(recipe, fine.width, fine.height, fineK);
  const coarse = scaleLabels(product, small.width, small.height, fine.width, fine.height);
  const radius = (1.6 * fine.width) / small.width + 1;
  const related = before && before.fineK === fineK && before.lesson === lesson ? before : null;
  const contrast =
    related?.contrast ??
    (source.given ? 0 : edgeContrast(fine, bandAround(coarse, fine.width, fine.height, radius)));
  const matteIn = (part: Rect): { labels: Uint8Array; matte: FineMatte } => {
    const whole = part.width === fine.width && part.height === fine.height;
    const picture = whole ? fine : crop(fine, part);
    const outline = whole ? coarse : cropBytes(coarse, fine.width, part);
    const labels = settleLabels(picture, outline, radius, contrast);
    const matte = solveFineMatte(picture, labels, {
      noise: Math.max(2.2, lesson.model.sigma[0] * 255 * 1.5),
      backdrop: lesson.patterned
        ? null
        : {
            model: lesson.model,
            scale: small.width / fine.width,
            left: part.x,
            top: part.y,
            side: Math.max(fine.width, fine.height),
          },
      fibreZone: zone && (whole ? zone : cropBytes(zone, fine.width, part)),
      iterations: quick ? 0 : 12,
    });
    return { labels, matte };
  };
  const all: Rect = { x: 0, y: 0, width: fine.width, height: fine.height };
  let labels: Uint8Array;
  let matte: FineMatte;
  if (source.given) {
    labels = coarse;
    matte = givenMatte(fine, labels, constraints !== null);
  } else {
    const again =
      related && sameFibres(related.recipe, recipe)
        ? changedPart(related.product, product, small.width, small.height)
        : 'all';
    const margin = Math.ceil(Math.max(fine.width, fine.height) * 0.05) + 6;
    const scale = fine.width / small.width;
    // Far from the product there is nothing to solve; a hand's fibre zone may lie anywhere.
    const around = zone
      ? null
      : changedPart(new Uint8Array(product.length), product, small.width, small.height);
    const whole = around ? grownRect(around, scale, margin * 2, all) : all;
    const part = again === 'all' || !again ? whole : grownRect(again, scale, margin, all);
    if (!again) ({ labels, fine: matte } = before!);
    else if (again === 'all' || part.width * part.height > 0.6 * whole.width * whole.height) {
      const solvedWhole = matteIn(whole);
      labels = new Uint8Array(fine.width * fine.height);
      matte = emptyMatte(fine, solvedWhole.matte.noise);
      pasteMatte(solvedWhole, whole, 0, all, labels, matte);
    } else {
      const solvedPart = matteIn(part);
      labels = Uint8Array.from(before!.labels);
      matte = copyMatte(before!.fine);
      pasteMatte(solvedPart, part, Math.ceil(margin / 2), all, labels, matte);
    }
  }
  return {
    recipe,
    lesson,
    cut: cut.state,
    product,
    labels,
    fine: matte,
    fineK,
    contrast,
    glass,
    confidence: source.given ? 1 : confidenceOf(product, lesson.shading.residual, small.width),
  };
}

function sameFibres(a: CutoutRecipe, b: CutoutRecipe): boolean {
  const of = (r: CutoutRecipe) => JSON.stringify(r.steps.filter((s) => s.on && s.kind === 'fibre'));
  return of(a) === of(b);
}

/** The rectangle within which two outlines differ, or null. */
function changedPart(a: Uint8Array, b: Uint8Array, width: number, height: number): Rect | null {
  let left = width;
  let right = -1;
  let top = height;
  let bottom = -1;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      if (a[i] !== b[i]) {
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < top) top = y;
        bottom = y;
      }
  return right < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

function grownRect(rect: Rect, scale: number, margin: number, all: Rect): Rect {
  const x = Math.max(0, Math.floor(rect.x * scale) - margin);
  const y = Math.max(0, Math.floor(rect.y * scale) - margin);
  return {
    x,
    y,
    width: Math.min(all.width, Math.ceil((rect.x + rect.width) * scale) + margin) - x,
    height: Math.min(all.height, Math.ceil((rect.y + rect.height) * scale) + margin) - y,
  };
}

function cropBytes(data: Uint8Array, width: number, rect: Rect): Uint8Array {
  const out = new Uint8Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++) {
    const from = (rect.y + y) * width + rect.x;
    out.set(data.subarray(from, from + rect.width), y * rect.width);
  }
  return out;
}

function emptyMatte({ width, height }: Rgba, noise: number): FineMatte {
  const n = width * height;
  return {
    width,
    height,
    zone: new Uint8Array(n),
    alpha: new Float32Array(n),
    front: new Float32Array(n * 3),
    back: new Float32Array(n * 3),
    noise,
  };
}

function copyMatte(matte: FineMatte): FineMatte {
  return {
    ...matte,
    zone: Uint8Array.from(matte.zone),
    alpha: Float32Array.from(matte.alpha),
    front: Float32Array.from(matte.front),
    back: Float32Array.from(matte.back),
  };
}

/** Puts a part's matte into the whole, less a rim where its own border made itself felt. */
function pasteMatte(
  solved: { labels: Uint8Array; matte: FineMatte },
  part: Rect,
  rim: number,
  all: Rect,
  labels: Uint8Array,
  into: FineMatte,
): void {
  const left = part.x === 0 ? 0 : rim;
  const top = part.y === 0 ? 0 : rim;
  const right = part.x + part.width === all.width ? part.width : part.width - rim;
  const bottom = part.y + part.height === all.height ? part.height : part.height - rim;
  for (let y = top; y < bottom; y++) {
    const from = y * part.width;
    const to = (part.y + y) * all.width + part.x;
    const put = (target: Float32Array | Uint8Array, data: Float32Array | Uint8Array, n: number) =>
      target.set(data.subarray((from + left) * n, (from + right) * n), (to + left) * n);
    put(labels, solved.labels, 1);
    put(into.zone, solved.matte.zone, 1);
    put(into.alpha, solved.matte.alpha, 1);
    put(into.front, solved.matte.front, 3);
    put(into.back, solved.matte.back, 3);
  }
}

/** A photo's own transparency: whole where no correction dropped it. */
function givenMatte(fine: Rgba, labels: Uint8Array, corrected: boolean): FineMatte {
  const n = fine.width * fine.height;
  const zone = new Uint8Array(n);
  for (let i = 0; i < n; i++) zone[i] = !corrected || labels[i] ? 1 : 0;
  return {
    width: fine.width,
    height: fine.height,
    zone,
    alpha: Float32Array.from(zone),
    front: new Float32Array(0),
    back: new Float32Array(0),
    noise: 1,
  };
}

/** Share of the outline along which the product's side differs clearly from the backdrop. */
function confidenceOf(product: Uint8Array, residual: Float32Array, width: number): number {
  let edge = 0;
  let clear = 0;
  const inward = [-2, 2, -2 * width, 2 * width];
  for (let i = width * 2; i < product.length - width * 2; i++) {
    if (!product[i] || (product[i - 1] && product[i + 1] && product[i - width] && product[i + width]))
      continue;
    // Look two pixels inward, past the mixed pixels.
    let best = 0;
    for (let k = 0; k < 4; k++) {
      const q = i + inward[k];
      if (product[q] && residual[q] > best) best = residual[q];
    }
    edge++;
    clear += Math.min(1, best / 6);
  }
  return edge ? clear / edge : 0;
}

/** The part of the photo that a view shows, at the view's size, from the nearest copy that is large enough. */
export function pictureOf(source: CutoutSource, view: View): Rgba {
  const key = `${view.left}:${view.top}:${view.k}:${view.width}:${view.height}`;
  if (source.shown?.key === key) return source.shown.picture;
  const coarse = view.k >= source.fineK && source.fineK > 1;
  const from = coarse ? source.fine : source.photo;
  const k = coarse ? source.fineK : 1;
  const x = Math.round(view.left / k);
  const y = Math.round(view.top / k);
  const rect = {
    x,
    y,
    width: Math.min(from.width - x, Math.max(1, Math.round((view.width * view.k) / k))),
    height: Math.min(from.height - y, Math.max(1, Math.round((view.height * view.k) / k))),
  };
  const whole = rect.x === 0 && rect.y === 0 && rect.width === from.width && rect.height === from.height;
  const picture = resize(whole ? from : crop(from, rect), view.width, view.height);
  // A full-size picture is used once; small ones under the loupe cost nothing to make.
  if (picture !== source.photo && picture.width > 64) source.shown = { key, picture };
  return picture;
}

/**
 * The finished cutout as a view shows it: matte, glass, exact steps, edge controls and repair pieces, in this
 * order. The view must lie inside the photo.
 */
export function renderView(source: CutoutSource, solved: Solved, view: View): Expanded {
  const { recipe } = solved;
  const reach = Math.ceil(edgeReach(recipe.edge, view.k));
  const wide = widened(view, source.photo, reach);
  const picture = pictureOf(source, wide.view);
  const { fineK } = solved;
  const k = wide.view.k / fineK;
  const place = { left: wide.view.left / fineK, top: wide.view.top / fineK, kx: k, ky: k };
  const expanded = expandMatte(picture, place, solved.fine, recipe.edge.spill);
  if (solved.glass)
    seeThrough(picture, place, fineK / source.smallK, solved.glass, expanded.alpha, expanded.colours);
  applyExactSteps(expanded.alpha, wide.view, recipe, source.photo, sourcesOf(source));
  const alpha = applyEdgeControls(expanded.alpha, recipe.edge, view.k);
  if (recipe.repairs.length) addRepairs(expanded.colours, alpha, wide.view, recipe.repairs);
  if (wide.view === view) return { alpha, colours: expanded.colours };
  const inner = { x: wide.x, y: wide.y, width: view.width, height: view.height };
  return { alpha: cropPlane(alpha, inner), colours: crop(expanded.colours, inner) };
}

function widened(view: View, photo: Rgba, reach: number): { view: View; x: number; y: number } {
  const x = Math.min(reach, Math.floor(view.left / view.k));
  const y = Math.min(reach, Math.floor(view.top / view.k));
  const right = Math.min(reach, Math.max(0, Math.floor((photo.width - view.left) / view.k - view.width)));
  const bottom = Math.min(reach, Math.max(0, Math.floor((photo.height - view.top) / view.k - view.height)));
  if (!x && !y && !right && !bottom) return { view, x, y };
  return {
    x,
    y,
    view: {
      k: view.k,
      left: view.left - x * view.k,
      top: view.top - y * view.k,
      width: view.width + x + right,
      height: view.height + y + bottom,
    },
  };
}

function cropPlane(plane: Plane, rect: Rect): Plane {
  const data = new Float32Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++)
    data.set(
      plane.data.subarray(
        (rect.y + y) * plane.width + rect.x,
        (rect.y + y) * plane.width + rect.x + rect.width,
      ),
      y * rect.width,
    );
  return { width: rect.width, height: rect.height, data };
}

/** A view of the whole photo, no larger than `side` on its long side; its full size when left out. */
export function wholeView(photo: { width: number; height: number }, side = Infinity): View {
  const k = Math.max(1, Math.max(photo.width, photo.height) / side);
  return {
    width: Math.max(1, Math.round(photo.width / k)),
    height: Math.max(1, Math.round(photo.height / k)),
    left: 0,
    top: 0,
    k,
  };
}

/** The part of the photo outside which a solved cutout without corrections is clear. */
export function occupiedView(source: CutoutSource, { recipe, fine, fineK }: Solved): View {
  const { photo } = source;
  const zone = { width: fine.width, height: fine.height, data: fine.zone };
  const found = source.given || recipe.steps.length || recipe.repairs.length ? null : boundsAbove(zone, 0);
  if (!found) return wholeView(photo);
  const reach = Math.ceil(edgeReach(recipe.edge, 1) + fineK) + 2;
  const left = Math.max(0, Math.floor(found.x * fineK) - reach);
  const top = Math.max(0, Math.floor(found.y * fineK) - reach);
  return {
    left,
    top,
    k: 1,
    width: Math.min(photo.width, Math.ceil((found.x + found.width) * fineK) + reach) - left,
    height: Math.min(photo.height, Math.ceil((found.y + found.height) * fineK) + reach) - top,
  };
}

/** The camera's own shadow, where the recipe asks for it and the photo holds one. */
export function ownShadowOf(source: CutoutSource, solved: Solved): OwnShadow | null {
  if (!solved.recipe.ownShadow || source.given || solved.lesson.patterned) return null;
  return recoverOwnShadow(solved.lesson, solved.product, source.small, source.smallK);
}
