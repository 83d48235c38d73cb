import { drawPicture } from '../draw-picture';
import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { parseHex } from '../../raster/colour';
import { castFlatShadow, castShadow, scaledShadow } from '../../stage/cast-shadow';
import { contactShadow } from '../../stage/contact-shadow';
import { clockwise } from '../../stage/faces';
import { layPicture, layShadows, type ShadowLayer } from '../../stage/lay-on-plane';
import { reflect } from '../../stage/reflection';
import { shadeAt } from '../../stage/scene-shade';
import { groundPlacement } from '../../stage/stand';
import { showsOwnShadow, type ProductElement } from './model';
import type { ElementPainter } from '../painter';
import { litPixels } from './lit';
import { keptShadeMask, paintShade } from './shade';
import { lightAt, lightOf, uprightPicture, uprightProduct, standingBody } from './upright';

/** A pool of shade may not be darker than this. */
const DEEPEST = 0.92;

/** Reflection and shadow where they may show: on the ground as far as it goes, shadows on what stands on it too. */
function paintUnderProduct(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const { edge = null, upright = null } = environment.ground ?? {};
  if (element.reflection.strength > 0 && element.pose !== 'flat')
    within(edge && [edge], canvas, () => paintReflection(element, canvas, environment, element.opacity));
  within(edge && [edge, ...(upright?.regions ?? [])], canvas, () =>
    paintShadows(element, canvas, environment),
  );
}

/** Paints within what polygons cover together; everywhere where there are none. */
function within(polygons: [number, number][][] | null, canvas: Canvas2D, paint: () => void): void {
  if (!polygons) return paint();
  canvas.save();
  canvas.beginPath();
  for (const polygon of polygons) {
    // All run alike, so that what two of them cover counts as covered.
    clockwise(polygon).forEach(([x, y], i) => (i ? canvas.lineTo(x, y) : canvas.moveTo(x, y)));
    canvas.closePath();
  }
  canvas.clip();
  paint();
  canvas.restore();
}

function paintShadows(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const { opacity, shadow } = element;
  if (showsOwnShadow(element)) paintOwnShadow(element, canvas, environment, opacity);
  else if (shadow.strength > 0 || shadow.contact > 0) paintShadow(element, canvas, environment, opacity);
}

function paintOwnShadow(
  { box, ownShadow, shadow }: ProductElement,
  canvas: Canvas2D,
  environment: PaintEnvironment,
  opacity: number,
): void {
  const own = ownShadow!;
  canvas.save();
  if (box.rotation) {
    canvas.translate(box.x + box.width / 2, box.y + box.height / 2);
    canvas.rotate((box.rotation * Math.PI) / 180);
    canvas.translate(-box.x - box.width / 2, -box.y - box.height / 2);
  }
  canvas.globalAlpha = opacity * shadow.strength;
  canvas.globalCompositeOperation = 'multiply';
  const place = {
    x: box.x + own.x * box.width,
    y: box.y + own.y * box.height,
    width: own.width * box.width,
    height: own.height * box.height,
  };
  drawPicture(own.picture, place, canvas, environment);
  canvas.restore();
}

