import type { SceneSurvey } from '../stage/survey';
import { NO_EFFECTS } from '../raster/effects';
import type { ElementBase } from '../elements/base';
import type { ShotElement } from '../elements/index';
import type { BackdropElement, SceneFill } from '../elements/backdrop/model';
import { NO_WORK } from '../surface/print-item';
import type { PictureElement } from '../elements/picture/model';
import type { Pose } from '../stage/stand';
import { isProduct, type ProductElement } from '../elements/product/model';
import { groundOf } from '../elements/ground-of';
import { UNADJUSTED } from '../stage/ground-colour';
import { basePoint, trueSizeBox } from '../stage/stand';
import type { TextElement } from '../elements/text/model';
import { DEFAULT_FONT } from '../type/catalogue';
import type { ProductData } from '../data/product-data';
import { emptyShot, type Shot } from './document';

/** New elements and new shots with sensible beginnings. */

const NO_EDGES = { strength: 0, reach: 0.6 };

export const newBase = (id: string, name: string): Omit<ElementBase, 'kind' | 'box'> => ({
  id,
  name,
  opacity: 1,
  blend: 'normal',
  hidden: false,
  locked: false,
  link: null,
  effects: NO_EFFECTS,
  brand: {},
  place: null,
  spread: false,
});

export function newBackdrop(
  id: string,
  frame: { width: number; height: number },
  colour: string,
): BackdropElement {
  return {
    ...newBase(id, 'Backdrop'),
    kind: 'backdrop',
    box: { x: 0, y: 0, ...frame, rotation: 0 },
    fill: { type: 'colour', colour },
    adjust: UNADJUSTED,
    edges: NO_EDGES,
  };
}

/** A scene's or mockup's picture as a backdrop's fill, nothing done to it yet. */
export function sceneFill(picture: string, survey: SceneSurvey): SceneFill {
  return { type: 'scene', picture, focus: { x: 0.5, y: 0.5 }, zoom: 1, survey, item: NO_WORK };
}

export function newSceneBackdrop(
  id: string,
  title: string,
  picture: string,
  survey: SceneSurvey,
): BackdropElement {
  return {
    ...newBase(id, title),
    kind: 'backdrop',
    box: { x: 0, y: 0, width: survey.width, height: survey.height, rotation: 0 },
    fill: sceneFill(picture, survey),
    adjust: UNADJUSTED,
    edges: NO_EDGES,
  };
}

export function newText(id: string, text: string, frame: { width: number; height: number }): TextElement {
  const size = Math.round(Math.min(frame.width, frame.height) * 0.06);
  return {
    ...newBase(id, 'Text'),
    kind: 'text',
    box: {
      x: Math.round(frame.width * 0.06),
      y: Math.round(frame.height * 0.06),
      width: Math.round(frame.width * 0.5),
      height: Math.round(size * 2.5),
      rotation: 0,
    },
    text,
    font: DEFAULT_FONT,
    size,
    smallest: Math.round(size * 0.25),
    tied: null,
    capitals: false,
    leading: 1.12,
    tracking: 0,
    align: 'start',
    vertical: 'top',
    colour: '#171b19',
    plate: null,
  };
}

/** A mockup as it is, to be printed on. */
export function mockupShot(scene: { title: string; picture: string; survey: SceneSurvey }): Shot {
  const shot = emptyShot(scene.survey.width, scene.survey.height);
  return { ...shot, elements: [newSceneBackdrop('backdrop', scene.title, scene.picture, scene.survey)] };
}

export function newPicture(
  id: string,
  title: string,
  picture: { picture: string; width: number; height: number },
  frame: { width: number; height: number },
): PictureElement {
  const width = frame.width * 0.18;
  const height = (width * picture.height) / picture.width;
  return {
    ...newBase(id, title),
    kind: 'picture',
    box: { x: frame.width * 0.94 - width, y: frame.height * 0.06, width, height, rotation: 0 },
    picture: picture.picture,
  };
}

/**
 * A product in a frame: true to size on the ground's first free spot where both know millimetres, else at a share of
 * the frame.
 * @param elements what is in the frame already, back to front, resolved
 */
export function newProduct(
  id: string,
  data: ProductData,
  frame: { width: number; height: number },
  pose: Pose,
  elements: readonly ShotElement[] = [],
): ProductElement {
  const cutout = data.cutout!;
  const aspect = cutout.height / cutout.width;
  const ground = groundOf(elements);
  const most = ground ? 0.42 : 0.72;
  const width = Math.min(frame.width * most, (frame.height * most) / aspect);
  const height = width * aspect;
  const product: ProductElement = {
    ...newBase(id, data.variant ? `${data.title}, ${data.variant}` : data.title),
    kind: 'product',
    box: { x: (frame.width - width) / 2, y: (frame.height - height) / 2, width, height, rotation: 0 },
    picture: cutout.picture,
    followsVariant: true,
    millimetres:
      data.widthMm && data.heightMm && data.depthMm
        ? { width: data.widthMm, height: data.heightMm, depth: data.depthMm }
        : null,
    pose,
    base: cutout.base ?? null,
    pitchDeg: null,
    liftMm: 40,
    behind: true,
    ownShadow: cutout.shadow ?? null,
    shadow: {
      source: 'light',
      strength: ground ? 0.7 - 0.22 * ground.light.softness : 0.45,
      contact: 0.7,
      softness: 1,
      length: 1,
      tint: '#16181b',
      light: null,
    },
    reflection: { strength: ground ? 0.5 * ground.gloss : 0, fade: 0.5, roughness: 0.25 },
    tone: { strength: ground?.scene ? 0.6 : 0, limit: 6 },
    relight: ground?.scene ? 1 : 0,
    gloss: ground?.scene ? null : 0,
    blur: ground?.scene ? null : 0,
    haze: ground?.scene ? null : 0,
    pack: null,
  };
  if (!ground) return product;
  const bases = elements.filter(isProduct).map((e) => basePoint(e));
  const near = (s: { x: number; y: number }) =>
    bases.some((b) => Math.hypot(b.x - s.x, b.y - s.y) < frame.width * 0.06);
  const spot = ground.spots.find((s) => !near(s)) ??
    ground.spots[0] ?? { x: frame.width / 2, y: frame.height * 0.75 };
  const at = basePoint(product);
  const moved = {
    ...product,
    box: { ...product.box, x: product.box.x + spot.x - at.x, y: product.box.y + spot.y - at.y },
  };
  return { ...moved, box: trueSizeBox(moved, ground, frame) ?? moved.box };
}

/** The product alone on pure white without shadow, square. */
export function whiteShot(data: ProductData, pose: Pose): Shot {
  const shot = emptyShot(2000, 2000);
  const product = newProduct('product', data, shot.frame, pose);
  return {
    ...shot,
    elements: [
      { ...newBackdrop('backdrop', shot.frame, '#ffffff'), name: 'White' },
      { ...product, shadow: { ...product.shadow, strength: 0, contact: 0 } },
    ],
  };
}

/** The product in a scene, standing on its first spot at true size. */
export function sceneShot(
  data: ProductData,
  pose: Pose,
  scene: { title: string; picture: string; survey: SceneSurvey },
): Shot {
  const shot = emptyShot(scene.survey.width, scene.survey.height);
  const backdrop = newSceneBackdrop('backdrop', scene.title, scene.picture, scene.survey);
  return { ...shot, elements: [backdrop, newProduct('product', data, shot.frame, pose, [backdrop])] };
}
