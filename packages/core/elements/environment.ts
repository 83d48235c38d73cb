import type { Drawable, PaintHost, Picture } from '../raster/canvas';
import type { ElementBase } from './base';
import type { Rgba } from '../raster/pixels';
import type { Ground } from '../stage/ground';
import type { Typeface } from '../type/typeface';
import type { Bounds } from '../vector/outline';

/** All that painting one shot at one size may use. */
export interface PaintEnvironment {
  host: PaintHost;
  /** Everything in the shot, for what stands beside what. */
  elements: readonly ElementBase[];
  /** What products stand on; null where the backdrop has no standing plane. */
  ground: Ground | null;
  /** While dragging: tone is kept from the last settled painting, shadows are computed coarser. */
  draft: boolean;
  /** Device pixels a frame pixel. */
  scale: number;
  frame: { width: number; height: number };
  picture(hash: string): Picture;
  typeface(id: string): Typeface;
  /** A bitmap made once for its key and kept: the key names everything the bitmap depends on. */
  derived(key: string, make: () => Rgba): Drawable & { width: number; height: number };
  /** A value made once for its key and kept. */
  kept<T>(key: string, make: () => T): T;
  /** A value under a key that may be replaced: what was settled last. */
  settled: { get<T>(key: string): T | undefined; set(key: string, value: unknown): void };
  /** Draw products alone and without shadow, to measure where they are. */
  productsOnly: boolean;
  /** The picture as painted so far, in a rectangle of the frame: device pixels; null where it lies outside. */
  beneath(bounds: Bounds): Rgba | null;
}
