import type { PaintEnvironment } from '../environment';
import { levelPixels } from '../draw-picture';
import { reducedAlpha, type Rgba } from '../../raster/pixels';
import { reduceTo, resize } from '../../raster/resample';
import { parseHex } from '../../raster/colour';
import { bodyNormals, type BodyNormals } from '../../stage/body-normals';
import { ownShading, type OwnShading } from '../../stage/own-shading';
import { depthAt } from '../../stage/camera';
import { blurAt, defocused, defocusRoom, hazeAt, hazed } from '../../stage/depth-of-field';
import { findWindows, surroundings, withGloss, type Windows } from '../../stage/gloss';
import { lightChange, relit, tinted, withinColour, type LightChange } from '../../stage/relight';
import { lightOnTurned, meanLinear, sceneLight } from '../../stage/scene-light';
import { baseOf, groundPlacement, type GroundPlacement } from '../../stage/stand';
import {
  changeTone,
  measureTone,
  NO_CHANGE,
  toneToward,
  withinDrift,
  type ToneChange,
  type ToneMeasure,
} from '../../stage/tone-match';
import type { ProductElement } from './model';
import { sceneShadeFor } from './shade';
import { lightAt, lightOf, smallPicture } from './upright';

/** Long side of the grid on which light is laid; what is finer is the product's own. */
const GRID = 128;

/** The scene's light on a product. */
interface Relit {
  change: LightChange;
  /** Names all that the change depends on. */
  key: string;
  /** How far the colour alone moves, delta E 2000, and whether the light's tint was held back for it. */
  drift: number;
  held: boolean;
  /** The light that falls here against that of the photo; 1 is as much. */
  light: number;
  /** The share of the light's tint that is left. */
  tint: number;
  /** How far it mirrors the scene. */
  gloss: number;
  /** Made for one step of a drag, and soon replaced. */
  passing?: boolean;
}

/** What is told of a product's colours where it stands. */
export interface ToneReport {
  change: ToneChange;
  drift: number;
  held: boolean;
  light: number;
  /** How far it mirrors the scene. */
  gloss: number;
}

/** A product's pixels as they are drawn. */
interface LitPixels {
  key: string;
  make(): Rgba;
  /** Room around the product that the pixels have besides, as a share of its box's width on each side. */
  room: number;
}

/**
 * A product's pixels at a level of detail, in the scene's light, tone, haze and focus: the key that names them, and how
 * they are made; null where it is the picture itself.
 */
export function litPixels(
  element: ProductElement,
  fine: number,
  environment: PaintEnvironment,
): LitPixels | null {
  const { picture, box } = element;
  const source = environment.picture(picture);
  const light = environment.productsOnly ? null : relitOf(element, environment);
  const { blur, haze } = environment.productsOnly ? CLEAR : airOf(element, environment);
  // While the light is dragged the product is lit anew for each step, at half the detail; what is out of focus has no more.
  const level = (light?.passing ? fine + 1 : fine) + coarser((blur * source.width) / 2 ** fine / box.width);
  const tone = environment.productsOnly ? NO_CHANGE : easedTone(element, environment).change;
  const toned = Object.entries(tone).some(([k, v]) => v !== NO_CHANGE[k as keyof ToneChange]);
  if (!toned && !light && !blur && !haze && level === 0) return null;
  const perFrame = source.width / 2 ** level / box.width;
  const words = Object.values(tone).map((v) => v.toFixed(3));
  const sigma = blur * perFrame;
  const air = blur || haze ? `${sigma.toFixed(2)}:${haze?.share}:${haze?.colour}` : '';
  return {
    key: `lit:${picture}:${level}:${light?.key ?? ''}:${toned ? `${words.join(':')}:${perFrame.toFixed(1)}` : ''}:${air}`,
    room: blur ? defocusRoom(sigma) / perFrame / box.width : 0,
    make: () => {
      const pixels = environment.kept(`pixels:${picture}:${level}`, () =>
        levelPixels(source.pixels(), level),
      );
      const lit = light ? relit(pixels, light.change) : pixels;
      // Grain is the camera's: it is as fine over what is out of focus.
      const before = blur ? { ...tone, grain: 0 } : tone;
      const changed = toned ? changeTone(lit, before, perFrame) : lit;
      const seen = haze ? hazed(changed, haze.share, parseHex(haze.colour)) : changed;
      if (!blur) return seen;
      const soft = defocused(seen, sigma);
      return tone.grain ? changeTone(soft, { ...NO_CHANGE, grain: tone.grain }, perFrame) : soft;
    },
  };
}

/** How far a product is out of focus, in pixels of the frame, and the haze over it. */
export interface Air {
  blur: number;
  haze: { share: number; colour: string } | null;
}

const CLEAR: Air = { blur: 0, haze: null };
/** Blur is told in steps of so many pixels, so that a product is not made anew for every move; less is not seen. */
const BLUR_STEP = 0.25;
const HAZE_STEP = 0.01;

