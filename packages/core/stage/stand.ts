import type { Box } from '../vector/box';
import { PLAIN_BASE, productPxPerMm, type ProductBase } from './base';
import { pitchAt, scaleAt, type Camera } from './camera';
import { levelAt, studioCamera, type Ground } from './ground';
import { standAt, type Stand } from './stand-frame';

/** How a product stands in a frame. */
export interface GroundPlacement {
  camera: Camera;
  stand: Stand;
  base: ProductBase;
  /** Where its base's middle (standing, floating: of what is under it) shows in the frame. */
  at: { x: number; y: number };
  /** Frame pixels a millimetre of the product as it is drawn. */
  pxPerMm: number;
  /** Frame pixels a millimetre of the scene, across, at the middle of the product's height. */
  scale: number;
  /** 1 is true to size; null where scene or product know no millimetres. */
  ratio: number | null;
  heightMm: number;
  depthMm: number | null;
  /** How steeply the product was photographed, and how steeply the scene's camera looks on it, in degrees. */
  photoPitch: number;
  scenePitch: number;
}

/** A product's size is taken for this where it knows no millimetres. */
const SUPPOSED_MM = 160;

/** The three ways in which a product sits in a scene. */
export type Pose = 'stand' | 'float' | 'flat';

/** What of a product decides how it stands. */
export interface Product {
  box: Box;
  /** What of it touches the ground; null takes a plain one. */
  base: ProductBase | null;
  millimetres: { width: number; height: number; depth: number } | null;
  pose: Pose;
  /** How steeply it was photographed, where that was set by hand. */
  pitchDeg: number | null;
  /** How high it floats. */
  liftMm: number;
}

export function baseOf(product: Pick<Product, 'box' | 'base'>): ProductBase {
  return product.base ?? PLAIN_BASE(product.box.height / product.box.width);
}

/** The base's middle in the frame, before the box is turned; a flat thing's is its own middle. */
export function basePoint(product: Pick<Product, 'box' | 'base' | 'pose'>): { x: number; y: number } {
  const { box } = product;
  if (product.pose === 'flat') return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const base = baseOf(product);
  return { x: box.x + base.x * box.width, y: box.y + base.y * box.width };
}

/** Pixels of the drawn product a millimetre by its own measures; null where it has none. */
export function drawnPxPerMm(product: Product): number | null {
  const { millimetres, box, pose } = product;
  if (!millimetres) return null;
  const base = baseOf(product);
  const given = product.pitchDeg === null ? base : { ...base, pitchDeg: product.pitchDeg };
  return productPxPerMm(given, box.width, millimetres, pose === 'flat');
}

/**
 * How a product stands: on the ground's plane, or before a backdrop without one on a plane supposed under it. Null
 * where its base shows at or above the horizon.
 */
export function groundPlacement(
  product: Product,
  ground: Ground | null,
  frame: { width: number; height: number },
): GroundPlacement | null {
  const base = baseOf(product);
  const own = drawnPxPerMm(product);
  const photoPitch = product.pitchDeg ?? (base.confidence > 0.3 ? base.pitchDeg : 15);
  const drawn = basePoint(product);
  let at = drawn;
  let camera: Camera;
  let level = 0;
  if (ground) {
    camera = ground.camera;
    level = levelAt(ground, at.x, at.y);
  } else camera = studioCamera(frame, at, own ?? product.box.width / SUPPOSED_MM, photoPitch);
  let stand = standAt(camera, at, level);
  if (!stand) return null;
  const lift = product.pose === 'float' ? product.liftMm : 0;
  if (lift > 0) {
    // What floats shows above the place it would stand on.
    for (let i = 0; i < 6; i++) {
      const up = scaleAt(camera, { X: stand.X, Y: stand.Y, Z: level }).up * lift;
      at = { x: drawn.x, y: drawn.y + up };
      const lower = standAt(camera, at, level);
      if (!lower) return null;
      stand = lower;
    }
  }
  const heightMm = product.millimetres?.height ?? SUPPOSED_MM;
  const here = scaleAt(camera, {
    X: stand.X,
    Y: stand.Y,
    Z: level + lift + (product.pose === 'flat' ? 0 : heightMm / 2),
  }).across;
  return {
    camera,
    stand,
    base,
    at,
    pxPerMm: own ?? here,
    scale: here,
    ratio: own === null || !ground ? null : own / here,
    heightMm: product.millimetres ? heightMm : (product.box.height / (own ?? here)) * 0.9,
    depthMm: product.millimetres?.depth ?? null,
    photoPitch,
    scenePitch: pitchAt(camera, stand.X, stand.Y, level),
  };
}

