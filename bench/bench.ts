import { readFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { openSource, renderView, solve, wholeView } from '@scenograph/core/cutout/desk';
import { measureFringe } from '@scenograph/core/cutout/fringe';
import { cutOut, recipeWith, type Cutout } from '@scenograph/core/cutout/index';
import { matteError, type MatteError } from '@scenograph/core/cutout/matte-error';
import { PLAIN_RECIPE, type Step } from '@scenograph/core/cutout/recipe';
import type { Plane, Rgba } from '@scenograph/core/raster/pixels';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newPicture, newText, sceneShot } from '@scenograph/core/shot/starters';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { encodePicture } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { decodeGrey, decodePicture, takePicture } from '@scenograph/host-node/read-picture';
import { generatedSet } from './generated-set';
import { grabCut, loadOpenCv } from './grabcut';
import { benchFill } from './fill';
import { benchOverlays } from './overlays';
import { benchPrint } from './print';
import { benchStaging } from './staging';

/** Speed and quality, each against a named baseline measured in the same run. */

const root = (() => {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'demo', 'assets'))) folder = dirname(folder);
  return folder;
})();
const products = join(root, 'demo/assets/products');

const NAMES = [
  'planter-teal',
  'planter-ochre',
  'planter-oxblood',
  'watering-can',
  'twine',
  'trowel',
  'plant-tags',
  'soil-scoop',
  'cloche',
];

const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const row = (...cells: (string | number)[]) =>
  console.log(cells.map((c, i) => (i ? String(c).padStart(12) : String(c).padEnd(18))).join(''));

async function demoPhoto(name: string): Promise<{ photo: Rgba; truth: Plane }> {
  const photo = await decodePicture(await readFile(join(products, `${name}.jpg`)));
  return { photo, truth: await decodeGrey(await readFile(join(products, `${name}.matte.png`))) };
}

interface Sums extends MatteError {
  ms: number;
  n: number;
}
const nothing = (): Sums => ({ sad: 0, mse: 0, gradient: 0, ms: 0, n: 0 });
function add(sums: Sums, error: MatteError, ms: number): void {
  sums.sad += error.sad;
  sums.mse += error.mse;
  sums.gradient += error.gradient;
  sums.ms += ms;
  sums.n++;
}

/** One picture cut out by ours, starting with nothing, and by the baseline, starting from the true bounding box. */
function compare(
  name: string,
  photo: Rgba,
  truth: Plane,
  cv: unknown,
  ours: Sums,
  theirs: Sums,
  recipe = PLAIN_RECIPE,
): Cutout {
  let started = performance.now();
  const cutout = cutOut(photo, recipe);
  const ms = performance.now() - started;
  const error = matteError(cutout.matte, truth);
  started = performance.now();
  const mask = grabCut(cv, photo, truth);
  const baseMs = performance.now() - started;
  const base = matteError(mask, truth);
  add(ours, error, ms);
  add(theirs, base, baseMs);
  const megapixels = (photo.width * photo.height) / 1e6;
  const fringe = measureFringe(...fringeInput(cutout, photo));
  row(
    name,
    error.sad.toFixed(2),
    error.mse.toFixed(5),
    error.gradient.toFixed(2),
    (ms / megapixels).toFixed(0),
    base.mse.toFixed(5),
    base.gradient.toFixed(2),
    (baseMs / megapixels).toFixed(0),
    Math.max(fringe.white.mean, fringe.black.mean).toFixed(1),
  );
  return cutout;
}

/** The cutout put back on a picture of the photo's size, as the fringe meter wants it. */
function fringeInput({ image, bounds, matte }: Cutout, photo: Rgba): [Rgba, Plane] {
  const colours = {
    width: photo.width,
    height: photo.height,
    data: new Uint8ClampedArray(photo.data.length),
  };
  for (let y = 0; y < bounds.height; y++)
    colours.data.set(
      image.data.subarray(y * bounds.width * 4, (y + 1) * bounds.width * 4),
      ((bounds.y + y) * photo.width + bounds.x) * 4,
    );
  return [colours, matte];
}

const HEAD = ['SAD', 'MSE', 'gradient', 'ms/MP', 'base MSE', 'base grad', 'base ms/MP', 'fringe dE'] as const;

function ratios(ours: Sums, theirs: Sums): void {
  const mean = (s: Sums, key: 'mse' | 'gradient' | 'ms') => s[key] / s.n;
  console.log(
    `Mean of ${ours.n}: MSE ${mean(ours, 'mse').toFixed(5)} against ${mean(theirs, 'mse').toFixed(5)}, ratio ${(ours.mse / theirs.mse).toFixed(3)} (wanted: at most 0.25); ` +
      `gradient ratio ${(ours.gradient / theirs.gradient).toFixed(3)} (at most 0.4); time ratio ${(ours.ms / theirs.ms).toFixed(3)} (at most 0.1).`,
  );
}

