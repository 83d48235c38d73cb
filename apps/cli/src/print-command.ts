import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { InvalidArgumentError, type Command } from 'commander';
import { shownPicture } from '@scenograph/core/elements/backdrop/model';
import { blankOf } from '@scenograph/core/elements/backdrop/paint';
import { emptyShot } from '@scenograph/core/shot/document';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newSceneBackdrop } from '@scenograph/core/shot/starters';
import type { Format } from '@scenograph/core/spec/slot';
import { SurveyError } from '@scenograph/core/surface/homography';
import { usualLay, type Lay } from '@scenograph/core/surface/material';
import { surfaceOf } from '@scenograph/core/surface/print-item';
import type { PrintArea } from '@scenograph/core/surface/area';
import {
  areaPxPerMm,
  artworkDensity,
  fittedPlace,
  newPrint,
  printOpacity,
  type Print,
} from '@scenograph/core/surface/print';
import { inSandbox } from './in-sandbox';
import { print, readMillimetres, readShare, round, InputError, writePicture } from './common';
import { openScene, painterOf } from './open-scene';
import { HEX_COLOUR } from '@scenograph/core/raster/colour';

interface PrintOptions {
  area?: string;
  widthMm?: number;
  ink?: string;
  opacity?: number;
  lay?: Lay;
  output: string;
}

/** `scenograph print`: one design on one area of one mockup. */
export function addPrintCommand(program: Command, formatOf: (file: string) => Format): void {
  program
    .command('print')
    .description('print artwork on an area of a mockup; placement and warnings as JSON')
    .argument('<mockup>', "the mockup's side-file (JSON), its picture beside it")
    .argument('<artwork>', 'SVG, PNG, JPEG or WebP')
    .option('--area <id>', 'which print area; the first one when left out')
    .option('--width-mm <n>', 'how wide the design is; left out, it fills the area exactly', readMillimetres)
    .option('--ink <colour>', 'everything in one ink, written as #rrggbb', colour)
    .option('--opacity <n>', "0 to 1; the material's own when left out", readShare)
    .option(
      '--lay <how>',
      "multiply or opaque; left out, opaque for a design without clear parts, the stock's own for others",
      readLay,
    )
    .requiredOption('-o, --output <file>', 'ends in .jpg, .png or .webp')
    .action((mockup: string, artwork: string, options: PrintOptions) =>
      run(mockup, artwork, options, formatOf(options.output)),
    );
}

async function run(
  mockupFile: string,
  artworkFile: string,
  options: PrintOptions,
  format: Format,
): Promise<void> {
  const started = performance.now();
  const scene = await openScene(mockupFile);
  const area = areaOf(mockupFile, scene.survey.areas, options.area);
  const artwork = await inSandbox(artworkFile, async (intake, copy) => {
    const { png, ...design } = await intake.artwork(copy, { trim: false });
    return { ...design, png: await readFile(png.path) };
  });
  const hash = createHash('sha256').update(artwork.png).digest('hex');
  const design = designOf(basename(artworkFile), { ...artwork, hash }, area, options);
  const shot = emptyShot(scene.survey.width, scene.survey.height);
  const backdrop = newSceneBackdrop('mockup', scene.title, scene.picture, scene.survey);
  if (backdrop.fill.type !== 'scene') throw new Error('A mockup is a scene.');
  const fill = { ...backdrop.fill, item: { ...backdrop.fill.item, prints: [design] } };
  try {
    surfaceOf(area, blankOf(fill));
  } catch (error) {
    if (error instanceof SurveyError) throw new InputError(error.message);
    throw error;
  }
  const painter = painterOf(scene, { hash, bytes: artwork.png });
  const painted = await painter.paint(resolveBase({ ...shot, elements: [{ ...backdrop, fill }] }, null));
  const { told } = await writePicture(options.output, painted.pixels(), format);
  const density = artworkDensity(design, areaPxPerMm(area));
  print({
    ...told,
    picture: shownPicture(fill).slice(0, 12),
    area: area.id,
    shape: area.shape,
    material: area.material,
    stock: area.stock,
    bulgeMm: area.bulgeMm,
    place: Object.fromEntries(Object.entries(design.place).map(([k, v]) => [k, round(v, 2)])),
    ink: design.ink,
    opacity: printOpacity(design, area),
    lay: design.lay ?? usualLay(area.stock),
    artworkPixelsPerPixel: round(density, 2),
    notes: [...artwork.notes, ...printNotes(density, artwork.whiteGround)],
    milliseconds: Math.round(performance.now() - started),
  });
}

/** The area that is asked for, or the mockup's first. */
function areaOf(file: string, areas: readonly PrintArea[], asked: string | undefined): PrintArea {
  const area = asked ? areas.find((a) => a.id === asked) : areas[0];
  if (area) return area;
  throw new InputError(
    asked && areas.length
      ? `The mockup has no print area "${asked}"; it has ${areas.map((a) => a.id).join(', ')}.`
      : `"${file}" has no print area. Survey one in the application, or give it one in its side-file.`,
  );
}

function designOf(
  name: string,
  artwork: Parameters<typeof newPrint>[2],
  area: PrintArea,
  { widthMm, ink, opacity, lay }: PrintOptions,
): Print {
  const fresh = newPrint('print', name, artwork, area);
  return {
    ...fresh,
    place: widthMm
      ? { ...fresh.place, width: widthMm, height: (widthMm * artwork.height) / artwork.width }
      : fittedPlace(fresh, area, 'fill'),
    ink: ink ?? null,
    opacity: opacity ?? null,
    lay: lay ?? fresh.lay,
  };
}

/** @param density artwork pixels per pixel of the picture */
function printNotes(density: number, whiteGround: boolean): string[] {
  const notes: string[] = [];
  if (density < 0.9)
    notes.push(
      `the design is enlarged to ${Math.round(100 / density)} percent of its own pixels; import it larger, or print it smaller`,
    );
  if (whiteGround)
    notes.push(
      'the design lies on white, which is printed white; --lay multiply lets the stock show in its place',
    );
  return notes;
}

function colour(text: string): string {
  if (!HEX_COLOUR.test(text)) throw new InvalidArgumentError('Write it as #rrggbb, for example #12463a.');
  return text.toLowerCase();
}

function readLay(text: string): Lay {
  if (text !== 'multiply' && text !== 'opaque') throw new InvalidArgumentError('It is multiply or opaque.');
  return text;
}