function paintShadow(
  element: ProductElement,
  canvas: Canvas2D,
  environment: PaintEnvironment,
  opacity: number,
): void {
  const { shadow, pose } = element;
  const upright = uprightProduct(element, environment);
  const standing = groundPlacement(upright.element, environment.ground, environment.frame);
  if (!standing) return;
  const light = lightAt(lightOf(element, environment), standing, shadow.softness, environment.draft ? 6 : 2);
  const cast = { element, upright, standing, light, environment };
  const layers = pose === 'flat' ? flatShadows(cast) : standingShadows(cast);
  if (!layers) return;
  // A flat thing is turned on its ground, its shadow with it.
  const turned = pose === 'flat' ? (element.box.rotation * Math.PI) / 180 : 0;
  const stand = { ...standing.stand, facing: standing.stand.facing - turned };
  const { name: _, locked: __, link: ___, ...looks } = element;
  const { frame, draft, ground } = environment;
  const { camera } = standing;
  const marks = ground && [ground.upright?.key, ground.shades];
  // Laid once and kept for as long as nothing of product, light and camera changes.
  const key = `laid:${JSON.stringify([looks, upright.key, light, litKey(cast), stand, camera, frame, draft, marks])}`;
  const laid = environment.kept(key, () => {
    const mask = ground?.shades.length ? keptShadeMask(ground.shades, environment) : null;
    return layShadows(
      layers,
      { stand, camera, frame },
      {
        colour: parseHex(shadow.tint),
        detail: draft ? 220 : 460,
        faces: ground?.upright?.faces,
        shade: mask && ((x, y) => shadeAt(mask, x, y)),
      },
    );
  });
  if (!laid) return;
  const { rect, picture } = laid;
  canvas.save();
  canvas.globalAlpha = opacity;
  canvas.globalCompositeOperation = 'multiply';
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'low';
  canvas.drawImage(
    environment.derived(key, () => picture),
    rect.x,
    rect.y,
    rect.width,
    rect.height,
  );
  canvas.restore();
}

/** All that a product's shadows come from. */
interface ShadowCast {
  element: ProductElement;
  upright: ReturnType<typeof uprightProduct>;
  standing: NonNullable<ReturnType<typeof groundPlacement>>;
  light: ReturnType<typeof lightAt>;
  environment: PaintEnvironment;
}

/** Millimetres that a product floats over its ground. */
const liftOf = ({ pose, liftMm }: ProductElement) => (pose === 'float' ? liftMm : 0);

/** What of the light changes a cast shadow, as part of the key it is kept by. */
const litKey = ({ light, element }: ShadowCast) =>
  `${light.azimuthDeg}:${light.elevationDeg}:${light.softness.toFixed(3)}:${element.shadow.length}`;

/** Of a thing that lies flat: by the light, and all around where it is near the ground. */
function flatShadows(cast: ShadowCast): ShadowLayer[] {
  const { element, upright, standing, light, environment } = cast;
  const { shadow, millimetres } = element;
  const { alpha, box } = upright;
  const size = Math.round(Math.log(box.width / standing.scale) * 60);
  const width = Math.exp(size / 60);
  // Without a plane of its own a flat thing lies in the picture's plane.
  const height = environment.ground
    ? (width * box.height) / box.width
    : (width * box.height) / box.width / Math.sin((standing.scenePitch * Math.PI) / 180);
  const thickness = Math.max(1.5, Math.min(millimetres?.depth ?? 4, millimetres?.height ?? 4) * 0.6);
  const options = { lift: liftOf(element), length: shadow.length };
  const make = (by: typeof light, thick: number, tag: string) =>
    environment.kept(
      `flat-shadow:${upright.key}:${size}:${tag}:${litKey(cast)}:${environment.ground ? 1 : 0}`,
      () =>
        castFlatShadow(alpha, { x: width / alpha.width, y: height / alpha.height }, thick, {
          light: by,
          ...options,
        }),
    );
  const close = { ...light, softness: 1, elevationDeg: 70 };
  return [
    { shadow: make(light, thickness, 'cast'), strength: shadow.strength * 0.85, direct: true },
    { shadow: make(close, thickness * 0.8, 'close'), strength: shadow.contact * 0.5 },
  ];
}

/** Of a thing that stands or floats: by the light, and where it meets the ground; null where nothing of it is seen. */
function standingShadows(cast: ShadowCast): ShadowLayer[] | null {
  const { element, upright, light, environment } = cast;
  const made = standingBody(upright, environment);
  if (!made) return null;
  const { shadow } = element;
  const { body, unit, key } = made;
  const lift = liftOf(element);
  const raised = Math.round(lift / unit);
  const [samples, cells] = environment.draft ? [10, 44] : [28, 72];
  const layers: ShadowLayer[] = [];
  if (shadow.strength > 0) {
    // What is upright behind the ground is reached by each ray of its own.
    const each = Boolean(environment.ground?.upright);
    const byLight = environment.kept(`cast:${key}:${litKey(cast)}:${raised}:${samples}:${each}`, () =>
      castShadow(body, { light, lift: raised, length: shadow.length, samples, cells, each }),
    );
    layers.push({
      shadow: scaledShadow(byLight, unit),
      strength: shadow.strength * DEEPEST,
      direct: true,
    });
  }
  if (shadow.contact > 0) {
    const contact = environment.kept(`contact:${key}:${raised}`, () => contactShadow(body, raised));
    const strength = shadow.contact * (lift > 0 ? 0.5 : DEEPEST);
    layers.push({ shadow: scaledShadow(contact, unit), strength });
  }
  return layers;
}

