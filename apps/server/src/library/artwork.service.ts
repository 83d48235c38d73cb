import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { and, asc, eq } from 'drizzle-orm';
import { drawInked, takeArtwork, type Artwork } from '@scenograph/host-node/artwork';
import { MIME, RefusedPicture, sniffFormat } from '@scenograph/host-node/read-picture';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { remove } from '../bin/bin';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { artworks } from '../database/schema';

export type ArtworkRow = typeof artworks.$inferSelect;

/** Designs: taken in, listed, drawn in other colours. */
@Injectable()
export class ArtworkService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) private readonly store: BlobStore,
  ) {}

  list(): Promise<ArtworkRow[]> {
    return this.db
      .select()
      .from(artworks)
      .where(eq(artworks.workspaceId, WORKSPACE))
      .orderBy(asc(artworks.createdAt));
  }

  async take(name: string, bytes: Buffer, createdAt?: Date): Promise<ArtworkRow> {
    const design = await refused(() => takeArtwork(name, bytes));
    const format = sniffFormat(bytes)!;
    const [row] = await this.db
      .insert(artworks)
      .values({
        workspaceId: WORKSPACE,
        title: name.replace(/\.[^.]+$/, ''),
        original: await this.store.put(bytes, MIME[format]),
        picture: await this.store.put(design.png, 'image/png'),
        width: design.width,
        height: design.height,
        vector: format === 'svg',
        colours: design.colours,
        whiteGround: design.whiteGround,
        notes: design.notes,
        ...(createdAt && { createdAt }),
      })
      .returning();
    return row;
  }

  /** The design of an SVG with colours changed, as pixels by content hash. */
  async ink(
    id: string,
    inks: Record<string, string>,
  ): Promise<{ picture: string; width: number; height: number }> {
    const row = await this.one(id);
    if (!row.vector)
      throw new UnprocessableEntityException(
        `"${row.title}" holds pixels, whose colours are not listed; print it in one ink instead.`,
      );
    const svg = (await this.store.get(row.original)).toString('utf8');
    const { png, width, height } = await refused(() => drawInked(row.title, svg, inks));
    return { picture: await this.store.put(png, 'image/png'), width, height };
  }

  /** Shots name the design by content: they go on showing it. */
  remove = (id: string) => remove(this.db, 'artwork', id);

  private async one(id: string): Promise<ArtworkRow> {
    const [row] = await this.db
      .select()
      .from(artworks)
      .where(and(eq(artworks.id, id), eq(artworks.workspaceId, WORKSPACE)));
    if (!row) throw new NotFoundException('This design is not in the library any more.');
    return row;
  }
}

async function refused(make: () => Promise<Artwork>): Promise<Artwork> {
  try {
    return await make();
  } catch (error) {
    if (error instanceof RefusedPicture) throw new UnprocessableEntityException(error.message);
    throw error;
  }
}
