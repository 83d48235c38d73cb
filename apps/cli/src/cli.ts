import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, rename, writeFile } from 'node:fs/promises';
import { basename, dirname, extname, join, resolve } from 'node:path';
import { cutOut, NoProductError } from '@scenograph/core/cutout/index';
import { ByteLimitError } from '@scenograph/core/delivery/byte-budget';
import { needsOf } from '@scenograph/core/paint/paint-shot';
import { alphaPlane, type Plane } from '@scenograph/core/raster/pixels';
import { resize } from '@scenograph/core/raster/resample';
import { readShot } from '@scenograph/core/shot/document';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { runChecks, worst } from '@scenograph/core/spec/checks/index';
import { readSlot, type Format, type Slot } from '@scenograph/core/spec/slot';
import { encodeGreyPng, encodePicture, encodePng } from '@scenograph/host-node/encode';
import { createPainter } from '@scenograph/host-node/painter';
import { decodePicture, RefusedPicture, takePicture } from '@scenograph/host-node/read-picture';
import { Command, InvalidArgumentError } from 'commander';

/** Exit codes: 0 done, 1 the input cannot be used (a sentence on stderr), 2 wrong usage, 3 a check stops the picture. */
const BAD_INPUT = 1;
const WRONG_USAGE = 2;
const STOPPED = 3;

/** A sentence for the user; anything else that is thrown is a fault of ours. */
class Unusable extends Error {}

const program = new Command('scenograph')
  .description(
    'Cut out products, render shots and check pictures, without a screen. Results are JSON on stdout.',
  )
  .version('0.1.0')
  .addHelpText(
    'after',
    `
Exit codes:
  0  done
  1  the input cannot be used; a sentence on stderr says why
  2  wrong usage
  3  check: the picture breaks a rule of the slot`,
  )
  .exitOverride((error) => process.exit(error.exitCode === 0 ? 0 : WRONG_USAGE));

program
  .command('cutout')
  .description('isolate the product in a photo and write it as PNG, trimmed, with clean edges')
  .argument('<photo>', 'JPEG, PNG, WebP, TIFF or AVIF')
  .requiredOption('-o, --output <file>', 'the cutout, PNG')
  .option('--matte <file>', 'the matte too, 8-bit grey PNG at the size of the photo')
  .option('--no-holes', 'fill openings inside the product')
  .option('--no-shadows', 'count soft shadows as product')
  .action(
    async (photo: string, options: { output: string; matte?: string; holes: boolean; shadows: boolean }) => {
      const started = performance.now();
      const bytes = await readFile(photo);
      const taken = await takePicture(basename(photo), bytes);
      const pixels = await decodePicture(taken.working?.bytes ?? bytes);
      const { image, bounds, matte, confidence } = cutOut(pixels, options);
      await write(options.output, await encodePng(image));
      if (options.matte) await write(options.matte, await encodeGreyPng(matte));
      print({
        output: options.output,
        ...(options.matte ? { matte: options.matte } : {}),
        photo: { width: pixels.width, height: pixels.height },
        bounds,
        confidence: round(confidence, 3),
        notes: taken.notes,
        milliseconds: Math.round(performance.now() - started),
      });
    },
  );

program
  .command('render')
  .description('paint a shot at a size and write it as JPEG, PNG or WebP')
  .argument('<shot>', 'a shot document (JSON)')
  .requiredOption('--assets <dir>', 'the folder with the pictures that the shot names by content hash')
  .requiredOption(
    '--size <WxH>',
    'size in pixels, such as 2000x1500; another shape than the base is fitted by rule',
    readSize,
  )
  .requiredOption('-o, --output <file>', 'ends in .jpg, .png or .webp')
  .option('--max-bytes <n>', 'search the quality so that the file stays within this', readCount)
  .action(
    async (
      file: string,
      options: { assets: string; size: { width: number; height: number }; output: string; maxBytes?: number },
    ) => {
      const started = performance.now();
      const format = formatOf(options.output);
      const text = await readFile(file, 'utf8');
      const shot = explain(file, () => readShot(parseJson(file, text)));
      const { width, height } = options.size;
      const sameShape = Math.abs(width / height - shot.frame.width / shot.frame.height) < 0.002;
      const resolved = sameShape
        ? resolveBase(shot, null)
        : resolveForSlot(shot, '', plainSlot(width, height), null);
      const assets = await findAssets(options.assets, needsOf(resolved).pictures);
      const painter = createPainter((hash) => readFile(assets.get(hash)!));
      const scale = sameShape ? Math.max(width / resolved.width, height / resolved.height) : 1;
      const painted = await painter.paint(resolved, { scale });
      let pixels = painted.pixels();
      if (pixels.width !== width || pixels.height !== height) pixels = resize(pixels, width, height);
      const { bytes, quality } = await encodePicture(pixels, format, options.maxBytes);
      await write(options.output, bytes);
      print({
        output: options.output,
        width,
        height,
        format,
        quality,
        bytes: bytes.length,
        sha256: createHash('sha256').update(bytes).digest('hex'),
        missing: resolved.missing,
        milliseconds: Math.round(performance.now() - started),
      });
    },
  );

