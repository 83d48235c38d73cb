import {
  ConflictException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
} from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { StoredKit } from '@scenograph/contract/types';
import { EMPTY_KIT } from '@scenograph/core/brand/kit';
import type { IncomingFile, Intake } from '@scenograph/host-node/sandbox/operations';
import { and, asc, eq, sql } from 'drizzle-orm';
import type pg from 'pg';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { remove } from '../bin/bin';
import { DATABASE, POOL, WORKSPACE, type Database } from '../database/database';
import { brandKits, fonts, NO_HISTORY } from '../database/schema';
import { announce } from '../events/events';
import { INTAKE } from '../http/incoming';

export type FontRow = typeof fonts.$inferSelect;

/** The workspace's brand kit as it is now; an empty one where nobody has made it yet. */
export async function kitOf(db: Database): Promise<StoredKit> {
  const [row] = await db.select().from(brandKits).where(eq(brandKits.workspaceId, WORKSPACE));
  return row ? stored(row) : { kit: EMPTY_KIT, history: NO_HISTORY, revision: 0 };
}

const stored = ({ kit, history, revision }: typeof brandKits.$inferSelect): StoredKit => ({
  kit,
  history,
  revision,
});

/** The brand kit, and fonts of one's own. */
@Injectable()
export class BrandService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(INTAKE) private readonly intake: Intake,
  ) {}

  kit() {
    return kitOf(this.db);
  }

  /** Stores the kit; refused with the present one where it was based on an older revision. */
  async save({ revision, kit, history }: CallOf<'PUT /api/brand'>['body']): Promise<StoredKit> {
    const known = new Set((await this.fonts()).map((f) => `own-${f.hash}`));
    const lost = kit.fonts.find((f) => f.font.startsWith('own-') && !known.has(f.font));
    if (lost)
      throw new UnprocessableEntityException(
        `The font file of "${lost.title}" is not here any more; choose another.`,
      );
    const [saved] = await this.db
      .insert(brandKits)
      .values({ workspaceId: WORKSPACE, kit, history, revision: 1 })
      .onConflictDoUpdate({
        target: brandKits.workspaceId,
        set: { kit, history, revision: sql`${brandKits.revision} + 1` },
        setWhere: eq(brandKits.revision, revision),
      })
      .returning();
    if (!saved) {
      throw new ConflictException({
        message: 'The brand kit was changed elsewhere since you opened it. Yours is not stored yet.',
        detail: await this.kit(),
      });
    }
    await announce(this.pool, { topic: 'brand', id: WORKSPACE });
    return stored(saved);
  }

  fonts(): Promise<FontRow[]> {
    return this.db.select().from(fonts).where(eq(fonts.workspaceId, WORKSPACE)).orderBy(asc(fonts.createdAt));
  }

  /** Takes a font file (TTF, OTF, WOFF, WOFF2); refused with a sentence where it cannot be read. */
  async takeFont(file: IncomingFile): Promise<FontRow> {
    const taken = await this.intake.font(file);
    const hash = await this.store.putFile(taken.path, taken.mime);
    const [known] = await this.db
      .select()
      .from(fonts)
      .where(and(eq(fonts.hash, hash), eq(fonts.workspaceId, WORKSPACE)));
    if (known) return known;
    const [row] = await this.db
      .insert(fonts)
      .values({ workspaceId: WORKSPACE, family: taken.family, style: taken.style, hash })
      .returning();
    return row;
  }

  async removeFont(id: string): Promise<void> {
    const [row] = await this.db.select().from(fonts).where(eq(fonts.id, id));
    if (!row) throw new NotFoundException('This font is not here any more.');
    const { kit } = await this.kit();
    const used = kit.fonts.find((f) => f.font === `own-${row.hash}`);
    if (used)
      throw new UnprocessableEntityException(
        `The brand kit uses this font for "${used.title}"; choose another there first.`,
      );
    // Shots name the file by content: they go on showing it.
    await remove(this.db, 'font', id);
  }
}
