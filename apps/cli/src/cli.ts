import { readFile } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import { verdictOf } from '@scenograph/core/cutout/confidence';
import { cutOut, NoProductError } from '@scenograph/core/cutout/index';
import type { OwnShadow } from '@scenograph/core/cutout/own-shadow';
import { PLAIN_EDGE, PLAIN_RECIPE, type CutoutRecipe, type Step } from '@scenograph/core/cutout/recipe';
import { ByteLimitError } from '@scenograph/core/delivery/byte-budget';
import { alphaPlane, createRgba, type Plane, type Rect, type Rgba } from '@scenograph/core/raster/pixels';
import { resize } from '@scenograph/core/raster/resample';
import { runChecks, worst } from '@scenograph/core/spec/checks/index';
import { readSlot, type Format, type Slot } from '@scenograph/core/spec/slot';
import { encodeGreyPng, encodePng } from '@scenograph/host-node/encode';
import { decodeGrey, decodePicture, RefusedPicture, takePicture } from '@scenograph/host-node/read-picture';
import { loadSegmentationModel } from '@scenograph/host-node/segmentation-model';
import { Command, InvalidArgumentError } from 'commander';
import { explain, parseJson, print, round, InputError, write } from './common';
import { addFillCommand } from './fill-command';
import { addPrintCommand } from './print-command';
import { addRenderCommand } from './render-command';
import { addStageCommand } from './stage-command';
import { inSandbox } from './in-sandbox';

/** Exit codes: 0 done, 1 the input cannot be used (a sentence on stderr), 2 wrong usage, 3 a check stops the picture. */
const BAD_INPUT = 1;
const WRONG_USAGE = 2;
const STOPPED = 3;

