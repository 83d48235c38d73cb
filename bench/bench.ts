import { readFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { solve } from '@scenograph/core/cutout/solve';
import { openSource, segmentSource } from '@scenograph/core/cutout/source';
import { renderChanged, renderView, wholeView, type Rendered } from '@scenograph/core/cutout/view';
import { cutOut } from '@scenograph/core/cutout/index';
import { PLAIN_RECIPE, type Step } from '@scenograph/core/cutout/recipe';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newPicture, newText, sceneShot } from '@scenograph/core/shot/starters';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { encodePicture } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { decodePicture, takePicture } from '@scenograph/host-node/read-picture';
import { loadSegmentationModel } from '@scenograph/host-node/segmentation-model';
import { benchCutout, printMeasures, printOdds, printStages } from './cutout';
import { benchFill } from './fill';
import { benchOverlays } from './overlays';
import { benchPrint } from './print';
import { benchStaging } from './staging';
import { benchTruth } from './truth';

/** Speed and quality, each against a named baseline measured in the same run. */

const root = (() => {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'demo', 'assets'))) folder = dirname(folder);
  return folder;
})();
const products = join(root, 'demo/assets/products');

const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const row = (...cells: (string | number)[]) =>
  console.log(cells.map((c, i) => (i ? String(c).padStart(12) : String(c).padEnd(18))).join(''));

/** A photo of 24 megapixels from open file to full-size cutout, and strokes to an updated view of a screen's size. */
async function benchLarge(): Promise<void> {
  console.log(
    '\n(c) 24 megapixels: a demo photo enlarged to 6000 x 4000. Baseline: sharp resizing it to 1280 pixels.',
  );
  const bytes = await readFile(join(products, 'watering-can.jpg'));
  const large = await sharp(bytes).resize(6000, 4000, { fit: 'cover' }).jpeg({ quality: 95 }).toBuffer();
  const photo = await decodePicture(large);
  const model = await loadSegmentationModel();
  const times: number[] = [];
  const base: number[] = [];
  for (let i = 0; i < 3; i++) {
    let started = performance.now();
    await cutOut(photo, PLAIN_RECIPE, model);
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
    `Wanted: at most 4000 ms and 1.20 GiB; this process has held ${memory.toFixed(2)} GiB at most.`,
  );

  const source = openSource(photo);
  await segmentSource(source, model, PLAIN_RECIPE);
  let last = solve(source, PLAIN_RECIPE, true);
  const view = wholeView(photo, 740);
  let shown: Rendered = { view, recipe: PLAIN_RECIPE, ...renderView(source, last, view) };
  const strokes: number[] = [];
  const steps: Step[] = [];
  for (let i = 0; i < 15; i++) {
    const [x, y] = [3000 + i * 60, 1800 + i * 40];
    steps.push({ id: `s${i}`, name: '', on: true, kind: 'stroke', side: i % 2 ? 'keep' : 'drop', points: [[x, y], [x + 90, y + 160]], radius: 40 }); // prettier-ignore
    const recipe = { ...PLAIN_RECIPE, steps: [...steps] };
    const started = performance.now();
    last = solve(source, recipe, true, last);
    shown = { view, recipe, ...renderChanged(source, last, shown) };
    strokes.push(performance.now() - started);
  }
  console.log(
    `Stroke to an updated view of 740 pixels: median ${median(strokes).toFixed(0)} ms; wanted: at most 150.`,
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
  const { image } = await cutOut(
    await decodePicture(await readFile(join(products, 'planter-teal.jpg'))),
    PLAIN_RECIPE,
    await loadSegmentationModel(),
  );
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
if (!only || only === 'cutout') await benchCutout(root, process.argv[3]);
if (only === 'odds') await printOdds(process.argv[3]);
if (only === 'stages') await printStages(process.argv[3]);
if (only === 'measures') await printMeasures(process.argv[3]);
if (!only || only === 'paint') await benchPainting();
if (!only || only === 'large') await benchLarge();
if (!only || only === 'staging') await benchStaging(root);
if (!only || only === 'truth') await benchTruth(root);
if (!only || only === 'print') await benchPrint(root);
if (!only || only === 'overlays') await benchOverlays(root);
if (!only || only === 'fill') await benchFill(root);
