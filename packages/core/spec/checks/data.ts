import type { Check } from './check';

export const data: Check<string[]> = {
  id: 'data',
  title: 'Product data',
  measure: ({ shot }) => shot?.missing ?? null,
  judge(missing) {
    if (!missing.length) return null;
    return {
      verdict: 'stop',
      measured: `${missing.length} missing`,
      limit: 'none missing',
      sentence: `The product has no ${missing.join(', ')}; fill it in, or take it out of the text.`,
    };
  },
};
