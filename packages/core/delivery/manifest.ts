import type { CheckResult } from '../spec/checks/check';

/** One delivered picture, as the manifest lists it. */
export interface ManifestEntry {
  file: string;
  sku: string;
  variant: string;
  marketplace: string;
  slot: string;
  shot: string;
  width: number;
  height: number;
  format: string;
  quality: number | null;
  bytes: number;
  sha256: string;
  verdict: string;
  checks: Pick<CheckResult, 'check' | 'verdict' | 'measured' | 'limit'>[];
}

export interface Manifest {
  manifest: 'scenograph-delivery';
  version: 1;
  delivery: string;
  listing: string;
  made: string;
  pictures: ManifestEntry[];
  failed: { sku: string; marketplace: string; slot: string; reason: string }[];
}

const COLUMNS = [
  'file',
  'sku',
  'variant',
  'marketplace',
  'slot',
  'shot',
  'width',
  'height',
  'format',
  'quality',
  'bytes',
  'sha256',
  'verdict',
] as const;

/** The manifest's rows for a CSV writer: a header and one row a picture. */
export function manifestRows(manifest: Manifest): (string | number | null)[][] {
  return [[...COLUMNS], ...manifest.pictures.map((p) => COLUMNS.map((c) => p[c]))];
}
