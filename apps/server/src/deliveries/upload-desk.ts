import { extension } from '@scenograph/core/spec/file-name';
import type { UploadAnswer } from '@scenograph/core/delivery/upload';
import { background } from '@scenograph/core/spec/checks/background';
import { slotKey, type Slot } from '@scenograph/core/spec/slot';
import { decodePicture } from '@scenograph/host-node/read-picture';
import { and, asc, eq } from 'drizzle-orm';
import sharp, { type Metadata } from 'sharp';
import type { BlobStore } from '../blobs/blob-store';
import type { Database } from '../database/database';
import { deliveryCells, paintings } from '../database/schema';
import { allSheets } from '../spec-sheets/spec-sheets.service';

/** A marketplace's desk for files: it opens each of them itself and takes or refuses it by its own rules. */
export type UploadDesk = (file: string, bytes: Buffer, slot: Slot) => Promise<UploadAnswer>;

/** The picture's frame must be white where the slot wants white: what a desk can see without knowing the product. */
const FRAME = 0.02;

/** The stand-in that ships with the application: reads the file alone and knows nothing of how it was made. */
export const standIn: UploadDesk = async (file, bytes, slot) => {
  const refused = (says: string): UploadAnswer => ({ file, slot: slot.title, taken: false, says });
  let facts: Metadata;
  try {
    facts = await sharp(bytes).metadata();
  } catch {
    return refused('This is not a picture that the desk can open.');
  }
  const format = facts.format === 'heif' ? 'avif' : facts.format;
  const { width = 0, height = 0 } = facts;
  if (!slot.formats.some((f) => f === format))
    return refused(`It is ${format}; ${slot.formats.join(' or ')} is taken.`);
  if (bytes.length > slot.maxBytes)
    return refused(
      `It has ${bytes.length.toLocaleString('en-GB')} bytes; at most ${slot.maxBytes.toLocaleString('en-GB')} are taken.`,
    );
  const { limits } = slot;
  const exact = !limits && (width !== slot.width || height !== slot.height);
  const outside =
    limits &&
    (width < (limits.minWidth ?? 0) ||
      height < (limits.minHeight ?? 0) ||
      width > (limits.maxWidth ?? Infinity) ||
      height > (limits.maxHeight ?? Infinity));
  if (exact || outside)
    return refused(
      `It is ${width} x ${height} px; ${exact ? `${slot.width} x ${slot.height} px is taken` : "that is outside the slot's limits"}.`,
    );
  if (slot.density && Math.round(facts.density ?? 0) !== Math.round(slot.density))
    return refused(`Its density is ${facts.density ?? 'not written'}; ${slot.density} ppi is taken.`);
  if (slot.background.kind !== 'any') {
    const picture = await decodePicture(bytes);
    // Everything but the frame counts as product.
    const products = { width: 100, height: 100, data: new Float32Array(10_000).fill(1) };
    const rim = Math.max(1, Math.round(FRAME * 100));
    for (let i = 0; i < 10_000; i++) {
      const [x, y] = [i % 100, Math.floor(i / 100)];
      if (Math.min(x, y, 99 - x, 99 - y) < rim) products.data[i] = 0;
    }
    const measured = background.measure({
      slot,
      slotKey: '',
      width,
      height,
      picture,
      products,
      shot: null,
      words: null,
      sources: new Map(),
    });
    const finding = measured && background.judge(measured, slot);
    if (finding && !Array.isArray(finding) && finding.verdict === 'stop')
      return refused(`Its edge is not ${slot.background.kind === 'white' ? 'pure white' : 'clear'}.`);
  }
  return { file, slot: slot.title, taken: true, says: `Taken as ${slot.title}.` };
};

/** Sends a delivery's files for a marketplace to the stand-in, by the marketplace's rules of today. */
export async function standInDesk(
  db: Database,
  store: BlobStore,
  id: string,
  marketplace: string,
): Promise<UploadAnswer[]> {
  const sheets = (await allSheets(db)).filter((s) => s.marketplace === marketplace);
  const slots = new Map(sheets.flatMap((sheet) => sheet.slots.map((s) => [slotKey(sheet, s), s] as const)));
  const rows = await db
    .select({ cell: deliveryCells, painting: paintings })
    .from(deliveryCells)
    .innerJoin(paintings, eq(paintings.key, deliveryCells.key))
    .where(and(eq(deliveryCells.deliveryId, id), eq(deliveryCells.marketplace, marketplace)))
    .orderBy(asc(deliveryCells.n));
  const answers: UploadAnswer[] = [];
  for (const { cell, painting } of rows) {
    if (painting.state !== 'done') continue;
    const file = `${cell.fileName}.${extension(painting.format!)}`;
    const slot = slots.get(cell.slotKey);
    if (!slot) {
      answers.push({
        file,
        slot: cell.slotKey,
        taken: false,
        says: 'The marketplace has no such slot any more.',
      });
      continue;
    }
    answers.push(await standIn(file, await store.get(painting.blob!), slot));
  }
  return answers;
}
