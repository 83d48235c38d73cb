import { boundsAbove, crop, type Plane, type Rect, type Rgba } from '../raster/pixels';
import { resize } from '../raster/resample';
import { applyEdgeControls, edgeReach } from './edge-controls';
import { applyExactSteps } from './exact-steps';
import { expandMatte, type Expanded } from './expand-matte';
import type { View } from './footprint';
import { seeThrough } from './glass';
import { recoverOwnShadow, type OwnShadow } from './own-shadow';
import { addRepairs } from './repair';
import type { Solved } from './solve';
import { sourcesOf, type CutoutSource } from './source';

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
  const { byColour } = solved.analysis;
  if (!solved.recipe.ownShadow || source.given || byColour.patterned) return null;
  return recoverOwnShadow(byColour, solved.product, source.small, source.smallK);
}
