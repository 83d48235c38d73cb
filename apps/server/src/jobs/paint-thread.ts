import type { BrandKit } from '@scenograph/core/brand/kit';
import type { ExportFormat } from '@scenograph/core/delivery/export-name';
import { crop, scaledWithin, type Rect } from '@scenograph/core/raster/pixels';
import { NoProductError } from '@scenograph/core/cutout/index';
import { outlineToSvg } from '@scenograph/core/cutout/outline-path';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { ByteLimitError } from '@scenograph/core/delivery/byte-budget';
import { DerivedCache } from '@scenograph/core/paint/derived-cache';
import { needsOf } from '@scenograph/core/paint/paint-shot';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Shot } from '@scenograph/core/shot/document';
import { migrate } from '@scenograph/core/shot/migrations';
import { resolveForSlot, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { readSlot, type Slot } from '@scenograph/core/spec/slot';
import { encodeForSlot } from '@scenograph/host-node/encode';
import { encodeExport } from '@scenograph/host-node/encode-export';
import { measureAt, paintAndLook } from '@scenograph/host-node/measure';
import { writeOpenRaster } from '@scenograph/host-node/open-raster';
import { createPainter } from '@scenograph/host-node/painter';
import { shotPdf, type ShotPdfOptions } from '@scenograph/host-node/shot-pdf';
import { decodeGrey, decodePicture, MIME } from '@scenograph/host-node/read-picture';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { createBlobStore } from '../blobs/blob-store';
import { databaseUrl, openDatabase } from '../database/database';
import { troubleOf, type DatabaseTrouble } from '../database/trouble';
import type { CutoutRecord } from '@scenograph/contract/types';
import { orderParts } from '../database/schema';
import type { PaintingOrder, PaintingResult } from '../paintings/paintings';
import { makeCutout } from '../photos/make-cutout';
import { paintOptionSheet, paintProof, type Option, type Proof } from './sheets';
import { tryEncodings, type Trial, type TrialResult } from './trials';

/** Runs in a worker thread: everything that computes for long. Results go to the store; hashes come back. */

// Every thread paints a picture of its own: encoders need no threads of theirs.
sharp.concurrency(1);
const { db } = openDatabase(databaseUrl(), 2);
const store = createBlobStore(db);
// Many threads may paint on one machine: each keeps less than a stage does.
const painter = createPainter(
  (hash) => store.get(hash),
  24_000_000,
  new DerivedCache(20_000_000, 96 * 1024 * 1024),
);

export interface CutoutTask {
  task: 'cutout';
  working: string;
  recipe: CutoutRecipe;
}

export interface PaintingTask {
  task: 'painting';
  order: PaintingOrder;
}

export interface TrialsTask {
  task: 'trials';
  resolved: ResolvedShot;
  slot: Slot;
  trials: Trial[];
}

/** A shot as a layered file. */
export interface LayersTask {
  task: 'layers';
  resolved: ResolvedShot;
}

/** A shot as a picture file. */
export interface PictureTask {
  task: 'picture';
  resolved: ResolvedShot;
  scale: number;
  format: Exclude<ExportFormat, 'pdf'>;
  density?: number;
  /** The part of the frame that the file shows, in its pixels; all of it where null. */
  shown: Rect | null;
}

/** A shot as a page. */
export interface PageTask {
  task: 'page';
  resolved: ResolvedShot;
  options: ShotPdfOptions;
}

/** A cutout's picture as WebP, or the outline of a matte as SVG. */
export interface CutoutFileTask {
  task: 'cutout-file';
  format: 'webp' | 'svg';
  picture: string;
}

export interface OptionSheetTask {
  task: 'option-sheet';
  options: Option[];
  columns: number;
}

export interface ProofTask {
  task: 'proof';
  options: Option[];
  proof: Proof;
}

export type Task =
  | CutoutTask
  | PaintingTask
  | TrialsTask
  | LayersTask
  | PictureTask
  | PageTask
  | CutoutFileTask
  | OptionSheetTask
  | ProofTask;

/** What comes of a task. */
export type ResultOf<T extends Task> = T extends CutoutTask
  ? CutoutOutcome
  : T extends PaintingTask
    ? PaintingOutcome
    : T extends TrialsTask
      ? TrialResult[]
      : Uint8Array;

/** Errors lose their code on the way out of a thread: trouble with the database is told by name. */
export type PaintingOutcome =
  | { ok: true; result: PaintingResult }
  | { ok: false; reason: string }
  | { ok: false; trouble: DatabaseTrouble };
export type CutoutOutcome =
  | { ok: true; cutout: CutoutRecord }
  | { ok: false; reason: string }
  | { ok: false; trouble: DatabaseTrouble };

export default async function run(task: Task): Promise<ResultOf<Task>> {
  switch (task.task) {
    case 'cutout':
      return cutOutPhoto(task);
    case 'painting':
      return paint(task.order).catch((error: unknown) => {
        const trouble = troubleOf(error);
        if (!trouble) throw error;
        return { ok: false, trouble };
      });
    case 'trials':
      return tryEncodings(painter, task.resolved, task.slot, task.trials);
    case 'layers': {
      const { layers, merged } = await painter.layers(task.resolved);
      return writeOpenRaster(layers, merged);
    }
    case 'picture': {
      const { resolved, scale, format, density, shown } = task;
      const pixels = (await painter.paint(resolved, { scale })).pixels();
      const part = shown ? crop(pixels, scaledWithin(shown, scale, pixels)) : pixels;
      return encodeExport(part, format, density ?? null);
    }
    case 'page':
      return shotPdf(painter, task.resolved, (hash) => store.get(hash), task.options);
    case 'cutout-file':
      return writeCutout(task);
    case 'option-sheet':
      return paintOptionSheet(store.get, task.options, task.columns);
    case 'proof':
      return paintProof(store.get, task.options, task.proof);
  }
}

async function cutOutPhoto({ working, recipe }: CutoutTask): Promise<CutoutOutcome> {
  try {
    return {
      ok: true,
      cutout: await makeCutout(store, await decodePicture(await store.get(working)), recipe),
    };
  } catch (error) {
    if (error instanceof NoProductError) return { ok: false, reason: error.message };
    const trouble = troubleOf(error);
    if (trouble) return { ok: false, trouble };
    throw error;
  }
}

async function writeCutout({ format, picture }: CutoutFileTask): Promise<Uint8Array> {
  const bytes = await store.get(picture);
  return format === 'webp'
    ? sharp(bytes).webp({ quality: 92, alphaQuality: 100 }).toBuffer()
    : Buffer.from(outlineToSvg(await decodeGrey(bytes)));
}

/** Documents that many paintings share, the last used at the end. */
const parts = new Map<string, unknown>();
const MOST_PARTS = 300;

async function part<T>(hash: string, read: (value: unknown) => T): Promise<T> {
  let value = parts.get(hash) as T | undefined;
  if (value === undefined) {
    const [row] = await db.select().from(orderParts).where(eq(orderParts.hash, hash));
    if (!row)
      throw new Error(`A document that a picture is made from (${hash.slice(0, 12)}) is not in the store.`);
    value = read(JSON.parse(row.body));
  } else parts.delete(hash);
  parts.set(hash, value);
  if (parts.size > MOST_PARTS) parts.delete(parts.keys().next().value!);
  return value;
}

async function paint(order: PaintingOrder): Promise<PaintingOutcome> {
  const began = Date.now();
  const [shot, slot, plain, brand] = await Promise.all([
    part(order.shotPart, (value) => migrate(value) as Shot),
    part<Slot>(order.slotPart, readSlot),
    part(order.dataPart, (value) => value as ProductData),
    order.brandPart ? part(order.brandPart, (value) => value as BrandKit) : null,
  ]);
  const resolved = resolveForSlot(shot, order.slotKey, slot, { ...plain, brand });
  const { painted, words } = await paintAndLook(painter, resolved);
  const pixels = painted.pixels();
  try {
    const { bytes, format, quality, facts } = await encodeForSlot(pixels, slot, order.encoding, order.words);
    const { alt } = order.words;
    const measures = await measureAt(
      painter,
      resolved,
      pixels,
      { words, alt, file: facts },
      slot,
      order.slotKey,
    );
    const blob = await store.put(bytes, MIME[format]);
    return {
      ok: true,
      result: {
        blob,
        format,
        quality,
        bytes: bytes.length,
        width: pixels.width,
        height: pixels.height,
        facts,
        measures,
        pictures: needsOf(resolved).pictures,
        milliseconds: Date.now() - began,
      },
    };
  } catch (error) {
    if (error instanceof ByteLimitError) return { ok: false, reason: error.message };
    throw error;
  }
}
