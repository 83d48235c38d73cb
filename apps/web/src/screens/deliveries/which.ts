import type { CallOf } from '@scenograph/contract';
import { msg } from '../../language/language';

/** Which of the chosen pictures a delivery makes. */
export type Which = CallOf<'POST /api/deliveries'>['body']['which'];

export const WHICH: { value: Which; title: string }[] = [
  { value: 'all', title: msg('All') },
  { value: 'changed', title: msg('New and changed') },
  { value: 'stale', title: msg('Out of date') },
  { value: 'failed', title: msg('Failed') },
  { value: 'never', title: msg('Never made') },
];
