/**
 * Makes the second half of the truth set with POV-Ray: items truly rendered in the demo's scenes, from the scenes' own
 * sources. `node bench/truth/make/demo.mjs FOLDER` from the project's folder; renderings are kept in FOLDER, and only what
 * is missing there is rendered. What the rendering changes is carried over to the scene's developed picture, so that
 * nothing else differs. All of these places were tuned on.
 */
import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import sharp from 'sharp';

const here = dirname(fileURLToPath(import.meta.url));
const root = join(here, '..', '..', '..');
const out = join(here, '..', 'demo');
const work = process.argv[2];
if (!work) throw new Error('Name a folder that keeps the renderings.');
const WIDTH = 667;
const run = promisify(execFile);

const ITEMS = {
  bowl: { number: 1, heightMm: 108, depthMm: 154 },
  parcel: { number: 2, heightMm: 115, depthMm: 103 },
  bottle: { number: 3, heightMm: 180, depthMm: 81 },
  mug: { number: 4, heightMm: 97, depthMm: 96 },
  squash: { number: 5, heightMm: 97, depthMm: 110 },
  house: { number: 6, heightMm: 137, depthMm: 118 },
  planter: { heightMm: 148, depthMm: 162 },
};
const PLACES = {
  'windowsill-morning': ['planter', 'house', 'mug'],
  'potting-bench': ['planter', 'squash', 'parcel'],
  'patio-terrazzo': ['planter', 'bottle', 'house'],
  'shelf-plaster': ['planter', 'bowl', 'parcel'],
  'winter-table': ['planter', 'house', 'bottle'],
};

