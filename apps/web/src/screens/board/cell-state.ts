import type { Mark } from '../../ui/status';
import { msg } from '../../language/language';

/** What the board says of a cell, by the letter the server sends. */
export const CELL_STATES: Record<string, { title: string; mark: Mark }> = {
  o: { title: msg('missing'), mark: 'missing' },
  c: { title: msg('no cutout'), mark: 'missing' },
  n: { title: msg('not made yet'), mark: 'working' },
  s: { title: msg('out of date'), mark: 'stale' },
  w: { title: msg('being painted'), mark: 'working' },
  f: { title: msg('could not be made'), mark: 'stop' },
  p: { title: msg('pass'), mark: 'pass' },
  l: { title: msg('warning'), mark: 'look' },
  x: { title: msg('failed a check'), mark: 'stop' },
};

/** Cells that can be chosen by what they are. */
export const FILTERS: { value: string; title: string; letters: string; differs?: string }[] = [
  { value: 'missing', title: msg('Missing'), letters: 'oc' },
  { value: 'never', title: msg('Never made'), letters: 'n' },
  { value: 'stale', title: msg('Out of date'), letters: 's' },
  { value: 'failed', title: msg('Could not be made'), letters: 'f' },
  { value: 'stop', title: msg('Failed a check'), letters: 'x' },
  { value: 'look', title: msg('Warnings'), letters: 'l' },
  { value: 'pass', title: msg('Passed'), letters: 'p' },
  { value: 'differs', title: msg('With a difference'), letters: '', differs: 'dof' },
];

export const DIFFERENCES: Record<string, string> = {
  d: msg('The slot has differences of its own'),
  o: msg('This cell has differences of its own'),
  f: msg('Filled by another shot than its slot'),
};
