import { LRUCache } from 'lru-cache';
import { memo, useEffect, useMemo, useRef } from 'react';
import { resolveForSlot } from '@scenograph/core/shot/resolve';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Slot } from '@scenograph/core/spec/slot';
import type { ShotRow } from '../../api/client';
import { paintThumbnail } from '../../workers/painters';

/** Finished thumbnails, those seen last: scrolling back shows them at once. */
const kept = new LRUCache<string, ImageBitmap>({ max: 600, dispose: (bitmap) => bitmap.close() });
/** A cell that is only scrolled past is not painted. */
const REST = 90;

const numbers = new WeakMap<object, number>();
let next = 1;
/** A number that tells one object from another. */
function numberOf(value: object): number {
  let n = numbers.get(value);
  if (!n) numbers.set(value, (n = next++));
  return n;
}

/** A cell's picture as it would be delivered, painted small where it stays in view. */
export const BoardPicture = memo(function BoardPicture({
  shot,
  slotKey,
  slot,
  data,
  width,
  height,
}: {
  shot: ShotRow;
  slotKey: string;
  slot: Slot;
  data: ProductData;
  width: number;
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const key = `${numberOf(shot.document)}:${slotKey}:${numberOf(slot)}:${numberOf(data)}:${width}`;
  const resolve = useMemo(
    () => () => resolveForSlot(shot.document, slotKey, slot, data),
    [shot.document, slotKey, slot, data],
  );
  useEffect(() => {
    let wanted = true;
    const show = (bitmap: ImageBitmap) => {
      const target = canvas.current;
      if (!target) return;
      target.width = bitmap.width;
      target.height = bitmap.height;
      target.getContext('2d')!.drawImage(bitmap, 0, 0);
    };
    const known = kept.get(key);
    if (known) {
      show(known);
      return;
    }
    const timer = setTimeout(() => {
      const scale = Math.min(1, (width * window.devicePixelRatio) / slot.width);
      paintThumbnail(resolve(), scale, () => wanted)
        .then((bitmap) => {
          if (!bitmap) return;
          kept.set(key, bitmap);
          if (wanted) show(bitmap);
        })
        .catch(() => undefined);
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [key, resolve, slot.width, width]);
  return (
    <canvas
      ref={canvas}
      width={1}
      height={1}
      style={{ width, height }}
      className="border-line pointer-events-none border bg-white"
      aria-hidden
    />
  );
});
