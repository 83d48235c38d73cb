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
  alt: string;
  verdict: string;
  /** SHA-256 of what it was made from: the key of all, the shot, slot and data documents, and every source picture. */
  inputs: { key: string; shot: string; slot: string; data: string; pictures: string[] };
  checks: Pick<CheckResult, 'check' | 'verdict' | 'measured' | 'limit' | 'waived'>[];
}

export interface Manifest {
  manifest: 'scenograph-delivery';
  version: 2;
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
  'alt',
  'verdict',
] as const;

/** The manifest's rows for a CSV writer: a header and one row a picture; the inputs' hashes at the end. */
export function manifestRows(manifest: Manifest): (string | number | null)[][] {
  return [
    [...COLUMNS, 'key', 'shot_sha256', 'slot_sha256', 'data_sha256', 'pictures_sha256'],
    ...manifest.pictures.map((p) => [
      ...COLUMNS.map((c) => p[c]),
      p.inputs.key,
      p.inputs.shot,
      p.inputs.slot,
      p.inputs.data,
      p.inputs.pictures.join(' '),
    ]),
  ];
}
