import { expose } from 'comlink';
import { cutOut } from '@scenograph/core/cutout/index';

/** The automatic cutout in the browser: the same code that the server runs. */
const api = {
  async run(url: string, options: { holes: boolean; shadows: boolean }) {
    const started = performance.now();
    const response = await fetch(url);
    if (!response.ok) throw new Error('The photo is not in the store any more.');
    const bitmap = await createImageBitmap(await response.blob(), {
      colorSpaceConversion: 'none',
      premultiplyAlpha: 'none',
    });
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0);
    const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
    const { image, bounds, confidence } = cutOut(
      { width: bitmap.width, height: bitmap.height, data: data as Uint8ClampedArray },
      options,
    );
    const out = new OffscreenCanvas(image.width, image.height);
    out
      .getContext('2d')!
      .putImageData(new ImageData(image.data as ImageDataArray, image.width, image.height), 0, 0);
    const png = await out.convertToBlob({ type: 'image/png' });
    return { png, bounds, confidence, milliseconds: performance.now() - started };
  },
};

export type CutoutWorker = typeof api;
expose(api);
