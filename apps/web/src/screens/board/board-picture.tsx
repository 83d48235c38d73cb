import { memo, useEffect, useMemo, useRef } from 'react';
import { resolveForSlot } from '@scenograph/core/shot/resolve';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Slot } from '@scenograph/core/spec/slot';
import type { ShotRow } from '../../api/client';
import { paintThumbnail } from '../../workers/painters';

/** Finished thumbnails, the last seen at the end: scrolling back shows them at once. */
const kept = new Map<string, ImageBitmap>();
const MOST_KEPT = 600;
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

function keep(key: string, bitmap: ImageBitmap): void {
  kept.set(key, bitmap);
  if (kept.size <= MOST_KEPT) return;
  const [oldest] = kept.keys();
  kept.get(oldest)!.close();
  kept.delete(oldest);
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
      kept.delete(key);
      kept.set(key, known);
      show(known);
      return;
    }
    const timer = setTimeout(() => {
      const scale = Math.min(1, (width * window.devicePixelRatio) / slot.width);
      paintThumbnail(resolve(), scale, () => wanted)
        .then((bitmap) => {
          if (!bitmap) return;
          keep(key, bitmap);
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
