import { LRUCache } from 'lru-cache';
import type { Drawable, PaintHost } from '../raster/canvas';
import type { Rgba } from '../raster/pixels';

const MOST_VALUES = 600;
/** Bytes that kept values may hold together. */
const MOST_BYTES = 320 * 1024 * 1024;

/** Bytes of the typed arrays in a value, as far as values here nest. */
function bytesOf(value: unknown, depth = 3): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value !== 'object' || value === null || depth === 0) return 0;
  return Object.values(value).reduce<number>((sum, part) => sum + bytesOf(part, depth - 1), 0);
}

type Bitmap = Drawable & { width: number; height: number };

/**
 * Keeps finished bitmaps by key, the least recently used going first once `limit` pixels are passed; other values up to
 * `mostBytes` together. What is larger than its limit by itself is not kept.
 */
export class DerivedCache {
  private readonly bitmaps: LRUCache<string, Bitmap>;
  private readonly values: LRUCache<string, { value: unknown }>;
  readonly settled = new Map<string, unknown>();

  constructor(limit = 60_000_000, mostBytes = MOST_BYTES) {
    this.bitmaps = new LRUCache({ maxSize: limit });
    this.values = new LRUCache({ max: MOST_VALUES, maxSize: mostBytes });
  }

  /** Values of a computation that are not pictures; the least recently used of many or of large ones go. */
  value<T>(key: string, make: () => T): T {
    const known = this.values.get(key);
    if (known) return known.value as T;
    const value = make();
    this.values.set(key, { value }, { size: Math.max(1, bytesOf(value)) });
    return value;
  }

  get(key: string, host: PaintHost, make: () => Rgba): Bitmap {
    const known = this.bitmaps.get(key);
    if (known) return known;
    const image = make();
    const bitmap = host.bitmap(image) as Bitmap;
    this.bitmaps.set(key, bitmap, { size: Math.max(1, image.width * image.height) });
    return bitmap;
  }
}
