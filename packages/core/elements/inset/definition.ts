import Joi from 'joi';
import { drawPicture } from '../draw-picture';
import type { PaintEnvironment } from '../environment';
import { fontsFor } from '../../type/catalogue';
import {
  ellipse,
  fillPath,
  polygon,
  roundedRectangle,
  shrunk,
  strokePath,
  tracePath,
  type Bounds,
  type PathCommand,
  type Point,
} from '../../vector/outline';
import { colourSchema, hashSchema } from '../../raster/schemas';
import type { ElementBase, Words } from '../base';
import type { ElementKind } from '../element';
import { isDarkBeneath } from '../ground-tone';
import { exitPoint, leaderPath } from '../leader';
import { LEADERS, productOf, spotOn, type Leader } from '../spot';
import { paintWords, setWords, wordsOf } from '../words';

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
  effects(e, environment) {
    const { dropShadow } = e.effects;
    if (!e.adapts || !dropShadow || !lensOnDark(e, environment)) return e.effects;
    return {
      ...e.effects,
      dropShadow: { ...dropShadow, colour: '#ffffff', opacity: dropShadow.opacity * 0.6 },
    };
  },
  depends: (e, environment) => e.adapts && lensOnDark(e, environment),
  extent(e) {
    const label = e.states ? { ...e.box, height: e.box.height * 1.22 } : e.box;
    if (!e.target || (e.mark === 'none' && e.leader === 'none')) return label;
    const reach = e.line + 2;
    const x = Math.min(label.x, e.target.x - reach);
    const y = Math.min(label.y, e.target.y - reach);
    return {
      x,
      y,
      width: Math.max(label.x + label.width, e.target.x + e.target.width + reach) - x,
      height: Math.max(label.y + label.height, e.target.y + e.target.height + reach) - y,
    };
  },
  words: labelWords,
  paint(e, canvas, environment) {
    const outline = lensPath(e.shape, e.box, e.radius);
    const ring = e.adapts && lensOnDark(e, environment) ? '#f6f4ee' : e.ring.colour;
    paintPointer(e, ring, canvas);
    fillPath(canvas, outline, e.fill);
    if (e.picture && e.seen) {
      canvas.save();
      tracePath(canvas, outline);
      canvas.clip();
      const source = environment.picture(e.picture);
      const k = e.box.width / (e.seen.across * source.width);
      const [w, h] = [source.width * k, source.height * k];
      const x = e.box.x + e.box.width / 2 - e.seen.x * w;
      const y = e.box.y + e.box.height / 2 - e.seen.y * h;
      drawPicture(e.picture, x, y, w, h, canvas, environment);
      canvas.restore();
    }
    strokePath(canvas, lensPath(e.shape, shrunk(e.box, e.ring.width / 2), e.radius), {
      ...e.ring,
      colour: ring,
    });
    paintWords(labelWords(e, environment), canvas);
  },
};

const lensOnDark = (e: InsetElement, environment: PaintEnvironment) => isDarkBeneath(e.box, environment);

function paintPointer(e: InsetElement, colour: string, canvas: Parameters<typeof strokePath>[0]): void {
  const { target } = e;
  if (!target || e.line <= 0) return;
  const middle = { x: target.x + target.width / 2, y: target.y + target.height / 2 };
  const dot = e.line * 2.2;
  const small = { x: middle.x - dot, y: middle.y - dot, width: 2 * dot, height: 2 * dot };
  const spot = e.mark === 'dot' ? small : target;
  const round = e.shape === 'circle' || e.mark === 'dot';
  const boxMiddle = { x: e.box.x + e.box.width / 2, y: e.box.y + e.box.height / 2 };
  const from = exitPoint(e.box, middle, e.shape === 'circle');
  const to = exitPoint(spot, boxMiddle, round);
  strokePath(canvas, leaderPath(from, to, e.leader), { width: e.line, colour });
  if (e.mark === 'dot') fillPath(canvas, ellipse(middle.x, middle.y, dot), colour);
  if (e.mark === 'area')
    strokePath(canvas, lensPath(e.shape, target, (e.radius * target.width) / e.box.width), {
      width: e.line,
      colour,
    });
}

function labelWords(e: InsetElement, environment: PaintEnvironment): Words[] {
  if (!e.states || e.times === null) return [];
  const rounded = e.times >= 10 ? Math.round(e.times) : Math.round(e.times * 10) / 10;
  const size = e.box.height * 0.1;
  const box = { x: e.box.x, y: e.box.y + e.box.height + size * 0.35, width: e.box.width, height: size * 1.4 };
  const text = `${rounded}×`;
  const set = setWords(
    text,
    { font: e.font, size, smallest: size * 0.5, leading: 1.2, tracking: 0, align: 'centre', vertical: 'top' },
    box,
    environment,
  );
  return [wordsOf(text, set, e.ink)];
}

/** The outline of a lens in its box. */
export function lensPath(shape: LensShape, box: Bounds, radius: number): PathCommand[] {
  const { x, y, width, height } = box;
  const [cx, cy] = [x + width / 2, y + height / 2];
  switch (shape) {
    case 'circle':
      return ellipse(cx, cy, width / 2, height / 2);
    case 'rounded':
      return roundedRectangle(box, radius);
    case 'square':
      return roundedRectangle(box, 0);
    case 'arch': {
      const r = Math.min(width / 2, height);
      const k = r * 0.5522847498;
      return [
        { type: 'M', x, y: y + height },
        { type: 'L', x, y: y + r },
        { type: 'C', x1: x, y1: y + r - k, x2: cx - k, y2: y, x: cx, y },
        { type: 'C', x1: cx + k, y1: y, x2: x + width, y2: y + r - k, x: x + width, y: y + r },
        { type: 'L', x: x + width, y: y + height },
        { type: 'Z' },
      ];
    }
    case 'hexagon':
      return polygon(
        Array.from({ length: 6 }, (_, i) => ({
          x: cx + (Math.cos((Math.PI / 3) * i - Math.PI / 2) * width) / 2,
          y: cy + (Math.sin((Math.PI / 3) * i - Math.PI / 2) * height) / 2,
        })),
      );
  }
}
