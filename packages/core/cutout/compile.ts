import { resizePlane } from '../raster/resample';
import type { Plane } from '../raster/pixels';
import { grow } from '../raster/distance';
import { colourRegion } from './colour-region';
import { alongStroke, curveOutline, polygonCover, shapeOutline, type View } from '../raster/footprint';
import type { CutoutRecipe, Mode, Point, ShapeStep, Step } from './recipe';
import { DROP, FREE, KEEP, label, type Constraints, type Analysis } from './segment';

/** What steps need from outside the recipe. */
export interface StepSources {
  /** A saved outline's matte by content hash, at any size; undefined when it is not there. */
  outline(hash: string): Plane | undefined;
  /** The path of a traced edge through these points, in pixels of the tidied photo. */
  trace(points: readonly Point[], closed?: boolean): Point[];
}

/** A step's outline as a polygon, for those that have one. */
export function outlineOf(step: Step, sources: StepSources): Point[] | null {
  if (step.kind === 'trace') return sources.trace(step.points);
  if (step.kind !== 'shape') return null;
  return shapePoints(step);
}

export function shapePoints(step: Pick<ShapeStep, 'shape' | 'points'>): Point[] {
  if (step.shape === 'curve') return curveOutline(step.points);
  return step.shape === 'rectangle' || step.shape === 'ellipse'
    ? shapeOutline(step.shape, step.points)
    : step.points;
}

/**
 * The steps that speak to the cut, in order, as certain pixels at the reduced size: later ones win. Null when no
 * step does. `size` is that of the tidied photo.
 */
export function compileSteps(
  recipe: CutoutRecipe,
  analysis: Analysis,
  size: { width: number; height: number },
  sources: StepSources,
): Constraints | null {
  const steps = recipe.steps.filter((s) => s.on && s.kind !== 'paint' && s.kind !== 'fibre');
  if (!steps.length && recipe.automatic.on) return null;
  const { width, height } = analysis;
  const n = width * height;
  const hard = new Uint8Array(n);
  const taught = new Uint8Array(n);
  const view: View = { width, height, left: 0, top: 0, k: size.width / width };
  if (!recipe.automatic.on) hard.fill(DROP);
  for (const step of steps) {
    if (step.kind === 'stroke') {
      const side = step.side === 'keep' ? KEEP : DROP;
      alongStroke(view, step.points, Math.max(step.radius, view.k * 0.75), 0, (i, cover) => {
        if (cover <= 0.5) return;
        hard[i] = side;
        taught[i] = 1;
      });
    } else if (step.kind === 'invert') {
      const now = label(analysis, { hard, taught }).product;
      for (let i = 0; i < n; i++) hard[i] = now[i] ? DROP : KEEP;
    } else if (step.kind === 'colour') {
      const seeds = step.seeds.map(([x, y]): Point => [x / view.k, y / view.k]);
      const region = colourRegion(analysis.lab, width, height, seeds, step.tolerance, step.reach);
      combine(hard, region, step.mode, width, height, 0);
    } else if (step.kind === 'outline') {
      const matte = sources.outline(step.matte);
      if (!matte) continue;
      const region = threshold(resizePlane(matte, width, height));
      if (step.mode === 'replace') for (let i = 0; i < n; i++) hard[i] = region[i] ? KEEP : DROP;
      else combine(hard, region, step.mode, width, height, 0);
    } else if (step.kind === 'trace' || step.kind === 'shape') {
      const region = threshold(polygonCover(view, outlineOf(step, sources)!));
      const snap = step.kind === 'shape' ? step.snap / view.k : 0;
      combine(hard, region, step.mode, width, height, snap);
    }
  }
  return { hard, taught };
}

function threshold(plane: Plane): Uint8Array {
  const out = new Uint8Array(plane.data.length);
  for (let i = 0; i < out.length; i++) out[i] = plane.data[i] > 0.5 ? 1 : 0;
  return out;
}

/** Puts a region into the certain pixels; within `snap` of its outline nothing is certain, so that the cut finds the edge. */
function combine(
  hard: Uint8Array,
  region: Uint8Array,
  mode: Mode,
  width: number,
  height: number,
  snap: number,
): void {
  const inner = snap >= 1 ? grow(region, width, height, -snap) : region;
  const outer = snap >= 1 ? grow(region, width, height, snap) : region;
  for (let i = 0; i < hard.length; i++) {
    if (mode === 'overlap') {
      if (!outer[i]) hard[i] = DROP;
    } else if (inner[i]) hard[i] = mode === 'add' ? KEEP : DROP;
    else if (snap >= 1 && outer[i] && hard[i] === (mode === 'add' ? DROP : KEEP)) hard[i] = FREE;
  }
}

/**
 * What strokes and picked colours touch, at the fine size, where they are exact: FREE, KEEP or DROP, later
 * steps win. Null when no step is of these kinds.
 * @param lab OKLab floats of the fine picture, made only where a colour was picked
 */
export function fineConstraints(
  recipe: CutoutRecipe,
  width: number,
  height: number,
  k: number,
  lab: () => Float32Array,
): Uint8Array | null {
  const steps = recipe.steps.filter((s) => s.on && (s.kind === 'stroke' || s.kind === 'colour'));
  if (!steps.length) return null;
  const out = new Uint8Array(width * height);
  const view: View = { width, height, left: 0, top: 0, k };
  for (const step of steps) {
    if (step.kind === 'stroke') {
      const side = step.side === 'keep' ? KEEP : DROP;
      alongStroke(view, step.points, Math.max(step.radius, k * 0.6), 0, (i, cover) => {
        if (cover > 0.5) out[i] = side;
      });
    } else if (step.kind === 'colour') {
      const seeds = step.seeds.map(([x, y]): Point => [x / k, y / k]);
      const region = colourRegion(lab(), width, height, seeds, step.tolerance, step.reach);
      combine(out, region, step.mode, width, height, 0);
    }
  }
  return out;
}

/** Where fibre steps ask for the matte to be solved anew, at the fine size; null when none does. */
export function fibreZone(recipe: CutoutRecipe, width: number, height: number, k: number): Uint8Array | null {
  const steps = recipe.steps.filter((s) => s.on && s.kind === 'fibre');
  if (!steps.length) return null;
  const zone = new Uint8Array(width * height);
  for (const step of steps) {
    if (step.kind !== 'fibre') continue;
    alongStroke({ width, height, left: 0, top: 0, k }, step.points, step.radius, 0, (i, cover) => {
      if (cover > 0.5) zone[i] = 1;
    });
  }
  return zone;
}
