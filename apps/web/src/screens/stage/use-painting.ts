import { useEffect, useRef, useState, type RefObject } from 'react';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { paintStage } from '../../workers/painters';

/**
 * Paints the newest state as soon as the painter is free; states in between are skipped.
 * @returns why the newest state could not be painted, and a way to try it again
 */
export function usePainting(
  canvas: RefObject<HTMLCanvasElement | null>,
  resolved: ResolvedShot,
  scale: number,
  draft: boolean,
): { trouble: string | null; tryAgain(): void } {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [tries, setTries] = useState(0);
  const wish = useRef<{ resolved: ResolvedShot; scale: number; draft: boolean } | null>(null);
  const busy = useRef(false);
  useEffect(() => {
    wish.current = { resolved, scale, draft };
    const paint = async () => {
      if (busy.current) return;
      busy.current = true;
      // What waits for the newest state (a test, a screen reader) can see that it is on its way.
      canvas.current?.setAttribute('aria-busy', 'true');
      while (wish.current) {
        const { resolved: shot, scale: at, draft: fast } = wish.current;
        wish.current = null;
        try {
          show(canvas.current, await paintStage(shot, at, fast));
          setTrouble(null);
        } catch (error) {
          setTrouble((error as Error).message);
        }
      }
      busy.current = false;
      canvas.current?.setAttribute('aria-busy', 'false');
    };
    void paint();
  }, [canvas, resolved, scale, draft, tries]);
  useEffect(() => {
    if (!trouble) return;
    const again = () => setTries((n) => n + 1);
    window.addEventListener('online', again);
    return () => window.removeEventListener('online', again);
  }, [trouble]);
  return { trouble, tryAgain: () => setTries((n) => n + 1) };
}

function show(canvas: HTMLCanvasElement | null, bitmap: ImageBitmap): void {
  if (!canvas) return;
  canvas.width = bitmap.width;
  canvas.height = bitmap.height;
  canvas.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
  canvas.dataset.painted = String(Number(canvas.dataset.painted ?? 0) + 1);
}
