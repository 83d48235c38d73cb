import { setTimeout as pause } from 'node:timers/promises';
import { extension } from '@scenograph/core/spec/file-name';
import { manifestRows, type Manifest, type ManifestEntry } from '@scenograph/core/delivery/manifest';
import { worst } from '@scenograph/core/spec/checks/index';
import { eq } from 'drizzle-orm';
import Papa from 'papaparse';
import yazl from 'yazl';
import type { BlobStore } from '../blobs/blob-store';
import type { BoardService } from '../board/board.service';
import type { Database } from '../database/database';
import { deliveries } from '../database/schema';
import { picturesOf, type DeliveredPicture, type DeliveryPart } from './pictures';

const PAGE = 200;
/** How often a picture that is still to be made is looked for. */
const LOOK = 500;

/**
 * A delivery's ZIP, begun at once: finished pictures are read from the store one at a time as they are sent, those to
 * come are waited for, and the manifest of what went in is its end. Its size is known beforehand where all is made.
 */
export async function deliveryZip(
  db: Database,
  store: BlobStore,
  boards: BoardService,
  id: string,
  part: DeliveryPart,
): Promise<{ size: number | null; stream: NodeJS.ReadableStream; stop(): void }> {
  const [delivery] = await db.select().from(deliveries).where(eq(deliveries.id, id));
  const made = delivery.createdAt;
  const manifest: Manifest = {
    manifest: 'scenograph-delivery',
    version: 2,
    delivery: id,
    listing: delivery.title,
    made: made.toISOString(),
    pictures: [],
    failed: [],
  };
  const zip = new yazl.ZipFile();
  let stopped = false;
  const page = picturesOf(db, boards, id, part);

  const add = ({ cell, painting: p, checks: judged }: DeliveredPicture) => {
    const checks = judged ?? [];
    if (p.state === 'failed') {
      manifest.failed.push({
        sku: cell.sku,
        marketplace: cell.marketplace,
        slot: cell.slotKey,
        reason: p.reason ?? '',
      });
      return;
    }
    const entry: ManifestEntry = {
      file: `${cell.fileName}.${extension(p.format!)}`,
      sku: cell.sku,
      variant: cell.variant,
      marketplace: cell.marketplace,
      slot: cell.slotKey,
      shot: cell.shotTitle,
      width: p.width!,
      height: p.height!,
      format: p.format!,
      quality: p.quality,
      bytes: p.bytes!,
      sha256: p.blob!,
      alt: p.words.alt ?? '',
      verdict: worst(checks),
      inputs: {
        key: p.key,
        shot: p.shotPart,
        slot: cell.slotPart,
        data: p.dataPart,
        pictures: p.pictures ?? [],
      },
      checks: checks.map(({ check, verdict, measured, limit, waived }) => ({
        check,
        verdict,
        measured,
        limit,
        ...(waived ? { waived } : {}),
      })),
    };
    manifest.pictures.push(entry);
    // Pictures are compressed already: they are stored as they are.
    zip.addReadStreamLazy(entry.file, { compress: false, mtime: made, size: entry.bytes }, (cb) =>
      cb(null, store.stream(entry.sha256)),
    );
  };

  /** Adds pictures in order until one is not made yet. @returns where to go on, or null at the end */
  const addFrom = async (from: number): Promise<number | null> => {
    for (;;) {
      const rows = await page(from, PAGE);
      for (const row of rows) {
        const { state } = row.painting;
        if (state !== 'done' && state !== 'failed') return row.cell.n;
        add(row);
        from = row.cell.n + 1;
      }
      if (rows.length < PAGE) return null;
    }
  };

  const end = (): Promise<number | null> => {
    const options = { mtime: made, compress: false };
    zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 2)), 'manifest.json', options);
    const csv = Papa.unparse(manifestRows(manifest), { newline: '\r\n' });
    zip.addBuffer(Buffer.from(`${csv}\r\n`), 'manifest.csv', options);
    // Its types leave out the size that is told once everything is known.
    const finish = zip.end.bind(zip) as (options: object, told: (size: number) => void) => void;
    return new Promise((resolve) => finish({}, (size) => resolve(size > 0 ? size : null)));
  };

  const stream = zip.outputStream as NodeJS.ReadableStream & { destroy?(error?: Error): void };
  const stop = () => {
    stopped = true;
  };
  let at = await addFrom(0);
  if (at === null) return { size: await end(), stream, stop };
  void (async () => {
    while (at !== null && !stopped) {
      await pause(LOOK);
      const [now] = await db.select().from(deliveries).where(eq(deliveries.id, id));
      if (!now || now.state === 'cancelled') throw new Error('The delivery was cancelled.');
      at = await addFrom(at);
    }
    if (!stopped) await end();
  })().catch((error: Error) => stream.destroy?.(error));
  return { size: null, stream, stop };
}