/** Levels of detail that a blur of so many pixels leaves nothing of: it stays two pixels or more. */
const coarser = (sigma: number): number => Math.max(0, Math.floor(Math.log2(Math.max(1, sigma / 2))));

/**
 * A product's focus and haze: set by hand, or as the scene is at its depth. While it is dragged about, those it last settled
 * in are kept.
 */
export function airOf(element: ProductElement, environment: PaintEnvironment): Air {
  const last = `air:${element.id}:${element.blur}:${element.haze}`;
  const settled = environment.draft && environment.settled.get<Air>(last);
  if (settled) return settled;
  const air = measuredAir(element, environment);
  environment.settled.set(last, air);
  return air;
}

function measuredAir(element: ProductElement, environment: PaintEnvironment): Air {
  const { ground, frame } = environment;
  const standing = ground && (ground.focus ?? ground.haze) ? groundPlacement(element, ground, frame) : null;
  const depth = standing ? depthAt(standing.camera, { ...standing.stand, Z: standing.stand.level }) : 0;
  const across = ground?.scene?.box.width ?? frame.width;
  const found = depth > 0 && ground?.focus ? blurAt(ground.focus, 1 / depth) * across : 0;
  const steps = (v: number, step: number) => Math.round(v / step) * step;
  const blur = steps(element.blur ?? found, BLUR_STEP);
  const inHaze = depth > 0 && ground?.haze ? hazeAt(ground.haze, 1 / depth) : 0;
  const share = steps(element.haze ?? inHaze, HAZE_STEP);
  const colour = ground?.haze?.colour ?? AIR;
  return { blur: blur < 2 * BLUR_STEP ? 0 : blur, haze: share > 0 ? { share, colour } : null };
}

/** Haze where none was surveyed: grey, a little blue. */
const AIR = '#c9d2da';

/** What the scene's light does to a product; null where its photo's light stays. */
function relitOf(element: ProductElement, environment: PaintEnvironment): Relit | null {
  const scene = environment.ground?.scene;
  const { relight, box, tone } = element;
  if (!scene || !(relight > 0)) return null;
  const standing = groundPlacement(element, environment.ground, environment.frame);
  if (!standing) return null;
  const body = bodyIn(element, standing, environment);
  const gloss = element.gloss ?? (body.windows() ? 1 : 0);
  const cast = lightOf(element, environment);
  const { azimuthDeg, elevationDeg, softness } = cast;
  // What lies flat is turned with its ground's normal, which stays up.
  const rotation = element.pose === 'flat' ? 0 : box.rotation;
  // While it is dragged about, a product keeps the light that it last settled in; while the light is, its tint.
  const held = `relit-last:${element.id}:${body.key}:${rotation}:${relight}:${gloss}:${tone.limit}:${scene.picture}`;
  const last = `${held}:${azimuthDeg}:${elevationDeg}:${softness}:${element.shadow.softness}`;
  const settled = environment.draft && environment.settled.get<Relit>(last);
  if (settled) return settled;
  const light = lightAt(cast, standing, element.shadow.softness);
  const shade = sceneShadeFor(element, environment);
  const small = smallPicture(scene.picture, environment);
  const k = small.width / scene.box.width;
  // The ground around the foot; in steps, so that it is not made anew for every move.
  const step = (v: number) => Math.round(v / 3) * 3;
  const ground = {
    x: step((standing.at.x - box.width * 0.9 - scene.box.x) * k),
    y: step((standing.at.y - box.width * 0.25 - scene.box.y) * k),
    width: step(box.width * 1.8 * k),
    height: step(box.width * 0.6 * k),
  };
  const key = [
    ...[
      body.key,
      rotation,
      relight,
      gloss,
      tone.limit,
      light.azimuthDeg,
      light.elevationDeg,
      light.softness.toFixed(2),
    ],
    ...[scene.picture, ...Object.values(ground), shade?.key],
  ].join(':');
  const laid = () => {
    const around = environment.kept(`ground:${scene.picture}:${Object.values(ground).join(':')}`, () =>
      meanLinear(small, ground),
    );
    const falls = sceneLight(light, around, wholeTone(scene.picture, environment));
    const { normals, own, footY } = body;
    const turned = rotation ? lightOnTurned(falls, rotation, standing.photoPitch) : falls;
    // A turned product's foot is anywhere: its crease is left away.
    const lack = shade && shade.make(normals.width, normals.height);
    const change = lightChange(normals, own, turned, relight, rotation ? Infinity : footY, lack);
    if (!(gloss > 0)) return change;
    const { camera, scenePitch, photoPitch } = standing;
    const seen = surroundings(small, around, turned, scenePitch, camera.focal / environment.frame.width);
    return withGloss(change, normals, seen, body.windows(), photoPitch, gloss);
  };
  const before = environment.draft && environment.settled.get<Relit>(held);
  if (before) {
    const change = before.tint < 1 ? tinted(laid(), before.tint) : laid();
    return { ...before, change, key: `${key}:${before.tint}`, passing: true };
  }
  const made: Relit = {
    ...environment.kept(`relit:${key}`, () => withinColour(laid(), body.seen, tone.limit)),
    key,
    gloss,
  };
  environment.settled.set(last, made);
  environment.settled.set(held, made);
  return made;
}