async function benchCutout(): Promise<void> {
  console.log(
    "\n(a) Automatic cutout. Baseline: OpenCV's GrabCut, 5 iterations at 1000 pixels, from the true bounding box grown by 5 percent.",
  );
  const cv = await loadOpenCv();
  const ours = nothing();
  const theirs = nothing();
  row('demo photo', ...HEAD);
  cutOut((await demoPhoto('planter-teal')).photo); // once to warm up
  for (const name of NAMES) {
    const { photo, truth } = await demoPhoto(name);
    const glass = name === 'cloche';
    compare(glass ? 'cloche (glass)' : name, photo, truth, cv, ours, theirs, recipeWith({ glass }));
  }
  ratios(ours, theirs);
  const made = { ours: nothing(), theirs: nothing() };
  row('generated', ...HEAD);
  for await (const { name, photo, truth } of generatedSet(Number(process.env.BENCH_COUNT ?? 40)))
    compare(name, photo, truth, cv, made.ours, made.theirs);
  ratios(made.ours, made.theirs);
}

/** A photo of 24 megapixels from open file to full-size cutout, and strokes to an updated view of a screen's size. */
async function benchLarge(): Promise<void> {
  console.log(
    '\n(c) 24 megapixels: a demo photo enlarged to 6000 x 4000. Baseline: sharp resizing it to 1280 pixels.',
  );
  const bytes = await readFile(join(products, 'watering-can.jpg'));
  const large = await sharp(bytes).resize(6000, 4000, { fit: 'cover' }).jpeg({ quality: 95 }).toBuffer();
  const photo = await decodePicture(large);
  const times: number[] = [];
  const base: number[] = [];
  for (let i = 0; i < 3; i++) {
    let started = performance.now();
    cutOut(photo);
    times.push(performance.now() - started);
    started = performance.now();
    await sharp(Buffer.from(photo.data.buffer), { raw: { width: 6000, height: 4000, channels: 4 } })
      .resize(1280)
      .raw()
      .toBuffer();
    base.push(performance.now() - started);
  }
  const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1];
  const memory = process.resourceUsage().maxRSS / 1024 / 1024;
  row('', 'median ms', 'ratio');
  row('full-size cutout', median(times).toFixed(0), (median(times) / median(base)).toFixed(1));
  row('sharp resize', median(base).toFixed(0), '1.0');
  console.log(
    `Wanted: at most 5000 ms and 1.50 GiB; this process has held ${memory.toFixed(2)} GiB at most.`,
  );

  const source = openSource(photo);
  let last = solve(source, PLAIN_RECIPE, true);
  const strokes: number[] = [];
  const steps: Step[] = [];
  for (let i = 0; i < 15; i++) {
    const [x, y] = [3000 + i * 60, 1800 + i * 40];
    steps.push({ id: `s${i}`, name: '', on: true, kind: 'stroke', side: i % 2 ? 'keep' : 'drop', points: [[x, y], [x + 90, y + 160]], radius: 40 }); // prettier-ignore
    const recipe = { ...PLAIN_RECIPE, steps: [...steps] };
    const started = performance.now();
    last = solve(source, recipe, true, last);
    renderView(source, last, wholeView(photo, 740));
    strokes.push(performance.now() - started);
  }
  console.log(
    `Stroke to an updated view of 740 pixels: median ${median(strokes).toFixed(0)} ms; wanted: at most 200.`,
  );
}

