import type { AnswerOf, RequestOf, RouteName } from '@scenograph/contract';
import { address, EDITOR_HEADER } from '@scenograph/contract/route';
import type { Product, Variant } from '@scenograph/contract/types';
import type { BrandKit } from '@scenograph/core/brand/kit';
import { useMemo } from 'react';
import useSWR, { mutate, type SWRResponse } from 'swr';
import { msg } from '../language/language';
import { editorId, inTurn, noteRevision } from './revisions';

export type * from '@scenograph/contract/types';

/** The server's answer to a request it would not carry out; the message is meant to be read. */
export class ServerRefusal extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly detail?: unknown,
  ) {
    super(message);
  }
}

interface Manner {
  /** The request outlives the page. */
  keepalive?: boolean;
  /** What it changes is refused where it is not at this revision any more. */
  revision?: number;
}

export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  { keepalive = false, revision }: Manner = {},
): Promise<T> {
  let response: Response;
  if (method !== 'GET') ahead.clear();
  try {
    response = await fetch(path, {
      method,
      keepalive,
      headers: {
        [EDITOR_HEADER]: editorId(),
        ...(revision === undefined ? {} : { 'If-Match': `"${revision}"` }),
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new ServerRefusal(msg('The server cannot be reached. Is Scenograph still running?'), 0);
  }
  const answer = answerOf<T>(await response.text(), response.status);
  if (method === 'GET') noteRevision(path, answer);
  return answer;
}

/** What the server said; throws a ServerRefusal for a refusal, and for what is no answer of Scenograph's at all. */
function answerOf<T>(text: string, status: number): T {
  const ok = status >= 200 && status < 300;
  let value: { message?: string; detail?: unknown } = {};
  try {
    if (text) value = JSON.parse(text) as typeof value;
  } catch {
    // A gateway's page, or half an answer.
    throw new ServerRefusal(
      ok
        ? msg('The server’s answer came incomplete. Try again.')
        : msg('The server cannot answer just now ({status}). Try again in a moment.', { status }),
      ok ? 0 : status,
    );
  }
  if (!ok)
    throw new ServerRefusal(
      value.message ?? msg('The server answered {status}.', { status }),
      status,
      value.detail,
    );
  return value as T;
}

/** Variants come without the brand they share, which comes once beside them: each is given it again. */
function withBrand<T>(value: T): T {
  const { brand, variants } = (value ?? {}) as { brand?: BrandKit | null; variants?: Variant[] };
  if (brand === undefined || !Array.isArray(variants)) return value;
  return { ...value, variants: variants.map((v) => ({ ...v, data: { ...v.data, brand } })) };
}

type Args<N extends RouteName> =
  Record<never, never> extends RequestOf<N>
    ? [sent?: RequestOf<N>, based?: Based]
    : [sent: RequestOf<N>, based?: Based];

/** What a change is based on: a revision, or the last one seen `of` something that several change at once. */
type Based = { revision: number } | { of: string };

interface Parts {
  params?: Record<string, string>;
  query?: Record<string, unknown>;
  body?: unknown;
}

/** Asks a route of the contract. @throws ServerRefusal with a sentence where it is refused */
export function call<N extends RouteName>(name: N, ...[sent, based]: Args<N>): Promise<AnswerOf<N>> {
  const { params, query, body } = (sent ?? {}) as Parts;
  const send = (revision?: number) =>
    request<AnswerOf<N>>(name.slice(0, name.indexOf(' ')), address(name, params, query), body, {
      revision,
    }).then(withBrand);
  if (!based) return send();
  return 'of' in based ? inTurn(based.of, send) : send(based.revision);
}

/** Milliseconds for which an answer that was asked for ahead is new enough. */
const AHEAD = 3000;
const ahead = new Map<string, Promise<unknown>>();

/**
 * Asks for what a screen will want, while the screen itself is still on its way; the first to want it takes it. It is
 * dropped after three seconds and by every change that is sent, so that it never shows what was.
 */
export function askAhead(
  name: RouteName & `GET ${string}`,
  params: Record<string, string | undefined>,
): void {
  const path = address(name, params as Record<string, string>);
  const asked = request('GET', path).then(withBrand);
  // Who takes it is told.
  asked.catch(() => undefined);
  ahead.set(path, asked);
  setTimeout(() => ahead.get(path) === asked && ahead.delete(path), AHEAD);
}

function get<T>(path: string): Promise<T> {
  const asked = ahead.get(path) as Promise<T> | undefined;
  ahead.delete(path);
  return asked ?? request<T>('GET', path).then(withBrand);
}

/** What a route answers with, kept up to date; nothing is asked while `sent` is null. */
export function useRoute<N extends RouteName & `GET ${string}`>(
  name: N,
  ...[sent]: Args<N> | [sent: null]
): SWRResponse<AnswerOf<N>, Error> {
  const { params, query } = (sent ?? {}) as Parts;
  const path = sent === null ? null : address(name, params, query);
  return useSWR<AnswerOf<N>, Error>(path, get, { revalidateOnFocus: false });
}

/** Products with their first variants, each with the brand they share; `total` counts those that were not sent too. */
export function useProducts(
  limit = 100,
  search = '',
): { data: Product[] | undefined; total: number; error: Error | undefined } {
  const { data, error } = useRoute('GET /api/products', { query: { limit, search } });
  const products = useMemo(
    () =>
      data?.products.map((p) => ({
        ...p,
        variants: p.variants.map((v) => ({ ...v, data: { ...v.data, brand: data.brand } })),
      })),
    [data],
  );
  return { data: products, total: data?.total ?? 0, error };
}

/** Sends a file's bytes as they are to a route, telling how far it has come. */
export function upload<N extends RouteName & `POST ${string}`>(
  name: N,
  sent: RequestOf<N> & {
    file: Blob;
    onProgress?: (share: number) => void;
    signal?: AbortSignal;
    revision?: number;
  },
): Promise<AnswerOf<N>> {
  const { params, query, file, onProgress, signal, revision } = sent as Parts & typeof sent;
  return new Promise((resolve, reject) => {
    const xhr = new XMLHttpRequest();
    xhr.open('POST', address(name, params, query));
    if (revision !== undefined) xhr.setRequestHeader('If-Match', `"${revision}"`);
    xhr.upload.onprogress = (e) => e.lengthComputable && onProgress?.(e.loaded / e.total);
    xhr.onload = () => {
      try {
        resolve(answerOf<AnswerOf<N>>(xhr.responseText, xhr.status));
      } catch (error) {
        reject(error instanceof Error ? error : new Error(String(error)));
      }
    };
    xhr.onerror = () =>
      reject(new ServerRefusal(msg('The server cannot be reached. Is Scenograph still running?'), 0));
    xhr.onabort = () => reject(new ServerRefusal(msg('Stopped.'), 0));
    if (signal?.aborted) return reject(new ServerRefusal(msg('Stopped.'), 0));
    signal?.addEventListener('abort', () => xhr.abort());
    xhr.send(file);
  });
}

export const blobUrl = (hash: string) => `/api/blobs/${hash}`;
export const reducedUrl = (hash: string, side: 160 | 320 | 640 | 1024 | 2048) =>
  `/api/blobs/${hash}/reduced/${side}`;

/** Refetches what a server event is about. */
export function refresh(...prefixes: string[]): void {
  ahead.clear();
  void mutate((key) => typeof key === 'string' && prefixes.some((p) => key.startsWith(p)));
}

/** Refetches how boards stand, without what they are made of. */
export function refreshBoards(): void {
  ahead.clear();
  void mutate((key) => typeof key === 'string' && /^\/api\/listings\/[^/]+\/(board|cell|summary)/.test(key));
}
