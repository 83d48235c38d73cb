import type { BrandKit } from '@scenograph/core/brand/kit';
import type { ShotElement } from '@scenograph/core/elements/index';
import {
  inBrand,
  newBadge,
  newCallout,
  newInset,
  newLogo,
  newMeasure,
  newPair,
  newShape,
  newStars,
  newWatermark,
} from '@scenograph/core/shot/overlay-starters';
import { newText } from '@scenograph/core/shot/starters';

type Frame = { width: number; height: number };

/** One overlay that can be added, under its plain name. */
export interface OverlayChoice {
  id: string;
  title: string;
  make(id: string, frame: Frame, kit: BrandKit): ShotElement;
}

export interface OverlayGroup {
  title: string;
  choices: OverlayChoice[];
}

const choice = (id: string, title: string, make: OverlayChoice['make']): OverlayChoice => ({
  id,
  title,
  make,
});

/** Every overlay, in the order in which they are wanted. */
export const OVERLAYS: OverlayGroup[] = [
  {
    title: 'Words and prices',
    choices: [
      choice('text', 'Text', (id, frame) => newText(id, 'New words', frame)),
      choice('price', 'Price badge', (id, frame) => newBadge(id, frame, 'price')),
      choice('was-now', 'Was and now badge', (id, frame) => newBadge(id, frame, 'was-now')),
      choice('saving', 'Saving badge', (id, frame) => ({
        ...newBadge(id, frame, 'saving'),
        form: 'starburst',
      })),
      choice('badge', 'Badge with words', (id, frame) => newBadge(id, frame, 'words')),
      choice('stars', 'Rating stars', (id, frame) => newStars(id, frame)),
    ],
  },
  {
    title: 'Brand',
    choices: [choice('logo', 'Logo', newLogo), choice('watermark', 'Watermark', newWatermark)],
  },
  {
    title: 'Close-ups',
    choices: [
      choice('inset', 'Close-up inset', (id, frame) => newInset(id, frame, 'cutout')),
      choice('pair', 'Before and after, whole', (id, frame) => newPair(id, frame, true)),
      choice('pair-inset', 'Before and after, inset', (id, frame) => newPair(id, frame, false)),
    ],
  },
  {
    title: 'Measures and callouts',
    choices: [
      choice('width', 'Width of the product', (id, frame) => newMeasure(id, frame, 'width')),
      choice('height', 'Height of the product', (id, frame) => newMeasure(id, frame, 'height')),
      choice('callout', 'Callout', (id, frame) => newCallout(id, frame)),
    ],
  },
  {
    title: 'Shapes',
    choices: (['line', 'arrow', 'frame', 'panel', 'icon', 'decoration'] as const).map((form) =>
      choice(form, form[0].toUpperCase() + form.slice(1), (id, frame) => newShape(id, frame, form)),
    ),
  },
];

/** A fresh overlay in the brand's colours and fonts. */
export function makeOverlay(which: OverlayChoice, id: string, frame: Frame, kit: BrandKit): ShotElement {
  return inBrand(which.make(id, frame, kit), kit);
}
