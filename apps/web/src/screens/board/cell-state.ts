import type { Mark } from '../../ui/status';

/** What the board says of a cell, by the letter the server sends. */
export const CELL_STATES: Record<string, { title: string; mark: Mark }> = {
  o: { title: 'owed', mark: 'owed' },
  c: { title: 'no cutout', mark: 'owed' },
  n: { title: 'not made yet', mark: 'working' },
  s: { title: 'out of date', mark: 'stale' },
  w: { title: 'being painted', mark: 'working' },
  f: { title: 'failed', mark: 'stop' },
  p: { title: 'pass', mark: 'pass' },
  l: { title: 'look', mark: 'look' },
  x: { title: 'stop', mark: 'stop' },
};

/** Cells that can be chosen by what they are. */
export const FILTERS: { value: string; title: string; letters: string; differs?: string }[] = [
  { value: 'owed', title: 'Owed', letters: 'oc' },
  { value: 'never', title: 'Never made', letters: 'n' },
  { value: 'stale', title: 'Out of date', letters: 's' },
  { value: 'failed', title: 'Failed', letters: 'f' },
  { value: 'stop', title: 'Stopped by a check', letters: 'x' },
  { value: 'look', title: 'To be looked at', letters: 'l' },
  { value: 'pass', title: 'Passed', letters: 'p' },
  { value: 'differs', title: 'With a difference', letters: '', differs: 'dof' },
];

export const DIFFERENCES: Record<string, string> = {
  d: 'The slot has differences of its own',
  o: 'This cell has differences of its own',
  f: 'Fed by another shot than its slot',
};
