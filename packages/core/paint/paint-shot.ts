import { effectLayers, effectsReach, hasEffects, type Effects } from '../raster/effects';
import { uprightBounds } from '../vector/box';
import { elementKind, type ShotElement } from '../elements/index';
import { spreadPacks } from '../elements/product/pack';
import type { Rgba } from '../raster/pixels';
import type { ResolvedShot } from '../shot/resolve';
import { groundOf } from '../elements/ground-of';
import { elementPainter } from '../elements/painters';
import type { Typeface } from '../type/typeface';
import type { Bounds } from '../vector/outline';
import { DerivedCache } from './derived-cache';
import { paintOrder } from './paint-order';
import type { PaintEnvironment } from '../elements/environment';
import type { Canvas2D, Drawable, PaintHost, Picture } from '../raster/canvas';

export interface PaintOptions {
  host: PaintHost;
  cache: DerivedCache;
  pictures: ReadonlyMap<string, Picture>;
  typefaces: ReadonlyMap<string, Typeface>;
  /** Device pixels a frame pixel; 1 paints at the frame's own size. */
  scale?: number;
  /** Paint products alone on a clear ground, to measure where they are. */
  productsOnly?: boolean;
  /** A painting made while dragging, to be followed by a settled one. */
  draft?: boolean;
  /** One shot is painted again and again: what lies under a changed overlay is kept and painted on from there. */
  resumes?: boolean;
}

/** Who looks on while a shot is painted: told after each visible element, with the picture as it is then. */
export type PaintObserver = (element: ShotElement, context: Canvas2D, environment: PaintEnvironment) => void;

export interface Painted {
  context: Canvas2D;
  drawable: Drawable;
  width: number;
  height: number;
  pixels(): Rgba;
}

/**
 * Paints a resolved shot, back to front, on a canvas of the host's. The same code makes the picture on the
 * stage and the delivered file. Everything named by `needsOf(shot)` must be in `pictures` and `typefaces`;
 * otherwise an error says what is missing.
 */
export function paintShot(shot: ResolvedShot, options: PaintOptions, observer?: PaintObserver): Painted {
  const { scale = 1, productsOnly = false } = options;
  const width = Math.max(1, Math.round(shot.width * scale));
  const height = Math.max(1, Math.round(shot.height * scale));
  const { context, drawable } = options.host.canvas(width, height);
  const kx = width / shot.width;
  const ky = height / shot.height;
  const environment = overCanvas(environmentOf(shot, options), context, width, height);
  const { elements } = environment;
  context.clearRect(0, 0, width, height);
  context.save();
  context.scale(kx, ky);
  const { steps, subjects } = paintOrder(elements);
  const visible = steps.map((s) => s.element);
  const resume =
    options.resumes && !observer && !productsOnly ? resumeFrom(visible, shot, options, width, height) : null;
  if (resume?.kept) context.drawImage(resume.kept, 0, 0, shot.width, shot.height);
  for (let i = resume?.from ?? 0; i < steps.length; i++) {
    const { element, shadowsBefore, foregroundAfter } = steps[i];
    if (i === resume?.keepAt) resume.keep(drawable);
    if (productsOnly) {
      const subject = elementKind(element.kind).role === 'subject';
      if (subject) paintElement(element, context, environment);
      // Where nothing is placed in a mockup, its item is the product.
      else if (!subjects.length) elementPainter(element.kind).paintItem?.(element, context, environment);
      continue;
    }
    paintShadows(shadowsBefore, context, environment);
    paintElement(element, context, environment);
    observer?.(element, context, environment);
    paintForegroundOf(foregroundAfter, context, environment);
  }
  context.restore();
  return {
    context,
    drawable,
    width,
    height,
    pixels: () => ({ width, height, data: context.getImageData(0, 0, width, height).data }),
  };
}

/** Shadows and reflections of subjects, on the ground. */
export function paintShadows(
  subjects: readonly ShotElement[],
  context: Canvas2D,
  environment: PaintEnvironment,
): void {
  for (const s of subjects) elementPainter(s.kind).paintUnder?.(s, context, environment);
}

/** What of a ground stands in front of the products. */
export function paintForegroundOf(
  ground: ShotElement | null,
  context: Canvas2D,
  environment: PaintEnvironment,
): void {
  if (ground) elementPainter(ground.kind).paintForeground?.(ground, context, environment);
}

/** What a shot's elements are painted with, and those elements themselves. */
export interface ShotEnvironment extends PaintEnvironment {
  elements: readonly ShotElement[];
}

