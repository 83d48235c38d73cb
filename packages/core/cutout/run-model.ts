import type { InferenceSession, Tensor } from 'onnxruntime-common';
import { PLANES, type SegmentationModel } from './segmentation';

/** What of ONNX Runtime is used; Node and browser each load it in their own way. */
export interface Runtime {
  env: { wasm: { numThreads?: number } };
  InferenceSession: {
    create(model: Uint8Array, options: InferenceSession.SessionOptions): Promise<InferenceSession>;
  };
  Tensor: new (type: 'float32', data: Float32Array, dims: readonly number[]) => Tensor;
}

/**
 * The segmentation model run by ONNX Runtime's WebAssembly on one thread: the same code and the same order of sums
 * everywhere, so that browser, worker and command line answer alike.
 * @param model the bytes of the ONNX file
 */
export async function openModel(runtime: Runtime, model: Uint8Array): Promise<SegmentationModel> {
  runtime.env.wasm.numThreads = 1;
  // The shipped graph has its normalisation folded in: what the runtime could still fuse takes longer than it saves.
  const session = await runtime.InferenceSession.create(model, {
    executionProviders: ['wasm'],
    graphOptimizationLevel: 'disabled',
  });
  return {
    async answer(input, width, height) {
      const picture = new runtime.Tensor('float32', input, [1, PLANES, height, width]);
      const { answer } = await session.run({ picture });
      return answer.data as Float32Array;
    },
  };
}