const unit = (a) => a.map((v) => v / Math.hypot(...a));
const cross = (a, b) => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const toLinear = (v) => (v <= 10.31475 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
const encode = (v) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
/** Bright light bent under white, as film and cameras do. */
const shoulder = (v) => (v < 0.8 ? v : 0.8 + 0.2 * (1 - Math.exp(-(v - 0.8) / 0.2)));

/** Where on the ground (y = 0, centimetres) a point of the picture lies. */
function onGround(camera, spot, width, height) {
  const numbers = (key) =>
    camera
      .match(new RegExp(`${key} <([^>]+)>`))[1]
      .split(',')
      .map(Number);
  const [eye, look] = [numbers('location'), numbers('look_at')];
  const forward = unit(look.map((v, i) => v - eye[i]));
  const right = unit(cross([0, 1, 0], forward));
  const up = cross(forward, right);
  const focal = width / 2 / Math.tan((Number(camera.match(/angle ([\d.]+)/)[1]) * Math.PI) / 360);
  const ray = forward.map(
    (v, i) => v * focal + right[i] * (spot.x - width / 2) - up[i] * (spot.y - height / 2),
  );
  return eye.map((v, i) => v - (ray[i] * eye[1]) / ray[1]);
}

/** The item as POV-Ray reads it; a white one for its matte. */
function itemLines(item, at, white) {
  const texture = white ? 'texture { pigment { rgb 1 } finish { emission 1 diffuse 0 } }' : 'texture { T }';
  const place = `translate <${at}>`;
  const tx = `#macro Tx(T) ${texture} #end`;
  if (item === 'planter') {
    const files = [`#declare MATTE = ${white ? 1 : 0};`, '#include "geo.inc"', tx, '#include "planter.inc"'];
    return [...files, `object { Planter(1) rotate y*25 ${place} }`];
  }
  return [tx, `#declare ITEM = ${ITEMS[item].number};`, '#include "items.inc"', `object { Item() ${place} }`];
}

/** One rendering, linear; it is kept in the work folder. */
async function render(place, name, lines, height) {
  const file = join(work, place, `${name}.png`);
  if (!existsSync(file)) {
    await mkdir(join(work, place), { recursive: true });
    const [source, made] = ['scene.pov', 'made.png'].map((f) => join(work, place, f));
    await writeFile(source, `${lines.join('\n')}\n`);
    await writeFile(
      join(work, place, 'cam.inc'),
      await readFile(join(here, 'demo', `${place}.cam.inc`), 'utf8'),
    );
    const size = [`+W${WIDTH}`, `+H${height}`];
    const folders = [`+L${join(work, place)}`, `+L${join(here, 'demo')}`, `+L${here}`];
    await run('nice', [
      ...['-n', '15', 'povray', `+I${source}`, `+O${made}`, ...size, ...folders],
      ...['+FN16', 'File_Gamma=1.0', '+A0.2', '+R2', '-D', '-GA', '+WT1', 'Declare=PASS=0'],
    ]);
    await rename(made, file);
    console.log(file);
  }
  const { data } = await sharp(file)
    .removeAlpha()
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  return Float32Array.from(new Uint16Array(data.buffer, data.byteOffset, data.length / 2), (v) => v / 65535);
}

const scaled = (side, k, height) => ({
  ...side,
  widthPx: WIDTH,
  heightPx: height,
  plane: { ...side.plane, corners: side.plane.corners.map((c) => c.map((v) => v * k)) },
  ...(side.horizonY !== undefined && { horizonY: side.horizonY * k }),
  ...(side.groundEdge && { groundEdge: side.groundEdge.map((c) => c.map((v) => v * k)) }),
  standSpots: side.standSpots.map((s) => ({ ...s, x: s.x * k, y: s.y * k, pxPerMm: s.pxPerMm * k })),
  occluder: undefined,
});

/** What the scene's developing made of its light on the ground around a spot, for each channel. */
function exposureAt(photo, plate, spot, height) {
  const sums = [0, 1, 2].map(() => [0, 0]);
  for (let y = Math.max(0, Math.round(spot.y - 10)); y < Math.min(height, spot.y + 25); y++)
    for (let x = Math.max(0, Math.round(spot.x - 60)); x < Math.min(WIDTH, spot.x + 60); x++)
      for (let c = 0; c < 3; c++) {
        sums[c][0] += toLinear(photo[(y * WIDTH + x) * 3 + c]);
        sums[c][1] += plate[(y * WIDTH + x) * 3 + c];
      }
  return sums.map(([developed, rendered]) => developed / rendered);
}

/** The developed picture as it would be with the item: the item as it is rendered, the ground as it is changed by it. */
function developed(photo, plate, truth, matte, exposure) {
  const bytes = Buffer.alloc(plate.length);
  for (let i = 0; i < plate.length; i++) {
    const a = matte[i];
    const before = toLinear(photo[i]);
    const changed = plate[i] > 0.001 && Math.abs(truth[i] - plate[i]) > 0.01 * plate[i] + 0.002;
    const ground = changed ? before * Math.min(4, truth[i] / plate[i]) : before;
    // A pixel at the rim is the item's over whatever lies behind: what is rendered there as black is the photo's own.
    const item = (truth[i] - (1 - a) * plate[i]) * exposure[i % 3];
    const light = a > 0.02 ? item + (1 - a) * before : ground;
    bytes[i] = a > 0.02 || changed ? Math.round(encode(Math.max(0, shoulder(light))) * 255) : photo[i];
  }
  return bytes;
}

const jpeg = (bytes, height, file) =>
  sharp(bytes, { raw: { width: WIDTH, height, channels: 3 } })
    .jpeg({ quality: 88, chromaSubsampling: '4:4:4' })
    .toFile(file);

await mkdir(out, { recursive: true });
const pairs = [];
for (const [place, items] of Object.entries(PLACES)) {
  const folder = join(root, 'demo/assets/scenes');
  const side = JSON.parse(await readFile(join(folder, `${place}.json`), 'utf8'));
  const height = Math.round((WIDTH * side.heightPx) / side.widthPx);
  const k = WIDTH / side.widthPx;
  const spot = side.standSpots.find((s) => s.id === 'centre') ?? side.standSpots[0];
  const camera = await readFile(join(here, 'demo', `${place}.cam.inc`), 'utf8');
  const at = onGround(camera, spot, side.widthPx, side.heightPx);
  const small = scaled(side, k, height);
  await writeFile(join(out, `${place}.json`), `${JSON.stringify(small, null, 1)}\n`);
  const photo = await sharp(join(folder, `${place}.jpg`))
    .resize(WIDTH, height, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer();
  await jpeg(photo, height, join(out, `${place}.jpg`));
  const scene = [`#include "${place}.pov"`];
  const plate = await render(place, 'plate', scene, height);
  const exposure = exposureAt(photo, plate, { x: spot.x * k, y: spot.y * k }, height);
  for (const item of items) {
    const truth = await render(place, item, [...scene, ...itemLines(item, at, false)], height);
    const bare = ['#version 3.7;', 'global_settings { assumed_gamma 1 }', '#include "cam.inc"'];
    const matte = await render(place, `${item}-matte`, [...bare, ...itemLines(item, at, true)], height);
    await jpeg(developed(photo, plate, truth, matte, exposure), height, join(out, `${place}-${item}.jpg`));
    const { heightMm, depthMm } = ITEMS[item];
    pairs.push({ place, spot: spot.id, item: { name: item, heightMm, depthMm } });
  }
}
await writeFile(join(out, 'pairs.json'), `${JSON.stringify(pairs, null, 1)}\n`);

const planter = join(root, 'demo/assets/products/planter-teal');
const { data, info } = await sharp(`${planter}.jpg`)
  .removeAlpha()
  .raw()
  .toBuffer({ resolveWithObject: true });
const alpha = await sharp(`${planter}.matte.png`).toColourspace('b-w').raw().toBuffer();
const rgba = Buffer.alloc(alpha.length * 4);
for (let i = 0; i < alpha.length; i++) {
  data.copy(rgba, i * 4, i * 3, i * 3 + 3);
  rgba[i * 4 + 3] = alpha[i];
}
const cut = await sharp(rgba, { raw: { width: info.width, height: info.height, channels: 4 } })
  .trim({ background: '#00000000', threshold: 1 })
  .png()
  .toBuffer();
await sharp(cut).resize(700).png({ compressionLevel: 9 }).toFile(join(out, 'planter.cutout.png'));
