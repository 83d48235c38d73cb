import { useEffect, useRef, type CSSProperties } from 'react';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { paintThumbnail } from '../../workers/painters';

/** A shot as it would be delivered, painted in the page at `scale` device pixels a frame pixel. */
export function PaintedShot({
  resolved,
  scale,
  style,
  className,
}: {
  resolved: ResolvedShot;
  scale: number;
  style?: CSSProperties;
  className?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let wanted = true;
    paintThumbnail(resolved, scale, () => wanted)
      .then((bitmap) => {
        const target = canvas.current;
        if (!bitmap || !wanted || !target) return;
        target.width = bitmap.width;
        target.height = bitmap.height;
        target.getContext('2d')!.drawImage(bitmap, 0, 0);
      })
      .catch(() => undefined);
    return () => {
      wanted = false;
    };
  }, [resolved, scale]);
  return <canvas ref={canvas} style={style} className={className} aria-hidden />;
}
