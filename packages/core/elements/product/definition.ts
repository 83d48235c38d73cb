import Joi from 'joi';
import { drawPicture, levelPixels } from '../../paint/draw-picture';
import { castShadow } from '../../stage/shadow';
import { hashSchema, type ElementBase, type ElementKind } from '../element';
import { lightSchema, type Light } from '../backdrop/survey';

export interface ProductElement extends ElementBase {
  kind: 'product';
  /** The cutout's picture: a trimmed PNG with alpha. */
  picture: string;
  /** True: every variant stands here in its turn. False: always this picture. */
  followsVariant: boolean;
  /** Real size, where known. */
  millimetres: { width: number; height: number; depth: number } | null;
  pose: 'stand' | 'flat';
  shadow: {
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
    shadow: Joi.object({
      strength: Joi.number().min(0).max(1).required(),
      contact: Joi.number().min(0).max(1).required(),
      light: lightSchema.required(),
    }).required(),
  },
  needs: (element) => ({ pictures: [element.picture], fonts: [] }),
  scaled: (element) => element,
  paint(element, canvas, environment) {
    const { box, shadow, pose, picture } = element;
    if (!environment.productsOnly && (shadow.strength > 0 || shadow.contact > 0)) {
      const l = shadow.light;
      const key = `shadow:3:${picture}:${pose}:${l.azimuthDeg}:${l.elevationDeg}:${l.softness}:${shadow.strength}:${shadow.contact}`;
      const pixels = () => {
        const source = environment.picture(picture);
        const level = Math.max(0, Math.floor(Math.log2(Math.max(source.width, source.height) / SHADOW_SIZE)));
        return levelPixels(source.pixels(), level);
      };
      // The shadow's picture reaches beyond the product's box by a known share of its long side, on all sides.
      const made = environment.derived(key, () => castShadow(pixels(), { pose, ...shadow }));
      const source = environment.picture(picture);
      const level = Math.max(0, Math.floor(Math.log2(Math.max(source.width, source.height) / SHADOW_SIZE)));
      const w = halved(source.width, level);
      const h = halved(source.height, level);
      const kx = box.width / w;
      const ky = box.height / h;
      canvas.imageSmoothingEnabled = true;
      canvas.imageSmoothingQuality = 'high';
      canvas.drawImage(
        made,
        box.x - ((made.width - w) / 2) * kx,
        box.y - ((made.height - h) / 2) * ky,
        made.width * kx,
        made.height * ky,
      );
    }
    drawPicture(picture, box.x, box.y, box.width, box.height, canvas, environment);
  },
};

function halved(size: number, times: number): number {
  let s = size;
  for (let i = 0; i < times; i++) s = Math.max(1, Math.round(s / 2));
  return s;
}
