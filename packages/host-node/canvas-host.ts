import { createCanvas, ImageData } from '@napi-rs/canvas';
import type { PaintHost } from '@scenograph/core/raster/canvas';

/** The painter's canvas outside a browser. */
export const nodeHost: PaintHost = {
  canvas(width, height) {
    const canvas = createCanvas(width, height);
    return { context: canvas.getContext('2d'), drawable: canvas };
  },
  bitmap(image) {
    const canvas = createCanvas(image.width, image.height);
    canvas.getContext('2d').putImageData(new ImageData(image.data, image.width, image.height), 0, 0);
    return canvas;
  },
};
