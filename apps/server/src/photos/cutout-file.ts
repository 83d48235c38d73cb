import { UnprocessableEntityException } from '@nestjs/common';
import type { CutoutFormat } from '@scenograph/contract/types';
import { outlineToSvg } from '@scenograph/core/cutout/outline-path';
import { decodeGrey } from '@scenograph/host-node/read-picture';
import sharp from 'sharp';
import { newZip } from '../http/send-stream';
import type { BlobStore } from '../blobs/blob-store';
import type { photos } from '../database/schema';

export interface CutoutFile {
  name: string;
  mime: string;
  bytes: Buffer;
}

type Photo = Pick<typeof photos.$inferSelect, 'name' | 'cutout'>;

/** A photo's cutout as a file under the photo's name. Throws a sentence where there is no cutout. */
export async function cutoutFile(store: BlobStore, photo: Photo, format: CutoutFormat): Promise<CutoutFile> {
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
      bytes: await sharp(await store.get(cutout.picture))
        .webp({ quality: 92, alphaQuality: 100 })
        .toBuffer(),
    };
  if (!cutout.matte)
    throw new UnprocessableEntityException(
      `The cutout of "${photo.name}" came from elsewhere and has no matte. Save it as PNG or WebP.`,
    );
  const matte = await store.get(cutout.matte);
  if (format === 'matte') return { name: `${stem}-matte.png`, mime: 'image/png', bytes: matte };
  const svg = outlineToSvg(await decodeGrey(matte));
  return { name: `${stem}.svg`, mime: 'image/svg+xml', bytes: Buffer.from(svg) };
}

/** One file a photo, made as the ZIP is read; photos of the same name are numbered. */
export function zipOfCutouts(
  store: BlobStore,
  list: readonly Photo[],
  format: CutoutFormat,
): NodeJS.ReadableStream {
  const zip = newZip();
  const used = new Map<string, number>();
  void (async () => {
    try {
      for (const photo of list) {
        const { name, bytes } = await cutoutFile(store, photo, format);
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
