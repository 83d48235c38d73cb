import { randomUUID } from 'node:crypto';

/** Files that were made to be looked at are let go of beyond so many bytes, the oldest first. */
const MOST_BYTES = 96 * 1024 * 1024;

/** Keeps files in memory for a while, each under an address that cannot be guessed. */
export function keepsFiles() {
  const files = new Map<string, { bytes: Buffer; format: string }>();
  let held = 0;
  return {
    keep(bytes: Buffer, format: string): string {
      const next = randomUUID();
      files.set(next, { bytes, format });
      held += bytes.length;
      for (const [n, file] of files) {
        if (held <= MOST_BYTES || n === next) break;
        files.delete(n);
        held -= file.bytes.length;
      }
      return next;
    },
    get: (n: string) => files.get(n) ?? null,
  };
}
