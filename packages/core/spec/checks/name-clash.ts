import type { Finding } from './check';

/**
 * Files that would have the same name (upper and lower case count as the same) in one folder of a delivery.
 * @returns findings by the key of the picture, for each of those that clash
 */
export function nameClashes(files: { key: string; folder: string; name: string }[]): Map<string, Finding> {
  const byName = new Map<string, typeof files>();
  for (const f of files) {
    const id = `${f.folder}/${f.name}`.toLowerCase();
    const group = byName.get(id);
    if (group) group.push(f);
    else byName.set(id, [f]);
  }
  const found = new Map<string, Finding>();
  for (const group of byName.values()) {
    if (group.length < 2) continue;
    for (const { key, name } of group)
      found.set(key, {
        verdict: 'stop',
        measured: `${group.length} named so`,
        limit: 'each its own',
        sentence: `${group.length} pictures would be named "${name}". Put {sku}, {slot} or {n} in the file name's pattern.`,
      });
  }
  return found;
}
