import { MIME, type PictureFormat } from '@scenograph/host-node/read-picture';
import type { IncomingFile, Intake, TakenFile } from '@scenograph/host-node/sandbox/operations';
import type { BlobStore } from './blob-store';

export interface StoredPicture {
  taken: TakenFile;
  /** The file as it came, and upright 8-bit sRGB; the same where it is that already. By content hash. */
  original: string;
  working: string;
}

/** Reads a picture in the sandbox and stores it. Throws RefusedPicture; then nothing is stored. */
export async function takeIn(
  { intake, store }: { intake: Intake; store: BlobStore },
  file: IncomingFile,
  accept?: PictureFormat[],
): Promise<StoredPicture> {
  const taken = await intake.picture(file, accept);
  const original = await store.putFile(file.path, MIME[taken.format]);
  const { working } = taken;
  return { taken, original, working: working ? await store.putFile(working.path, working.mime) : original };
}
