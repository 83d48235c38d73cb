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

/**
 * Keeps finished bitmaps by key, the least recently used going first once `limit` pixels are passed; other values up to
 * `mostBytes` together.
 */
export class DerivedCache {
  private entries = new Map<
    string,
    { drawable: Drawable & { width: number; height: number }; pixels: number }
  >();
  private held = 0;
  private values = new Map<string, { value: unknown; bytes: number }>();
  private valueBytes = 0;
  readonly settled = new Map<string, unknown>();
  constructor(
    private limit = 60_000_000,
    private mostBytes = MOST_BYTES,
  ) {}

  /** Values of a computation that are not pictures; the least recently used of many or of large ones go. */
  value<T>(key: string, make: () => T): T {
    let entry = this.values.get(key);
    if (entry) this.values.delete(key);
    else {
      const value = make();
      entry = { value, bytes: bytesOf(value) };
      this.valueBytes += entry.bytes;
    }
    this.values.set(key, entry);
    for (const [old, { bytes }] of this.values) {
      if ((this.values.size <= MOST_VALUES && this.valueBytes <= this.mostBytes) || old === key) break;
      this.values.delete(old);
      this.valueBytes -= bytes;
    }
    return entry.value as T;
  }

  get(key: string, host: PaintHost, make: () => Rgba): Drawable & { width: number; height: number } {
    const known = this.entries.get(key);
    if (known) {
      this.entries.delete(key);
      this.entries.set(key, known);
      return known.drawable;
    }
    const image = make();
    const drawable = host.bitmap(image) as Drawable & { width: number; height: number };
    const pixels = image.width * image.height;
    this.entries.set(key, { drawable, pixels });
    this.held += pixels;
    for (const [old, entry] of this.entries) {
      if (this.held <= this.limit || old === key) break;
      this.entries.delete(old);
      this.held -= entry.pixels;
    }
    return drawable;
  }
}
