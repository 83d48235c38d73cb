import { useCallback, useEffect } from 'react';
import type { Point } from '@scenograph/core/cutout/recipe';
import { useSize } from '../../ui/use-size';
import type { Box, Camera } from './desk-canvas';

export const MOST_ZOOM = 16;

/**
 * Where the photo lies in the view, and the wheel that zooms to the pointer.
 * @param camera null fits the photo to the view
 * @returns `room` for the view's element; its size in CSS pixels; and the ways between screen and photo
 */
export function useViewCamera(size: Box, camera: Camera | null, setCamera: (camera: Camera) => void) {
  const { ref: room, size: box } = useSize({ width: 800, height: 600 });
  // Room for the tools on the left, what is seen above, and the tool's own choices below.
  const fit = Math.min((box.width - 152) / size.width, (box.height - 124) / size.height);
  const cam = camera ?? { zoom: fit, x: size.width / 2 - 56 / fit, y: size.height / 2 + 2 / fit };
  const toScreen = useCallback(
    ([x, y]: Point): Point => [
      (x - cam.x) * cam.zoom + box.width / 2,
      (y - cam.y) * cam.zoom + box.height / 2,
    ],
    [cam.x, cam.y, cam.zoom, box],
  );
  const toPhoto = (event: { clientX: number; clientY: number }): Point => {
    const r = room.current!.getBoundingClientRect();
    return [
      (event.clientX - r.left - box.width / 2) / cam.zoom + cam.x,
      (event.clientY - r.top - box.height / 2) / cam.zoom + cam.y,
    ];
  };
  useEffect(() => {
    const target = room.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const at = toPhoto(e);
      const zoom = Math.min(MOST_ZOOM, Math.max(fit * 0.5, cam.zoom * Math.exp(-e.deltaY * 0.0016)));
      const share = cam.zoom / zoom;
      setCamera({ zoom, x: at[0] + (cam.x - at[0]) * share, y: at[1] + (cam.y - at[1]) * share });
    };
    target.addEventListener('wheel', wheel, { passive: false });
    return () => target.removeEventListener('wheel', wheel);
  });
  return { room, box, cam, toScreen, toPhoto };
}
