import Joi from 'joi';
import { fontsFor } from '../../type/catalogue';
import { type Point } from '../../vector/outline';
import { colourSchema, hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { LEADERS, productOf, spotOn, type Leader } from '../spot';

export const LENS_SHAPES = ['circle', 'rounded', 'square', 'arch', 'hexagon'] as const;

export type LensShape = (typeof LENS_SHAPES)[number];

/** A lens that shows a part of a product enlarged, with a mark on the spot it shows. */
export interface InsetElement extends ElementBase {
  kind: 'inset';
  /** The product it shows; null takes the first. */
  of: string | null;
  /** The product's cutout, the whole photo it was cut from, or a close-up picture of its own. */
  source: 'cutout' | 'photo' | 'picture';
  /** The close-up picture; of the other sources the picture they come to. */
  picture: string | null;
  /** Middle of what is shown, as shares of the product's box (of the picture, for one of its own). */
  spot: Point;
  /** How much is shown across the lens, as a share of the product's (picture's) width. */
  across: number;
  shape: LensShape;
  radius: number;
  /** Behind a cutout. */
  fill: string;
  ring: { width: number; colour: string };
  /** Ring and shadow turn light on dark ground. */
  adapts: boolean;
  mark: 'none' | 'area' | 'dot';
  leader: Leader;
  line: number;
  /** States the magnification under the lens. */
  states: boolean;
  font: string;
  ink: string;
  /** Filled when the shot is resolved: where in the source the middle lies and how wide what is shown is, as shares of
   * the source; the spot's mark in the frame; how many times larger the lens shows it. */
  seen: { x: number; y: number; across: number } | null;
  target: { x: number; y: number; width: number; height: number } | null;
  times: number | null;
}

const share = Joi.number().min(-1).max(2).required();

export const insetKind: ElementKind<InsetElement> = {
  kind: 'inset',
  title: 'Close-up inset',
  role: 'overlay',
  weight: 3,
  asPlace: (element) =>
    element.source === 'picture'
      ? { expects: 'picture', hint: element.name, required: true, area: null }
      : null,
  isOpen: (element) => element.source === 'picture' && !element.picture,
  schema: {
    of: Joi.string().max(60).allow(null).required(),
    source: Joi.string().valid('cutout', 'photo', 'picture').required(),
    picture: hashSchema.allow(null).required(),
    spot: Joi.object({ x: share, y: share }).required(),
    across: Joi.number().min(0.01).max(2).required(),
    shape: Joi.string()
      .valid(...LENS_SHAPES)
      .required(),
    radius: Joi.number().min(0).max(2000).required(),
    fill: colourSchema.required(),
    ring: Joi.object({
      width: Joi.number().min(0).max(500).required(),
      colour: colourSchema.required(),
    }).required(),
    adapts: Joi.boolean().required(),
    mark: Joi.string().valid('none', 'area', 'dot').required(),
    leader: Joi.string()
      .valid(...LEADERS)
      .required(),
    line: Joi.number().min(0).max(200).required(),
    states: Joi.boolean().required(),
    font: Joi.string().max(80).required(),
    ink: colourSchema.required(),
    seen: Joi.object({ x: Joi.number(), y: Joi.number(), across: Joi.number() }).allow(null).required(),
    target: Joi.object({
      x: Joi.number(),
      y: Joi.number(),
      width: Joi.number(),
      height: Joi.number(),
    })
      .allow(null)
      .required(),
    times: Joi.number().allow(null).required(),
  },
  pointsAtProduct: (e) => e.mark !== 'none' || e.leader !== 'none',
  needs: (e) => ({ pictures: e.picture ? [e.picture] : [], fonts: e.states ? fontsFor(e.font, '') : [] }),
  enlarged(e, sizes) {
    const source = e.picture && sizes.get(e.picture);
    if (!source || !e.seen) return [];
    return [{ name: e.name, factor: e.box.width / (source.width * e.seen.across) }];
  },
  scaled: (e, k) => ({
    ...e,
    radius: e.radius * k,
    line: e.line * k,
    ring: { ...e.ring, width: e.ring.width * k },
  }),
  bind(e, data, missing) {
    if (e.source === 'picture') {
      if (!e.picture) missing.add('close-up picture');
      return { ...e, seen: e.picture ? { ...e.spot, across: e.across } : null };
    }
    const photo = e.source === 'photo' ? data?.photo : null;
    if (!photo) return { ...e, picture: null, seen: null };
    const { cutout } = photo;
    return {
      ...e,
      picture: photo.picture,
      seen: {
        x: (cutout.x + e.spot.x * cutout.width) / photo.width,
        y: (cutout.y + e.spot.y * cutout.height) / photo.height,
        across: (e.across * cutout.width) / photo.width,
      },
    };
  },
  attached(e, elements) {
    const product = productOf(e.of, elements);
    if (!product || e.source === 'picture') return { ...e, target: null, times: null };
    const at = spotOn(product, e.spot);
    const width = e.across * product.box.width;
    const height = (width * e.box.height) / e.box.width;
    return {
      ...e,
      picture: e.picture ?? product.picture,
      seen: e.seen ?? { ...e.spot, across: e.across },
      target: { x: at.x - width / 2, y: at.y - height / 2, width, height },
      times: e.box.width / width,
    };
  },
};
