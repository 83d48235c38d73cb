import type { Mark } from '../../ui/status';

/** What the board says of a cell, by the letter the server sends. */
export const CELL_STATES: Record<string, { title: string; mark: Mark }> = {
  o: { title: 'missing', mark: 'missing' },
  c: { title: 'no cutout', mark: 'missing' },
  n: { title: 'not made yet', mark: 'working' },
  s: { title: 'out of date', mark: 'stale' },
  w: { title: 'being painted', mark: 'working' },
  f: { title: 'could not be made', mark: 'stop' },
  p: { title: 'pass', mark: 'pass' },
  l: { title: 'warning', mark: 'look' },
  x: { title: 'failed a check', mark: 'stop' },
};

/** Cells that can be chosen by what they are. */
export const FILTERS: { value: string; title: string; letters: string; differs?: string }[] = [
  { value: 'missing', title: 'Missing', letters: 'oc' },
  { value: 'never', title: 'Never made', letters: 'n' },
  { value: 'stale', title: 'Out of date', letters: 's' },
  { value: 'failed', title: 'Could not be made', letters: 'f' },
  { value: 'stop', title: 'Failed a check', letters: 'x' },
  { value: 'look', title: 'Warnings', letters: 'l' },
  { value: 'pass', title: 'Passed', letters: 'p' },
  { value: 'differs', title: 'With a difference', letters: '', differs: 'dof' },
];

export const DIFFERENCES: Record<string, string> = {
  d: 'The slot has differences of its own',
  o: 'This cell has differences of its own',
  f: 'Filled by another shot than its slot',
};