async function benchPainting(): Promise<void> {
  console.log(
    '\n(b) Painting a 2000 x 2000 scene shot (shadow-sized blur, three overlays) and encoding JPEG.',
  );
  console.log('    Baseline: the same composition with sharp alone.');
  const sceneBytes = await readFile(join(root, 'demo/assets/scenes/windowsill-morning.jpg'));
  const { survey } = readSceneFile(
    await readFile(join(root, 'demo/assets/scenes/windowsill-morning.json'), 'utf8'),
  );
  const { image } = cutOut(await decodePicture(await readFile(join(products, 'planter-teal.jpg'))));
  const cutoutBytes = await sharp(Buffer.from(image.data.buffer), {
    raw: { width: image.width, height: image.height, channels: 4 },
  })
    .png()
    .toBuffer();
  const logoBytes = (
    await takePicture('logo.svg', await readFile(join(root, 'demo/logos/marrowby-wordmark.svg')), ['svg'])
  ).working!.bytes;
  const files = new Map([sceneBytes, cutoutBytes, logoBytes].map((b) => [sha(b), b]));
  const data = {
    title: 'Planter',
    variant: '',
    sku: 'P',
    price: 24,
    currency: 'GBP',
    widthMm: 162,
    heightMm: 148,
    depthMm: 162,
    cutout: { picture: sha(cutoutBytes), width: image.width, height: image.height },
  };
  const shot = sceneShot(data, 'stand', {
    title: 'Sill',
    picture: sha(sceneBytes),
    survey,
  });
  shot.frame = { width: 2000, height: 2000 };
  const product = shot.elements[1];
  const [width, height] = [900, Math.round((900 * image.height) / image.width)];
  product.box = { x: 550, y: 800, width, height, rotation: 0 };
  const headline = newText('t', 'New glaze', shot.frame);
  const price = newText('p', '£24', shot.frame);
  const logo = newPicture('l', 'Logo', { picture: sha(logoBytes), width: 1600, height: 404 }, shot.frame);
  shot.elements.push(
    { ...headline, size: 160, box: { x: 120, y: 100, width: 1000, height: 220, rotation: 0 } },
    { ...price, size: 120, box: { x: 120, y: 340, width: 400, height: 160, rotation: 0 } },
    { ...logo, box: { x: 1480, y: 1820, width: 400, height: 101, rotation: 0 } },
  );
  const resolved = resolveBase(shot, data);

  const ours = async () => {
    // A new painter each time: nothing is kept from the run before, as for sharp.
    const painter = createPainter(async (hash) => files.get(hash)!);
    const painted = await painter.paint(resolved);
    return (await encodePicture(painted.pixels(), 'jpeg')).bytes;
  };
  const baseline = async () => {
    const ground = sharp(sceneBytes).resize(2000, 2000, { fit: 'cover' });
    const pot = await sharp(cutoutBytes).resize(width, height).png({ compressionLevel: 0 }).toBuffer();
    const alpha = await sharp(pot).extractChannel(3).raw().toBuffer();
    const pad = 120;
    const shadowAlpha = await sharp(alpha, { raw: { width, height, channels: 1 } })
      .extend({ top: pad, bottom: pad, left: pad, right: pad, background: '#000' })
      .blur(40)
      .linear(0.55, 0)
      .extractChannel(0)
      .raw()
      .toBuffer();
    const shadow = await sharp({
      create: { width: width + 2 * pad, height: height + 2 * pad, channels: 3, background: '#000' },
    })
      .joinChannel(shadowAlpha, { raw: { width: width + 2 * pad, height: height + 2 * pad, channels: 1 } })
      .png({ compressionLevel: 0 })
      .toBuffer();
    const words = (text: string, size: number) =>
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="${size * 1.4}"><text x="0" y="${size}" font-family="sans-serif" font-weight="600" font-size="${size}" fill="#171b19">${text}</text></svg>`,
      );
    const mark = await sharp(logoBytes)
      .resize(400, 101, { fit: 'inside' })
      .png({ compressionLevel: 0 })
      .toBuffer();
    return ground
      .composite([
        { input: shadow, left: 550 - pad + 60, top: 800 - pad + 40 },
        { input: pot, left: 550, top: 800 },
        { input: words('New glaze', 160), left: 120, top: 100 },
        { input: words('£24', 120), left: 120, top: 340 },
        { input: mark, left: 1480, top: 1820 },
      ])
      .jpeg({ quality: 92, chromaSubsampling: '4:4:4' })
      .toBuffer();
  };
  await ours();
  await baseline();
  const rounds = 9;
  const times: { ours: number[]; baseline: number[] } = { ours: [], baseline: [] };
  for (let i = 0; i < rounds; i++) {
    // Turn about, so that a busy moment of the machine meets both.
    for (const [name, work] of [
      ['ours', ours],
      ['baseline', baseline],
    ] as const) {
      const started = performance.now();
      await work();
      times[name].push(performance.now() - started);
    }
  }
  const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1];
  const pairs = times.ours.map((t, i) => t / times.baseline[i]);
  row('', 'median ms', 'lowest ms');
  row('ours', median(times.ours).toFixed(0), Math.min(...times.ours).toFixed(0));
  row('sharp alone', median(times.baseline).toFixed(0), Math.min(...times.baseline).toFixed(0));
  console.log(`Ratio (median of ${rounds} pairs): ${median(pairs).toFixed(2)}; wanted: at most 1.00`);
}

console.log(`${cpus().length} cores, ${(totalmem() / 2 ** 30).toFixed(0)} GiB, Node ${process.version}`);
const only = process.argv[2];
if (!only || only === 'cutout') await benchCutout();
if (!only || only === 'paint') await benchPainting();
if (!only || only === 'large') await benchLarge();
if (!only || only === 'staging') await benchStaging(root);
if (!only || only === 'print') await benchPrint(root);
if (!only || only === 'overlays') await benchOverlays(root);
if (!only || only === 'fill') await benchFill(root);
