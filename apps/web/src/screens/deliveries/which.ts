import type { CallOf } from '@scenograph/contract';

/** Which of the chosen pictures a delivery makes. */
export type Which = CallOf<'POST /api/deliveries'>['body']['which'];

export const WHICH: { value: Which; title: string }[] = [
  { value: 'all', title: 'All' },
  { value: 'changed', title: 'New and changed' },
  { value: 'stale', title: 'Out of date' },
  { value: 'failed', title: 'Failed' },
  { value: 'never', title: 'Never made' },
];
