/**
 * Makes the truth set with POV-Ray (Debian's package): places empty and with their items truly rendered in them, the
 * items' studio photos as cutouts, and the surveys that follow from the cameras. `node bench/truth/make/make.mjs` from
 * the project's folder; only what is missing is rendered. The bench itself reads what lies in bench/truth.
 */
import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { edgesOf, meshOf, PRINTED } from './prints.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const out = join(here, '..', 'staged');
const WIDTH = 800;
const HEIGHT = 600;

/** Cameras in centimetres, and the light as a side-file gives it; `at` are the two spots, left and right. */
const PLACES = [
  {
    name: 'sunroom',
    eye: [4, 30, -88],
    look: [0, 7, 0],
    angle: 34,
    light: [0.55, 0.5, 0.75],
    size: 14 / 400,
    at: [
      [-10, 0, 2],
      [12, 0, -6],
    ],
  },
  {
    name: 'counter',
    eye: [-6, 27, -80],
    look: [0, 7, 0],
    angle: 34,
    light: [-0.85, 0.55, -0.25],
    size: 80 / 170,
    at: [
      [-9, 0, -4],
      [10, 0, 5],
    ],
  },
  {
    name: 'terrace',
    eye: [0, 34, -95],
    look: [0, 6, 0],
    angle: 32,
    light: [-0.45, 0.8, -0.4],
    size: 5 / 500,
    at: [
      [-9, 0, 4],
      [11, 0, -5],
    ],
  },
  {
    name: 'cellar',
    eye: [8, 26, -76],
    look: [1, 7, 0],
    angle: 36,
    light: [0.85, 0.42, -0.3],
    size: 16 / 120,
    at: [
      [-10, 0, 0],
      [9, 0, -3],
    ],
  },
  {
    name: 'cloth',
    eye: [-3, 36, -84],
    look: [0, 5, 0],
    angle: 34,
    light: [0.1, 1, -0.2],
    size: 110 / 200,
    at: [
      [-10, 0, 3],
      [10, 0, -4],
    ],
  },
  {
    name: 'ledge',
    eye: [2, 22, -82],
    look: [0, 7, 0],
    angle: 34,
    light: [-0.7, 0.42, 0.55],
    size: 22 / 400,
    at: [
      [-9, 0, -2],
      [11, 0, 4],
    ],
  },
  {
    name: 'alcove',
    eye: [-4, 29, -86],
    look: [0, 8, 0],
    angle: 34,
    light: [0.6, 0.5, -0.5],
    size: 26 / 260,
    at: [
      [-9, 0, 2],
      [11, 0, -3],
    ],
    /** How far away a wall stands. */
    wall: 17,
  },
  {
    name: 'porch',
    eye: [3, 30, -88],
    look: [0, 7, 0],
    angle: 34,
    light: [-0.5, 0.7, 0.45],
    size: 8 / 400,
    far: 400,
    at: [
      [-9, 0, 1],
      [10, 0, -3],
    ],
    /** Two corners of a roof that throws a shade. */
    roof: [
      [-120, 70, 0],
      [-48, 71, 90],
    ],
  },
  {
    name: 'pergola',
    eye: [-5, 31, -86],
    look: [0, 6, 0],
    angle: 34,
    light: [0.7, 0.8, -0.15],
    size: 10 / 400,
    far: 400,
    at: [
      [-10, 0, 2],
      [11, 0, -2],
    ],
    roof: [
      [62, 70, -50],
      [140, 71, 30],
    ],
  },
];
/** Item, its height in millimetres, its depth, and the side from which its photo was lit. */
const ITEMS = [
  { name: 'bowl', heightMm: 108, depthMm: 154, side: -1 },
  { name: 'parcel', heightMm: 115, depthMm: 103, side: -1 },
  { name: 'bottle', heightMm: 180, depthMm: 81, side: 1 },
  { name: 'mug', heightMm: 97, depthMm: 96, side: -1 },
  { name: 'squash', heightMm: 97, depthMm: 110, side: 1 },
  { name: 'house', heightMm: 137, depthMm: 118, side: 1 },
];
/** Which two items stand in which place. */
const PAIRS = [
  [0, 4],
  [2, 1],
  [3, 5],
  [4, 2],
  [5, 0],
  [1, 3],
  [2, 5],
  [0, 1],
  [1, 4],
];

const run = promisify(execFile);
const work = await mkdtemp(join(tmpdir(), 'truth-'));
await mkdir(out, { recursive: true });

