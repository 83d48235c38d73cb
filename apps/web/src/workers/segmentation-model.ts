import { openModel } from '@scenograph/core/cutout/run-model';
import type { SegmentationModel } from '@scenograph/core/cutout/segmentation';
import file from '../../../../packages/core/cutout/model/segmentation.onnx?url';
import { storedFile } from './stored-file';

let loaded: Promise<SegmentationModel> | null = null;

/** The shipped segmentation model; it and its runtime are loaded once, by the first photo that is cut out. */
export function loadSegmentationModel(): Promise<SegmentationModel> {
  loaded ??= load().catch((error: unknown) => {
    loaded = null;
    throw error;
  });
  return loaded;
}

async function load(): Promise<SegmentationModel> {
  const [runtime, response] = await Promise.all([
    import('onnxruntime-web/wasm'),
    storedFile(file, 'The segmentation model could not be loaded.'),
  ]);
  return openModel(runtime, new Uint8Array(await response.arrayBuffer()));
}
