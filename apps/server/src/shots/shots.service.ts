import type { Piscina } from 'piscina';
import type { Response } from 'express';
import { paintFor, THREADS } from '../jobs/paint-threads';
import { keepsFiles } from './tried-files';
import { exportScale, pageOf, type ExportRequest } from './export';
import { pageMm } from '@scenograph/core/shot/trim';
import type { PictureTask } from '../jobs/paint-thread';
import { ConflictException, Inject, Injectable, NotFoundException } from '@nestjs/common';
import type { By, CallOf } from '@scenograph/contract';
import { readShot, type Shot } from '@scenograph/core/shot/document';
import { resolveBase, resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { needsOf } from '@scenograph/core/paint/paint-shot';
import { ownFontHash } from '@scenograph/core/type/catalogue';
import { exportName } from '@scenograph/core/delivery/export-name';
import type { Rect } from '@scenograph/core/raster/pixels';
import { trimRect } from '@scenograph/core/shot/trim';
import { and, eq, sql } from 'drizzle-orm';
import type pg from 'pg';
import { addStream, newZip } from '../http/send-stream';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { remove } from '../bin/bin';
import { BoardService } from '../board/board.service';
import { DATABASE, POOL, WORKSPACE, type Database } from '../database/database';
import type { History } from '@scenograph/contract/types';
import { listings, shots } from '../database/schema';
import { announce } from '../events/events';
import { slotsOf } from '../listings/slots-of';
import { variantsOf } from '../products/product-data';
import { allSheets } from '../spec-sheets/spec-sheets.service';
import { refusalOf } from '../http/refusals';

type TrialsRequest = CallOf<'POST /api/shots/:id/trials'>['body'];

@Injectable()
export class ShotsService {
  readonly tried = keepsFiles();

  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(BLOBS) private readonly store: BlobStore,
    @Inject(THREADS) private readonly threads: Piscina,
    @Inject(BoardService) private readonly boards: BoardService,
  ) {}

  async one(id: string) {
    const [shot] = await this.db
      .select()
      .from(shots)
      .where(and(eq(shots.id, id), eq(shots.workspaceId, WORKSPACE)));
    if (!shot) throw new NotFoundException('This shot is not here any more.');
    return shot;
  }

  /**
   * Saves an edit that was made on revision `revision`. Where the shot has moved on since, nothing is saved: the
   * answer (409) carries the stored shot and names what differs, so that nothing is lost on either side.
   */
  async save(id: string, body: { revision: number; document: unknown; history: History }) {
    const document = this.read(body.document);
    const [saved] = await this.db
      .update(shots)
      .set({ document, history: body.history, revision: sql`${shots.revision} + 1`, updatedAt: sql`now()` })
      .where(and(eq(shots.id, id), eq(shots.workspaceId, WORKSPACE), eq(shots.revision, body.revision)))
      .returning({ revision: shots.revision, updatedAt: shots.updatedAt });
    if (saved) {
      await announce(this.pool, { topic: 'shot', id, revision: saved.revision });
      return saved;
    }
    const stored = await this.one(id);
    throw new ConflictException({
      message: `This shot was changed elsewhere since you opened it (${whatDiffers(stored.document, document).join(', ') || 'no visible difference'}). Nothing was saved over it.`,
      detail: {
        revision: stored.revision,
        document: stored.document,
        history: stored.history,
        differs: whatDiffers(stored.document, document),
      },
    });
  }

  async copy(id: string, body: { title?: string; document?: unknown }) {
    const shot = await this.one(id);
    const [made] = await this.db
      .insert(shots)
      .values({
        workspaceId: WORKSPACE,
        listingId: shot.listingId,
        alt: shot.alt,
        title: body.title ?? `${shot.title}, copy`,
        document: body.document ? this.read(body.document) : shot.document,
        history: { past: [], future: [] },
        feeds: [],
        position: shot.position + 1,
      })
      .returning();
    return made;
  }

  /** Its name, and the alternative text of its pictures. */
  async describe(id: string, patch: { title?: string; alt?: string }, by: By) {
    const { listingId } = await this.one(id);
    await this.boards.describeShot(listingId, id, patch, by);
    return this.one(id);
  }

  /** A picture written in several ways, each file kept for a while to be looked at. */
  async trials(id: string, { slot, variant, trials }: TrialsRequest, response: Response) {
    const resolved = await this.resolved(id, slot, variant);
    const shot = await this.one(id);
    const [listing] = await this.db.select().from(listings).where(eq(listings.id, shot.listingId));
    const found = slotsOf(listing.sheets, await allSheets(this.db)).find((s) => s.key === slot)!;
    const results = await paintFor(
      this.threads,
      { task: 'trials', resolved, slot: found.slot, trials },
      response,
    );
    return results.map((r) => {
      if (!r.ok) return r;
      const { bytes, ...facts } = r;
      return { ...facts, file: this.tried.keep(Buffer.from(bytes), r.format), size: bytes.length };
    });
  }

  /** A shot as a layered OpenRaster file. */
  async layered(id: string, response: Response, slot?: string, variant?: string) {
    const shot = await this.one(id);
    const resolved = await this.resolved(id, slot, variant);
    exportScale(resolved, resolved.width);
    const bytes = await paintFor(this.threads, { task: 'layers', resolved }, response);
    return { title: shot.title, bytes: Buffer.from(bytes) };
  }

  async remove(id: string, { revision }: By) {
    const { listingId } = await this.one(id);
    return { ...(await remove(this.db, 'shot', id, revision)), listingId };
  }

  /** The shot resolved for a slot (or its base) and a variant (the first, unless named). */
  async resolved(id: string, slot?: string, variantId?: string): Promise<ResolvedShot> {
    const shot = await this.one(id);
    const [listing] = await this.db.select().from(listings).where(eq(listings.id, shot.listingId));
    const own = await variantsOf(this.db, [listing.productId]);
    const variant = variantId ? own.find((v) => v.id === variantId) : own[0];
    if (variantId && !variant) throw new NotFoundException('This variant is not in the listing any more.');
    if (!slot) return resolveBase(shot.document, variant?.data ?? null);
    const found = slotsOf(listing.sheets, await allSheets(this.db)).find((s) => s.key === slot);
    if (!found) throw new NotFoundException(`This listing has no slot "${slot}".`);
    return resolveForSlot(shot.document, slot, found.slot, variant?.data ?? null);
  }

  /** The painted shot as PNG, so many pixels wide as its frame times `scale`. */
  async paint(id: string, response: Response, slot?: string, variantId?: string, scale = 1) {
    const resolved = await this.resolved(id, slot, variantId);
    return (await this.painted(resolved, { width: resolved.width * scale, format: 'png' }, response)).bytes;
  }

  async export(id: string, { slot, variant, ...file }: ExportRequest, response: Response) {
    const shot = await this.one(id);
    const resolved = await this.resolved(id, slot, variant);
    const trim = (!slot && shot.document.trim) || null;
    const shown = trim && file.area === 'trim' ? trimRect(resolved, trim) : null;
    const of = (variant && (await this.variantName(shot.listingId, variant))) || null;
    const { format } = file;
    if (format === 'pdf') {
      const page = pageOf(resolved, trim, shown, file, shot.title);
      exportScale(shown ?? resolved, file.width);
      const bytes = Buffer.from(
        await paintFor(this.threads, { task: 'page', resolved, options: page }, response),
      );
      const size = pageMm(shown ?? resolved, page.trim);
      return { name: exportName({ shot: shot.title, variant: of, ...size }, format), bytes };
    }
    const { bytes, ...size } = await this.painted(resolved, { ...file, format }, response, shown);
    return { name: exportName({ shot: shot.title, variant: of, ...size }, format), bytes };
  }

  /** What a variant is called among those of its listing; nothing where it is the only one. */
  private async variantName(listingId: string, variantId: string): Promise<string> {
    const [listing] = await this.db.select().from(listings).where(eq(listings.id, listingId));
    const own = await variantsOf(this.db, [listing.productId]);
    const data = own.find((v) => v.id === variantId)?.data;
    return own.length > 1 && data ? data.variant || data.sku : '';
  }

  /** @param shown the part of the frame that the file shows; all of it where null */
  private async painted(
    resolved: ResolvedShot,
    { width, format, density }: Pick<PictureTask, 'format' | 'density'> & { width: number },
    response: Response,
    shown: Rect | null = null,
  ) {
    const part = shown ?? { x: 0, y: 0, width: resolved.width, height: resolved.height };
    const scale = exportScale(part, width);
    const task = { task: 'picture' as const, resolved, scale, format, density, shown };
    const bytes = Buffer.from(await paintFor(this.threads, task, response));
    return { bytes, width, height: Math.round(part.height * scale) };
  }

  /** A shot with every picture it names, as a ZIP that the headless command can render. */
  async bundle(id: string): Promise<NodeJS.ReadableStream> {
    const shot = await this.one(id);
    const zip = newZip();
    zip.addBuffer(Buffer.from(JSON.stringify(shot.document, null, 2)), 'shot.json');
    const [listing] = await this.db.select().from(listings).where(eq(listings.id, shot.listingId));
    const own = await variantsOf(this.db, [listing.productId]);
    // What texts and brand are filled from, so that the shot is painted the same elsewhere.
    const data = (own.find((v) => v.data.cutout) ?? own[0])?.data ?? null;
    if (data) zip.addBuffer(Buffer.from(JSON.stringify(data, null, 2)), 'data.json');
    const { pictures, fonts } = needsOf(resolveBase(shot.document, data));
    const ownFonts = fonts.map(ownFontHash).filter((hash): hash is string => hash !== null);
    for (const hash of [...pictures, ...ownFonts]) {
      const info = await this.store.info(hash);
      if (info)
        addStream(zip, `assets/${hash}.${info.mime.split('/')[1]}`, { compress: false }, () =>
          this.store.stream(hash),
        );
    }
    zip.end();
    return zip.outputStream;
  }

  private read(value: unknown): Shot {
    try {
      return readShot(value);
    } catch (error) {
      throw refusalOf(error, 'The shot');
    }
  }
}

/** The names of elements that are not the same in two documents. */
function whatDiffers(stored: Shot, mine: Shot): string[] {
  const names = new Map<string, string>();
  const before = new Map(stored.elements.map((e) => [e.id, JSON.stringify(e)]));
  for (const e of mine.elements) {
    if (before.get(e.id) !== JSON.stringify(e)) names.set(e.id, e.name);
    before.delete(e.id);
  }
  for (const id of before.keys()) names.set(id, stored.elements.find((e) => e.id === id)!.name);
  const list = [...names.values()];
  if (JSON.stringify(stored.fits) !== JSON.stringify(mine.fits)) list.push('slot differences');
  const sizeOf = ({ frame, trim }: Shot) => JSON.stringify([frame, trim]);
  if (sizeOf(stored) !== sizeOf(mine)) list.push('size of the picture');
  return list;
}
