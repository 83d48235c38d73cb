import type { Shot } from '../shot/document';

export const PURPOSES = [
  'sale',
  'new arrival',
  'feature list',
  'size guide',
  'close-up',
  'gift',
  'bundle',
  'review',
  'before and after',
  'season',
  'delivery',
  'care',
  'price',
] as const;
export type Purpose = (typeof PURPOSES)[number];

export const SEASONS = ['spring', 'summer', 'autumn', 'winter'] as const;
export type Season = (typeof SEASONS)[number];

/** A laid-out picture with places for products and data. */
export interface Template {
  id: string;
  title: string;
  purpose: Purpose | null;
  season: Season | null;
  document: Shot;
}
