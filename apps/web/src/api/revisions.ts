/** What several people change piece by piece, and the revision of it that was seen last. */
const seen = new Map<string, number>();
/** The last change of each that is under way: the next one is based on what comes of it. */
const underWay = new Map<string, Promise<unknown>>();

export const boardOf = (listingId: string) => `/api/listings/${listingId}`;
export const dataOf = (productId: string) => `/api/products/${productId}`;
export const deliveryOf = (id: string) => `/api/deliveries/${id}`;

/** A revision that came with an answer, by its address. */
export function noteRevision(path: string, answer: unknown): void {
  const of = /^(\/api\/(?:listings|products|deliveries)\/[0-9a-f-]{36})(?:\/board)?$/.exec(path)?.[1];
  const note = (of: string, revision: unknown) => {
    if (typeof revision === 'number') seen.set(of, Math.max(revision, seen.get(of) ?? 0));
  };
  const { revision, products } = (answer ?? {}) as {
    revision?: unknown;
    products?: { id: string; revision?: number }[];
  };
  if (of) note(of, revision);
  else if (path.startsWith('/api/products?')) for (const p of products ?? []) note(dataOf(p.id), p.revision);
}

/**
 * Sends a change of something, behind those of it that are under way, with the revision of it that was seen last. The one
 * that it makes is seen then, unless somebody else's change lies in between: that has still to be fetched.
 */
export async function inTurn<T>(of: string, send: (revision: number | undefined) => Promise<T>): Promise<T> {
  const before = underWay.get(of);
  const mine = (async () => {
    await before?.catch(() => undefined);
    const based = seen.get(of);
    const answer = await send(based);
    const { revision } = (answer ?? {}) as { revision?: number };
    if (typeof revision === 'number' && (based === undefined || revision === based + 1))
      seen.set(of, revision);
    return answer;
  })();
  underWay.set(of, mine);
  try {
    return await mine;
  } finally {
    if (underWay.get(of) === mine) underWay.delete(of);
  }
}

const KEY = 'scenograph-editor';
let editor: string | null = null;

/** A name for this browser, by which the server tells its steps from those of others. */
export function editorId(): string {
  try {
    editor ??= localStorage.getItem(KEY);
  } catch {
    // Without storage the name lasts as long as the page.
  }
  if (editor) return editor;
  editor = uuid();
  try {
    localStorage.setItem(KEY, editor);
  } catch {
    // See above.
  }
  return editor;
}

/** `crypto.randomUUID` is there in secure contexts only. Source: RFC 9562, section 5.4. */
function uuid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 0x0f) | 0x40;
  bytes[8] = (bytes[8] & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