/** One rendering, linear, 16 bits a channel. */
async function render(file, name, width, height, declared) {
  const png = join(work, `${name}.png`);
  const args = [
    `+I${file}`,
    `+O${png}`,
    `+W${width}`,
    `+H${height}`,
    '+FN16',
    'File_Gamma=1.0',
    '+A0.1',
    '+R3',
    '-D',
    '-GA',
    '+WT1',
    `+L${here}`,
    `+L${work}`,
  ];
  await run('nice', [
    '-n',
    '15',
    'povray',
    ...args,
    ...Object.entries(declared).map(([k, v]) => `Declare=${k}=${v}`),
  ]);
  const { data } = await sharp(png)
    .removeAlpha()
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  return Float32Array.from(new Uint16Array(data.buffer, data.byteOffset, data.length / 2), (v) => v / 65535);
}

const encode = (v) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
/** Bright light bent under white, as film and cameras do. */
const shoulder = (v) => (v < 0.8 ? v : 0.8 + 0.2 * (1 - Math.exp(-(v - 0.8) / 0.2)));

/** Linear light to the bytes of a photo: exposure, a soft shoulder, sRGB and a little grain. */
function develop(linear, exposure, seed) {
  let s = seed;
  const random = () => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return Buffer.from(
    Array.from(linear, (v) => {
      const noise = (random() + random() + random() - 1.5) * 2.2;
      return Math.max(0, Math.min(255, Math.round(encode(shoulder(v * exposure)) * 255 + noise)));
    }),
  );
}

/** The exposure at which this share of a picture stays under a lightness; a dark place stays dark. */
function exposureOf(linear, share, lightness) {
  const luma = Float32Array.from(
    { length: linear.length / 3 },
    (_, i) => 0.21 * linear[i * 3] + 0.72 * linear[i * 3 + 1] + 0.07 * linear[i * 3 + 2],
  ).sort();
  return Math.min(lightness / luma[Math.floor(share * (luma.length - 1))], 4);
}

