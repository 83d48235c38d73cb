import { Controller, Inject, NotFoundException, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { REDUCED_SIDES } from '@scenograph/contract/routes/system';
import type { Response } from 'express';
import sharp from 'sharp';
import { Call, On } from '../http/route';
import type { BlobStore } from './blob-store';
import { CONTENT_HASH } from '@scenograph/core/raster/schemas';

export const BLOBS = Symbol('blobs');

@Controller()
export class BlobsController {
  constructor(@Inject(BLOBS) private readonly store: BlobStore) {}

  @On('GET /api/blobs/:hash')
  async file(@Call() { params }: CallOf<'GET /api/blobs/:hash'>, @Res() response: Response) {
    await this.send(params.hash, response);
  }

  /** A copy no larger than `side` on its long side, made once. */
  @On('GET /api/blobs/:hash/reduced/:side')
  async reduced(
    @Call() { params: { hash, side } }: CallOf<'GET /api/blobs/:hash/reduced/:side'>,
    @Res() response: Response,
  ) {
    const max = REDUCED_SIDES.find((s) => String(s) === side);
    if (!max) throw new NotFoundException(`Reduced copies are made at ${REDUCED_SIDES.join(', ')} pixels.`);
    await this.known(hash);
    const copy = await this.store.derived(`reduced:2:${hash}:${max}`, async () => {
      const bytes = await this.store.get(hash);
      const picture = sharp(bytes);
      const { width = 0, height = 0, hasAlpha } = await picture.metadata();
      // A picture that is worked on stays as it is where it is small enough.
      if (width <= max && height <= max && max === 2048)
        return { bytes, mime: (await this.known(hash)).mime };
      const small = picture.resize({ width: max, height: max, fit: 'inside', withoutEnlargement: true });
      if (max < 2048)
        return { bytes: await small.webp({ quality: 82, alphaQuality: 95 }).toBuffer(), mime: 'image/webp' };
      // From this one desks paint: colours are kept at full resolution, and cutouts without loss.
      return hasAlpha
        ? { bytes: await small.png({ compressionLevel: 6 }).toBuffer(), mime: 'image/png' }
        : {
            bytes: await small.jpeg({ quality: 96, chromaSubsampling: '4:4:4' }).toBuffer(),
            mime: 'image/jpeg',
          };
    });
    await this.send(copy, response);
  }

  private async known(hash: string) {
    const info = CONTENT_HASH.test(hash) ? await this.store.info(hash) : null;
    if (!info) throw new NotFoundException('This picture is not in the store.');
    return info;
  }

  private async send(hash: string, response: Response) {
    const info = await this.known(hash);
    response.set({
      'Content-Type': info.mime,
      'Content-Length': String(info.size),
      'Cache-Control': 'public, max-age=31536000, immutable',
      ETag: `"${hash}"`,
      // Stored SVG originals are never run as documents.
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
      'X-Content-Type-Options': 'nosniff',
    });
    const stream = this.store.stream(hash);
    stream.on('error', () => response.destroy());
    response.on('close', () => stream.destroy());
    stream.pipe(response);
  }
}
