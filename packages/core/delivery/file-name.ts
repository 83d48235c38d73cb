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

/**
 * A file name without extension from a pattern such as `{sku}_{slot}`. Values are made safe for every file
 * system: letters, digits, dot, dash and underscore. Throws a sentence for an unknown placeholder or an empty name.
 */
export function fileName(pattern: string, values: NameValues): string {
  const name = pattern.replace(/\{(\w+)\}/g, (_, key: string) => {
    if (!KEYS.includes(key))
      throw new Error(
        `The file name pattern "${pattern}" asks for {${key}}; it may hold ${KEYS.map((k) => `{${k}}`).join(', ')}.`,
      );
    return safe(String(values[key as keyof NameValues]));
  });
  const clean = safe(name).replace(/^[.-]+|[.-]+$/g, '');
  if (!clean) throw new Error(`The file name pattern "${pattern}" gives an empty name.`);
  return clean.slice(0, 180);
}

function safe(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^A-Za-z0-9._-]+/g, '-')
    .replace(/-{2,}/g, '-');
}

/** Names made different by a number where two would clash (upper and lower case count as the same). */
export function uniqueNames(names: string[]): string[] {
  const used = new Set<string>();
  return names.map((name) => {
    let candidate = name;
    for (let n = 2; used.has(candidate.toLowerCase()); n++) candidate = `${name}-${n}`;
    used.add(candidate.toLowerCase());
    return candidate;
  });
}
