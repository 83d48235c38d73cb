import { samplePlane } from '../raster/resample';
import type { Plane } from '../raster/pixels';
import { outlineOf, type StepSources } from './compile';
import { polygonCover, underStroke, type View } from '../raster/footprint';
import type { CutoutRecipe, Step } from './recipe';

/** Steps that act on the matte itself, to the pixel: strokes, painting, shapes as drawn, traced paths, saved outlines. */
function isExact(step: Step): boolean {
  return (
    step.kind === 'stroke' ||
    step.kind === 'paint' ||
    step.kind === 'outline' ||
    step.kind === 'trace' ||
    (step.kind === 'shape' && step.snap === 0)
  );
}

/**
 * Carries out the exact steps on a solved matte, in order and in place. Where a stroke comes after one, what the
 * cut found there is put back. `size` is that of the tidied photo.
 */
export function applyExactSteps(
  alpha: Plane,
  view: View,
  recipe: CutoutRecipe,
  size: { width: number; height: number },
  sources: StepSources,
): void {
  const steps = recipe.steps.filter((s) => s.on);
  if (!steps.some(isExact)) return;
  const solved = Float32Array.from(alpha.data);
  const data = alpha.data;
  let touched = false;
  for (const step of steps) {
    if (step.kind === 'stroke') {
      // What a stroke covers is as it says, however thin it is; what it taught the cut shows where steps had changed it.
      underStroke(view, step.points, step.radius, 0, (i, cover) => {
        const found = touched ? data[i] + (solved[i] - data[i]) * cover : data[i];
        data[i] = step.side === 'keep' ? Math.max(found, cover) : Math.min(found, 1 - cover);
      });
      continue;
    }
    if (step.kind === 'invert' && touched) {
      for (let i = 0; i < data.length; i++) data[i] = solved[i];
      continue;
    }
    if (!isExact(step)) continue;
    touched = true;
    if (step.kind === 'paint') {
      const target = step.side === 'keep' ? 1 : 0;
      underStroke(view, step.points, step.radius, step.softness, (i, cover) => {
        data[i] += (target - data[i]) * cover;
      });
      continue;
    }
    const region = step.kind === 'outline' ? placed(step.matte, view, size, sources) : null;
    const path = outlineOf(step, sources);
    const cover = region ?? (path ? polygonCover(view, path) : null);
    if (!cover) continue;
    const mode =
      step.kind === 'outline' || step.kind === 'trace' || step.kind === 'shape' ? step.mode : 'add';
    for (let i = 0; i < data.length; i++) {
      const c = cover.data[i];
      if (mode === 'replace') data[i] = c;
      else if (mode === 'add') data[i] = Math.max(data[i], c);
      else if (mode === 'take') data[i] = Math.min(data[i], 1 - c);
      else data[i] = Math.min(data[i], c);
    }
  }
}

/** A saved outline's matte as seen in a view. */
function placed(
  hash: string,
  view: View,
  size: { width: number; height: number },
  sources: StepSources,
): Plane | null {
  const matte = sources.outline(hash);
  if (!matte) return null;
  const out: Plane = {
    width: view.width,
    height: view.height,
    data: new Float32Array(view.width * view.height),
  };
  const [kx, ky] = [matte.width / size.width, matte.height / size.height];
  for (let y = 0; y < view.height; y++)
    for (let x = 0; x < view.width; x++)
      out.data[y * view.width + x] = samplePlane(
        matte,
        ((x + 0.5) * view.k + view.left) * kx - 0.5,
        ((y + 0.5) * view.k + view.top) * ky - 0.5,
      );
  return out;
}
