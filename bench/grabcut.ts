import { createRequire } from 'node:module';
import { boundsAbove, type Plane, type Rgba } from '@scenograph/core/raster/pixels';
import { reduceTo, resizePlane } from '@scenograph/core/raster/resample';

/* eslint-disable @typescript-eslint/no-explicit-any */

/** The OpenCV module once its runtime is up. It is a thenable that resolves to itself: awaiting it as it is would hang. */
export async function loadOpenCv(): Promise<any> {
  const cv = createRequire(import.meta.url)('opencv.js');
  await new Promise<void>((resolve) => {
    if (cv.Mat) resolve();
    else cv.onRuntimeInitialized = () => resolve();
  });
  delete cv.then;
  return cv;
}

/**
 * Baseline: OpenCV's GrabCut, 5 iterations at 1000 pixels on the long side, started from the true bounding box
 * grown by 5 percent. The hard mask is scaled up smoothly to the photo's size.
 */
export function grabCut(cv: any, photo: Rgba, truth: Plane): Plane {
  const small = reduceTo(photo, 1000);
  const k = small.width / photo.width;
  const box = boundsAbove(truth, 0.5)!;
  const grow = 0.05;
  const x = Math.max(1, Math.floor((box.x - box.width * grow) * k));
  const y = Math.max(1, Math.floor((box.y - box.height * grow) * k));
  const right = Math.min(small.width - 2, Math.ceil((box.x + box.width * (1 + grow)) * k));
  const bottom = Math.min(small.height - 2, Math.ceil((box.y + box.height * (1 + grow)) * k));
  const rgba = cv.matFromArray(small.height, small.width, cv.CV_8UC4, small.data);
  const rgb = new cv.Mat();
  cv.cvtColor(rgba, rgb, cv.COLOR_RGBA2RGB);
  const mask = new cv.Mat.zeros(small.height, small.width, cv.CV_8UC1);
  const background = new cv.Mat();
  const foreground = new cv.Mat();
  cv.grabCut(
    rgb,
    mask,
    new cv.Rect(x, y, right - x, bottom - y),
    background,
    foreground,
    5,
    cv.GC_INIT_WITH_RECT,
  );
  const plane: Plane = {
    width: small.width,
    height: small.height,
    data: Float32Array.from(mask.data as Uint8Array, (v) => v & 1),
  };
  for (const m of [rgba, rgb, mask, background, foreground]) m.delete();
  return resizePlane(plane, photo.width, photo.height);
}
