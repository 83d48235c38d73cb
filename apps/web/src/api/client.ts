import { useMemo } from 'react';
import useSWR, { mutate, type SWRResponse } from 'swr';
import type { BrandKit } from '@scenograph/core/brand/kit';
import type { Encoding, FileWords } from '@scenograph/core/delivery/encoding';
import type { UploadAnswer } from '@scenograph/core/delivery/upload';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Pose } from '@scenograph/core/stage/stand';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import type { Shot } from '@scenograph/core/shot/document';
import type { SpecSheet } from '@scenograph/core/spec/slot';

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

export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  keepalive = false,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      keepalive,
      headers: body === undefined ? undefined : { 'Content-Type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new ServerRefusal('The server cannot be reached. Is Scenograph still running?', 0);
  }
  return answerOf<T>(await response.text(), response.status);
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
        ? 'The server’s answer came incomplete. Try again.'
        : `The server cannot answer just now (${status}). Try again in a moment.`,
      ok ? 0 : status,
    );
  }
  if (!ok) throw new ServerRefusal(value.message ?? `The server answered ${status}.`, status, value.detail);
  return value as T;
}

/** Variants come without the brand they share, which comes once beside them: each is given it again. */
function withBrand<T>(value: T): T {
  const { brand, variants } = (value ?? {}) as { brand?: BrandKit | null; variants?: Variant[] };
  if (brand === undefined || !Array.isArray(variants)) return value;
  return { ...value, variants: variants.map((v) => ({ ...v, data: { ...v.data, brand } })) };
}

const get = <T>(path: string) => request<T>('GET', path).then(withBrand);

export function useServer<T>(path: string | null): SWRResponse<T, Error> {
  return useSWR<T, Error>(path, get, { revalidateOnFocus: false });
}

/** Products with their first variants, each with the brand they share; `total` counts those that were not sent too. */
export function useProducts(
  limit = 100,
  search = '',
): { data: Product[] | undefined; total: number; error: Error | undefined } {
  const { data, error } = useServer<{ brand: BrandKit | null; total: number; products: Product[] }>(
    `/api/products?limit=${limit}&search=${encodeURIComponent(search)}`,
  );
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

/** Sends a file's bytes as they are, telling how far it has come. */
export function sendFile<T>(
  path: string,
  file: Blob,
  onProgress: (share: number) => void,
  signal?: AbortSignal,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const xhr = new XMLHttpRequest();
    xhr.open('POST', path);
    xhr.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    xhr.onload = () => {
      try {
        resolve(answerOf<T>(xhr.responseText, xhr.status));
      } catch (error) {
        reject(error as ServerRefusal);
      }
    };
    xhr.onerror = () =>
      reject(new ServerRefusal('The server cannot be reached. Is Scenograph still running?', 0));
    xhr.onabort = () => reject(new ServerRefusal('Stopped.', 0));
    signal?.addEventListener('abort', () => xhr.abort());
    xhr.send(file);
  });
}

export const blobUrl = (hash: string) => `/api/blobs/${hash}`;
export const reducedUrl = (hash: string, side: 160 | 320 | 640 | 1024 | 2048) =>
  `/api/blobs/${hash}/reduced/${side}`;

/** Refetches what a server event is about. */
export function refresh(...prefixes: string[]): void {
  void mutate((key) => typeof key === 'string' && prefixes.some((p) => key.startsWith(p)));
}

/** Refetches how boards stand, without what they are made of. */
export function refreshBoards(): void {
  void mutate((key) => typeof key === 'string' && /^\/api\/listings\/[^/]+\/(board|cell|summary)/.test(key));
}

export interface CutoutRecord {
  picture: string;
  matte: string | null;
  width: number;
  height: number;
  bounds: { x: number; y: number; width: number; height: number };
  confidence: number;
  /** Places that deserve a look, in pixels of the tidied photo. */
  doubts?: { x: number; y: number; radius: number }[];
  shadow: { picture: string; x: number; y: number; width: number; height: number } | null;
  milliseconds: number;
}

export interface Photo {
  id: string;
  name: string;
  format: string;
  bytes: number;
  width: number;
  height: number;
  original: string;
  working: string;
  notes: string[];
  cutoutState: 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
  cutout: CutoutRecord | null;
  cutoutError: string | null;
  accepted: boolean;
  /** The full-size cutout was made by the corrections as they stand. */
  inUse?: boolean;
  createdAt: string;
}

