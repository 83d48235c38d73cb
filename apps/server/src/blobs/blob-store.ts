import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { asc, eq, sql } from 'drizzle-orm';
import type { Database, Transaction } from '../database/database';
import { blobPieces, blobs, derived } from '../database/schema';

const PIECE = 1 << 20;

/** Content-addressed files in the database. What is stored under a hash never changes. */
export interface BlobStore {
  put(bytes: Uint8Array, mime: string): Promise<string>;
  /** Stores a file on disk without holding it. */
  putFile(path: string, mime: string): Promise<string>;
  /** Stores a stream of unknown length; nothing is kept if it breaks. */
  putStream(stream: AsyncIterable<Uint8Array>, mime: string): Promise<{ hash: string; size: number }>;
  get(hash: string): Promise<Buffer>;
  info(hash: string): Promise<{ mime: string; size: number } | null>;
  /** Its bytes, or those from `start` to `end`, both counted from 0 and taken. */
  stream(hash: string, part?: { start: number; end: number }): Readable;
  /** Writes a file of the store to disk, piece by piece. */
  toFile(hash: string, path: string): Promise<void>;
  /** The file made for `key`, or what `make` gives, kept from then on. */
  derived(key: string, make: () => Promise<{ bytes: Uint8Array; mime: string }>): Promise<string>;
}

/** A stream's bytes again, in pieces of `PIECE` bytes; the last one is shorter. */
async function* inPieces(stream: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let rest = Buffer.alloc(0);
  for await (const chunk of stream) {
    rest = Buffer.concat([rest, chunk]);
    for (; rest.length >= PIECE; rest = rest.subarray(PIECE)) yield rest.subarray(0, PIECE);
  }
  if (rest.length) yield rest;
}

// eslint-disable-next-line max-lines-per-function -- one method beside another, each short
export function createBlobStore(db: Database): BlobStore {
  /** Whether it was not there before; what was is kept for longer. */
  const insert = async (tx: Transaction, hash: string, mime: string, size: number): Promise<boolean> => {
    const [{ isNew }] = await tx
      .insert(blobs)
      .values({ hash, mime, size })
      .onConflictDoUpdate({ target: blobs.hash, set: { touchedAt: sql`now()` } })
      // A row that was written over has the transaction's mark.
      .returning({ isNew: sql<boolean>`xmax = 0` });
    return isNew;
  };

  const store: BlobStore = {
    async put(bytes, mime) {
      const hash = createHash('sha256').update(bytes).digest('hex');
      await db.transaction(async (tx) => {
        if (!(await insert(tx, hash, mime, bytes.length))) return;
        for (let n = 0, at = 0; at < bytes.length; n++, at += PIECE)
          await tx.insert(blobPieces).values({ hash, n, bytes: Buffer.from(bytes.subarray(at, at + PIECE)) });
      });
      return hash;
    },

    async putFile(path, mime) {
      const digest = createHash('sha256');
      let size = 0;
      for await (const piece of createReadStream(path)) {
        digest.update(piece as Buffer);
        size += (piece as Buffer).length;
      }
      const hash = digest.digest('hex');
      await db.transaction(async (tx) => {
        if (!(await insert(tx, hash, mime, size))) return;
        let n = 0;
        for await (const bytes of createReadStream(path, { highWaterMark: PIECE }))
          await tx.insert(blobPieces).values({ hash, n: n++, bytes: bytes as Buffer });
      });
      return hash;
    },

    async putStream(stream, mime) {
      const digest = createHash('sha256');
      // The hash is known at the end only: pieces are filed under a passing name within the transaction.
      const passing = `incoming-${crypto.randomUUID()}`;
      return db.transaction(async (tx) => {
        await insert(tx, passing, mime, 0);
        let size = 0;
        let n = 0;
        for await (const bytes of inPieces(stream)) {
          digest.update(bytes);
          size += bytes.length;
          await tx.insert(blobPieces).values({ hash: passing, n: n++, bytes });
        }
        const hash = digest.digest('hex');
        if (await insert(tx, hash, mime, size))
          await tx.execute(sql`update ${blobPieces} set hash = ${hash} where hash = ${passing}`);
        await tx.delete(blobs).where(eq(blobs.hash, passing));
        return { hash, size };
      });
    },

    async get(hash) {
      const pieces = await db
        .select({ bytes: blobPieces.bytes })
        .from(blobPieces)
        .where(eq(blobPieces.hash, hash))
        .orderBy(asc(blobPieces.n));
      if (!pieces.length) throw new Error(`The file ${hash.slice(0, 12)} is not in the store.`);
      return Buffer.concat(pieces.map((p) => p.bytes));
    },

    async info(hash) {
      const [found] = await db.select().from(blobs).where(eq(blobs.hash, hash));
      return found ? { mime: found.mime, size: found.size } : null;
    },

    stream(hash, part) {
      async function* pieces() {
        const size = (await store.info(hash))?.size ?? 0;
        const [start, end] = part ? [part.start, Math.min(part.end, size - 1)] : [0, size - 1];
        for (let n = Math.floor(start / PIECE); n * PIECE <= end; n++) {
          const [piece] = await db
            .select({ bytes: blobPieces.bytes })
            .from(blobPieces)
            .where(sql`${blobPieces.hash} = ${hash} and ${blobPieces.n} = ${n}`);
          if (!piece) throw new Error(`The file ${hash.slice(0, 12)} is not whole in the store.`);
          yield piece.bytes.subarray(Math.max(0, start - n * PIECE), end + 1 - n * PIECE);
        }
      }
      return Readable.from(pieces());
    },

    toFile: (hash, path) => pipeline(store.stream(hash), createWriteStream(path)),

    async derived(key, make) {
      const [known] = await db.select().from(derived).where(eq(derived.key, key));
      if (known) return known.hash;
      const { bytes, mime } = await make();
      const hash = await store.put(bytes, mime);
      await db.insert(derived).values({ key, hash }).onConflictDoNothing();
      return hash;
    },
  };
  return store;
}
