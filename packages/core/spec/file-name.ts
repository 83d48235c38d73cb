/** What a file name pattern may hold. */
export interface NameValues {
  sku: string;
  listing: string;
  marketplace: string;
  slot: string;
  variant: string;
  shot: string;
  n: number;
}

const KEYS = ['sku', 'listing', 'marketplace', 'slot', 'variant', 'shot', 'n'];

/** No longer than this, so that every file system takes it: a path, and a folder in it. */
const LONGEST = 180;
const LONGEST_FOLDER = 60;

/**
 * A file's path without extension from a pattern such as `{sku}_{slot}` or `{sku}/{slot}`: a slash in the pattern makes
 * a folder, one in a value does not. Values are made safe for every file system: letters, digits, dot, dash and
 * underscore. Throws a sentence for an unknown placeholder, an empty name or a pattern that leaves its folder.
 */
export function fileName(pattern: string, values: NameValues): string {
  if (/^\s*[\\/]|^\s*[A-Za-z]:|(^|[\\/])\s*\.\.?\s*([\\/]|$)|\\/.test(pattern))
    throw new Error(
      `The file name pattern "${pattern}" leaves the delivery's folder. Write folders with "/" between names, without "..", drive or backslash.`,
    );
  const parts = pattern.split('/').map((part) => {
    const filled = part.replace(/\{(\w+)\}/g, (_, key: string) => {
      if (!KEYS.includes(key))
        throw new Error(
          `The file name pattern "${pattern}" asks for {${key}}; it may hold ${KEYS.map((k) => `{${k}}`).join(', ')}.`,
        );
      return safe(String(values[key as keyof NameValues]));
    });
    const clean = trimmed(safe(filled));
    if (!clean) throw new Error(`The file name pattern "${pattern}" gives an empty name.`);
    return clean;
  });
  return shortened(parts).join('/');
}

/** A path's parts cut so that the whole is not too long and the file keeps a name of its own. */
function shortened(parts: string[]): string[] {
  const total = parts.reduce((sum, p) => sum + p.length + 1, -1);
  if (total <= LONGEST) return parts;
  const folders = parts.slice(0, -1);
  const each = Math.min(LONGEST_FOLDER, Math.floor(LONGEST / 2 / Math.max(1, folders.length)) - 1);
  const short = folders.map((f) => cut(f, Math.max(1, each)));
  const used = short.reduce((sum, f) => sum + f.length + 1, 0);
  return [...short, cut(parts[parts.length - 1], Math.max(1, LONGEST - used))];
}

/** Without what no name may begin or end with. */
const trimmed = (name: string) => name.replace(/^[.-]+|[.-]+$/g, '');

const cut = (name: string, length: number) =>
  name.length <= length ? name : trimmed(name.slice(0, length)) || name.slice(0, length);

/** Throws a sentence where a pattern cannot name files; values that may be empty are taken to be there. */
export function checkPattern(pattern: string): void {
  fileName(pattern, { sku: 's', listing: 'l', marketplace: 'm', slot: 's', variant: 'v', shot: 's', n: 1 });
}

/** The ending of a format's files. */
export const extension = (format: string) => (format === 'jpeg' ? 'jpg' : format);

/** A text as the name of a file or folder; `instead` where nothing is left of it. */
export const plainName = (text: string, instead: string) => cut(trimmed(safe(text)), LONGEST) || instead;

function safe(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^A-Za-z0-9._-]+/g, '-')
    .replace(/-{2,}/g, '-');
}

/** A name with a number at its end, no longer than names may be. */
function numbered(name: string, n: number): string {
  const folder = name.slice(0, name.lastIndexOf('/') + 1);
  const end = `-${n}`;
  return `${folder}${cut(name.slice(folder.length), LONGEST - folder.length - end.length)}${end}`;
}

/** Names made different by a number where two would clash (upper and lower case count as the same). */
export function uniqueNames(names: string[]): string[] {
  const used = new Set<string>();
  const next = new Map<string, number>();
  return names.map((name) => {
    let candidate = name;
    // Where it was the last time: thousands of one name are numbered in one go.
    let n = next.get(name.toLowerCase()) ?? 2;
    for (; used.has(candidate.toLowerCase()); n++) candidate = numbered(name, n);
    next.set(name.toLowerCase(), n);
    used.add(candidate.toLowerCase());
    return candidate;
  });
}
