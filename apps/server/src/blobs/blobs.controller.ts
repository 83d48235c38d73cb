import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Controller, Inject, NotFoundException, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { REDUCED_SIDES } from '@scenograph/contract/routes/system';
import type { Response } from 'express';
import type { Intake } from '@scenograph/host-node/sandbox/operations';
import { INTAKE, inFolder } from '../http/incoming';
import { Call, On } from '../http/route';
import { sendStream } from '../http/send-stream';
import type { BlobStore } from './blob-store';
import { CONTENT_HASH } from '@scenograph/core/raster/schemas';

export const BLOBS = Symbol('blobs');

const PIXELS = new Set(['image/jpeg', 'image/png', 'image/webp', 'image/tiff', 'image/avif']);

@Controller()
export class BlobsController {
  constructor(
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(INTAKE) private readonly intake: Intake,
  ) {}

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
    const { mime } = await this.known(hash);
    if (!PIXELS.has(mime)) throw new NotFoundException('Only pictures of pixels have reduced copies.');
    const copy = await this.store.derived(`reduced:2:${hash}:${max}`, () =>
      inFolder(async (folder) => {
        const path = join(folder, 'picture');
        await this.store.toFile(hash, path);
        const made = await this.intake.reduced({ name: 'The picture', path }, max);
        return { bytes: await readFile(made?.path ?? path), mime: made?.mime ?? mime };
      }),
    );
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
    sendStream(stream, response);
  }
}