/** An environment whose elements see what was painted on a canvas before them. */
export function overCanvas(
  environment: ShotEnvironment,
  context: Canvas2D,
  width: number,
  height: number,
): ShotEnvironment {
  const kx = width / environment.frame.width;
  const ky = height / environment.frame.height;
  return {
    ...environment,
    beneath(b) {
      const x = Math.max(0, Math.floor(b.x * kx));
      const y = Math.max(0, Math.floor(b.y * ky));
      const w = Math.min(width, Math.ceil((b.x + b.width) * kx)) - x;
      const h = Math.min(height, Math.ceil((b.y + b.height) * ky)) - y;
      return w < 1 || h < 1 ? null : { width: w, height: h, data: context.getImageData(x, y, w, h).data };
    },
  };
}

interface Kept {
  /** What was painted the last time, element by element, and in which circumstances. */
  signatures: string[];
  about: string;
  /** The picture of the first `count` of them. */
  picture: { count: number; signatures: string[]; drawable: Drawable } | null;
}

/**
 * Where painting may begin when the same shot is painted again: after the elements under the first that has changed,
 * whose picture is kept from the last time. Only overlays are resumed at: products throw light and shade on each other.
 */
function resumeFrom(
  visible: readonly ShotElement[],
  shot: ResolvedShot,
  { cache, host, draft, scale }: PaintOptions,
  width: number,
  height: number,
) {
  const signatures = visible.map((e) => JSON.stringify(e));
  const about = JSON.stringify([width, height, shot.width, shot.height, scale, !!draft]);
  const last = cache.settled.get('kept-picture') as Kept | undefined;
  const same = last?.about === about ? last : null;
  const held = same?.picture;
  const matches = !!held && held.signatures.every((s, i) => s === signatures[i]);
  const changed = same ? signatures.findIndex((s, i) => s !== same.signatures[i]) : -1;
  const overlay = changed > 0 && elementKind(visible[changed].kind).role === 'overlay';
  // Texts of one size look at each other, wherever they lie.
  const alone = overlay && !visible.some((e) => elementPainter(e.kind).followsOthers?.(e));
  const keepAt = alone && (!matches || changed > held.count) ? changed : -1;
  const next: Kept = { signatures, about, picture: matches ? held : null };
  cache.settled.set('kept-picture', next);
  return {
    from: matches ? held.count : 0,
    kept: matches ? held.drawable : null,
    keepAt,
    keep(drawable: Drawable) {
      const copy = host.canvas(width, height);
      copy.context.drawImage(drawable, 0, 0, width, height);
      next.picture = { count: keepAt, signatures: signatures.slice(0, keepAt), drawable: copy.drawable };
    },
  };
}

/** What painting (or measuring the staging of) a shot may use; packs are spread out in its elements. */
export function environmentOf(shot: ResolvedShot, options: PaintOptions): ShotEnvironment {
  const { host, cache, scale = 1, productsOnly = false, draft = false } = options;
  const frame = { width: shot.width, height: shot.height };
  const ground = groundOf(shot.elements);
  return {
    host,
    scale,
    frame,
    ground,
    draft,
    productsOnly,
    beneath: () => null,
    elements: spreadPacks(shot.elements, ground, frame),
    picture(hash) {
      const picture = options.pictures.get(hash);
      if (!picture) throw new Error(`The picture ${hash.slice(0, 12)} that this shot uses is not there.`);
      return picture;
    },
    typeface(id) {
      const face = options.typefaces.get(id);
      if (!face) throw new Error(`The font "${id}" that this shot uses is not there.`);
      return face;
    },
    derived: (key, make) => cache.get(key, host, make),
    kept: (key, make) => cache.value(key, make),
    settled: cache.settled as PaintEnvironment['settled'],
  };
}

/** Paints one element as it is laid on: with its opacity, blend mode and effects. */
export function paintElement(element: ShotElement, context: Canvas2D, environment: PaintEnvironment): void {
  const { box } = element;
  const { productsOnly } = environment;
  const effects = elementPainter(element.kind).effects?.(element, environment) ?? element.effects;
  context.save();
  context.globalAlpha = productsOnly ? 1 : element.opacity;
  context.globalCompositeOperation =
    productsOnly || element.blend === 'normal' ? 'source-over' : element.blend;
  if (!productsOnly && (hasEffects(effects) || fadesAsOne(element)))
    paintWithEffects(element, effects, context, environment);
  else paintTurned(element, box, context, environment);
  context.restore();
}

