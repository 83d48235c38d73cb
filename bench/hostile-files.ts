import { zlibSync, zipSync } from 'fflate';
import { crc32 } from 'node:zlib';
import { readdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { seededRandom } from '@scenograph/core/raster/random';
import sharp from 'sharp';

/** A file as somebody might send it, by accident or on purpose, and the address that it is sent to. */
export interface HostileFile {
  kind: string;
  name: string;
  to: string;
  bytes: Buffer;
}

const svg = (body: string, root = 'viewBox="0 0 100 100"') =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${root}>${body}</svg>`);

const to = {
  photo: '/api/photos',
  artwork: '/api/artwork',
  picture: '/api/pictures',
  font: '/api/fonts',
  scene: '/api/scenes',
  scenes: '/api/scenes/import',
};

/** A PNG of which only the header tells how large it is. */
function pngOf(width: number, height: number, data = new Uint8Array(100)): Buffer {
  const chunk = (type: string, body: Uint8Array) => {
    const typed = Buffer.concat([Buffer.from(type, 'latin1'), body]);
    const out = Buffer.alloc(typed.length + 8);
    out.writeUInt32BE(body.length, 0);
    typed.copy(out, 4);
    out.writeUInt32BE(crc32(typed), typed.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 6, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', zlibSync(data)),
    chunk('IEND', new Uint8Array()),
  ]);
}

/** A WOFF whose only table unpacks to `length` bytes of nothing. */
function woffOf(length: number, told = length): Buffer {
  const packed = zlibSync(new Uint8Array(length));
  const out = Buffer.alloc(64 + packed.length);
  out.write('wOFF', 0, 'latin1');
  out.writeUInt32BE(0x00010000, 4);
  out.writeUInt32BE(out.length, 8);
  out.writeUInt16BE(1, 12);
  out.write('cmap', 44, 'latin1');
  out.writeUInt32BE(64, 48);
  out.writeUInt32BE(packed.length, 52);
  out.writeUInt32BE(told, 56);
  out.set(packed, 64);
  return out;
}

function nested(levels: number, times: number): Buffer {
  const groups = Array.from(
    { length: levels },
    (_, n) => `<g id="g${n + 1}">${`<use href="#g${n}"/>`.repeat(times)}</g>`,
  );
  return svg(`<defs><path id="g0" d="M0 0h9v9z"/>${groups.join('')}</defs><use href="#g${levels}"/>`);
}

const filtered = (filter: string, times = 1) =>
  svg(
    `<filter id="f" x="-5" y="-5" width="11" height="11">${filter}</filter>${'<g filter="url(#f)">'.repeat(times)}<rect width="100" height="100"/>${'</g>'.repeat(times)}`,
    'width="4000" height="4000" viewBox="0 0 100 100"',
  );

/** What stops a reader that trusts its file, each in growing sizes by `n`. */
const BOMBS: Record<string, (n: number) => Omit<HostileFile, 'kind'>> = {
  'nested use': (n) => ({ name: 'a.svg', to: to.artwork, bytes: nested(4 + n, 10) }),
  'nested use within the limit': (n) => ({ name: 'a.svg', to: to.artwork, bytes: nested(4, 12 + n) }),
  'blur in blur': (n) => ({
    name: 'a.svg',
    to: to.artwork,
    bytes: filtered('<feGaussianBlur stdDeviation="400"/>'.repeat(20), 4 * n + 1),
  }),
  noise: (n) => ({
    name: 'a.svg',
    to: to.picture,
    bytes: filtered('<feTurbulence baseFrequency="0.9" numOctaves="200"/>'.repeat(10 * n + 1), n + 1),
  }),
  'letters without end': (n) => ({
    name: 'a.svg',
    to: to.artwork,
    bytes: svg(`<text font-size="3">${'word '.repeat(4000 * (n + 1))}</text>`),
  }),
  'letters within the limit, filtered': (n) => ({
    name: 'a.svg',
    to: to.artwork,
    bytes: filtered(`<feMorphology operator="dilate" radius="${50 * (n + 1)}"/>`, 3),
  }),
  'embedded pictures': (n) => ({
    name: 'a.svg',
    to: to.picture,
    bytes: svg(
      `<image href="data:image/png;base64,${pngOf(9000, 6000, new Uint8Array(9000 * 100 * (n + 1))).toString('base64')}" width="9" height="9"/>`.repeat(
        n + 1,
      ),
    ),
  }),
  'many style sheets': (n) => ({
    name: 'a.svg',
    to: to.artwork,
    bytes: svg('<style/><path class="a" d="M0 0h9v9z"/>'.repeat(3000 * (n + 1))),
  }),
  'a size without end': (n) => ({
    name: 'a.svg',
    to: to.artwork,
    bytes: svg('<rect width="9" height="9"/>', `width="1e${n + 3}" height="1"`),
  }),
  'a pattern of patterns': (n) => ({
    name: 'a.svg',
    to: to.artwork,
    bytes: svg(
      `${Array.from({ length: 5 + n }, (_, i) => `<pattern id="p${i + 1}" width="0.01" height="0.01">${`<rect width="100" height="100" fill="url(#p${i})"/>`.repeat(8)}</pattern>`).join('')}<rect width="100" height="100" fill="url(#p${5 + n})"/>`,
    ),
  }),
  'a font that unpacks to much': (n) => ({
    name: 'a.woff',
    to: to.font,
    bytes: woffOf(60_000_000 * (n + 1)),
  }),
  'a font that lies': (n) => ({ name: 'a.woff', to: to.font, bytes: woffOf(80_000_000, 1000 * (n + 1)) }),
  'one row of pixels': (n) => ({ name: 'a.png', to: to.photo, bytes: pngOf(1, 50_000_000 + n) }),
  'pixels without end': (n) => ({ name: 'a.png', to: to.photo, bytes: pngOf(60_000 + n, 60_000) }),
  'sixty megapixels of nothing': (n) => ({
    name: 'a.png',
    to: to.photo,
    bytes: pngOf(10_000, 5_900 + n, new Uint8Array(40_001 * 1000)),
  }),
  'a ZIP of nothing': (n) => ({
    name: 'a.zip',
    to: to.scenes,
    bytes: Buffer.from(zipSync({ 'a.json': new Uint8Array(40_000_000 * (n + 1)) })),
  }),
  'a ZIP of many': (n) => ({
    name: 'a.zip',
    to: to.scenes,
    bytes: Buffer.from(
      zipSync(
        Object.fromEntries(
          Array.from({ length: 1500 * (n + 1) }, (_, i) => [`${i}.json`, new Uint8Array(2)]),
        ),
      ),
    ),
  }),
  'deep JSON': (n) => ({
    name: 'a.zip',
    to: to.scenes,
    bytes: Buffer.from(
      zipSync({ 'a.json': Buffer.from('['.repeat(200_000 * (n + 1))), 'a.jpg': new Uint8Array(9) }),
    ),
  }),
};

/** `count` bombs of all kinds in turn. */
export function* bombs(count: number): Generator<HostileFile> {
  const kinds = Object.entries(BOMBS);
  for (let i = 0; i < count; i++) {
    const [kind, make] = kinds[i % kinds.length];
    yield { kind, ...make(Math.floor(i / kinds.length)) };
  }
}

/** Whole files of every kind that is taken in; what is sent are these, broken. */
async function seeds(root: string): Promise<Omit<HostileFile, 'kind'>[]> {
  const noise = {
    create: {
      width: 64,
      height: 48,
      channels: 3 as const,
      background: '#a87',
      noise: { type: 'gaussian' as const, mean: 128, sigma: 30 },
    },
  };
  const picture = sharp(await sharp(noise).png().toBuffer());
  const fonts = join(root, 'packages/core/type/fonts');
  const font = readdirSync(fonts).find((f) => /[.](ttf|otf|woff2?)$/.test(f))!;
  const side = await readFile(join(root, 'demo/assets/scenes/winter-table.json'));
  const design = svg(
    '<style>.a{fill:#123}</style><g id="g"><path class="a" d="M0 0h50v50z"/></g><use href="#g" x="9"/><text y="80">Fern</text>',
  );
  const png = await picture.clone().png().toBuffer();
  return [
    { name: 'a.jpg', to: to.photo, bytes: await picture.clone().jpeg().toBuffer() },
    { name: 'a.png', to: to.photo, bytes: png },
    { name: 'a.webp', to: to.photo, bytes: await picture.clone().webp().toBuffer() },
    { name: 'a.tif', to: to.photo, bytes: await picture.clone().tiff().toBuffer() },
    { name: 'a.avif', to: to.scene, bytes: await picture.clone().avif().toBuffer() },
    { name: 'a.svg', to: to.artwork, bytes: design },
    { name: 'a.svg', to: to.picture, bytes: design },
    { name: `a${font.slice(font.lastIndexOf('.'))}`, to: to.font, bytes: await readFile(join(fonts, font)) },
    { name: 'a.zip', to: to.scenes, bytes: Buffer.from(zipSync({ 'a.json': side, 'a.png': png })) },
  ];
}

/**
 * `count` files broken in many ways: bytes changed, cut out, doubled, filled, the end missing, another name, or none of
 * it. The same for the same seed.
 * @param root the project's folder, whose demo files are broken
 */
export async function* brokenFiles(root: string, count: number, seed: number): AsyncGenerator<HostileFile> {
  const random = seededRandom(seed);
  const whole = (n: number) => Math.floor(random() * n);
  const list = await seeds(root);
  for (let i = 0; i < count; i++) {
    const { name, to: address, bytes } = list[i % list.length];
    let made = Buffer.from(bytes);
    for (let changes = whole(4); changes >= 0 && made.length > 4; changes--) {
      // Half of all changes are in the head, where a file says what it is.
      const at = whole(random() < 0.5 ? Math.min(64, made.length) : made.length);
      const length = 1 + whole(Math.min(40, made.length - at));
      switch (whole(6)) {
        case 0:
          made[at] = whole(256);
          break;
        case 1:
          made.fill(random() < 0.5 ? 0 : 255, at, at + length);
          break;
        case 2:
          made = Buffer.concat([made.subarray(0, at), made.subarray(at + length)]);
          break;
        case 3:
          made = Buffer.concat([made.subarray(0, at + length), made.subarray(at)]);
          break;
        case 4:
          made = made.subarray(0, Math.max(1, at));
          break;
        default:
          if (made.length >= at + 4) made.writeUInt32BE(0xffff_fff0 + whole(15), at);
      }
    }
    const odd = random() < 0.05 ? `${'ü'.repeat(1 + whole(80))}${name.slice(1)}` : name;
    yield { kind: name.slice(2), name: odd, to: address, bytes: made };
  }
}
