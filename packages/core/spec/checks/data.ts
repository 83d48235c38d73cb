import type { Check } from './check';

export const data: Check = {
  id: 'data',
  title: 'Product data',
  measure({ shot }) {
    if (!shot?.missing.length) return null;
    return {
      verdict: 'stop',
      measured: `${shot.missing.length} missing`,
      limit: 'none missing',
      sentence: `The product has no ${shot.missing.join(', ')}; fill it in, or take it out of the text.`,
    };
  },
};
