import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { openModel } from '@scenograph/core/cutout/run-model';
import type { SegmentationModel } from '@scenograph/core/cutout/segmentation';

const FILE = join(
  dirname(createRequire(import.meta.url).resolve('@scenograph/core/package.json')),
  'cutout',
  'model',
  'segmentation.onnx',
);

let loaded: Promise<SegmentationModel> | null = null;

/** The shipped segmentation model; it and its runtime are loaded once, by the first cutout that asks. */
export function loadSegmentationModel(): Promise<SegmentationModel> {
  loaded ??= readModel(FILE).catch((error: unknown) => {
    loaded = null;
    throw error;
  });
  return loaded;
}

/** A model by its ONNX file. */
export async function readModel(file: string): Promise<SegmentationModel> {
  return openModel(await import('onnxruntime-web'), await readFile(file));
}
