import type { Canvas2D, Drawable } from '../../raster/canvas';
import { parseHex } from '../../raster/colour';
import type { Plane } from '../../raster/pixels';
import { resizePlane } from '../../raster/resample';
import { scaledBody } from '../../stage/body';
import type { Light } from '../../stage/light';
import { sceneShadeOn, shadeDepth, shadeMask, type ShadeMask } from '../../stage/scene-shade';
import { shadeOn, shadePicture, type Caster, type Receiver } from '../../stage/shade-on';
import type { PaintEnvironment } from '../environment';
import { showsOwnShadow, type ProductElement } from './model';
import { elementsOfProducts } from './others';
import { lightAt, lightOf, smallPicture, standingBody, uprightProduct } from './upright';

/** Long side at which shade on a product is computed; while something is dragged. */
const SHADE = 84;
const DRAFT_SHADE = 48;

/** A product that is shaded, with its light. */
interface Shaded {
  element: ProductElement;
  alpha: Plane;
  own: NonNullable<ReturnType<typeof standingBody>>;
  light: Light;
  /** Names its body, its light and how it floats. */
  key: string;
}

/** What others and the scene itself throw on a product that stands or floats. */
export function paintShade(element: ProductElement, canvas: Canvas2D, environment: PaintEnvironment): void {
  const others = elementsOfProducts(environment.elements).filter(
    (o) => o.id !== element.id && o.pose !== 'flat' && o.shadow.strength > 0 && !showsOwnShadow(o),
  );
  // Where the scene's light is laid on, its shade is a part of that.
  const marked = environment.ground?.shades.length && element.relight < 1;
  if (!others.length && !marked) return;
  const shaded = shadedOf(element, environment);
  if (!shaded) return;
  for (const shade of [
    shadeOfOthers(shaded, others, environment),
    marked ? shadeOfScene(shaded, environment) : null,
  ])
    if (shade) multiply(shade, element, canvas);
}

/** What is shaded of a product; null for one that lies flat or turned, or has no place on the ground. */
function shadedOf(element: ProductElement, environment: PaintEnvironment): Shaded | null {
  if (element.pose === 'flat' || element.box.rotation) return null;
  const upright = uprightProduct(element, environment);
  const own = standingBody(upright, environment);
  if (!own) return null;
  const light = lightAt(lightOf(element, environment), own.standing, element.shadow.softness);
  const key = `${own.key}:${light.azimuthDeg}:${light.elevationDeg}:${light.softness.toFixed(2)}:${liftOf(element, own.unit)}:${element.shadow.tint}`;
  return { element, alpha: upright.alpha, own, light, key };
}

function multiply(shade: Drawable, { box }: ProductElement, canvas: Canvas2D): void {
  canvas.save();
  canvas.globalCompositeOperation = 'multiply';
  canvas.imageSmoothingEnabled = true;
  canvas.imageSmoothingQuality = 'low';
  canvas.drawImage(shade, box.x, box.y, box.width, box.height);
  canvas.restore();
}

/** How high a product floats, in its body's units. */
const liftOf = ({ pose, liftMm }: ProductElement, unit: number) =>
  pose === 'float' ? Math.round(liftMm / unit) : 0;

/** A product's matte, reduced, and its body in that. */
function receiverOf(shaded: Shaded, most: number): { reduced: Plane; receiver: Receiver } {
  const { width, height } = shaded.alpha;
  const k = Math.min(1, most / Math.max(width, height));
  return receiverAt(shaded, Math.max(1, Math.round(width * k)), Math.max(1, Math.round(height * k)));
}

function receiverAt(
  { alpha, own, element }: Shaded,
  width: number,
  height: number,
): { reduced: Plane; receiver: Receiver } {
  const reduced = resizePlane(alpha, width, height);
  const { base, photoPitch } = own.standing;
  const receiver = {
    body: own.body,
    x: base.x * reduced.width,
    y: base.y * reduced.width,
    pxPerMm: reduced.width / 100,
    cos: Math.cos((photoPitch * Math.PI) / 180),
    lift: liftOf(element, own.unit),
  };
  return { reduced, receiver };
}

