import Joi from 'joi';
import { drawPicture } from '../../paint/draw-picture';
import { reducedAlpha } from '../../raster/pixels';
import { castShadow, shadowFrame } from '../../stage/shadow';
import { hashSchema, type ElementBase, type ElementKind } from '../element';
import { lightSchema, type Light } from '../backdrop/survey';

/** The camera's own shadow, black with alpha; its place as shares of the product's box. */
export interface OwnShadowLayer {
  picture: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface ProductElement extends ElementBase {
  kind: 'product';
  /** The cutout's picture: a trimmed PNG with alpha. */
  picture: string;
  /** True: every variant stands here in its turn. False: always this picture. */
  followsVariant: boolean;
  /** Real size, where known. */
  millimetres: { width: number; height: number; depth: number } | null;
  pose: 'stand' | 'flat';
  /** The shadow kept from the photo, where there is one. */
  ownShadow: OwnShadowLayer | null;
  shadow: {
    /** Computed from the light, or the camera's own. */
    source: 'light' | 'camera';
    /** Darkness of the cast shadow and of the contact under the product, 0..1. */
    strength: number;
    contact: number;
    light: Light;
  };
}

/** Long side of the silhouette from which a shadow is computed, in pixels; shadows hold no finer detail. */
const SHADOW_SIZE = 144;

export const productKind: ElementKind<ProductElement> = {
  kind: 'product',
  title: 'Product',
  role: 'subject',
  schema: {
    picture: hashSchema.required(),
    followsVariant: Joi.boolean().required(),
    millimetres: Joi.object({
      width: Joi.number().greater(0).max(20000).required(),
      height: Joi.number().greater(0).max(20000).required(),
      depth: Joi.number().greater(0).max(20000).required(),
    })
      .allow(null)
      .required(),
    pose: Joi.string().valid('stand', 'flat').required(),
    ownShadow: Joi.object({
      picture: hashSchema.required(),
      x: Joi.number().required(),
      y: Joi.number().required(),
      width: Joi.number().greater(0).required(),
      height: Joi.number().greater(0).required(),
    })
      .allow(null)
      .required(),
    shadow: Joi.object({
      source: Joi.string().valid('light', 'camera').required(),
      strength: Joi.number().min(0).max(1).required(),
      contact: Joi.number().min(0).max(1).required(),
      light: lightSchema.required(),
    }).required(),
  },
  needs: (element) => ({
    pictures: showsOwnShadow(element) ? [element.picture, element.ownShadow!.picture] : [element.picture],
    fonts: [],
  }),
  scaled: (element) => element,
  paint(element, canvas, environment) {
    const { box, shadow, pose, picture } = element;
    if (!environment.productsOnly && showsOwnShadow(element)) {
      const own = element.ownShadow!;
      const alpha = canvas.globalAlpha;
      canvas.globalAlpha = alpha * shadow.strength;
      drawPicture(
        own.picture,
        box.x + own.x * box.width,
        box.y + own.y * box.height,
        own.width * box.width,
        own.height * box.height,
        canvas,
        environment,
      );
      canvas.globalAlpha = alpha;
    } else if (!environment.productsOnly && (shadow.strength > 0 || shadow.contact > 0)) {
      const source = environment.picture(picture);
      const factor = Math.max(1, Math.ceil(Math.max(source.width, source.height) / SHADOW_SIZE));
      const options = { pose, ...shadow };
      const l = shadow.light;
      const key = `shadow:4:${picture}:${pose}:${l.azimuthDeg}:${l.elevationDeg}:${l.softness}:${shadow.strength}:${shadow.contact}`;
      const made = environment.derived(key, () => castShadow(reducedAlpha(source.pixels(), factor), options));
      const room = shadowFrame(Math.ceil(source.width / factor), Math.ceil(source.height / factor), options);
      const kx = (box.width * factor) / source.width;
      const ky = (box.height * factor) / source.height;
      canvas.imageSmoothingEnabled = true;
      canvas.imageSmoothingQuality = 'low';
      canvas.drawImage(
        made,
        box.x - room.left * kx,
        box.y - room.top * ky,
        made.width * kx,
        made.height * ky,
      );
    }
    drawPicture(picture, box.x, box.y, box.width, box.height, canvas, environment);
  },
};

function showsOwnShadow({ shadow, ownShadow }: ProductElement): boolean {
  return shadow.source === 'camera' && ownShadow !== null && shadow.strength > 0;
}
