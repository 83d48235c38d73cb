import {
  Inject,
  Injectable,
  NotFoundException,
  PayloadTooLargeException,
  UnprocessableEntityException,
} from '@nestjs/common';
import { and, desc, eq } from 'drizzle-orm';
import type pg from 'pg';
import {
  decodePicture,
  MAX_BYTES,
  MIME,
  RefusedPicture,
  takePicture,
  type PictureFormat,
  type TakenPicture,
} from '@scenograph/host-node/read-picture';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { DATABASE, POOL, WORKSPACE, type Database } from '../database/database';
import { photos } from '../database/schema';
import { announce } from '../events/events';
import { QUEUE, type Queue } from '../jobs/queue';

export type Photo = typeof photos.$inferSelect;

@Injectable()
export class PhotosService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(QUEUE) private readonly queue: Queue,
  ) {}

  list(): Promise<Photo[]> {
    return this.db
      .select()
      .from(photos)
      .where(eq(photos.workspaceId, WORKSPACE))
      .orderBy(desc(photos.createdAt));
  }

  async one(id: string): Promise<Photo> {
    const [photo] = await this.db
      .select()
      .from(photos)
      .where(and(eq(photos.id, id), eq(photos.workspaceId, WORKSPACE)));
    if (!photo) throw new NotFoundException('This photo is not here any more.');
    return photo;
  }

  /** Takes one file in, keeps the original untouched, and queues its cutout. */
  async take(name: string, bytes: Buffer): Promise<Photo> {
    const taken = await takeOrRefuse(name, bytes);
    const original = await this.store.put(bytes, MIME[taken.format]);
    const working = taken.working ? await this.store.put(taken.working.bytes, taken.working.mime) : original;
    const [photo] = await this.db
      .insert(photos)
      .values({
        workspaceId: WORKSPACE,
        name,
        format: taken.format,
        bytes: bytes.length,
        width: taken.width,
        height: taken.height,
        original,
        working,
        notes: taken.notes,
        cutoutState: 'waiting',
      })
      .returning();
    await this.queue.cutOut({ photoId: photo.id, holes: true, shadows: true });
    return photo;
  }

  async cutAgain(id: string, options: { holes: boolean; shadows: boolean }): Promise<Photo> {
    await this.one(id);
    const [photo] = await this.db
      .update(photos)
      .set({ cutoutState: 'waiting' })
      .where(eq(photos.id, id))
      .returning();
    await this.queue.cutOut({ photoId: id, ...options });
    return photo;
  }

  /** Keeps a cutout that was made in the browser by the same code. */
  async keepCutout(
    id: string,
    png: Buffer,
    details: { x: number; y: number; confidence: number; holes: boolean; shadows: boolean },
  ): Promise<Photo> {
    const photo = await this.one(id);
    await takeOrRefuse('cutout.png', png, ['png']);
    const image = await decodePicture(png);
    if (details.x + image.width > photo.width || details.y + image.height > photo.height)
      throw new UnprocessableEntityException('The cutout does not lie inside its photo; cut it out again.');
    const picture = await this.store.put(png, 'image/png');
    const [kept] = await this.db
      .update(photos)
      .set({
        cutoutState: 'done',
        cutoutError: null,
        cutout: {
          picture,
          matte: null,
          width: image.width,
          height: image.height,
          bounds: { x: details.x, y: details.y, width: image.width, height: image.height },
          confidence: details.confidence,
          options: { holes: details.holes, shadows: details.shadows },
        },
      })
      .where(eq(photos.id, id))
      .returning();
    await announce(this.pool, { topic: 'photo', id });
    return kept;
  }

  async remove(id: string): Promise<void> {
    await this.one(id);
    await this.db.delete(photos).where(eq(photos.id, id));
  }
}

/** Reads a request's body, no more than a picture file may have. */
export async function readBody(request: AsyncIterable<Buffer>, name: string): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let size = 0;
  for await (const piece of request) {
    size += piece.length;
    if (size > MAX_BYTES)
      throw new PayloadTooLargeException(
        `"${name}" is larger than the ${MAX_BYTES / 1024 / 1024} MB that are taken. Save it smaller and bring it in again.`,
      );
    pieces.push(piece);
  }
  return Buffer.concat(pieces);
}

export async function takeOrRefuse(
  name: string,
  bytes: Buffer,
  accept?: PictureFormat[],
): Promise<TakenPicture> {
  try {
    return await takePicture(name, bytes, accept);
  } catch (error) {
    if (error instanceof RefusedPicture) throw new UnprocessableEntityException(error.message);
    throw error;
  }
}
