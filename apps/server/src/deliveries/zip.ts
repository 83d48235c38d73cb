import { setTimeout as pause } from 'node:timers/promises';
import { extension } from '@scenograph/core/spec/file-name';
import { manifestRows, type Manifest, type ManifestEntry } from '@scenograph/core/delivery/manifest';
import { worst } from '@scenograph/core/spec/checks/index';
import { eq } from 'drizzle-orm';
import Papa from 'papaparse';
import { addStream, newZip } from '../http/send-stream';
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
  const zip = new DeliveryZip(store, delivery);
  const page = picturesOf(db, boards, id, part);
  let stopped = false;
  const stop = () => {
    stopped = true;
  };
  const { stream } = zip;
  let at = await zip.addFrom(page, 0);
  if (at === null) return { size: await zip.end(), stream, stop };
  void (async () => {
    while (at !== null && !stopped) {
      await pause(LOOK);
      const [now] = await db.select().from(deliveries).where(eq(deliveries.id, id));
      if (!now || now.state === 'cancelled') throw new Error('The delivery was cancelled.');
      at = await zip.addFrom(page, at);
    }
    if (!stopped) await zip.end();
  })().catch((error: Error) => stream.destroy?.(error));
  return { size: null, stream, stop };
}

/** A ZIP of pictures that ends with their manifest, as JSON and as CSV. */
class DeliveryZip {
  private readonly zip = newZip();
  private readonly made: Date;
  private readonly manifest: Manifest;

  constructor(
    private readonly store: BlobStore,
    { id, title, createdAt }: typeof deliveries.$inferSelect,
  ) {
    this.made = createdAt;
    this.manifest = {
      manifest: 'scenograph-delivery',
      version: 2,
      delivery: id,
      listing: title,
      made: createdAt.toISOString(),
      pictures: [],
      failed: [],
    };
  }

  get stream(): NodeJS.ReadableStream & { destroy?(error?: Error): void } {
    return this.zip.outputStream;
  }

  /** Adds pictures in order until one is not made yet. @returns where to go on, or null at the end */
  async addFrom(page: ReturnType<typeof picturesOf>, from: number): Promise<number | null> {
    for (;;) {
      const rows = await page(from, PAGE);
      for (const row of rows) {
        const { state } = row.painting;
        if (state !== 'done' && state !== 'failed') return row.cell.n;
        this.add(row);
        from = row.cell.n + 1;
      }
      if (rows.length < PAGE) return null;
    }
  }

  private add(row: DeliveredPicture): void {
    const { cell, painting } = row;
    if (painting.state === 'failed') {
      const { sku, marketplace, slotKey: slot } = cell;
      this.manifest.failed.push({ sku, marketplace, slot, reason: painting.reason ?? '' });
      return;
    }
    const entry = manifestEntry(row);
    this.manifest.pictures.push(entry);
    // Pictures are compressed already: they are stored as they are.
    const options = { compress: false, mtime: this.made, size: entry.bytes };
    addStream(this.zip, entry.file, options, () => this.store.stream(entry.sha256));
  }

  /** @returns bytes of the whole ZIP, or null where they cannot be told beforehand */
  end(): Promise<number | null> {
    const { zip, manifest } = this;
    const options = { mtime: this.made, compress: false };
    zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 2)), 'manifest.json', options);
    const csv = Papa.unparse(manifestRows(manifest), { newline: '\r\n', escapeFormulae: true });
    zip.addBuffer(Buffer.from(`${csv}\r\n`), 'manifest.csv', options);
    // Its types leave out the size that is told once everything is known.
    const finish = zip.end.bind(zip) as (options: object, told: (size: number) => void) => void;
    return new Promise((resolve) => finish({}, (size) => resolve(size > 0 ? size : null)));
  }
}

/** What the manifest says of a picture that was made. */
function manifestEntry({ cell, painting: p, checks: judged }: DeliveredPicture): ManifestEntry {
  const checks = judged ?? [];
  return {
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
}
