import type { BadgeElement } from '@scenograph/core/elements/badge/model';
import { newBadge } from '@scenograph/core/shot/overlay-starters';
import type { KindUi, Starter } from '../kind-ui';
import { BadgeDesk } from './desk';

const starter = (id: string, title: string, make: Starter['make']): Starter => ({
  group: 'Words and prices',
  id,
  title,
  make,
});

export const badgeUi: KindUi<BadgeElement> = {
  Overlay: BadgeDesk,
  resize: 'free',
  starters: [
    starter('price', 'Price badge', (id, frame) => newBadge(id, frame, 'price')),
    starter('was-now', 'Was and now badge', (id, frame) => newBadge(id, frame, 'was-now')),
    starter('saving', 'Saving badge', (id, frame) => ({
      ...newBadge(id, frame, 'saving'),
      form: 'starburst',
    })),
    starter('badge', 'Badge with words', (id, frame) => newBadge(id, frame, 'words')),
  ],
};
