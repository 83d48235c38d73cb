import { UnprocessableEntityException } from '@nestjs/common';
import type { CutoutFormat } from '@scenograph/contract/types';
import { newZip } from '../http/send-stream';
import type { BlobStore } from '../blobs/blob-store';
import type { photos } from '../database/schema';

export interface CutoutFile {
  name: string;
  mime: string;
  bytes: Buffer;
}

type Photo = Pick<typeof photos.$inferSelect, 'name' | 'cutout'>;

/** What files are made of and with: the store, and whoever writes what is not stored as it is asked for. */
export interface CutoutFiles {
  store: BlobStore;
  write(format: 'webp' | 'svg', picture: string): Promise<Uint8Array>;
}

/** A photo's cutout as a file under the photo's name. Throws a sentence where there is no cutout. */
export async function cutoutFile(
  { store, write }: CutoutFiles,
  photo: Photo,
  format: CutoutFormat,
): Promise<CutoutFile> {
  const { cutout } = photo;
  const stem = photo.name.replace(/\.\w+$/, '');
  if (!cutout)
    throw new UnprocessableEntityException(
      `"${photo.name}" has no cutout yet. Open it and cut it out first.`,
    );
  if (format === 'png')
    return { name: `${stem}.png`, mime: 'image/png', bytes: await store.get(cutout.picture) };
  if (format === 'webp')
    return {
      name: `${stem}.webp`,
      mime: 'image/webp',
      bytes: Buffer.from(await write('webp', cutout.picture)),
    };
  if (!cutout.matte)
    throw new UnprocessableEntityException(
      `The cutout of "${photo.name}" came from elsewhere and has no matte. Save it as PNG or WebP.`,
    );
  if (format === 'matte')
    return { name: `${stem}-matte.png`, mime: 'image/png', bytes: await store.get(cutout.matte) };
  const svg = Buffer.from(await write('svg', cutout.matte));
  return { name: `${stem}.svg`, mime: 'image/svg+xml', bytes: svg };
}

/** One file a photo, made as the ZIP is read; photos of the same name are numbered. */
export function zipOfCutouts(
  files: CutoutFiles,
  list: readonly Photo[],
  format: CutoutFormat,
): NodeJS.ReadableStream {
  const zip = newZip();
  const used = new Map<string, number>();
  void (async () => {
    try {
      for (const photo of list) {
        const { name, bytes } = await cutoutFile(files, photo, format);
        const times = used.get(name) ?? 0;
        used.set(name, times + 1);
        zip.addBuffer(bytes, times ? name.replace(/(\.\w+)$/, `-${times + 1}$1`) : name, {
          compress: format === 'svg',
        });
      }
      zip.end();
    } catch (error) {
      (zip.outputStream as NodeJS.ReadableStream & { destroy(e: Error): void }).destroy(error as Error);
    }
  })();
  return zip.outputStream;
}