/** The box scaled about the base's middle. */
export function scaledOnBase(product: Pick<Product, 'box' | 'base' | 'pose'>, factor: number): Box {
  const { box } = product;
  const at = basePoint(product);
  return {
    ...box,
    width: box.width * factor,
    height: box.height * factor,
    x: at.x + (box.x - at.x) * factor,
    y: at.y + (box.y - at.y) * factor,
  };
}

/**
 * The product's box with its base moved to a place of the frame: on a ground its size follows the perspective, and
 * what share of its true size it had it keeps. Where no plane lies there it keeps its size.
 */
export function movedOnGround(
  product: Product,
  to: { x: number; y: number },
  ground: Ground | null,
  frame: { width: number; height: number },
): Box {
  const from = basePoint(product);
  const moved = (box: Box): Box => ({ ...box, x: box.x + to.x - from.x, y: box.y + to.y - from.y });
  if (!ground) return moved(product.box);
  const before = groundPlacement(product, ground, frame);
  let next: Product = { ...product, box: moved(product.box) };
  const after = groundPlacement(next, ground, frame);
  if (!before || !after) return moved(product.box);
  // The scale at the middle of the height depends a little on the size itself: twice is enough.
  for (let i = 0; i < 2; i++) {
    const now = groundPlacement(next, ground, frame);
    if (!now) break;
    const factor =
      before.ratio !== null && now.ratio !== null
        ? before.ratio / now.ratio
        : scaleHere(now) / scaleHere(before) / (next.box.width / product.box.width);
    next = { ...next, box: scaledOnBase(next, factor) };
  }
  return next.box;
}

function scaleHere({ camera, stand }: GroundPlacement): number {
  return scaleAt(camera, { X: stand.X, Y: stand.Y, Z: stand.level }).across;
}

/** The box at this share of the true size (1 is true), its base where it is; null where no size is known. */
export function trueSizeBox(
  product: Product,
  ground: Ground | null,
  frame: { width: number; height: number },
  share = 1,
): Box | null {
  const now = groundPlacement(product, ground, frame);
  return now?.ratio ? scaledOnBase(product, share / now.ratio) : null;
}

/**
 * The box in which a product takes another pose or lift over the same place of the ground, at the same share of its
 * true size. Where no plane lies there it stays as it is.
 */
export function posedBox(
  product: Product,
  change: Partial<Pick<Product, 'pose' | 'liftMm'>>,
  ground: Ground | null,
  frame: { width: number; height: number },
): Box {
  const before = ground && groundPlacement(product, ground, frame);
  if (!before) return product.box;
  let next: Product = { ...product, ...change };
  for (let i = 0; i < 8; i++) {
    const now = groundPlacement(next, ground, frame);
    if (!now) return product.box;
    const factor = before.ratio !== null && now.ratio ? before.ratio / now.ratio : 1;
    const box = scaledOnBase(next, factor);
    next = {
      ...next,
      box: { ...box, x: box.x + before.at.x - now.at.x, y: box.y + before.at.y - now.at.y },
    };
  }
  return next.box;
}

/** A mismatch of pitch in words, with what can be done about it; null where it would not be seen. */
export function pitchNote({ photoPitch, scenePitch, base }: GroundPlacement, given: boolean): string | null {
  const off = photoPitch - scenePitch;
  if (Math.abs(off) < 5 || (!given && base.confidence < 0.4)) return null;
  const words = `Photographed from ${Math.round(photoPitch)}° above; the scene looks on this spot from ${Math.round(scenePitch)}°: ${Math.abs(Math.round(off))}° apart.`;
  return off > 0
    ? `${words} Bring it nearer, where the camera looks down more steeply, choose a scene seen from higher up, or photograph it lower.`
    : `${words} Stand it further back, choose a scene seen from lower down, or photograph it from higher up.`;
}