function shadeOfOthers(
  shaded: Shaded,
  others: ProductElement[],
  environment: PaintEnvironment,
): Drawable | null {
  const { element, own, light, key } = shaded;
  const { standing, unit } = own;
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
  if (!casters.length) return null;
  const places = casters
    .map((c) => `${c.key}:${c.x}:${c.y}:${Math.round(c.lift)}:${c.strength.toFixed(2)}`)
    .join('|');
  const made = environment.kept(`shade:${key}:${places}`, () => {
    const { reduced, receiver } = receiverOf(shaded, SHADE);
    const shade = shadeOn(reduced, receiver, casters, light, parseHex(element.shadow.tint));
    return shade && { bitmap: environment.host.bitmap(shade) };
  });
  return made && made.bitmap;
}

/** The mask of a scene's own shade, made once for a frame. */
export function keptShadeMask(
  shades: [number, number][][],
  { frame, kept }: Pick<PaintEnvironment, 'frame' | 'kept'>,
): ShadeMask {
  return kept(`shades:${frame.width}:${frame.height}:${JSON.stringify(shades)}`, () =>
    shadeMask(shades, frame),
  );
}

/** The scene's own shade on a product, as the share of the light that each pixel lacks; null where none is marked. */
export interface SceneShade {
  key: string;
  make(width: number, height: number): Plane | null;
}

/** How the scene's own shade falls on a product that stands or floats. */
export function sceneShadeFor(element: ProductElement, environment: PaintEnvironment): SceneShade | null {
  if (!environment.ground?.shades.length) return null;
  const shaded = shadedOf(element, environment);
  return shaded && sceneShade(shaded, environment);
}

function sceneShade(shaded: Shaded, environment: PaintEnvironment): SceneShade | null {
  const { ground, frame } = environment;
  if (!ground?.scene) return null;
  const { own, light, key } = shaded;
  const { unit, standing } = own;
  const { stand, camera } = standing;
  const { box } = ground.scene;
  // The place in steps of a hundredth of the product's width: less is not seen.
  const at = [stand.X, stand.Y, stand.level].map((v) => Math.round(v / unit)).join(':');
  const size = Math.round(Math.log(unit) * 60);
  const marks = JSON.stringify(ground.shades);
  return {
    key: `scene-shade:${key}:${at}:${size}:${frame.width}:${box.x}:${box.y}:${ground.k}:${ground.upright?.key}:${marks}`,
    make(width, height) {
      const mask = keptShadeMask(ground.shades, environment);
      const walls = ground.upright?.faces.filter((face) => !face.outline) ?? [];
      const { reduced, receiver } = receiverAt(shaded, width, height);
      return sceneShadeOn(reduced, receiver, { mask, walls, camera, stand, unit }, light);
    },
  };
}

/** The same as a picture, as far as the photo's light stays: as dark as the scene's shade is on its ground. */
function shadeOfScene(shaded: Shaded, environment: PaintEnvironment): Drawable | null {
  const { ground, draft } = environment;
  const scene = ground?.scene;
  const shade = sceneShade(shaded, environment);
  if (!shade || !scene) return null;
  const { element } = shaded;
  const { picture, box } = scene;
  const depth = environment.kept(`shade-depth:${picture}:${JSON.stringify(ground.shades)}`, () => {
    const small = smallPicture(picture, environment);
    const k = small.width / box.width;
    const outlines = ground.shades.map((o) => o.map(([x, y]) => [(x - box.x) * k, (y - box.y) * k] as const));
    return shadeDepth(small, outlines);
  });
  const strength = depth * (1 - element.relight);
  if (!strength) return null;
  const most = draft ? DRAFT_SHADE : SHADE;
  const made = environment.kept(`${shade.key}:${most}:${strength}`, () => {
    const { reduced } = receiverOf(shaded, most);
    const lack = shade.make(reduced.width, reduced.height);
    return (
      lack && {
        bitmap: environment.host.bitmap(shadePicture(lack, reduced, parseHex(element.shadow.tint), strength)),
      }
    );
  });
  return made && made.bitmap;
}
