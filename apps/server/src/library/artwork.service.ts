import { Inject, Injectable, NotFoundException, UnprocessableEntityException } from '@nestjs/common';
import { and, asc, eq } from 'drizzle-orm';
import { MIME } from '@scenograph/host-node/read-picture';
import type { IncomingFile, Intake } from '@scenograph/host-node/sandbox/operations';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { remove } from '../bin/bin';
import { DATABASE, WORKSPACE, type Database } from '../database/database';
import { artworks } from '../database/schema';
import { asIncoming, INTAKE } from '../http/incoming';

export type ArtworkRow = typeof artworks.$inferSelect;

/** Designs: taken in, listed, drawn in other colours. */
@Injectable()
export class ArtworkService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(INTAKE) private readonly intake: Intake,
  ) {}

  list(): Promise<ArtworkRow[]> {
    return this.db
      .select()
      .from(artworks)
      .where(eq(artworks.workspaceId, WORKSPACE))
      .orderBy(asc(artworks.createdAt));
  }

  async take(file: IncomingFile, createdAt?: Date): Promise<ArtworkRow> {
    const { format, png, ...design } = await this.intake.artwork(file);
    const [row] = await this.db
      .insert(artworks)
      .values({
        workspaceId: WORKSPACE,
        title: file.name.replace(/\.[^.]+$/, ''),
        original: await this.store.putFile(file.path, MIME[format]),
        picture: await this.store.putFile(png.path, png.mime),
        width: design.width,
        height: design.height,
        vector: format === 'svg',
        colours: design.colours,
        whiteGround: design.whiteGround,
        covers: design.covers,
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
    const svg = await this.store.get(row.original);
    return asIncoming(row.title, svg, async (file) => {
      const { png, width, height } = await this.intake.inked(file, inks);
      return { picture: await this.store.putFile(png.path, png.mime), width, height };
    });
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