program
  .command('check')
  .description('measure a finished picture against a slot; exit code 3 when it breaks a rule')
  .argument('<picture>', 'JPEG, PNG or WebP')
  .requiredOption('--slot <file>', "the slot's specification (JSON)")
  .action(async (picture: string, options: { slot: string }) => {
    const bytes = await readFile(picture);
    const taken = await takePicture(basename(picture), bytes);
    const pixels = await decodePicture(taken.working?.bytes ?? bytes);
    const slot = await loadSlot(options.slot);
    const { products, found } = productsIn(pixels);
    const checks = runChecks({
      slot,
      slotKey: slot.id,
      width: pixels.width,
      height: pixels.height,
      picture: pixels,
      products,
      shot: null,
      sources: new Map(),
    });
    const wrongFormat = !slot.formats.includes(taken.format as Format);
    checks.push({
      check: 'format',
      title: 'Format',
      verdict: wrongFormat ? 'stop' : 'pass',
      measured: taken.format,
      limit: slot.formats.join(', '),
      sentence: wrongFormat ? `The slot takes ${slot.formats.join(', ')}.` : 'The slot takes this format.',
    });
    const tooLarge = bytes.length > slot.maxBytes;
    checks.push({
      check: 'bytes',
      title: 'File size',
      verdict: tooLarge ? 'stop' : 'pass',
      measured: `${bytes.length} bytes`,
      limit: `at most ${slot.maxBytes} bytes`,
      sentence: tooLarge
        ? `The file is ${bytes.length - slot.maxBytes} bytes too large.`
        : 'The file is small enough.',
    });
    const verdict = worst(checks);
    print({ picture, slot: slot.id, verdict, productFound: found, checks });
    if (verdict === 'stop') process.exitCode = STOPPED;
  });

/** Where the product is in a finished picture: found by cutting it out again. */
function productsIn(pixels: Awaited<ReturnType<typeof decodePicture>>): { products: Plane; found: boolean } {
  try {
    return { products: cutOut(pixels).matte, found: true };
  } catch (error) {
    if (!(error instanceof NoProductError)) throw error;
    const none = alphaPlane({ ...pixels, data: new Uint8ClampedArray(pixels.data.length) });
    return { products: none, found: false };
  }
}

async function loadSlot(file: string): Promise<Slot> {
  const text = await readFile(file, 'utf8');
  return explain(file, () => readSlot(parseJson(file, text)));
}

/** Everything a hash may be found as: by name first, else by what the file holds. */
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
    throw new Unusable(
      `${missing.length} of ${hashes.length} pictures that the shot names are not in ${folder}: ${missing.join(', ')}.`,
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

function parseJson(file: string, text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Unusable(`${file} is not valid JSON.`);
  }
}

function explain<T>(file: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw error instanceof Unusable ? error : new Unusable(`${file}: ${(error as Error).message}`);
  }
}

function formatOf(file: string): Format {
  const found = ({ '.jpg': 'jpeg', '.jpeg': 'jpeg', '.png': 'png', '.webp': 'webp' } as const)[
    extname(file).toLowerCase() as '.jpg'
  ];
  if (!found) throw new Unusable(`"${file}" must end in .jpg, .png or .webp, which says the format.`);
  return found;
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

/** Written beside its place and moved there: a run that is broken off leaves no half file. */
async function write(file: string, bytes: Uint8Array): Promise<void> {
  await mkdir(dirname(resolve(file)), { recursive: true });
  const beside = `${file}.${process.pid}.part`;
  await writeFile(beside, bytes);
  await rename(beside, file);
}

function print(value: unknown): void {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
}

function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}

try {
  await program.parseAsync();
} catch (error) {
  const known =
    error instanceof Unusable ||
    error instanceof RefusedPicture ||
    error instanceof NoProductError ||
    error instanceof ByteLimitError;
  const code = (error as NodeJS.ErrnoException).code;
  const path = (error as NodeJS.ErrnoException).path ?? '';
  if (known) console.error((error as Error).message);
  else if (code === 'ENOENT') console.error(`There is no file or folder "${path}".`);
  else if (code === 'EISDIR') console.error(`"${path || 'That'}" is a folder; a file is needed.`);
  else if (code === 'EACCES') console.error(`"${path}" may not be read or written.`);
  else console.error(`Something went wrong: ${(error as Error).message}`);
  process.exitCode = BAD_INPUT;
}
