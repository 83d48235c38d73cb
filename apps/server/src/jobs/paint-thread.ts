import { NoProductError } from '@scenograph/core/cutout/index';
import type { CutoutRecipe } from '@scenograph/core/cutout/recipe';
import { ByteLimitError } from '@scenograph/core/delivery/byte-budget';
import { resolveForSlot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { encodePicture } from '@scenograph/host-node/encode';
import { measurePainted, paintAndLook } from '@scenograph/host-node/measure';
import { createPainter } from '@scenograph/host-node/painter';
import { decodePicture, MIME } from '@scenograph/host-node/read-picture';
import { createBlobStore } from '../blobs/blob-store';
import { databaseUrl, openDatabase } from '../database/database';
import type { CellOrder, CutoutRecord } from '../database/schema';
import { makeCutout } from '../photos/make-cutout';

/** Runs in a worker thread: everything that computes for long. Results go to the store; hashes come back. */

const { db } = openDatabase(databaseUrl(), 2);
const store = createBlobStore(db);
const painter = createPainter((hash) => store.get(hash));

export interface CutoutTask {
  task: 'cutout';
  working: string;
  recipe: CutoutRecipe;
}

export interface CellTask {
  task: 'cell';
  order: CellOrder;
  slotKey: string;
}

export type CellOutcome =
  | {
      ok: true;
      blob: string;
      bytes: number;
      format: string;
      quality: number | null;
      checks: CheckResult[];
    }
  | { ok: false; reason: string };

export type CutoutOutcome = { ok: true; cutout: CutoutRecord } | { ok: false; reason: string };

export default async function run(task: CutoutTask | CellTask): Promise<CutoutOutcome | CellOutcome> {
  return task.task === 'cutout' ? cutOutPhoto(task) : paintCell(task);
}

async function cutOutPhoto({ working, recipe }: CutoutTask): Promise<CutoutOutcome> {
  try {
    return {
      ok: true,
      cutout: await makeCutout(store, await decodePicture(await store.get(working)), recipe),
    };
  } catch (error) {
    if (error instanceof NoProductError) return { ok: false, reason: error.message };
    throw error;
  }
}

async function paintCell({ order, slotKey }: CellTask): Promise<CellOutcome> {
  const { slot } = order;
  const resolved = resolveForSlot(order.shot, slotKey, slot, order.data);
  const seen = await paintAndLook(painter, resolved);
  const { painted } = seen;
  const checks = await measurePainted(painter, resolved, seen, slot, slotKey);
  const pixels = painted.pixels();
  let last: ByteLimitError | null = null;
  // The slot's preferred format first; another that it takes where the first cannot be small enough.
  for (const format of slot.formats) {
    try {
      const { bytes, quality } = await encodePicture(pixels, format, slot.maxBytes);
      const blob = await store.put(bytes, MIME[format]);
      return { ok: true, blob, bytes: bytes.length, format, quality, checks };
    } catch (error) {
      if (!(error instanceof ByteLimitError)) throw error;
      last = error;
    }
  }
  return { ok: false, reason: last?.message ?? 'The slot takes no format.' };
}
