import { pxPerMmAt, type SceneSurvey } from '../elements/backdrop/survey';
import type { ElementBase } from '../elements/element';
import type { BackdropElement } from '../elements/backdrop/definition';
import type { PictureElement } from '../elements/picture/definition';
import type { ProductElement } from '../elements/product/definition';
import type { TextElement } from '../elements/text/definition';
import { DEFAULT_FONT } from '../type/catalogue';
import type { ProductData } from './data';
import { emptyShot, type Shot } from './document';

/** New elements and new shots with sensible beginnings. */

const base = (id: string, name: string): Omit<ElementBase, 'kind' | 'box'> => ({
  id,
  name,
  opacity: 1,
  blend: 'normal',
  hidden: false,
  locked: false,
});

const STUDIO_LIGHT = { azimuthDeg: -45, elevationDeg: 48, softness: 0.7 };

export function newBackdrop(
  id: string,
  frame: { width: number; height: number },
  colour: string,
): BackdropElement {
  return {
    ...base(id, 'Backdrop'),
    kind: 'backdrop',
    box: { x: 0, y: 0, ...frame, rotation: 0 },
    fill: { type: 'colour', colour },
  };
}

export function newSceneBackdrop(
  id: string,
  title: string,
  picture: string,
  survey: SceneSurvey,
): BackdropElement {
  return {
    ...base(id, title),
    kind: 'backdrop',
    box: { x: 0, y: 0, width: survey.width, height: survey.height, rotation: 0 },
    fill: { type: 'scene', picture, focus: { x: 0.5, y: 0.5 }, survey },
  };
}

export function newText(id: string, text: string, frame: { width: number; height: number }): TextElement {
  const size = Math.round(Math.min(frame.width, frame.height) * 0.06);
  return {
    ...base(id, 'Text'),
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
    leading: 1.12,
    tracking: 0,
    align: 'left',
    vertical: 'top',
    colour: '#171b19',
    plate: null,
  };
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
    ...base(id, title),
    kind: 'picture',
    box: { x: frame.width * 0.94 - width, y: frame.height * 0.06, width, height, rotation: 0 },
    picture: picture.picture,
  };
}

/** A product in a frame: true to size on a scene's spot where both are surveyed, else at a share of the frame. */
export function newProduct(
  id: string,
  data: ProductData,
  frame: { width: number; height: number },
  pose: 'stand' | 'flat',
  scene: SceneSurvey | null,
): ProductElement {
  const cutout = data.cutout!;
  const aspect = cutout.height / cutout.width;
  const millimetres =
    data.widthMm && data.heightMm && data.depthMm
      ? { width: data.widthMm, height: data.heightMm, depth: data.depthMm }
      : null;
  let width = Math.min(frame.width * 0.72, (frame.height * 0.72) / aspect);
  let x = frame.width / 2;
  let bottom = frame.height / 2 + (width * aspect) / 2;
  if (scene) {
    const k = Math.max(frame.width / scene.width, frame.height / scene.height);
    const offsetX = (frame.width - scene.width * k) / 2;
    const offsetY = (frame.height - scene.height * k) / 2;
    const spot = scene.spots[0] ?? { x: scene.width / 2, y: scene.height * 0.75 };
    const perMm = pxPerMmAt(scene, spot.y);
    if (perMm && millimetres) width = millimetres.width * perMm * k;
    else width = Math.min(frame.width * 0.4, (frame.height * 0.45) / aspect);
    x = spot.x * k + offsetX;
    // A base seen from a little above shows as an ellipse; its middle stands on the spot.
    bottom = spot.y * k + offsetY + (pose === 'stand' ? width * 0.1 : (width * aspect) / 2);
  }
  const height = width * aspect;
  return {
    ...base(id, data.variant ? `${data.title}, ${data.variant}` : data.title),
    kind: 'product',
    box: { x: x - width / 2, y: bottom - height, width, height, rotation: 0 },
    picture: cutout.picture,
    followsVariant: true,
    millimetres,
    pose,
    ownShadow: cutout.shadow ?? null,
    shadow: { source: 'light', strength: 0.6, contact: 0.75, light: scene?.light ?? STUDIO_LIGHT },
  };
}

/** The product alone on pure white without shadow, square. */
export function whiteShot(data: ProductData, pose: 'stand' | 'flat'): Shot {
  const shot = emptyShot(2000, 2000);
  const product = newProduct('product', data, shot.frame, pose, null);
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
  pose: 'stand' | 'flat',
  scene: { title: string; picture: string; survey: SceneSurvey },
): Shot {
  const shot = emptyShot(scene.survey.width, scene.survey.height);
  return {
    ...shot,
    elements: [
      newSceneBackdrop('backdrop', scene.title, scene.picture, scene.survey),
      newProduct('product', data, shot.frame, pose, scene.survey),
    ],
  };
}
