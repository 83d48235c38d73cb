import { isBackdrop } from '@scenograph/core/elements/backdrop/model';
import {
  ConflictException,
  Inject,
  Injectable,
  NotFoundException,
  UnprocessableEntityException,
} from '@nestjs/common';
import { and, asc, desc, eq, getTableColumns, inArray, sql } from 'drizzle-orm';
import type { Response } from 'express';
import type pg from 'pg';
import type { Piscina } from 'piscina';
import type { By, CallOf } from '@scenograph/contract';
import type { CutoutFormat } from '@scenograph/contract/types';
import { readRecipe, storedRecipe, type CutoutRecipe } from '@scenograph/core/cutout/recipe';
import type { Tidy } from '@scenograph/core/retouch/tidy';
import type { IncomingFile, Intake } from '@scenograph/host-node/sandbox/operations';
import { BLOBS } from '../blobs/blobs.controller';
import type { BlobStore } from '../blobs/blob-store';
import { takeIn } from '../blobs/take-in';
import { remove } from '../bin/bin';
import { DATABASE, POOL, WORKSPACE, type Database, type Transaction } from '../database/database';
import type { History } from '@scenograph/contract/types';
import { listings, outlines, photos, shots, variants } from '../database/schema';
import { announce } from '../events/events';
import { INTAKE } from '../http/incoming';
import { Page } from '../http/route';
import { paintFor, THREADS } from '../jobs/paint-threads';
import { QUEUE, type Queue } from '../jobs/queue';
import { cutoutFile, zipOfCutouts, type CutoutFile, type CutoutFiles } from './cutout-file';
import { inUse, pictureOf, replaced, shownPhoto, type Photo, type SizedFile } from './photo-row';
import { queueCutouts } from './queue-cutouts';
import { refusalOf } from '../http/refusals';

/** What a photo's adjustments were. */
type PhotoTidy = CallOf<'POST /api/photos/tidy/restore'>['body']['photos'][number];

