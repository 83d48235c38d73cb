import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { InvalidArgumentError, type Command } from 'commander';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import type { Ground } from '@scenograph/core/stage/ground';
import { sceneCamera, type SceneSurvey } from '@scenograph/core/stage/survey';
import { airOf, toneOf } from '@scenograph/core/elements/product/lit';
import type { Pose } from '@scenograph/core/stage/stand';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import { boundsAbove, alphaPlane, crop } from '@scenograph/core/raster/pixels';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newProduct, newSceneBackdrop } from '@scenograph/core/shot/starters';
import { emptyShot } from '@scenograph/core/shot/document';
import { baseOfCutout, productPxPerMm } from '@scenograph/core/stage/base';
import { groundOf } from '@scenograph/core/elements/ground-of';
import {
  basePoint,
  movedOnGround,
  pitchNote,
  groundPlacement,
  trueSizeBox,
} from '@scenograph/core/stage/stand';
import type { Light } from '@scenograph/core/stage/light';
import { encodePng } from '@scenograph/host-node/encode';
import { decodePicture, takePicture } from '@scenograph/host-node/read-picture';
import type { Format } from '@scenograph/core/spec/slot';
import { openScene, painterOf } from './open-scene';
import { print, readMillimetres, readShare, round, InputError, writePicture } from './common';

interface StageOptions {
  spot?: string;
  heightMm: number;
  depthMm?: number;
  mode: Pose;
  light?: Light;
  tone: number;
  relight: number;
  gloss: number | null;
  output: string;
}

/** `scenograph stage`: one cutout stood in one surveyed scene. */
export function addStageCommand(program: Command, formatOf: (file: string) => Format): void {
  program
    .command('stage')
    .description('stand a cutout in a surveyed scene, true to size and in its light; placement as JSON')
    .argument('<scene>', "the scene's side-file (JSON), its picture beside it")
    .argument('<cutout>', 'a cutout with transparency (PNG or WebP)')
    .requiredOption(
      '--height-mm <n>',
      "the product's real height; of one that lies flat its length",
      readMillimetres,
    )
    .option('--spot <id>', 'where it stands; the first spot of the scene when left out')
    .option('--depth-mm <n>', "the product's real depth; taken from its base when left out", readMillimetres)
    .option('--mode <mode>', 'stand, float or flat', readMode, 'stand' as Pose)
    .option('--light <az,el,softness>', 'a light of its own: degrees, degrees, 0 to 1', readLight)
    .option('--tone <n>', 'how far its tone is eased toward the scene, 0 to 1', readShare, 0.6)
    .option('--relight <n>', "how far the scene's light replaces that of its photo, 0 to 1", readShare, 1)
    .option(
      '--gloss <n>',
      'how far it mirrors the scene, 0 to 1; as its photo shows when left out',
      readShare,
      null,
    )
    .requiredOption('-o, --output <file>', 'ends in .jpg, .png or .webp')
    .action((scene: string, cutout: string, options: StageOptions) =>
      stage(scene, cutout, options, formatOf(options.output)),
    );
}

async function stage(
  sceneFile: string,
  cutoutFile: string,
  options: StageOptions,
  format: Format,
): Promise<void> {
  const started = performance.now();
  const scene = await openScene(sceneFile);
  if (!sceneCamera(scene.survey))
    throw new InputError(
      `"${sceneFile}" knows no standing plane: give its plane's corners, or a horizon with a known height or a spot.`,
    );
  const cutout = await openCutout(cutoutFile);
  const spot = spotOf(scene.survey, options.spot);
  const shot = emptyShot(scene.survey.width, scene.survey.height);
  const backdrop = newSceneBackdrop('scene', scene.title, scene.picture, scene.survey);
  const ground = groundOf([backdrop]);
  const product = placedProduct(cutout, options, [backdrop], shot.frame, spot);
  const resolved = resolveBase({ ...shot, elements: [backdrop, product] }, null);
  const painter = painterOf(scene, cutout);
  const painted = await painter.paint(resolved);
  const { drift, held, light, gloss, blur, haze } = await painter.with(resolved, (environment) => ({
    ...toneOf(product, environment),
    ...airOf(product, environment),
  }));
  const { told } = await writePicture(options.output, painted.pixels(), format);
  print({
    ...told,
    spot: spot.id,
    mode: options.mode,
    ...placementOf(product, ground, shot.frame),
    colourDrift: round(drift, 2),
    colourDriftHeld: held,
    light: round(light, 2),
    gloss,
    blur: round(blur, 2),
    haze: round(haze?.share ?? 0, 2),
    milliseconds: Math.round(performance.now() - started),
  });
}

