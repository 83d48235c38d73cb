import type { ProductData } from '../data/product-data';
import type { ShotElement } from '../elements/index';
import {
  newBadge,
  newCallout,
  newInset,
  newLogo,
  newMeasure,
  newPair,
  newShape,
  newStars,
  newWatermark,
} from './overlay-starters';
import { newBackdrop, newPicture, newProduct, newText } from './starters';

/** What tests of all kinds share. */
export const FRAME = { width: 1200, height: 900 };
export const HASH = 'c'.repeat(64);
export const data: ProductData = {
  id: 'v',
  title: 'Planter',
  variant: 'Teal',
  sku: 'MB-1',
  price: 24,
  currency: 'GBP',
  widthMm: 120,
  heightMm: 160,
  depthMm: 120,
  cutout: { picture: HASH, width: 600, height: 800 },
};

/** One element of every kind, as the stage would add it. */
export const ONE_OF_EACH: ShotElement[] = [
  newBackdrop('backdrop', FRAME, '#ffffff'),
  newProduct('product', data, FRAME, 'stand'),
  newText('text', 'For {title}', FRAME),
  newPicture('picture', 'Tag', { picture: HASH, width: 400, height: 300 }, FRAME),
  newBadge('badge', FRAME, 'price'),
  newStars('stars', FRAME),
  newLogo('logo', FRAME, null),
  newWatermark('watermark', FRAME, null),
  newInset('inset', FRAME, 'cutout'),
  newPair('pair', FRAME, false),
  newShape('shape', FRAME, 'panel'),
  newMeasure('measure', FRAME, 'height'),
  newCallout('callout', FRAME),
];