/** A product at the size of the grid: its normals, its photo's light, itself and the studio's windows on it. */
interface BodyInLight {
  normals: BodyNormals;
  own: OwnShading;
  seen: Rgba;
  footY: number;
  key: string;
  windows(): Windows | null;
}

function bodyIn(
  element: ProductElement,
  { photoPitch }: GroundPlacement,
  environment: PaintEnvironment,
): BodyInLight {
  const { picture, pose } = element;
  const base = baseOf(element);
  const pitch = Math.round(photoPitch);
  const key = `body:${picture}:${pitch}:${pose === 'flat' ? 'flat' : ''}:${JSON.stringify(base)}`;
  return environment.kept(key, () => {
    const pixels = environment.picture(picture).pixels();
    const factor = Math.max(1, Math.ceil(Math.max(pixels.width, pixels.height) / GRID));
    const normals = bodyNormals(reducedAlpha(pixels, factor), base, pitch, pose === 'flat');
    const seen = resize(reduceTo(pixels, GRID * 2), normals.width, normals.height);
    const own = ownShading(seen, normals);
    let windows: Windows | null | undefined;
    return {
      normals,
      own,
      seen,
      footY: base.y * normals.width,
      key,
      windows: () => (windows === undefined ? (windows = findWindows(seen)) : windows),
    };
  });
}

/** The tone of a whole scene. Grain is lost in a reduced copy: it is measured on a part of the picture itself. */
function wholeTone(scene: string, environment: PaintEnvironment): ToneMeasure | null {
  return environment.kept(`tone-scene:${scene}`, () => {
    const small = smallPicture(scene, environment);
    const all = measureTone(small, { x: 0, y: 0, width: small.width, height: small.height });
    const full = environment.picture(scene).pixels();
    const middle = {
      x: full.width * 0.25,
      y: full.height * 0.3,
      width: full.width * 0.5,
      height: full.height * 0.5,
    };
    return all && { ...all, grain: measureTone(full, middle)?.grain ?? 0 };
  });
}

/** How a product's tone is changed where it stands, and the colour drift that its tone and its light make. */
export function toneOf(element: ProductElement, environment: PaintEnvironment): ToneReport {
  const light = relitOf(element, environment);
  const tone = easedTone(element, environment);
  return {
    change: tone.change,
    drift: tone.drift + (light?.drift ?? 0),
    held: tone.held || (light?.held ?? false),
    light: light?.light ?? 1,
    gloss: light?.gloss ?? 0,
  };
}

function easedTone(
  element: ProductElement,
  environment: PaintEnvironment,
): { change: ToneChange; drift: number; held: boolean } {
  const none = { change: NO_CHANGE, drift: 0, held: false };
  const { tone, box, picture, relight } = element;
  const scene = environment.ground?.scene;
  if (!scene || tone.strength <= 0) return none;
  const last = `tone:${element.id}:${picture}:${tone.strength}:${tone.limit}:${relight}`;
  if (environment.draft) {
    const settled = environment.settled.get<typeof none>(last);
    if (settled) return settled;
  }
  const small = smallPicture(scene.picture, environment);
  const k = small.width / scene.box.width;
  // Around and behind the product, and the ground before it.
  const around = {
    x: (box.x - box.width * 0.5 - scene.box.x) * k,
    y: (box.y - scene.box.y) * k,
    width: box.width * 2 * k,
    height: box.height * 1.25 * k,
  };
  const at = Object.values(around).map((v) => Math.round(v / 6));
  const made = environment.kept(`tone-of:${last}:${scene.picture}:${at.join(':')}`, () => {
    const product = smallPicture(picture, environment);
    const own = measureTone(product, { x: 0, y: 0, width: product.width, height: product.height });
    const place = measureTone(small, around);
    const whole = wholeTone(scene.picture, environment);
    if (!own || !place || !whole) return none;
    const change = toneToward({ ...own, grain: 0 }, place, whole);
    // Brightness and tint come with the scene's light, as far as that is laid on; grain and sharpness stay with the tone.
    const eased = withinDrift(product, change, tone.strength * (1 - relight), tone.limit);
    const { grain, soften } = change;
    return {
      ...eased,
      change: { ...eased.change, grain: grain * tone.strength, soften: soften * tone.strength },
    };
  });
  environment.settled.set(last, made);
  return made;
}