/** Where the product came to stand, as it is printed. */
function placementOf(
  product: ProductElement,
  ground: Ground | null,
  frame: { width: number; height: number },
) {
  const standing = groundPlacement(product, ground, frame)!;
  const at = basePoint(product);
  return {
    box: Object.fromEntries(Object.entries(product.box).map(([k, v]) => [k, round(v, 2)])),
    base: { x: round(at.x, 2), y: round(at.y, 2) },
    pxPerMm: round(standing.pxPerMm, 4),
    trueSizeShare: standing.ratio === null ? null : round(standing.ratio, 4),
    pitch: { photo: round(standing.photoPitch, 1), scene: round(standing.scenePitch, 1) },
    notes: [pitchNote(standing, false)].filter(Boolean),
  };
}

/** The spot that is asked for, or the scene's first. */
function spotOf({ spots }: SceneSurvey, asked: string | undefined): SceneSurvey['spots'][number] {
  const spot = asked ? spots.find((s) => s.id === asked) : spots[0];
  if (spot) return spot;
  throw new InputError(
    asked
      ? `The scene has no spot "${asked}"; it has ${spots.map((s) => s.id).join(', ') || 'none'}.`
      : 'The scene has no stand spot. Add one to its side-file, or survey it.',
  );
}

/** The cutout as a product at its spot, in its true size. */
function placedProduct(
  { title, image, hash }: Awaited<ReturnType<typeof openCutout>>,
  { heightMm, depthMm, mode, tone, relight, gloss, light }: StageOptions,
  scene: [BackdropElement],
  frame: { width: number; height: number },
  spot: { x: number; y: number },
): ProductElement {
  const base = baseOfCutout(image);
  const pxPerMm = productPxPerMm(base, image.width, { height: heightMm }, mode === 'flat');
  const data = {
    title,
    variant: '',
    sku: '',
    price: null,
    currency: 'GBP',
    widthMm: image.width / pxPerMm,
    heightMm,
    depthMm: depthMm ?? (2 * base.halfWidth * image.width) / pxPerMm,
    cutout: { picture: hash, width: image.width, height: image.height, base },
  };
  const made: ProductElement = newProduct('product', data, frame, mode, scene);
  const ground = groundOf(scene);
  const lit = {
    ...made,
    tone: { ...made.tone, strength: tone },
    relight,
    gloss,
    shadow: { ...made.shadow, light: light ?? null },
  };
  const moved = { ...lit, box: movedOnGround(lit, spot, ground, frame) };
  return { ...moved, box: trueSizeBox(moved, ground, frame) ?? moved.box };
}

async function openCutout(file: string) {
  const raw = await readFile(file);
  const taken = await takePicture(basename(file), raw, ['png', 'webp']);
  const image = await decodePicture(taken.working?.bytes ?? raw);
  const bounds = boundsAbove(alphaPlane(image), 0.02);
  if (!bounds)
    throw new InputError(`"${file}" is empty: nothing in it is opaque. Cut the product out again.`);
  const trimmed = crop(image, bounds);
  const bytes = await encodePng(trimmed);
  return {
    title: basename(file),
    image: trimmed,
    bytes,
    hash: createHash('sha256').update(bytes).digest('hex'),
  };
}

function readMode(text: string): Pose {
  if (text !== 'stand' && text !== 'float' && text !== 'flat')
    throw new InvalidArgumentError('It is one of stand, float, flat.');
  return text;
}

function readLight(text: string): Light {
  const [azimuthDeg, elevationDeg, softness = 0.5] = text.split(',').map(Number);
  if (!(azimuthDeg >= -180 && azimuthDeg <= 180) || !(softness >= 0 && softness <= 1))
    throw new InvalidArgumentError('Write it as azimuth,elevation,softness: -180 to 180, 1 to 90, 0 to 1.');
  if (!(elevationDeg >= 1 && elevationDeg <= 90))
    throw new InvalidArgumentError('The light must stand above the plane: an elevation of 1 to 90 degrees.');
  return { azimuthDeg, elevationDeg, softness };
}
