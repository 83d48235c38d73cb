import { drawPicture } from '../draw-picture';
import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { parseHex } from '../../raster/colour';
import { resizePlane } from '../../raster/resample';
import { scaledBody } from '../../stage/body';
import { castFlatShadow, castShadow, scaledShadow } from '../../stage/cast-shadow';
import { contactShadow } from '../../stage/contact-shadow';
import { layPicture, layShadows } from '../../stage/lay-on-plane';
import { reflect } from '../../stage/reflection';
import { shadeOn, type Caster } from '../../stage/shade-on';
import { groundPlacement } from '../../stage/stand';
import { elementsOfProducts } from './others';
import { showsOwnShadow, type ProductElement } from './model';
import type { ElementPainter } from '../painter';
import { litPixels } from './lit';
import { lightAt, lightOf, uprightPicture, uprightProduct, standingBody } from './upright';

/** A pool of shade may not be darker than this. */
const DEEPEST = 0.92;

/** Reflection and shadow on the ground, no farther than it goes. */
function paintUnderProduct(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const edge = environment.ground?.edge;
  if (!edge) return paintOnGround(element, canvas, environment);
  canvas.save();
  canvas.beginPath();
  edge.forEach(([x, y], i) => (i ? canvas.lineTo(x, y) : canvas.moveTo(x, y)));
  canvas.closePath();
  canvas.clip();
  paintOnGround(element, canvas, environment);
  canvas.restore();
}

function paintOnGround(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const opacity = element.opacity;
  if (element.reflection.strength > 0 && element.pose !== 'flat')
    paintReflection(element, canvas, environment, opacity);
  if (showsOwnShadow(element)) paintOwnShadow(element, canvas, environment, opacity);
  else if (element.shadow.strength > 0 || element.shadow.contact > 0)
    paintShadow(element, canvas, environment, opacity);
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
  const { frame, draft } = environment;
  // Laid once and kept for as long as nothing of product, light and camera changes.
  const key = `laid:${JSON.stringify([looks, upright.key, light, litKey(cast), stand, standing.camera, frame, draft])}`;
  const laid = environment.kept(key, () =>
    layShadows(layers, stand, standing.camera, frame, parseHex(shadow.tint), draft ? 220 : 460),
  );
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

type ShadowLayers = Parameters<typeof layShadows>[0];

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
function flatShadows(cast: ShadowCast): ShadowLayers {
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
    { shadow: make(light, thickness, 'cast'), strength: shadow.strength * 0.85 },
    { shadow: make(close, thickness * 0.8, 'close'), strength: shadow.contact * 0.5 },
  ];
}

/** Of a thing that stands or floats: by the light, and where it meets the ground; null where nothing of it is seen. */
function standingShadows(cast: ShadowCast): ShadowLayers | null {
  const { element, upright, light, environment } = cast;
  const made = standingBody(upright, environment);
  if (!made) return null;
  const { shadow } = element;
  const { body, unit, key } = made;
  const lift = liftOf(element);
  const raised = Math.round(lift / unit);
  const [samples, cells] = environment.draft ? [10, 44] : [28, 72];
  const layers: ShadowLayers = [];
  if (shadow.strength > 0) {
    const byLight = environment.kept(`cast:${key}:${litKey(cast)}:${raised}:${samples}`, () =>
      castShadow(body, { light, lift: raised, length: shadow.length, samples, cells }),
    );
    layers.push({ shadow: scaledShadow(byLight, unit), strength: shadow.strength * DEEPEST });
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
  canvas.drawImage(drawable, box.x, box.y, box.width, box.height);
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
  const mm = { width: box.width / standing.scale, height: box.height / standing.scale };
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

/** Long side at which shade from other products is computed. */
const SHADE = 84;

// eslint-disable-next-line max-lines-per-function -- steps on one canvas in their order
function paintShade(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const others = elementsOfProducts(environment.elements).filter(
    (o) => o.id !== element.id && o.pose !== 'flat' && o.shadow.strength > 0 && !showsOwnShadow(o),
  );
  if (!others.length || element.pose === 'flat') return;
  const upright = uprightProduct(element, environment);
  const own = standingBody(upright, environment);
  if (!own) return;
  const { standing, unit } = own;
  const light = lightAt(lightOf(element, environment), standing, element.shadow.softness);
  const casters: (Caster & { key: string })[] = [];
  for (const other of others) {
    const theirs = standingBody(uprightProduct(other, environment), environment);
    if (!theirs) continue;
    const { stand } = theirs.standing;
    const [c, s] = [Math.cos(standing.stand.facing), Math.sin(standing.stand.facing)];
    const dX = stand.X - standing.stand.X;
    const dY = stand.Y - standing.stand.Y;
    // All in hundredths of the receiver's width, so that nothing is made anew as both grow alike.
    const x = Math.round((dX * s - dY * c) / unit);
    const y = Math.round((dX * c + dY * s) / unit);
    const k = Math.round((theirs.unit / unit) * 40) / 40;
    const reach = (theirs.body.height * 3 + theirs.body.foot.halfWidth) * k + own.body.foot.halfWidth;
    if (Math.hypot(x, y) > reach) continue;
    const lift = Math.round(
      ((other.pose === 'float' ? other.liftMm : 0) + stand.level - standing.stand.level) / unit,
    );
    casters.push({
      body: scaledBody(theirs.body, k),
      x,
      y,
      lift,
      strength: other.shadow.strength * 0.8,
      key: `${theirs.key}:${k}`,
    });
  }
  if (!casters.length) return;
  const lift = element.pose === 'float' ? Math.round(element.liftMm / unit) : 0;
  const key = `shade:${own.key}:${light.azimuthDeg}:${light.elevationDeg}:${light.softness.toFixed(2)}:${lift}:${element.shadow.tint}:${casters
    .map((c) => `${c.key}:${c.x}:${c.y}:${Math.round(c.lift)}:${c.strength.toFixed(2)}`)
    .join('|')}`;
  const made = environment.kept(key, () => {
    const { alpha } = upright;
    const k = Math.min(1, SHADE / Math.max(alpha.width, alpha.height));
    const reduced = resizePlane(
      alpha,
      Math.max(1, Math.round(alpha.width * k)),
      Math.max(1, Math.round(alpha.height * k)),
    );
    const base = standing.base;
    const shade = shadeOn(
      reduced,
      {
        body: own.body,
        x: base.x * reduced.width,
        y: base.y * reduced.width,
        pxPerMm: reduced.width / 100,
        cos: Math.cos((standing.photoPitch * Math.PI) / 180),
        lift,
      },
      casters,
      light,
      parseHex(element.shadow.tint),
    );
    return shade && { bitmap: environment.host.bitmap(shade) };
  });
  if (!made) return;
  canvas.save();
  canvas.globalCompositeOperation = 'multiply';
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'low';
  canvas.drawImage(made.bitmap, element.box.x, element.box.y, element.box.width, element.box.height);
  canvas.restore();
}

export const productPainter: ElementPainter<ProductElement> = {
  paintUnder: paintUnderProduct,
  paint: paintProduct,
};
