import { boundsAbove, crop, type Plane, type Rect, type Rgba } from '../raster/pixels';
import type { CutoutRecipe, Step } from './recipe';
import { resize } from '../raster/resample';
import { applyEdgeControls, edgeReach } from './edge-controls';
import { applyExactSteps } from './exact-steps';
import { expandMatte, type Expanded } from './expand-matte';
import type { View } from '../raster/footprint';
import { recolourGlass, seeThrough } from './glass';
import { recoverOwnShadow, type OwnShadow } from './own-shadow';
import { addRepairs } from './repair';
import type { Solved } from './solve';
import { sourcesOf, type CutoutSource } from './source';

/** The part of the photo that a view shows, at the view's size, from the nearest copy that is large enough. */
export function pictureOf(source: CutoutSource, view: View): Rgba {
  const key = `${view.left}:${view.top}:${view.k}:${view.width}:${view.height}`;
  if (source.shown?.key === key) return source.shown.picture;
  const within = source.shown && insideOf(view, source.shown.view);
  if (within) return crop(source.shown!.picture, within);
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
  if (picture !== source.photo && picture.width > 64) source.shown = { key, view, picture };
  return picture;
}

/** Where a view lies in another of the same scale and grid; null where it does not. */
function insideOf(view: View, other: View): Rect | null {
  const x = (view.left - other.left) / view.k;
  const y = (view.top - other.top) / view.k;
  const whole = (v: number) => Math.abs(v - Math.round(v)) < 1e-6;
  if (view.k !== other.k || !whole(x) || !whole(y) || x < -0.5 || y < -0.5) return null;
  const rect = { x: Math.round(x), y: Math.round(y), width: view.width, height: view.height };
  return rect.x + rect.width <= other.width && rect.y + rect.height <= other.height ? rect : null;
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
  const { glass } = solved;
  const scale = fineK / source.smallK;
  if (glass) seeThrough(picture, place, scale, glass, expanded.alpha, expanded.colours);
  const corrected = recipe.steps.some((s) => s.on);
  const found = corrected ? Float32Array.from(expanded.alpha.data) : null;
  applyExactSteps(expanded.alpha, wide.view, recipe, source.photo, sourcesOf(source));
  if (found && glass) recolourGlass(picture, place, scale, glass, found, expanded);
  else if (found) recolourFirmer(picture, found, expanded);
  const alpha = applyEdgeControls(expanded.alpha, recipe.edge, view.k);
  if (recipe.repairs.length) addRepairs(expanded.colours, alpha, wide.view, recipe.repairs);
  if (wide.view === view) return { alpha, colours: expanded.colours };
  const inner = { x: wide.x, y: wide.y, width: view.width, height: view.height };
  return { alpha: cropPlane(alpha, inner), colours: crop(expanded.colours, inner) };
}

/** A view that was rendered, and what it was made from. */
export interface Rendered extends Expanded {
  view: View;
  recipe: CutoutRecipe;
}

/**
 * A view rendered again after strokes of a hand: only where the solve and those strokes have changed it, everything else
 * is as it was. Where more has changed, the whole view is rendered.
 * @param solved solved from what was solved for `before.recipe`
 */
export function renderChanged(source: CutoutSource, solved: Solved, before: Rendered): Expanded {
  const { view } = before;
  const rect = changedIn(solved, before);
  if (!rect || rect.width * rect.height > 0.5 * view.width * view.height)
    return renderView(source, solved, view);
  const alpha: Plane = { ...before.alpha, data: Float32Array.from(before.alpha.data) };
  const colours: Rgba = { ...before.colours, data: Uint8ClampedArray.from(before.colours.data) };
  if (rect.width <= 0 || rect.height <= 0) return { alpha, colours };
  const part = renderView(source, solved, {
    k: view.k,
    left: view.left + rect.x * view.k,
    top: view.top + rect.y * view.k,
    width: rect.width,
    height: rect.height,
  });
  for (let y = 0; y < rect.height; y++) {
    const [from, to] = [y * rect.width, (y + rect.y) * view.width + rect.x];
    alpha.data.set(part.alpha.data.subarray(from, from + rect.width), to);
    colours.data.set(part.colours.data.subarray(from * 4, (from + rect.width) * 4), to * 4);
  }
  return { alpha, colours };
}

/** What of a view strokes and the solve have changed, in its pixels; null for all of it. */
function changedIn({ recipe, changed, fineK, fine }: Solved, before: Rendered): Rect | null {
  const { view } = before;
  const rest = ({ steps: _steps, ...others }: CutoutRecipe) => JSON.stringify(others);
  if (rest(recipe) !== rest(before.recipe)) return null;
  if (changed && changed.width === fine.width && changed.height === fine.height) return null;
  const [a, b] = [before.recipe.steps, recipe.steps];
  let same = 0;
  while (same < a.length && same < b.length && JSON.stringify(a[same]) === JSON.stringify(b[same])) same++;
  const different = [...a.slice(same), ...b.slice(same)];
  const isStroke = (s: Step) => s.kind === 'stroke' || s.kind === 'paint';
  if (!different.every(isStroke)) return null;
  // Photo pixels: left, top, right, bottom.
  const boxes = different.filter(isStroke).map(({ points, radius }) => {
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    return [
      Math.min(...xs) - radius,
      Math.min(...ys) - radius,
      Math.max(...xs) + radius,
      Math.max(...ys) + radius,
    ];
  });
  if (changed)
    boxes.push(
      [changed.x, changed.y, changed.x + changed.width, changed.y + changed.height].map((v) => v * fineK),
    );
  if (!boxes.length) return { x: 0, y: 0, width: 0, height: 0 };
  const reach = Math.ceil(edgeReach(recipe.edge, view.k) + fineK / view.k) + 2;
  const at = (v: number, from: number) => (v - from) / view.k;
  const x = Math.max(0, Math.floor(Math.min(...boxes.map((b) => at(b[0], view.left)))) - reach);
  const y = Math.max(0, Math.floor(Math.min(...boxes.map((b) => at(b[1], view.top)))) - reach);
  const right = Math.min(view.width, Math.ceil(Math.max(...boxes.map((b) => at(b[2], view.left)))) + reach);
  const bottom = Math.min(view.height, Math.ceil(Math.max(...boxes.map((b) => at(b[3], view.top)))) + reach);
  return { x, y, width: right - x, height: bottom - y };
}

/**
 * Where a hand has made firm what was faint, the photo's own colour is seen: the one worked out for a faint edge was that of
 * the product beside it.
 * @param was the opacity, 0..1, when the cutout's colours were worked out
 */
function recolourFirmer(picture: Rgba, was: Float32Array, { alpha, colours }: Expanded): void {
  for (let p = 0; p < was.length; p++) {
    const a = alpha.data[p];
    if (was[p] >= 0.5 || a <= was[p] + 0.01) continue;
    const kept = was[p] / a;
    for (let j = p * 4; j < p * 4 + 3; j++)
      colours.data[j] = kept * colours.data[j] + (1 - kept) * picture.data[j];
  }
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
  const { byColour } = solved.analysis;
  if (!solved.recipe.ownShadow || source.given || byColour.patterned) return null;
  return recoverOwnShadow(byColour, solved.product, source.small, source.smallK);
}
