import { DerivedCache } from '@scenograph/core/paint/derived-cache';
import type { PaintEnvironment } from '@scenograph/core/elements/environment';
import type { Picture } from '@scenograph/core/raster/canvas';
import {
  environmentOf,
  needsOf,
  paintShot,
  type PaintObserver,
  type Painted,
} from '@scenograph/core/paint/paint-shot';
import { paintLayers, type Layer } from '@scenograph/core/paint/paint-layers';
import { inVectors, type InVectors } from '@scenograph/core/paint/paint-vectors';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { ownFontHash } from '@scenograph/core/type/catalogue';
import { readTypeface, type Typeface } from '@scenograph/core/type/typeface';
import { nodeHost } from './canvas-host';
import { loadTypeface } from './fonts';
import { decodePicture } from './read-picture';
import { LRUCache } from 'lru-cache';

export interface Painter {
  paint(
    shot: ResolvedShot,
    options?: { scale?: number; productsOnly?: boolean; draft?: boolean; resumes?: boolean },
    observer?: PaintObserver,
  ): Promise<Painted>;
  /** The shot layer by layer at its own size, and as one picture. */
  layers(shot: ResolvedShot): Promise<{ layers: Layer[]; merged: Rgba }>;
  /** The shot with its upper elements kept in vectors, what lies below them painted at a scale. */
  inVectors(shot: ResolvedShot, scale: number): Promise<InVectors>;
  /** Something measured on a shot with what its painting uses. */
  with<T>(shot: ResolvedShot, measure: (environment: PaintEnvironment) => T): Promise<T>;
  /** Pixel sizes of the pictures a shot uses. */
  sizes(shot: ResolvedShot): Promise<Map<string, { width: number; height: number }>>;
}

/**
 * A painter that fetches pictures by content hash through `load` and keeps the decoded ones, up to
 * `keepPixels` in all.
 */
export function createPainter(
  load: (hash: string) => Promise<Uint8Array>,
  keepPixels = 90_000_000,
  cache = new DerivedCache(),
): Painter {
  const pictures = new LRUCache<string, Promise<Picture>>({ maxSize: keepPixels });

  const picture = async (hash: string): Promise<Picture> => {
    const known = pictures.get(hash);
    if (known) return known;
    const coming = load(hash).then(decodePicture).then(asPicture);
    pictures.set(hash, coming, { size: 1 });
    coming.then(
      ({ width, height }) => pictures.set(hash, coming, { size: Math.max(1, width * height) }),
      () => pictures.delete(hash),
    );
    return coming;
  };

  const ownFaces = new LRUCache<string, Promise<Typeface>>({ max: 24 });
  const typeface = (id: string): Promise<Typeface> => {
    const own = ownFontHash(id);
    if (!own) return loadTypeface(id);
    let face = ownFaces.get(id);
    if (!face) {
      face = load(own).then((b) =>
        readTypeface(id, [b.buffer.slice(b.byteOffset, b.byteOffset + b.byteLength) as ArrayBuffer]),
      );
      face.catch(() => ownFaces.delete(id));
      ownFaces.set(id, face);
    }
    return face;
  };

  const gather = async (shot: ResolvedShot) => {
    const needs = needsOf(shot);
    const held = new Map<string, Picture>();
    const faces = new Map<string, Typeface>();
    await Promise.all([
      ...needs.pictures.map(async (hash) => held.set(hash, await picture(hash))),
      ...needs.fonts.map(async (id) => faces.set(id, await typeface(id))),
    ]);
    return { pictures: held, typefaces: faces };
  };

  return {
    async paint(shot, options = {}, observer) {
      const { pictures: held, typefaces } = await gather(shot);
      return paintShot(shot, { host: nodeHost, cache, pictures: held, typefaces, ...options }, observer);
    },
    async layers(shot) {
      const { pictures: held, typefaces } = await gather(shot);
      return paintLayers(shot, { host: nodeHost, cache, pictures: held, typefaces });
    },
    async inVectors(shot, scale) {
      const { pictures: held, typefaces } = await gather(shot);
      return inVectors(shot, { host: nodeHost, cache, pictures: held, typefaces, scale });
    },
    async with(shot, measure) {
      const { pictures: held, typefaces } = await gather(shot);
      return measure(environmentOf(shot, { host: nodeHost, cache, pictures: held, typefaces }));
    },
    async sizes(shot) {
      const { pictures: held } = await gather(shot);
      return new Map([...held].map(([hash, p]) => [hash, { width: p.width, height: p.height }]));
    },
  };
}

function asPicture(image: Rgba): Picture {
  return {
    width: image.width,
    height: image.height,
    drawable: nodeHost.bitmap(image),
    pixels: () => image,
  };
}
