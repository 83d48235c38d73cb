import type { RequestOf } from '@scenograph/contract';

/** Which of the chosen pictures a delivery makes. */
export type Which = RequestOf<'POST /api/deliveries'>['body']['which'] & string;

export const WHICH: { value: Which; title: string }[] = [
  { value: 'all', title: 'All' },
  { value: 'changed', title: 'New and changed' },
  { value: 'stale', title: 'Out of date' },
  { value: 'failed', title: 'Failed' },
  { value: 'never', title: 'Never made' },
];