function paintReflection(
  element: ProductElement,
  canvas: Canvas2D,
  environment: PaintEnvironment,
  opacity: number,
): void {
  const upright = uprightProduct(element, environment);
  const standing = groundPlacement(upright.element, environment.ground, environment.frame);
  if (!standing) return;
  const { strength, fade, roughness } = element.reflection;
  const picture = uprightPicture(upright, element, environment);
  const key = `reflection:${upright.key}:${strength}:${fade}:${roughness}`;
  let below = 0;
  const drawable = environment.derived(key, () => {
    const made = reflect(picture, standing.base, { strength, fade, roughness });
    return made.picture;
  });
  below = drawable.height - picture.height;
  const { box } = upright;
  const k = box.width / picture.width;
  // A floating product's mirror image is as far below the plane as the product is above it.
  const drop = (standing.at.y - (box.y + standing.base.y * box.width)) * 2;
  canvas.save();
  canvas.globalAlpha = opacity;
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(drawable, box.x, box.y + drop, box.width, (picture.height + below) * k);
  canvas.restore();
}

/** The product itself: its tone eased toward the scene's, and what others throw on it. */
function paintProduct(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const { box, picture } = element;
  const source = environment.picture(picture);
  if (element.pose === 'flat' && environment.ground && paintFlat(element, canvas, environment)) return;
  const level = Math.max(
    0,
    Math.floor(Math.log2(Math.max(1, source.width / (box.width * environment.scale)))),
  );
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  const lit = litPixels(element, level, environment);
  const drawable = lit ? environment.derived(lit.key, lit.make) : source.drawable;
  const room = (lit?.room ?? 0) * box.width;
  canvas.drawImage(drawable, box.x - room, box.y - room, box.width + 2 * room, box.height + 2 * room);
  if (!environment.productsOnly && !box.rotation) paintShade(element, canvas, environment);
}

/** What lies flat is laid on the ground in perspective. False where no plane shows. */
function paintFlat(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): boolean {
  const { box, picture } = element;
  const standing = groundPlacement(element, environment.ground, environment.frame);
  if (!standing) return false;
  const source = environment.picture(picture);
  const detail = environment.scale * (environment.draft ? 0.7 : 1);
  const level = Math.max(0, Math.floor(Math.log2(Math.max(1, source.width / (box.width * detail)))));
  const lit = litPixels(element, level, environment);
  const pixels = lit ? environment.kept(`flat:${lit.key}`, lit.make) : source.pixels();
  const room = 2 * (lit?.room ?? 0) * box.width;
  const mm = { width: (box.width + room) / standing.scale, height: (box.height + room) / standing.scale };
  const { camera } = standing;
  const stand = { ...standing.stand, facing: standing.stand.facing - (box.rotation * Math.PI) / 180 };
  const laid = layPicture(pixels, mm, stand, camera, environment.frame, detail);
  if (!laid) return true;
  canvas.save();
  // The picture lies turned on the plane already: the canvas's own turn is taken back.
  if (box.rotation) {
    canvas.translate(box.x + box.width / 2, box.y + box.height / 2);
    canvas.rotate((-box.rotation * Math.PI) / 180);
    canvas.translate(-box.x - box.width / 2, -box.y - box.height / 2);
  }
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'medium';
  const { rect } = laid;
  canvas.drawImage(environment.host.bitmap(laid.picture), rect.x, rect.y, rect.width, rect.height);
  canvas.restore();
  return true;
}

export const productPainter: ElementPainter<ProductElement> = {
  paintUnder: paintUnderProduct,
  paint: paintProduct,
};