const jpeg = (bytes, file) =>
  sharp(bytes, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
    .jpeg({ quality: 90, chromaSubsampling: '4:4:4' })
    .toFile(file);

const minus = (a, b) => a.map((v, i) => v - b[i]);
const cross = (a, b) => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const unit = (a) => a.map((v) => v / Math.hypot(...a));
const dot = (a, b) => a.reduce((sum, v, i) => sum + v * b[i], 0);

function project({ eye, look, angle }, point) {
  const forward = unit(minus(look, eye));
  const right = unit(cross([0, 1, 0], forward));
  const up = cross(forward, right);
  const d = minus(point, eye);
  const focal = WIDTH / 2 / Math.tan((angle * Math.PI) / 360);
  const round = (v) => Math.round(v * 100) / 100;
  return [
    round(WIDTH / 2 + (focal * dot(d, right)) / dot(d, forward)),
    round(HEIGHT / 2 - (focal * dot(d, up)) / dot(d, forward)),
  ];
}

/** Where the roof's shade lies on the ground of a place. */
function shadeOfRoof(place) {
  const lamp = unit(place.light).map((v) => v * place.far);
  const [[x0, y, z0], [x1, , z1]] = place.roof;
  return [
    [x0, z1],
    [x1, z1],
    [x1, z0],
    [x0, z0],
  ].map(([x, z]) => {
    const k = lamp[1] / (lamp[1] - y);
    return project(place, [lamp[0] + (x - lamp[0]) * k, 0, lamp[2] + (z - lamp[2]) * k]);
  });
}

function sideFile(place) {
  const [x, y, z] = unit(place.light);
  const corners = [
    [-15, 0, 12],
    [15, 0, 12],
    [15, 0, -12],
    [-15, 0, -12],
  ].map((c) => project(place, c));
  const degrees = (v) => Math.round((v * 1800) / Math.PI) / 10;
  return {
    name: place.name,
    title: place.name[0].toUpperCase() + place.name.slice(1),
    widthPx: WIDTH,
    heightPx: HEIGHT,
    kind: 'scene',
    plane: { corners, widthMm: 300, depthMm: 240 },
    ...(place.wall && { wallFoot: [-20, 20].map((at) => project(place, [at, 0, place.wall])) }),
    ...(place.roof && { shades: [shadeOfRoof(place)] }),
    standSpots: place.at.map((at, i) => {
      const [px, py] = project(place, at);
      return {
        id: i ? 'right' : 'left',
        x: px,
        y: py,
        pxPerMm: Math.round((py - project(place, [at[0], 10, at[2]])[1]) * 100) / 10000,
      };
    }),
    light: {
      azimuthDeg: degrees(Math.atan2(x, -z)),
      elevationDeg: degrees(Math.asin(y)),
      softness: Math.max(
        0,
        Math.min(1, Math.round(((Math.atan(place.size / 2) * 180) / Math.PI - 0.3) / 0.17) / 100),
      ),
    },
  };
}

async function makePlace(place, number) {
  const file = (kind) => join(out, `${place.name}${kind}`);
  await writeFile(file('.json'), `${JSON.stringify(sideFile(place), null, 1)}\n`);
  const camera = `camera { perspective location <${place.eye}> right x*4/3 up y angle ${place.angle} look_at <${place.look}> }\n#declare ROOF_FROM = <${place.roof?.[0] ?? [0, 0, 0]}>;\n#declare ROOF_TO = <${place.roof?.[1] ?? [0, 0, 0]}>;\n`;
  let exposure = 0;
  const shots = [
    ['.jpg', 0, null],
    ...PAIRS[number].map((item, i) => [`-${ITEMS[item].name}.jpg`, item + 1, place.at[i]]),
  ];
  for (const [kind, item, at] of shots) {
    // The empty place sets the exposure for those with an item.
    if (
      existsSync(file(kind)) &&
      (at || PAIRS[number].every((i) => existsSync(file(`-${ITEMS[i].name}.jpg`))))
    )
      continue;
    await writeFile(join(work, 'camera.inc'), `${camera}#declare AT = <${at ?? [0, 0, 0]}>;\n`);
    const linear = await render(join(here, 'place.pov'), place.name, WIDTH, HEIGHT, {
      PLACE: number + 1,
      WITH: at ? 1 : 0,
      ITEM: item || 1,
    });
    exposure ||= exposureOf(linear, 0.97, 0.85);
    await jpeg(develop(linear, exposure, number * 100 + item + 1), file(kind));
    console.log(file(kind));
  }
}

async function makeItem({ name, side }, number) {
  const file = join(out, `${name}.cutout.png`);
  if (existsSync(file)) return;
  const declared = { ITEM: number + 1, SIDE: side };
  const [w, h] = [1200, 900];
  const matte = await render(join(here, 'studio.pov'), `${name}-matte`, w, h, { ...declared, MATTE: 1 });
  const linear = await render(join(here, 'studio.pov'), name, w, h, declared);
  const photo = develop(linear, exposureOf(linear, 0.9, 0.88), number + 7);
  const rgba = Buffer.alloc(w * h * 4);
  for (let i = 0; i < w * h; i++) {
    photo.copy(rgba, i * 4, i * 3, i * 3 + 3);
    rgba[i * 4 + 3] = Math.round(matte[i * 3] * 255);
  }
  await sharp(rgba, { raw: { width: w, height: h, channels: 4 } })
    .trim({ background: '#00000000', threshold: 1 })
    .png({ compressionLevel: 9 })
    .toFile(file);
  console.log(file);
}

const printed = join(here, '..', 'printed');

/** A pattern that shows where it lies: rings, a ruled border, letters' strokes and patches of colour. */
async function drawPattern(width, height) {
  const patches = ['#b3372f', '#1f5f78', '#d9a441', '#2f6b3c', '#6a4a86', '#d07a4a'];
  const cell = width / 6;
  const parts = [];
  for (let y = 0; y * cell < height; y++)
    for (let x = 0; x < 6; x++)
      if ((x + y) % 2)
        parts.push(
          `<rect x="${x * cell}" y="${y * cell}" width="${cell}" height="${cell}" fill="${patches[(x * 7 + y * 3) % 6]}"/>`,
        );
      else
        parts.push(
          `<circle cx="${(x + 0.5) * cell}" cy="${(y + 0.5) * cell}" r="${cell * 0.33}" fill="none" stroke="#22303a" stroke-width="${cell * 0.09}"/>`,
        );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="#f2efe8"/>${parts.join('')}<rect x="6" y="6" width="${width - 12}" height="${height - 12}" fill="none" stroke="#22303a" stroke-width="10"/></svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

async function makePrinted(item, number) {
  const file = (kind) => join(printed, `${item.name}${kind}`);
  await mkdir(printed, { recursive: true });
  const edges = edgesOf(item.whole, item.area);
  const camera = { eye: item.eye, look: item.look, angle: item.angle };
  const seen = (places) => places.map((p) => project(camera, p));
  const [top, bottom] = [seen(edges.top), seen(edges.bottom)];
  const [x, y, z] = unit(item.to);
  const degrees = (v) => Math.round((v * 1800) / Math.PI) / 10;
  const [mmWidth, mmHeight] = [edges.width, edges.height].map((v) => Math.round(v * 100) / 10);
  const side = {
    name: item.name,
    title: item.name[0].toUpperCase() + item.name.slice(1),
    widthPx: WIDTH,
    heightPx: HEIGHT,
    kind: 'mockup',
    plane: {
      corners: [
        [-10, 0, 10],
        [10, 0, 10],
        [10, 0, -12],
        [-10, 0, -12],
      ].map((c) => project(camera, c)),
      widthMm: 200,
      depthMm: 220,
    },
    light: {
      azimuthDeg: degrees(Math.atan2(x, -z)),
      elevationDeg: degrees(Math.asin(y)),
      softness: Math.round(((Math.atan(item.size / 300) * 180) / Math.PI - 0.3) / 0.17) / 100,
    },
    printAreas: [
      {
        id: 'front',
        title: 'Front',
        shape: item.shape,
        corners: [top[0], top[8], bottom[8], bottom[0]],
        ...(item.shape === 'curve' ? { edges: { top, bottom } } : {}),
        widthMm: mmWidth,
        heightMm: mmHeight,
        ...(item.wrapDeg ? { wrapDeg: item.wrapDeg } : {}),
        material: item.material,
      },
    ],
  };
  await writeFile(file('.json'), `${JSON.stringify(side, null, 1)}\n`);
  const pattern = await drawPattern(900, Math.round((900 * mmHeight) / mmWidth));
  await writeFile(file('.pattern.png'), pattern);
  await writeFile(join(work, 'pattern.png'), pattern);
  await writeFile(
    join(work, 'camera.inc'),
    `camera { perspective location <${item.eye}> right x*4/3 up y angle ${item.angle} look_at <${item.look}> }\n#declare TO = <${item.to}>; #declare SIZE = ${item.size}; #declare COLOUR = <1,0.96,0.9>*2; #declare GROUND = <0.5,0.4,0.3>; #declare GRAIN = ${number * 5 + 2}; #declare WALL = <0.6,0.62,0.6>;\n#declare STOCK = texture { pigment { granite color_map { [0 rgb <${item.stock.map((v) => v * 0.93)}>] [1 rgb <${item.stock}>] } scale 1.5 } normal { granite 0.03 scale 0.8 } finish { diffuse 0.8 } };\n`,
  );
  await writeFile(
    join(work, 'item.inc'),
    meshOf('Whole', item.whole, [-1, 1, 0, 1], 0, 96) + meshOf('Area', item.whole, item.area, 0.02, 96),
  );
  let exposure = 0;
  for (const [kind, print] of [
    ['.jpg', 0],
    ['-printed.jpg', 1],
  ]) {
    if (existsSync(file('.jpg')) && existsSync(file('-printed.jpg'))) continue;
    const linear = await render(join(here, 'print.pov'), item.name, WIDTH, HEIGHT, { PRINT: print });
    exposure ||= exposureOf(linear, 0.97, 0.85);
    await jpeg(develop(linear, exposure, number * 10 + print + 500), file(kind));
    console.log(file(kind));
  }
}

const plates = join(here, '..', 'plates');
const PLATES = ['bricks', 'boards', 'terrazzo', 'tiles', 'grass', 'pebbles', 'stripes', 'worktop'];

async function makePlate(name, number) {
  const file = join(plates, `${name}.jpg`);
  if (existsSync(file)) return;
  await mkdir(plates, { recursive: true });
  const linear = await render(join(here, 'plate.pov'), name, WIDTH, HEIGHT, { PLATE: number + 1 });
  await jpeg(develop(linear, exposureOf(linear, 0.97, 0.85), number + 900), file);
  console.log(file);
}

const only = process.argv[2];
for (const [i, name] of PLATES.entries()) if (!only || only === name) await makePlate(name, i);
for (const [i, item] of PRINTED.entries()) if (!only || only === item.name) await makePrinted(item, i);
for (const [i, item] of ITEMS.entries()) if (!only || only === item.name) await makeItem(item, i);
for (const [i, place] of PLACES.entries()) if (!only || only === place.name) await makePlace(place, i);
const pairs = PLACES.flatMap((place, i) =>
  PAIRS[i].map((item, k) => ({
    place: place.name,
    spot: k ? 'right' : 'left',
    item: { ...ITEMS[item], side: undefined },
  })),
);
await writeFile(join(out, 'pairs.json'), `${JSON.stringify(pairs, null, 1)}\n`);
await rm(work, { recursive: true });
