import type { BadgeElement } from '@scenograph/core/elements/badge/model';
import { newBadge } from '@scenograph/core/shot/overlay-starters';
import type { KindUi, Starter } from '../kind-ui';
import { BadgeDesk } from './desk';
import { msg } from '../../../../language/language';

const starter = (id: string, title: string, make: Starter['make']): Starter => ({
  group: msg('Words and prices'),
  id,
  title,
  make,
});

export const badgeUi: KindUi<BadgeElement> = {
  Overlay: BadgeDesk,
  resize: 'free',
  starters: [
    starter('price', msg('Price badge'), (id, frame) => newBadge(id, frame, 'price')),
    starter('was-now', msg('Was and now badge'), (id, frame) => newBadge(id, frame, 'was-now')),
    starter('saving', msg('Saving badge'), (id, frame) => ({
      ...newBadge(id, frame, 'saving'),
      form: 'starburst',
    })),
    starter('badge', msg('Badge with words'), (id, frame) => newBadge(id, frame, 'words')),
  ],
};
