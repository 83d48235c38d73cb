import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { InvalidArgumentError, type Command } from 'commander';
import { needsOf } from '@scenograph/core/paint/paint-shot';
import { resize } from '@scenograph/core/raster/resample';
import { readProductData } from '@scenograph/core/data/product-data';
import { readKnownShot } from '@scenograph/core/shot/document';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { readSlot, type Format, type Slot } from '@scenograph/core/spec/slot';
import { ownFontHash } from '@scenograph/core/type/catalogue';
import { createPainter } from '@scenograph/host-node/painter';
import { explain, parseJson, print, InputError, writePicture } from './common';

interface Options {
  assets: string;
  size: { width: number; height: number };
  data?: string;
  output: string;
  maxBytes?: number;
}

/** `scenograph render`: a shot painted at a size, filled from product data where it is given. */
export function addRenderCommand(program: Command, formatOf: (file: string) => Format): void {
  program
    .command('render')
    .description('paint a shot at a size and write it as JPEG, PNG or WebP')
    .argument('<shot>', 'a shot document (JSON)')
    .requiredOption(
      '--assets <dir>',
      'the folder with the pictures and fonts that the shot names by content hash',
    )
    .requiredOption(
      '--size <WxH>',
      'size in pixels, such as 2000x1500; another shape than the base is fitted by rule',
      readSize,
    )
    .option(
      '--data <file>',
      'product data and brand kit (JSON) that texts, prices and the brand are filled from',
    )
    .requiredOption('-o, --output <file>', 'ends in .jpg, .png or .webp')
    .option('--max-bytes <n>', 'search the quality so that the file stays within this', readCount)
    .action(async (file: string, options: Options) => {
      const started = performance.now();
      const format = formatOf(options.output);
      const read = async <T>(from: string, of: (value: unknown) => T) => {
        const text = await readFile(from, 'utf8');
        return explain(from, () => of(parseJson(from, text)));
      };
      const shot = await read(file, readKnownShot);
      const data = options.data ? await read(options.data, readProductData) : null;
      const { width, height } = options.size;
      const sameShape = Math.abs(width / height - shot.frame.width / shot.frame.height) < 0.002;
      const resolved = sameShape
        ? resolveBase(shot, data)
        : resolveForSlot(shot, '', plainSlot(width, height), data);
      const { pictures, fonts } = needsOf(resolved);
      const own = fonts.map(ownFontHash).filter((hash): hash is string => hash !== null);
      const assets = await findAssets(options.assets, [...pictures, ...own]);
      const painter = createPainter((hash) => readFile(assets.get(hash)!));
      const scale = sameShape ? Math.max(width / resolved.width, height / resolved.height) : 1;
      const painted = await painter.paint(resolved, { scale });
      let pixels = painted.pixels();
      if (pixels.width !== width || pixels.height !== height) pixels = resize(pixels, width, height);
      const { bytes, told } = await writePicture(options.output, pixels, format, options.maxBytes);
      print({
        ...told,
        bytes: bytes.length,
        sha256: createHash('sha256').update(bytes).digest('hex'),
        missing: resolved.missing,
        dropped: resolved.dropped ?? [],
        milliseconds: Math.round(performance.now() - started),
      });
    });
}

function readSize(text: string): { width: number; height: number } {
  const match = /^(\d{1,5})x(\d{1,5})$/i.exec(text);
  const size = match && { width: Number(match[1]), height: Number(match[2]) };
  if (!size || size.width < 16 || size.height < 16 || size.width > 12000 || size.height > 12000)
    throw new InvalidArgumentError(
      'Write it as WIDTHxHEIGHT, each 16 to 12000 pixels, for example 2000x1500.',
    );
  return size;
}

function readCount(text: string): number {
  const n = Number(text);
  if (!Number.isInteger(n) || n < 1024)
    throw new InvalidArgumentError('A whole number of bytes, 1024 or more.');
  return n;
}

/** The pictures and fonts of a folder by content hash, as their names say or else as their bytes do. */
async function findAssets(folder: string, hashes: string[]): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  const files = (await readdir(folder, { withFileTypes: true }))
    .filter((f) => f.isFile())
    .map((f) => join(folder, f.name));
  for (const file of files) {
    const name = basename(file, extname(file)).toLowerCase();
    if (hashes.includes(name)) found.set(name, file);
  }
  if (found.size < hashes.length)
    for (const file of files) {
      const hash = createHash('sha256')
        .update(await readFile(file))
        .digest('hex');
      if (hashes.includes(hash)) found.set(hash, file);
    }
  const missing = hashes.filter((h) => !found.has(h));
  if (missing.length)
    throw new InputError(
      `${missing.length} of ${hashes.length} files that the shot names are not in ${folder}: ${missing.join(', ')}.`,
    );
  return found;
}

function plainSlot(width: number, height: number): Slot {
  return readSlot({
    id: 'size',
    title: 'Size',
    width,
    height,
    formats: ['jpeg'],
    maxBytes: 1e9,
    background: { kind: 'any' },
  });
}