export interface Artwork {
  id: string;
  title: string;
  original: string;
  picture: string;
  width: number;
  height: number;
  vector: boolean;
  colours: string[];
  whiteGround: boolean;
  notes: string[];
}

export interface Outline {
  id: string;
  photoId: string;
  title: string;
  matte: string;
  createdAt: string;
}

export interface Variant {
  id: string;
  productId: string;
  photoId: string | null;
  artworkId: string | null;
  pose: Pose;
  data: ProductData;
}

export interface Product {
  id: string;
  title: string;
  widthMm: number | null;
  heightMm: number | null;
  depthMm: number | null;
  pose: Pose;
  /** How many variants it has; the first of them come with a list of products. */
  count: number;
  variants: Variant[];
}

export interface Scene {
  id: string;
  title: string;
  picture: string;
  survey: SceneSurvey;
  palette: string[];
  season: string | null;
}

export interface Picture {
  id: string;
  title: string;
  picture: string;
  width: number;
  height: number;
}

export interface ListingSummary {
  id: string;
  title: string;
  createdAt: string;
  sheets: string[];
  productId: string;
  product: string;
  variants: number;
  /** The first cutouts' pictures. */
  cutouts: string[];
  slots: number;
  missing: number;
  shots: number;
}

export interface ShotRow {
  id: string;
  listingId: string;
  title: string;
  document: Shot;
  revision: number;
  /** Alternative text of its pictures, with placeholders. */
  alt: string;
  feeds: string[];
  updatedAt: string;
}

export interface ListingDetail {
  listing: {
    id: string;
    title: string;
    productId: string;
    sheets: string[];
    encodings: Record<string, Encoding>;
  };
  /** Cells that are filled by another shot than their slot; null is none. */
  cellFeeds: { variantId: string; slotKey: string; shotId: string | null }[];
  variants: Variant[];
  sheets: SpecSheet[];
  shots: ShotRow[];
}

/** A listing's board: a letter a cell for its state and one for its difference, in the order of `slots`. */
export interface Board {
  slots: string[];
  shots: string[];
  rows: {
    variantId: string;
    states: string;
    differs: string;
    fedBy: number[];
    says: Record<number, string>;
  }[];
  edits: EditState;
}

export interface EditState {
  undo: string | null;
  redo: string | null;
}

export interface Waiver {
  id: string;
  slotKey: string;
  variantId: string | null;
  check: string;
  reason: string;
}

export interface BoardCell {
  variantId: string;
  slotKey: string;
  state: string;
  missing: 'no-shot' | 'no-cutout' | null;
  shotId: string | null;
  fileName: string;
  words: FileWords;
  encoding: Encoding;
  checks: CheckResult[];
  reason: string | null;
  picture: {
    blob: string;
    format: string;
    quality: number | null;
    bytes: number;
    width: number;
    height: number;
    current: boolean;
  } | null;
  waivers: Waiver[];
}

export interface BoardSummary {
  marketplaces: { marketplace: string; states: Record<string, number> }[];
  checks: { check: string; title: string; look: number; stop: number; waived: number }[];
  slots: {
    key: string;
    title: string;
    marketplace: string;
    limit: number;
    count: number;
    total: number;
    largest: number;
  }[];
}

export interface Delivery {
  id: string;
  listingId: string;
  title: string;
  state: 'queued' | 'running' | 'paused' | 'cancelled' | 'done' | 'failed';
  priority: number;
  error: string | null;
  createdAt: string;
  finishedAt: string | null;
  total: number;
  made: number;
  failed: number;
  bytes: number;
}

export interface DeliveryCell {
  n: number;
  listingId: string;
  variantId: string;
  listing: string;
  shotTitle: string;
  variant: string;
  sku: string;
  marketplace: string;
  slotKey: string;
  fileName: string;
  width: number;
  height: number;
  state: 'waiting' | 'working' | 'done' | 'failed';
  format: string | null;
  quality: number | null;
  bytes: number | null;
  blob: string | null;
  checks: CheckResult[] | null;
  reason: string | null;
}

export interface DeliveryDetail extends Delivery {
  groups: { marketplace: string; listing: string; n: number }[];
  uploads: { id: string; marketplace: string; answers: UploadAnswer[]; createdAt: string }[];
  rates: { millisecondsPerMegapixel: number; bytesPerMegapixel: number } | null;
}

export interface DeliveryEstimate {
  pictures: number;
  toPaint: number;
  unchanged: number;
  missing: number;
  seconds: number | null;
  bytes: number | null;
  names: string[];
  clashes: number;
}
