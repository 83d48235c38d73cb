import { isBackdrop } from '@scenograph/core/elements/backdrop/model';
import { useEffect, useRef, useState } from 'react';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { elementKind } from '@scenograph/core/elements/index';
import { readSlot, type Slot } from '@scenograph/core/spec/slot';
import { checkShot, paintThumbnail, watchShot, type Turn } from '../../workers/painters';
import { msg } from '../../language/language';

/** Pixel sizes of everything a resolved shot shows, as far as the document itself tells. */
export function sourceSizes(
  shot: ResolvedShot,
  known: ReadonlyMap<string, { width: number; height: number }>,
): [string, { width: number; height: number }][] {
  const list: [string, { width: number; height: number }][] = [];
  for (const e of shot.elements) {
    if (isBackdrop(e) && e.fill.type === 'scene')
      list.push([e.fill.picture, { width: e.fill.survey.width, height: e.fill.survey.height }]);
    else
      for (const hash of elementKind(e.kind).needs(e).pictures) {
        const size = known.get(hash);
        if (size) list.push([hash, size]);
      }
  }
  return list;
}

/** Paints a resolved shot into a canvas of the page, small, when it is in view and no newer state waits. */
export function useThumbnail(
  resolved: ResolvedShot | null,
  maxWidth: number,
  maxHeight: number,
  inView: boolean,
  turn: Turn = 'seen',
) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const wish = useRef(0);
  const size = resolved
    ? (() => {
        const k = Math.min(maxWidth / resolved.width, maxHeight / resolved.height);
        return { width: Math.max(8, resolved.width * k), height: Math.max(6, resolved.height * k) };
      })()
    : { width: maxWidth, height: maxHeight };
  useEffect(() => {
    if (!resolved || !inView) return;
    const mine = ++wish.current;
    const scale = Math.min(1, (size.width * window.devicePixelRatio) / resolved.width);
    paintThumbnail(resolved, scale, () => wish.current === mine && !!canvas.current, turn)
      .then((bitmap) => {
        const target = canvas.current;
        if (!bitmap || !target || wish.current !== mine) return;
        target.width = bitmap.width;
        target.height = bitmap.height;
        target.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
      })
      .catch(() => undefined);
    return () => {
      wish.current++;
    };
  }, [resolved, inView, size.width]);
  return { canvas, size };
}

/** A slot's checks, measured on the picture as it would be delivered. */
export function useChecks(
  resolved: ResolvedShot | null,
  slot: Slot | null,
  slotKey: string,
  known: ReadonlyMap<string, { width: number; height: number }>,
  inView: boolean,
): CheckResult[] | null {
  const [results, setResults] = useState<CheckResult[] | null>(null);
  const wish = useRef(0);
  useEffect(() => {
    if (!resolved || !slot || !inView) return;
    const mine = ++wish.current;
    checkShot(resolved, slot, slotKey, sourceSizes(resolved, known), () => wish.current === mine)
      .then((r) => r && wish.current === mine && setResults(r))
      .catch(() => undefined);
    return () => {
      wish.current++;
    };
  }, [resolved, slot, slotKey, known, inView]);
  return results;
}

/** The base watched over: no specification, but its words must be read. */
export function useWatch(
  resolved: ResolvedShot | null,
  known: ReadonlyMap<string, { width: number; height: number }>,
): CheckResult[] | null {
  const [results, setResults] = useState<CheckResult[] | null>(null);
  const wish = useRef(0);
  useEffect(() => {
    if (!resolved) return;
    const mine = ++wish.current;
    watchShot(resolved, frameSlot(resolved), sourceSizes(resolved, known), () => wish.current === mine)
      .then((r) => r && wish.current === mine && setResults(r))
      .catch(() => undefined);
    return () => {
      wish.current++;
    };
  }, [resolved, known]);
  return results;
}

/** A slot that asks for nothing but the frame itself and a little space at its edge. */
export function frameSlot(frame: { width: number; height: number }): Slot {
  return readSlot({
    id: 'base',
    title: msg('Base'),
    width: frame.width,
    height: frame.height,
    formats: ['png'],
    maxBytes: 1e9,
    background: { kind: 'any' },
    safeShare: 0.025,
  });
}

export function checkSummary(results: CheckResult[] | null): string {
  if (!results) return 'measuring';
  const worse = results.find((r) => r.verdict === 'stop') ?? results.find((r) => r.verdict === 'look');
  return worse ? `${worse.verdict}: ${worse.title.toLowerCase()}` : 'ready';
}
