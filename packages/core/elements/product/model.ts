import Joi from 'joi';
import { colourSchema, hashSchema } from '../../raster/schemas';
import { arrangementSchema, type Arrangement } from '../../stage/arrange';
import type { ProductBase } from '../../stage/base';
import { lightSchema, type Light } from '../../stage/light';
import type { OwnShadowLayer } from '../../stage/own-shadow-layer';
import type { Pose } from '../../stage/stand';
import { NO_PICTURE, type ElementBase } from '../base';
import type { ElementKind } from '../element';

export interface ProductElement extends ElementBase {
  kind: 'product';
  /** The cutout's picture: a trimmed PNG with alpha. */
  picture: string;
  /** True: every variant stands here in its turn. False: always this picture. */
  followsVariant: boolean;
  /** Real size, where known. */
  millimetres: { width: number; height: number; depth: number } | null;
  pose: Pose;
  /** What it stands on, as its cutout shows it; null where nobody has looked. */
  base: ProductBase | null;
  /** How steeply it was photographed, in degrees, where given; null takes the base's. */
  pitchDeg: number | null;
  /** How far a floating product is above the plane. */
  liftMm: number;
  /** Goes behind what stands in the scene's foreground. */
  behind: boolean;
  /** The shadow kept from the photo, where there is one. */
  ownShadow: OwnShadowLayer | null;
  shadow: {
    /** Computed from the light, or the camera's own. */
    source: 'light' | 'camera';
    /** Darkness of the cast shadow and of the contact under the product, 0..1. */
    strength: number;
    contact: number;
    /** Times the softness and the length that the light gives. */
    softness: number;
    length: number;
    tint: string;
    /** A light of its own; null takes the scene's. */
    light: Light | null;
  };
  reflection: { strength: number; fade: number; roughness: number };
  /** How far its tone is eased toward the scene's, and the most colour drift allowed, delta E 2000. */
  tone: { strength: number; limit: number };
  /** How far the scene's light replaces that of its photo, 0..1. */
  relight: number;
  /** How far it mirrors the scene in place of the studio of its photo, 0..1; null: wholly if its photo shows it shiny. */
  gloss: number | null;
  /** How far it is out of focus: sigma in pixels of the frame; null: as the scene is at its depth. */
  blur: number | null;
  /** The share of the scene's haze over it, 0..1; null: as the scene is at its depth. */
  haze: number | null;
  /** Several standing together; null for one. */
  pack: Arrangement | null;
}

const share = Joi.number().min(0).max(1).required();
const length = Joi.number().greater(0).max(20000).required();

/** The kind's own keys: every one of the interface's, held to it by the compiler. */
export const productSchema: Record<Exclude<keyof ProductElement, keyof ElementBase>, Joi.Schema> = {
  picture: hashSchema.required(),
  followsVariant: Joi.boolean().required(),
  millimetres: Joi.object({ width: length, height: length, depth: length }).allow(null).required(),
  pose: Joi.string().valid('stand', 'float', 'flat').required(),
  base: Joi.object({
    x: Joi.number().required(),
    y: Joi.number().required(),
    halfWidth: Joi.number().greater(0).required(),
    halfDepth: Joi.number().min(0).required(),
    topDepth: Joi.number().min(0).required(),
    length: Joi.number().greater(0).required(),
    pitchDeg: Joi.number().min(0).max(90).required(),
    confidence: share,
    corner: Joi.object({
      x: Joi.number().required(),
      y: Joi.number().required(),
      left: Joi.number().min(0).required(),
      right: Joi.number().min(0).required(),
      tall: Joi.number().required(),
      flatTop: Joi.boolean().required(),
    }),
  })
    .allow(null)
    .required(),
  pitchDeg: Joi.number().min(0).max(90).allow(null).required(),
  liftMm: Joi.number().min(0).max(5000).required(),
  behind: Joi.boolean().required(),
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
    strength: share,
    contact: share,
    softness: Joi.number().min(0).max(3).required(),
    length: Joi.number().min(0).max(3).required(),
    tint: colourSchema.required(),
    light: lightSchema.allow(null).required(),
  }).required(),
  reflection: Joi.object({ strength: share, fade: share, roughness: share }).required(),
  tone: Joi.object({ strength: share, limit: Joi.number().min(0).max(40).required() }).required(),
  relight: share,
  gloss: Joi.number().min(0).max(1).allow(null).required(),
  blur: Joi.number().min(0).max(200).allow(null).required(),
  haze: Joi.number().min(0).max(0.95).allow(null).required(),
  pack: arrangementSchema.allow(null).required(),
};

export function showsOwnShadow({ shadow, ownShadow }: ProductElement): boolean {
  return shadow.source === 'camera' && ownShadow !== null && shadow.strength > 0;
}

export const productKind: ElementKind<ProductElement> = {
  kind: 'product',
  title: 'Product',
  role: 'subject',
  weight: 9,
  plain: ({ shadow }) => ({ shadow: { ...shadow, strength: 0, contact: 0 } }),
  // Other variants are put in the place of the one whose box was set.
  placedBy: ({ followsVariant, picture, base, ownShadow, pitchDeg, millimetres }) =>
    followsVariant ? { picture, base, ownShadow, pitchDeg, millimetres } : {},
  behindForeground: ({ behind }) => behind,
  ownColours: ({ tone }) => ({ tone: { ...tone, strength: 0 }, relight: 0, gloss: 0, haze: 0 }),
  asPlace: (element) =>
    element.followsVariant
      ? { expects: 'product', hint: 'The product', required: true, area: element.box }
      : null,
  isOpen: (element) => element.picture === NO_PICTURE,
  emptied: () => ({
    picture: NO_PICTURE,
    hidden: true,
    millimetres: null,
    base: null,
    ownShadow: null,
    pack: null,
    followsVariant: true,
  }),
  schema: productSchema,
  needs: (element) => ({
    pictures: [
      element.picture,
      ...(showsOwnShadow(element) ? [element.ownShadow!.picture] : []),
      ...(element.pack?.others.map((o) => o.picture) ?? []),
    ],
    fonts: [],
  }),
  scaled: (element) => element,
};

export const isProduct = (element: { kind: string }): element is ProductElement => element.kind === 'product';