/** Parts of an overlay lie over one another: where what is below is to be seen through it, they are laid on as one. */
function fadesAsOne(element: ShotElement): boolean {
  const faded = element.opacity < 1 || element.blend !== 'normal';
  return faded && elementKind(element.kind).role === 'overlay' && !element.spread;
}

/** Paints one element as it is, turned, on any canvas whose units are the frame's pixels. */
export function paintTurned(
  element: ShotElement,
  box: ShotElement['box'],
  context: Canvas2D,
  environment: PaintEnvironment,
): void {
  context.save();
  if (box.rotation) {
    context.translate(box.x + box.width / 2, box.y + box.height / 2);
    context.rotate((box.rotation * Math.PI) / 180);
    context.translate(-box.x - box.width / 2, -box.y - box.height / 2);
  }
  elementPainter(element.kind).paint(element, context, environment);
  context.restore();
}

/** The upright rectangle of the frame that an element paints in, its effects among it. */
export function paintedBounds(element: ShotElement, environment: PaintEnvironment): Bounds {
  const painter = elementPainter(element.kind);
  const own = painter.extent?.(element, environment) ?? element.box;
  const bounds = uprightBounds({ ...own, rotation: element.box.rotation });
  // Paint may reach past the box by shade at the edge only; effects reach as far as they say.
  const reach = effectsReach(painter.effects?.(element, environment) ?? element.effects) + 2;
  const { frame } = environment;
  const x = Math.max(-reach, bounds.x - reach);
  const y = Math.max(-reach, bounds.y - reach);
  return {
    x,
    y,
    width: Math.min(frame.width + reach, bounds.x + bounds.width + reach) - x,
    height: Math.min(frame.height + reach, bounds.y + bounds.height + reach) - y,
  };
}

/**
 * The element is painted by itself, its effects are made from that, and the whole is laid on as one. An overlay's
 * whole is kept until something of its own changes.
 */
function paintWithEffects(
  element: ShotElement,
  effects: Effects,
  context: Canvas2D,
  environment: PaintEnvironment,
): void {
  const { scale, frame, host } = environment;
  const bounds = paintedBounds(element, environment);
  const x0 = Math.floor(bounds.x * scale);
  const y0 = Math.floor(bounds.y * scale);
  const width = Math.ceil((bounds.x + bounds.width) * scale) - x0;
  const height = Math.ceil((bounds.y + bounds.height) * scale) - y0;
  if (width < 1 || height < 1) return;
  const paintWhole = () => {
    const layer = host.canvas(width, height);
    layer.context.translate(-x0, -y0);
    layer.context.scale(scale, scale);
    paintTurned(element, element.box, layer.context, environment);
    const painted: Rgba = { width, height, data: layer.context.getImageData(0, 0, width, height).data };
    const { under, over } = effectLayers(painted, effects, scale);
    const whole = host.canvas(width, height);
    for (const part of [under && host.bitmap(under), layer.drawable, over && host.bitmap(over)])
      if (part) whole.context.drawImage(part, 0, 0, width, height);
    return whole;
  };
  const painter = elementPainter(element.kind);
  const alone = elementKind(element.kind).role === 'overlay' && !painter.followsOthers?.(element);
  const drawable = alone
    ? environment.derived(
        JSON.stringify([
          'effects',
          looksOf(element),
          effects,
          painter.depends?.(element, environment),
          scale,
          frame,
        ]),
        () => ({ width, height, data: paintWhole().context.getImageData(0, 0, width, height).data }),
      )
    : paintWhole().drawable;
  context.drawImage(drawable, x0 / scale, y0 / scale, width / scale, height / scale);
}

/** The part of an element that its own painting depends on. */
function looksOf(element: ShotElement): object {
  const { name: _, opacity: __, blend: ___, locked: ____, link: _____, place: ______, ...looks } = element;
  return looks;
}

/** The content hashes and font ids that painting a shot needs, each once; hidden elements need nothing. */
export function needsOf(shot: ResolvedShot): { pictures: string[]; fonts: string[] } {
  const pictures = new Set<string>();
  const fonts = new Set<string>();
  for (const element of shot.elements) {
    if (element.hidden) continue;
    const needs = elementKind(element.kind).needs(element);
    needs.pictures.forEach((p) => pictures.add(p));
    needs.fonts.forEach((f) => fonts.add(f));
  }
  return { pictures: [...pictures], fonts: [...fonts] };
}