interface CutoutCommand {
  output: string;
  matte?: string;
  holes: boolean;
  shadows: boolean;
  glass?: boolean;
  box?: Rect;
  at: [number, number][];
  edgeShift?: number;
  soften?: number;
  keep: [number, number, number][];
  drop: [number, number, number][];
  fromOutline?: string;
  shadow?: string;
}

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
  .option(
    '--glass',
    'clear glass: measure its opacity against the plain backdrop (found by itself when left out)',
  )
  .option('--no-glass', 'nothing is seen through the product')
  .option('--box <x,y,w,h>', 'a box round the product, in pixels of the photo', readBox)
  .option('--at <x,y>', 'a place on the product; may be given again', gather(readPlace), [])
  .option(
    '--edge-shift <px>',
    'move the edge out (above 0) or in, in pixels of the photo',
    readLength(-40, 40),
  )
  .option('--soften <px>', 'soften the edge by this many pixels', readLength(0, 60))
  .option('--keep <x,y,r>', 'a round keep stroke; may be given again', gather(readSpot), [])
  .option('--drop <x,y,r>', 'a round drop stroke; may be given again', gather(readSpot), [])
  .option('--from-outline <file>', 'start from this outline (grey PNG or SVG) in place of the automatic one')
  .option('--shadow <file>', "the camera's own shadow, black with alpha, PNG at the size of the photo")
  .action(async (photo: string, options: CutoutCommand) => {
    const started = performance.now();
    // Compiled beside the reading of the photo; a photo that cannot be read is what is told first.
    const model = loadSegmentationModel();
    model.catch(() => undefined);
    const bytes = await readFile(photo);
    const taken = await takePicture(basename(photo), bytes);
    const pixels = await decodePicture(taken.working?.bytes ?? bytes);
    const read = performance.now();
    const outlines = new Map<string, Plane>();
    const steps: Step[] = [];
    if (options.fromOutline) {
      const hash = '0'.repeat(64);
      outlines.set(hash, await readOutline(options.fromOutline, pixels));
      steps.push({ id: 'outline', name: 'Outline', on: true, kind: 'outline', mode: 'replace', matte: hash });
    }
    for (const side of ['keep', 'drop'] as const)
      for (const [i, [x, y, radius]] of options[side].entries())
        steps.push({
          id: `${side}-${i}`,
          name: side,
          on: true,
          kind: 'stroke',
          side,
          points: [[x, y]],
          radius,
        });
    const recipe: CutoutRecipe = {
      ...PLAIN_RECIPE,
      automatic: {
        on: true,
        holes: options.holes,
        shadows: options.shadows,
        glass: options.glass ?? 'auto',
        box: options.box ?? null,
        at: options.at,
      },
      edge: { ...PLAIN_EDGE, shift: options.edgeShift ?? 0, soften: options.soften ?? 0 },
      ownShadow: options.shadow !== undefined,
      steps,
    };
    const { image, bounds, matte, confidence, doubts, shadow } = await cutOut(
      pixels,
      recipe,
      await model,
      outlines,
    );
    const cut = performance.now();
    await write(options.output, await encodePng(image));
    if (options.matte) await write(options.matte, await encodeGreyPng(matte));
    if (options.shadow) await write(options.shadow, await shadowPicture(shadow, pixels));
    print({
      output: options.output,
      ...(options.matte ? { matte: options.matte } : {}),
      ...(options.shadow ? { shadow: options.shadow, shadowFound: shadow !== null } : {}),
      photo: { width: pixels.width, height: pixels.height },
      bounds,
      confidence: round(confidence, 3),
      verdict: verdictOf(confidence),
      doubts,
      notes: taken.notes,
      timings: {
        readMs: Math.round(read - started),
        cutoutMs: Math.round(cut - read),
        writeMs: Math.round(performance.now() - cut),
      },
      milliseconds: Math.round(performance.now() - started),
    });
  });

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
    const { products, found } = await productsIn(pixels);
    const checks = runChecks({
      slot,
      slotKey: slot.id,
      width: pixels.width,
      height: pixels.height,
      picture: pixels,
      products,
      shot: null,
      words: null,
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
async function productsIn(
  pixels: Awaited<ReturnType<typeof decodePicture>>,
): Promise<{ products: Plane; found: boolean }> {
  try {
    const { matte } = await cutOut(pixels, PLAIN_RECIPE, await loadSegmentationModel());
    return { products: matte, found: true };
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

function formatOf(file: string): Format {
  const found = ({ '.jpg': 'jpeg', '.jpeg': 'jpeg', '.png': 'png', '.webp': 'webp' } as const)[
    extname(file).toLowerCase() as '.jpg'
  ];
  if (!found) throw new InputError(`"${file}" must end in .jpg, .png or .webp, which says the format.`);
  return found;
}

function readLength(low: number, high: number) {
  return (text: string): number => {
    const n = Number(text);
    if (!Number.isFinite(n) || n < low || n > high)
      throw new InvalidArgumentError(`A number of pixels from ${low} to ${high}.`);
    return n;
  };
}

function readSpot(text: string): [number, number, number] {
  const numbers = text.split(',').map(Number);
  if (numbers.length !== 3 || numbers.some((n) => !Number.isFinite(n)) || numbers[2] <= 0)
    throw new InvalidArgumentError('Write it as x,y,radius in pixels of the photo, for example 640,480,12.');
  return numbers as [number, number, number];
}

function readPlace(text: string): [number, number] {
  const numbers = text.split(',').map(Number);
  if (numbers.length !== 2 || numbers.some((n) => !Number.isFinite(n)))
    throw new InvalidArgumentError('Write it as x,y in pixels of the photo, for example 640,480.');
  return numbers as [number, number];
}

function readBox(text: string): Rect {
  const [x, y, width, height, ...more] = text.split(',').map(Number);
  if (more.length || ![x, y, width, height].every(Number.isFinite) || width < 1 || height < 1)
    throw new InvalidArgumentError(
      'Write it as x,y,width,height in pixels of the photo, for example 120,80,640,480.',
    );
  return { x, y, width, height };
}

/** An option that may be given again and again. */
function gather<T>(read: (text: string) => T) {
  return (text: string, list: T[]): T[] => [...list, read(text)];
}

/** An outline file as a matte: an SVG's shapes at the photo's size, or a grey PNG of the photo's shape. */
async function readOutline(file: string, photo: Rgba): Promise<Plane> {
  return inSandbox(file, async (intake, copy) => {
    const taken = await intake.picture(copy, ['png', 'svg']);
    const shape = taken.width / taken.height / (photo.width / photo.height);
    if (taken.format === 'png' && (shape < 0.98 || shape > 1.02))
      throw new InputError(
        `"${file}" is ${taken.width} x ${taken.height} pixels; the photo is ${photo.width} x ${photo.height}. An outline needs the same shape as its photo.`,
      );
    const grey = taken.format === 'png' && taken.working ? { ...copy, path: taken.working.path } : copy;
    const { path } = await intake.matte(grey, { width: photo.width, height: photo.height });
    return decodeGrey(await readFile(path));
  });
}

/** The shadow at the photo's size; all clear where none was found. */
async function shadowPicture(shadow: OwnShadow | null, photo: Rgba): Promise<Buffer> {
  const out = createRgba(photo.width, photo.height);
  if (shadow) {
    const { x, y, width, height } = shadow.bounds;
    const layer = resize(shadow.image, Math.round(width), Math.round(height));
    for (let sy = 0; sy < layer.height; sy++)
      for (let sx = 0; sx < layer.width; sx++) {
        const [px, py] = [Math.round(x) + sx, Math.round(y) + sy];
        if (px < out.width && py < out.height)
          out.data[(py * out.width + px) * 4 + 3] = layer.data[(sy * layer.width + sx) * 4 + 3];
      }
  }
  return encodePng(out);
}

addStageCommand(program, formatOf);
addPrintCommand(program, formatOf);
addFillCommand(program, formatOf);
addRenderCommand(program, formatOf);

try {
  await program.parseAsync();
} catch (error) {
  const known =
    error instanceof InputError ||
    error instanceof RefusedPicture ||
    error instanceof NoProductError ||
    error instanceof ByteLimitError;
  const code = (error as NodeJS.ErrnoException).code;
  const path = (error as NodeJS.ErrnoException).path ?? '';
  if (known) console.error(error.message);
  else if (code === 'ENOENT') console.error(`There is no file or folder "${path}".`);
  else if (code === 'EISDIR') console.error(`"${path || 'That'}" is a folder; a file is needed.`);
  else if (code === 'EACCES') console.error(`"${path}" may not be read or written.`);
  else console.error(`Something went wrong: ${(error as Error).message}`);
  process.exitCode = BAD_INPUT;
}
