import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Controller, Inject, NotFoundException, Req, Res } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import { REDUCED_SIDES } from '@scenograph/contract/routes/system';
import type { Request, Response } from 'express';
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
  async file(
    @Call() { params }: CallOf<'GET /api/blobs/:hash'>,
    @Req() request: Request,
    @Res() response: Response,
  ) {
    await this.send(params.hash, request, response);
  }

  /** A copy no larger than `side` on its long side, made once. */
  @On('GET /api/blobs/:hash/reduced/:side')
  async reduced(
    @Call() { params: { hash, side } }: CallOf<'GET /api/blobs/:hash/reduced/:side'>,
    @Req() request: Request,
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
    await this.send(copy, request, response);
  }

  private async known(hash: string) {
    const info = CONTENT_HASH.test(hash) ? await this.store.info(hash) : null;
    if (!info) throw new NotFoundException('This picture is not in the store.');
    return info;
  }

  /** A file, or the part of it that is asked for; nothing where the browser has it. Source: RFC 9110, sections 13 and 14. */
  private async send(hash: string, request: Request, response: Response) {
    const info = await this.known(hash);
    response.set({
      'Content-Type': info.mime,
      'Accept-Ranges': 'bytes',
      'Cache-Control': 'public, max-age=31536000, immutable',
      ETag: `"${hash}"`,
      // Stored SVG originals are never run as documents.
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
      'X-Content-Type-Options': 'nosniff',
    });
    const known = request.get('if-none-match')?.split(',') ?? [];
    if (known.some((tag) => [`"${hash}"`, '*'].includes(tag.trim().replace(/^W\//, '')))) {
      response.status(304).end();
      return;
    }
    const ifRange = request.get('if-range');
    const ranges = ifRange && ifRange !== `"${hash}"` ? undefined : request.range(info.size);
    if (ranges === -1) {
      response.status(416).set('Content-Range', `bytes */${info.size}`);
      response.json({ message: `The file has ${info.size} bytes; none of those asked for is among them.` });
      return;
    }
    // Several parts at once are answered with the whole, as any server may.
    const part = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges[0] : null;
    if (part)
      response.status(206).set({
        'Content-Range': `bytes ${part.start}-${part.end}/${info.size}`,
        'Content-Length': String(part.end - part.start + 1),
      });
    else response.set('Content-Length', String(info.size));
    sendStream(this.store.stream(hash, part ?? undefined), response);
  }
}
