import { readFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { cutOut } from '@scenograph/core/cutout/index';
import { matteError, type MatteError } from '@scenograph/core/cutout/matte-error';
import type { Plane, Rgba } from '@scenograph/core/raster/pixels';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newPicture, newText, sceneShot } from '@scenograph/core/shot/starters';
import { encodePicture } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { decodePicture, takePicture } from '@scenograph/host-node/read-picture';

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

/**
 * Baseline of the cutout: a plain colour key. The border's median colour is the background; alpha rises with the
 * distance to it in RGB, from the border's own 99th percentile to three times that.
 */
function colourKey(photo: Rgba): Plane {
  const { width, height, data } = photo;
  const depth = Math.round(Math.min(width, height) * 0.04);
  const border: number[] = [];
  for (let i = 0; i < width * height; i += 7) {
    const x = i % width;
    const y = Math.floor(i / width);
    if (x < depth || y < depth || x >= width - depth || y >= height - depth) border.push(i * 4);
  }
  const median = [0, 1, 2].map(
    (c) => border.map((j) => data[j + c]).sort((a, b) => a - b)[border.length >> 1],
  );
  const distance = (j: number) =>
    Math.hypot(data[j] - median[0], data[j + 1] - median[1], data[j + 2] - median[2]);
  const low = Math.max(6, border.map(distance).sort((a, b) => a - b)[Math.floor(border.length * 0.99)]);
  const out = { width, height, data: new Float32Array(width * height) };
  for (let i = 0; i < out.data.length; i++)
    out.data[i] = Math.min(1, Math.max(0, (distance(i * 4) - low) / (2 * low)));
  return out;
}

async function benchCutout(): Promise<void> {
  console.log('\n(a) Automatic cutout on the demo photos with true mattes. Baseline: plain colour key.');
  row('photo', 'SAD', 'MSE', 'gradient', 'ms/MP', 'key MSE', 'MSE ratio');
  const sums: MatteError & { key: number; ms: number; n: number } = {
    sad: 0,
    mse: 0,
    gradient: 0,
    key: 0,
    ms: 0,
    n: 0,
  };
  const ratios: number[] = [];
  for (const name of NAMES) {
    const photo = await decodePicture(await readFile(join(products, `${name}.jpg`)));
    const grey = await sharp(join(products, `${name}.matte.png`))
      .greyscale()
      .raw()
      .toBuffer();
    const truth: Plane = {
      width: photo.width,
      height: photo.height,
      data: Float32Array.from(grey, (v) => v / 255),
    };
    if (!sums.n) cutOut(photo); // once to warm up
    const started = performance.now();
    const { matte } = cutOut(photo);
    const ms = (performance.now() - started) / ((photo.width * photo.height) / 1e6);
    const error = matteError(matte, truth);
    const key = matteError(colourKey(photo), truth);
    row(
      name,
      error.sad.toFixed(2),
      error.mse.toFixed(5),
      error.gradient.toFixed(2),
      ms.toFixed(0),
      key.mse.toFixed(5),
      (error.mse / key.mse).toFixed(3),
    );
    sums.sad += error.sad;
    sums.mse += error.mse;
    sums.gradient += error.gradient;
    sums.key += key.mse;
    sums.ms += ms;
    sums.n++;
    ratios.push(error.mse / key.mse);
  }
  const mean = (v: number) => v / sums.n;
  row(
    'mean',
    mean(sums.sad).toFixed(2),
    mean(sums.mse).toFixed(5),
    mean(sums.gradient).toFixed(2),
    mean(sums.ms).toFixed(0),
    mean(sums.key).toFixed(5),
    (sums.mse / sums.key).toFixed(3),
  );
  console.log(
    `Median MSE ratio ${ratios.sort((a, b) => a - b)[ratios.length >> 1].toFixed(3)} (cloche is clear glass).`,
  );
}

async function benchPainting(): Promise<void> {
  console.log(
    '\n(b) Painting a 2000 x 2000 scene shot (shadow-sized blur, three overlays) and encoding JPEG.',
  );
  console.log('    Baseline: the same composition with sharp alone.');
  const sceneBytes = await readFile(join(root, 'demo/assets/scenes/windowsill-morning.jpg'));
  const side = JSON.parse(await readFile(join(root, 'demo/assets/scenes/windowsill-morning.json'), 'utf8'));
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
    survey: { width: 2000, height: 1500, horizonY: side.horizonY, spots: side.standSpots, light: side.light },
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
