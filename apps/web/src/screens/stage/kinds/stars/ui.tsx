import type { StarsElement } from '@scenograph/core/elements/stars/model';
import { newStars } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { StarsDesk } from './desk';
import { msg } from '../../../../language/language';

export const starsUi: KindUi<StarsElement> = {
  Overlay: StarsDesk,
  resize: 'free',
  starters: [
    {
      group: msg('Words and prices'),
      id: 'stars',
      title: msg('Rating stars'),
      make: (id, frame) => newStars(id, frame),
    },
  ],
};
