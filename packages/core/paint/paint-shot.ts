import { elementKind } from '../elements/index';
import type { Rgba } from '../raster/pixels';
import type { ResolvedShot } from '../shot/resolve';
import type { Typeface } from '../type/typeface';
import {
  DerivedCache,
  type Canvas2D,
  type Drawable,
  type PaintEnvironment,
  type PaintHost,
  type Picture,
} from './environment';

export interface PaintOptions {
  host: PaintHost;
  cache: DerivedCache;
  pictures: ReadonlyMap<string, Picture>;
  typefaces: ReadonlyMap<string, Typeface>;
  /** Device pixels a frame pixel; 1 paints at the frame's own size. */
  scale?: number;
  /** Paint products alone on a clear ground, to measure where they are. */
  productsOnly?: boolean;
}

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
export function paintShot(shot: ResolvedShot, options: PaintOptions): Painted {
  const { host, cache, scale = 1, productsOnly = false } = options;
  const width = Math.max(1, Math.round(shot.width * scale));
  const height = Math.max(1, Math.round(shot.height * scale));
  const { context, drawable } = host.canvas(width, height);
  const environment: PaintEnvironment = {
    host,
    scale,
    frame: { width: shot.width, height: shot.height },
    productsOnly,
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
  };
  context.clearRect(0, 0, width, height);
  context.save();
  context.scale(width / shot.width, height / shot.height);
  for (const element of shot.elements) {
    const kind = elementKind(element.kind);
    if (element.hidden || element.opacity === 0) continue;
    if (productsOnly && kind.role !== 'subject') continue;
    const { box } = element;
    context.save();
    context.globalAlpha = productsOnly ? 1 : element.opacity;
    context.globalCompositeOperation =
      productsOnly || element.blend === 'normal' ? 'source-over' : element.blend;
    if (box.rotation) {
      context.translate(box.x + box.width / 2, box.y + box.height / 2);
      context.rotate((box.rotation * Math.PI) / 180);
      context.translate(-box.x - box.width / 2, -box.y - box.height / 2);
    }
    kind.paint(element, context, environment);
    context.restore();
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