@Injectable()
export class PhotosService {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(POOL) private readonly pool: pg.Pool,
    @Inject(BLOBS) readonly store: BlobStore,
    @Inject(INTAKE) readonly intake: Intake,
    @Inject(QUEUE) private readonly queue: Queue,
    @Inject(THREADS) private readonly threads: Piscina,
  ) {}

  /** Without recipes and histories, which only the desk needs. */
  async list(from: number, limit: number) {
    const { recipeHistory: _, ...columns } = getTableColumns(photos);
    const rows = await this.db
      .select(columns)
      .from(photos)
      .where(eq(photos.workspaceId, WORKSPACE))
      .orderBy(desc(photos.createdAt), desc(photos.id))
      .offset(from)
      .limit(limit);
    const total = await this.db.$count(photos, eq(photos.workspaceId, WORKSPACE));
    return new Page(
      rows.map((row) => shownPhoto({ ...row, recipeHistory: null })),
      total,
    );
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
  async take(file: SizedFile): Promise<Photo> {
    const picture = await takeIn(this, file);
    return this.db.transaction(async (tx) => {
      const [photo] = await tx
        .insert(photos)
        .values({
          workspaceId: WORKSPACE,
          ...pictureOf(file, picture),
          cutoutState: 'waiting',
        })
        .returning();
      await this.queue.cutOut(tx, { photoId: photo.id });
      return photo;
    });
  }

  /** Queues the cutouts of these photos anew, by their recipes as they stand. */
  async cutOut(ids: string[]): Promise<{ queued: number }> {
    return this.queued(await this.db.transaction((tx) => queueCutouts(tx, this.queue, ids)));
  }

  private async queued(ids: readonly string[]): Promise<{ queued: number }> {
    for (const id of ids) await announce(this.pool, { topic: 'photo', id });
    return { queued: ids.length };
  }

  /** Queues the cutouts of those photos whose full-size cutout was not made by their recipe as it stands. */
  async cutOutChanged(ids: string[]): Promise<{ queued: number }> {
    const rows = await this.db
      .select({ id: photos.id, recipe: photos.recipe, cutout: photos.cutout, state: photos.cutoutState })
      .from(photos)
      .where(and(inArray(photos.id, ids), eq(photos.workspaceId, WORKSPACE)));
    // One that waits will read the newest recipe when it is begun.
    const changed = rows.filter((p) => p.state !== 'waiting' && !inUse(p)).map((p) => p.id);
    return changed.length ? this.cutOut(changed) : { queued: 0 };
  }

  /** Cutouts that no worker has begun are not made; what there was before stays. */
  async cancel(): Promise<{ cancelled: number }> {
    const stopped = await this.db
      .update(photos)
      .set({
        cutoutState: sql`case when ${photos.cutout} is null then 'cancelled' else 'done' end`,
        cutoutError: null,
      })
      .where(and(eq(photos.cutoutState, 'waiting'), eq(photos.workspaceId, WORKSPACE)))
      .returning({ id: photos.id });
    if (stopped.length) await announce(this.pool, { topic: 'photo', id: stopped[0].id });
    return { cancelled: stopped.length };
  }

  async accept(ids: string[], accepted: boolean, revisions?: number[]): Promise<{ changed: number }> {
    const changed = await this.db.transaction(async (tx) => {
      await this.locked(tx, ids, revisions);
      return tx
        .update(photos)
        .set({ accepted })
        .where(and(inArray(photos.id, ids), eq(photos.workspaceId, WORKSPACE)))
        .returning({ id: photos.id });
    });
    if (changed.length) await announce(this.pool, { topic: 'photo', id: changed[0].id });
    return { changed: changed.length };
  }

  /**
   * Photos that nobody else changes until the transaction ends, in the order of their ids.
   * @throws ConflictException where one's corrections were changed since the revision that was seen of it
   */
  private async locked(tx: Transaction, ids: readonly string[], revisions: readonly number[] = []) {
    const rows = await tx
      .select()
      .from(photos)
      .where(and(inArray(photos.id, [...ids]), eq(photos.workspaceId, WORKSPACE)))
      .orderBy(asc(photos.id))
      .for('update');
    const seen = new Map(ids.map((id, i) => [id, revisions[i]]));
    const others = rows.filter((p) => (seen.get(p.id) ?? p.recipeRevision) !== p.recipeRevision);
    if (others.length)
      throw new ConflictException({
        message: `${others.map((p) => `"${p.name}"`).join(', ')} ${others.length === 1 ? 'was' : 'were'} changed elsewhere since you saw ${others.length === 1 ? 'it' : 'them'}. Nothing was changed; look again first.`,
        detail: { photos: others.map(shownPhoto) },
      });
    return rows;
  }

  /** What the cutout desk opens: the recipe with its history, and the saved outlines. */
  async desk(id: string) {
    const photo = await this.one(id);
    return {
      recipe: storedRecipe(photo.recipe),
      inUse: inUse(photo),
      history: photo.recipeHistory ?? { past: [], future: [] },
      revision: photo.recipeRevision,
      outlines: await this.outlines(id),
      standsIn: await this.standsIn(id),
    };
  }

  /** Pictures of the scenes that a photo's product stands in, by content hash; the newest shot's first. */
  private async standsIn(photoId: string): Promise<string[]> {
    const rows = await this.db
      .selectDistinct({ document: shots.document, updatedAt: shots.updatedAt })
      .from(shots)
      .innerJoin(listings, eq(listings.id, shots.listingId))
      .innerJoin(variants, eq(variants.productId, listings.productId))
      .where(eq(variants.photoId, photoId))
      .orderBy(desc(shots.updatedAt));
    const scenes = rows.flatMap(({ document }) =>
      document.elements.flatMap((e) => (isBackdrop(e) && e.fill.type === 'scene' ? [e.fill.picture] : [])),
    );
    return [...new Set(scenes)];
  }

  /** Stores a recipe as it is edited; one that was based on an older revision is refused with the present one. */
  async saveRecipe(id: string, body: { revision: number; recipe: unknown; history: History }) {
    let recipe: CutoutRecipe;
    try {
      recipe = readRecipe(body.recipe);
    } catch (error) {
      throw refusalOf(error, 'The cutout');
    }
    const [saved] = await this.db
      .update(photos)
      .set({ recipe, recipeHistory: body.history, recipeRevision: body.revision + 1 })
      .where(and(eq(photos.id, id), eq(photos.recipeRevision, body.revision)))
      .returning({ revision: photos.recipeRevision, cutout: photos.cutout });
    if (saved) return { revision: saved.revision, inUse: inUse({ recipe, cutout: saved.cutout }) };
    throw new ConflictException({
      message: 'This cutout was changed in another window. Take what stands there, or keep yours.',
      detail: await this.desk(id),
    });
  }

  /**
   * The same tidy for many photos; their crops and straightening, which belong to one photo, stay. The answer holds
   * what each had before, to be handed back to `restoreTidy`.
   */
  async tidyMany(
    ids: string[],
    tidy: Tidy,
    revisions?: number[],
  ): Promise<{ queued: number; before: PhotoTidy[] }> {
    const before: PhotoTidy[] = [];
    const queued = await this.db.transaction(async (tx) => {
      for (const photo of await this.locked(tx, ids, revisions)) {
        const recipe = storedRecipe(photo.recipe);
        const { straighten, crop } = recipe.tidy;
        const revision = await this.retidied(tx, photo, { ...tidy, straighten, crop });
        before.push({ id: photo.id, tidy: recipe.tidy, revision });
      }
      if (before.length < new Set(ids).size) throw new NotFoundException('A photo is not here any more.');
      return queueCutouts(tx, this.queue, ids);
    });
    return { ...(await this.queued(queued)), before };
  }

  /** Gives photos back the tidy that they had; where somebody has changed one since, none of them. */
  async restoreTidy(list: PhotoTidy[]): Promise<{ queued: number }> {
    const ids = list.map((p) => p.id);
    const wanted = new Map(list.map((p) => [p.id, p.tidy]));
    const revisions = list.map((p) => p.revision as number);
    const queued = await this.db.transaction(async (tx) => {
      for (const photo of await this.locked(tx, ids, revisions))
        await this.retidied(tx, photo, wanted.get(photo.id)!);
      return queueCutouts(tx, this.queue, ids);
    });
    return this.queued(queued);
  }

  private async retidied(tx: Transaction, photo: Photo, tidy: Tidy): Promise<number> {
    const revision = photo.recipeRevision + 1;
    await tx
      .update(photos)
      .set({ recipe: { ...storedRecipe(photo.recipe), tidy }, recipeRevision: revision })
      .where(eq(photos.id, photo.id));
    return revision;
  }

  /** A cutout as a file: PNG or WebP with transparency, its outline as SVG, or its matte. */
  async file(id: string, format: CutoutFormat, response: Response): Promise<CutoutFile> {
    return cutoutFile(this.files(response), await this.one(id), format);
  }

  /** The cutouts of many photos in a ZIP, made while it is read; photos without a cutout are left out. */
  async zip(ids: string[], format: CutoutFormat, response: Response): Promise<NodeJS.ReadableStream> {
    const chosen = await this.db
      .select()
      .from(photos)
      .where(and(inArray(photos.id, ids), eq(photos.workspaceId, WORKSPACE)))
      .orderBy(photos.name);
    const ready = chosen.filter((p) => p.cutout);
    if (!ready.length)
      throw new UnprocessableEntityException(
        'None of these photos has a cutout yet. Wait until they are cut out, then save them.',
      );
    return zipOfCutouts(this.files(response), ready, format);
  }

  /** Files are written in threads; given up where nobody waits for them any more. */
  private files(response: Response): CutoutFiles {
    return {
      store: this.store,
      write: (format, picture) => paintFor(this.threads, { task: 'cutout-file', format, picture }, response),
    };
  }

  outlines(photoId: string) {
    return this.db
      .select()
      .from(outlines)
      .where(eq(outlines.photoId, photoId))
      .orderBy(desc(outlines.createdAt));
  }

  /** Keeps a matte that lies over the whole photo: grey PNG of any size, or an SVG whose shapes are the outline. */
  async keepOutline(photoId: string, title: string, file: IncomingFile) {
    const photo = await this.one(photoId);
    const taken = await this.intake.picture(file, ['png', 'svg']);
    const { name } = file;
    const shape = taken.width / taken.height / (photo.width / photo.height);
    if (taken.format === 'png' && (shape > 1.02 || shape < 0.98))
      throw new UnprocessableEntityException(
        `"${name}" is ${taken.width} x ${taken.height} pixels; the photo is ${photo.width} x ${photo.height}. A matte needs the same shape as its photo; export it again from this photo.`,
      );
    const grey = taken.format === 'png' && taken.working ? { name, path: taken.working.path } : file;
    const matte = await this.intake.matte(grey, { width: photo.width, height: photo.height });
    if (matte.empty)
      throw new UnprocessableEntityException(`"${name}" holds no outline: nothing in it is kept.`);
    const [kept] = await this.db
      .insert(outlines)
      .values({ photoId, title, matte: await this.store.putFile(matte.path, matte.mime) })
      .returning();
    return kept;
  }

  async outlineSvg(
    photoId: string,
    id: string,
    response: Response,
  ): Promise<{ title: string; svg: Uint8Array }> {
    const [row] = await this.db
      .select()
      .from(outlines)
      .where(and(eq(outlines.id, id), eq(outlines.photoId, photoId)));
    if (!row) throw new NotFoundException('This outline is not here any more.');
    return { title: row.title, svg: await this.files(response).write('svg', row.matte) };
  }

  async removeOutline(photoId: string, id: string) {
    const own = and(eq(outlines.id, id), eq(outlines.photoId, photoId));
    const [found] = await this.db.select({ id: outlines.id }).from(outlines).where(own);
    if (!found) throw new NotFoundException('This outline is not here any more.');
    return remove(this.db, 'outline', id);
  }

  /** Another picture in a photo's place: its product keeps it everywhere, and its steps run again on the new one. */
  async replace(id: string, file: SizedFile, { revision }: By): Promise<Photo> {
    await this.one(id);
    const picture = await takeIn(this, file);
    const queued = await this.db.transaction(async (tx) => {
      const [old] = await this.locked(tx, [id], revision === null ? [] : [revision]);
      if (!old) throw new NotFoundException('This photo is not here any more.');
      await tx
        .update(photos)
        .set(replaced(old, file, picture))
        .where(eq(photos.id, id));
      return queueCutouts(tx, this.queue, [id]);
    });
    await this.queued(queued);
    return this.one(id);
  }

  remove = (id: string, { revision }: By) => remove(this.db, 'photo', id, revision);
}
