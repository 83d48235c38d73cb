import { existsSync, readdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { colourHypothesis } from '@scenograph/core/cutout/colour-hypothesis';
import { openSource, segmentSource } from '@scenograph/core/cutout/source';
import { solve } from '@scenograph/core/cutout/solve';
import { smoothness } from '@scenograph/core/cutout/graph-cut';
import { cutOut, NoProductError, recipeWith, type Cutout } from '@scenograph/core/cutout/index';
import { matteError, type MatteError } from '@scenograph/core/cutout/matte-error';
import { PLAIN_RECIPE, type CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { EVIDENCE, evidenceOf } from '@scenograph/core/cutout/evidence';
import { taughtColour } from '@scenograph/core/cutout/segment';
import type { SegmentationModel } from '@scenograph/core/cutout/segmentation';
import { boundsAbove, createPlane, type Plane, type Rgba } from '@scenograph/core/raster/pixels';
import { resizePlane } from '@scenograph/core/raster/resample';
import { decodeGrey, decodePicture } from '@scenograph/host-node/read-picture';
import { loadSegmentationModel } from '@scenograph/host-node/segmentation-model';
import { grabCut, loadOpenCv } from './grabcut';

/** Automatic cutouts against GrabCut from the true box: on the demo's photos and on a set made by `training/test_set.py`. */

/** Matte errors up to which a cutout is right; clear glass is measured more generously. */
const RIGHT = 0.005;
const RIGHT_GLASS = 0.02;

export interface Picture {
  name: string;
  kind: string;
  photo: Rgba;
  truth: Plane;
}

export interface Outcome {
  kind: string;
  right: boolean;
  rightWithBox: boolean;
  confidence: number;
  ours: MatteError & { ms: number };
  base: MatteError & { ms: number };
}

/** The photos of a folder that have a matte beside them; the kind is what comes before "-on-" in the name. */
export async function* picturesIn(folder: string): AsyncGenerator<Picture> {
  for (const file of readdirSync(folder).sort()) {
    if (!file.endsWith('.matte.png')) continue;
    const name = file.slice(0, -'.matte.png'.length);
    yield {
      name,
      kind: name.replace(/-on-.*$/, ''),
      photo: await decodePicture(await readFile(join(folder, `${name}.jpg`))),
      truth: await decodeGrey(await readFile(join(folder, file))),
    };
  }
}

async function attempt(photo: Rgba, recipe: CutoutRecipe, model: SegmentationModel): Promise<Cutout | null> {
  try {
    return await cutOut(photo, recipe, model);
  } catch (error) {
    if (error instanceof NoProductError) return null;
    throw error;
  }
}

async function judge(picture: Picture, model: SegmentationModel, cv: unknown): Promise<Outcome> {
  const { photo, truth, kind, name } = picture;
  const nothing = createPlane(photo.width, photo.height);
  let started = performance.now();
  const cutout = await attempt(photo, PLAIN_RECIPE, model);
  const ms = performance.now() - started;
  const ours = matteError(cutout?.matte ?? nothing, truth);
  started = performance.now();
  const baseMatte = grabCut(cv, photo, truth);
  const baseMs = performance.now() - started;
  const limit = name.startsWith('glass') || name === 'cloche' ? RIGHT_GLASS : RIGHT;
  const boxed = await attempt(photo, recipeWith({ box: boundsAbove(truth, 0.3) }), model);
  return {
    kind,
    right: ours.mse <= limit,
    rightWithBox: matteError(boxed?.matte ?? nothing, truth).mse <= limit,
    confidence: cutout?.confidence ?? 0,
    ours: { ...ours, ms },
    base: { ...matteError(baseMatte, truth), ms: baseMs },
  };
}

const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / Math.max(1, list.length);

function summary(title: string, rows: readonly Outcome[]): void {
  const ratio = (of: (o: Outcome['ours']) => number) =>
    mean(rows.map((r) => of(r.ours))) / mean(rows.map((r) => of(r.base)));
  const share = (of: (r: Outcome) => boolean) =>
    `${((100 * rows.filter(of).length) / rows.length).toFixed(0)} %`;
  console.log(
    `${title.padEnd(26)}${String(rows.length).padStart(4)}   right ${share((r) => r.right).padStart(5)}, with a box ${share((r) => r.rightWithBox).padStart(5)}` +
      `   MSE ${mean(rows.map((r) => r.ours.mse)).toFixed(5)} (base ${mean(rows.map((r) => r.base.mse)).toFixed(5)})` +
      `   ratios: MSE ${ratio((o) => o.mse).toFixed(3)}, gradient ${ratio((o) => o.gradient).toFixed(3)}, time ${ratio((o) => o.ms).toFixed(3)}`,
  );
}

/** Share of right cutouts per tenth of confidence: a calibrated confidence lies near its own tenth. */
function calibration(rows: readonly Outcome[]): void {
  console.log('Confidence against the share that is right:');
  for (let tenth = 0; tenth < 10; tenth++) {
    const within = rows.filter((r) => Math.min(9, Math.floor(r.confidence * 10)) === tenth);
    if (!within.length) continue;
    const right = within.filter((r) => r.right).length;
    console.log(
      `  ${(tenth / 10).toFixed(1)} to ${((tenth + 1) / 10).toFixed(1)}  ${String(right).padStart(3)} of ${String(within.length).padStart(3)}  ${'#'.repeat(Math.round((20 * right) / within.length))}`,
    );
  }
  const sure = rows.filter((r) => r.confidence >= 0.9);
  console.log(`  ${sure.length} said to look right, ${sure.filter((r) => !r.right).length} of them wrong.`);
}

/** @param folder a set made by `training/test_set.py`; data/test-set when left out */
export async function benchCutout(root: string, folder = join(root, 'data/test-set')): Promise<void> {
  console.log(
    "\n(a) Automatic cutout. Baseline: OpenCV's GrabCut, 5 iterations at 1000 pixels, from the true bounding box grown by 5 percent.",
  );
  const cv = await loadOpenCv();
  const model = await loadSegmentationModel();
  const run = async (pictures: AsyncGenerator<Picture>) => {
    const rows: Outcome[] = [];
    for await (const picture of pictures) rows.push(await judge(picture, model, cv));
    return rows;
  };
  const demo = await run(picturesIn(join(root, 'demo/assets/products')));
  summary('demo photos', demo);
  if (!existsSync(folder)) {
    console.log(
      `There is no test set in ${folder}: make one with "python3 training/test_set.py data/test-set --count 240".`,
    );
    return;
  }
  const rows = await run(picturesIn(folder));
  summary('test set, never trained on', rows);
  for (const kind of [...new Set(rows.map((r) => r.kind))].sort())
    summary(
      `  ${kind}`,
      rows.filter((r) => r.kind === kind),
    );
  calibration(rows);
  const megapixels = mean(await sizes(folder));
  console.log(`${(mean(rows.map((r) => r.ours.ms)) / megapixels).toFixed(0)} ms a megapixel.`);
}

async function sizes(folder: string): Promise<number[]> {
  const out: number[] = [];
  for await (const { photo } of picturesIn(folder)) out.push((photo.width * photo.height) / 1e6);
  return out;
}

/** One JSON line a picture: what its cutout is judged by, and whether it is right. `training/calibrate.py` reads them. */
export async function printMeasures(folder: string): Promise<void> {
  const model = await loadSegmentationModel();
  for await (const { name, photo, truth } of picturesIn(folder)) {
    const cutout = await attempt(photo, PLAIN_RECIPE, model);
    const { mse } = matteError(cutout?.matte ?? createPlane(photo.width, photo.height), truth);
    const limit = name.startsWith('glass') ? RIGHT_GLASS : RIGHT;
    console.log(JSON.stringify({ name, right: mse <= limit, mse, measures: cutout?.measures ?? null }));
  }
}

/**
 * One CSV line a picture: the squared error of the model alone, of the minimum cut, of the outline settled on the fine
 * picture, and of the matte. Shows which step gains and which loses.
 */
export async function printStages(folder: string): Promise<void> {
  const model = await loadSegmentationModel();
  console.log(['name', 'model', 'cut', 'outline', 'matte'].join());
  const right = [0, 0, 0, 0];
  let all = 0;
  for await (const { name, photo, truth } of picturesIn(folder)) {
    const { width, height } = photo;
    const source = openSource(photo);
    await segmentSource(source, model, PLAIN_RECIPE);
    const solved = solve(source, PLAIN_RECIPE);
    const stage = (size: { width: number; height: number }, data: ArrayLike<number>) =>
      resizePlane({ width: size.width, height: size.height, data: Float32Array.from(data) }, width, height);
    const cutout = await attempt(photo, PLAIN_RECIPE, model);
    const stages = [
      stage(source.segmentation!.shape, source.segmentation!.shape.data),
      stage(source.small, solved.product),
      stage(source.fine, solved.labels),
      cutout?.matte ?? createPlane(width, height),
    ];
    const errors = stages.map((plane) => matteError(plane, truth).mse);
    const limit = name.startsWith('glass') ? RIGHT_GLASS : RIGHT;
    for (let k = 0; k < errors.length; k++) if (errors[k] <= limit) right[k]++;
    all++;
    console.log([name, ...errors.map((e) => e.toFixed(5))].join());
  }
  console.log(['right', ...right.map((n) => `${((100 * n) / all).toFixed(1)} %`)].join());
}

/**
 * Some pixels of every photo as CSV lines: the photo's number, all that is known of the pixel, the true coverage, and how
 * many pixels it stands for. `training/odds.py` reads them.
 */
export async function printOdds(folder: string): Promise<void> {
  const model = await loadSegmentationModel();
  const options = { holes: true, shadows: true };
  console.log(['number', ...EVIDENCE, 'truth', 'weight'].join());
  let number = 0;
  let seed = 1;
  const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
  for await (const { name, photo, truth } of picturesIn(folder)) {
    if (name.startsWith('glass')) continue;
    const source = openSource(photo);
    await segmentSource(source, model, PLAIN_RECIPE);
    const { width, height } = source.small;
    const shape = resizePlane(source.segmentation!.shape, width, height).data;
    const covered = resizePlane(truth, width, height).data;
    const colour = colourHypothesis(
      source.lab,
      width,
      height,
      options,
      smoothness(source.lab, width, height),
    );
    const taught = taughtColour(shape, source.lab, width, height, options);
    const evidence = evidenceOf(shape, colour, taught, width, height);
    const lines: string[] = [];
    for (let i = 0; i < shape.length; i++) {
      // Where model and colour agree firmly, one pixel in fifteen stands for the others.
      const open = Math.abs(evidence[0][i]) < 1.3 || evidence[1][i] * evidence[0][i] < 0;
      if (random() > (open ? 0.03 : 0.002)) continue;
      const known = evidence.map((plane) => plane[i].toFixed(3));
      lines.push([number, ...known, covered[i].toFixed(3), open ? 1 : 15].join());
    }
    number++;
    console.log(lines.join('\n'));
  }
}
