import { LRUCache } from 'lru-cache';

/** Bytes a pixel while a picture is held both to be drawn and to be read. */
const BYTES = 8;

/**
 * Decoded pictures, of which the least lately used go once all together are larger than `most` bytes. One that is on its
 * way is waited for by everybody who asks; one that failed is asked for again.
 */
export function keptPictures<T extends { width: number; height: number }>(
  load: (hash: string) => Promise<T>,
  most: number,
): (hash: string) => Promise<T> {
  const kept = new LRUCache<string, { picture: T }>({
    maxSize: most,
    sizeCalculation: ({ picture }) => Math.max(1, picture.width * picture.height * BYTES),
  });
  const coming = new Map<string, Promise<T>>();
  return async (hash) => {
    const found = kept.get(hash);
    if (found) return found.picture;
    let asked = coming.get(hash);
    if (!asked) {
      asked = load(hash).finally(() => coming.delete(hash));
      coming.set(hash, asked);
    }
    const picture = await asked;
    kept.set(hash, { picture });
    return picture;
  };
}
