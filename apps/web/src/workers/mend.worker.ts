import { expose } from 'comlink';
import { storedFile } from './stored-file';
import { mendPicture, type MendStep } from '@scenograph/core/retouch/mend';

/** Carries out the steps that cover marks on a picture, away from the page. */
const api = {
  async mend(url: string, steps: MendStep[], onProgress: (share: number) => void): Promise<Blob> {
    const answer = await storedFile(url, 'The picture cannot be loaded. Reload the page and try again.');
    const bitmap = await createImageBitmap(await answer.blob());
    const { width, height } = bitmap;
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0);
    const { data } = context.getImageData(0, 0, width, height);
    const mended = mendPicture({ width, height, data }, steps, (share) => void onProgress(share));
    context.putImageData(new ImageData(new Uint8ClampedArray(mended.data), width, height), 0, 0);
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

export type MendWorker = typeof api;
expose(api);
