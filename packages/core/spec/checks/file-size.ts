import type { Check } from './check';

const number = (n: number) => n.toLocaleString('en-GB');

export const fileSize: Check<{ bytes: number }> = {
  id: 'file-size',
  title: 'File size',
  measure: ({ file }) => (file ? { bytes: file.bytes } : null),
  judge({ bytes }, { maxBytes }) {
    const fits = bytes <= maxBytes;
    return {
      verdict: fits ? 'pass' : 'stop',
      measured: `${number(bytes)} bytes`,
      limit: `at most ${number(maxBytes)} bytes`,
      sentence: fits
        ? 'The file is small enough.'
        : `The file has ${number(bytes - maxBytes)} bytes more than the slot takes. Make it again: quality is lowered until it fits.`,
    };
  },
};
