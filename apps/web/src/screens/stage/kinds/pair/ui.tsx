import type { PairElement } from '@scenograph/core/elements/pair/model';
import { newPair } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { PairDesk } from './desk';
import { PairInside } from './inside';
import { msg } from '../../../../language/language';

export const pairUi: KindUi<PairElement> = {
  Overlay: PairDesk,
  Inside: PairInside,
  resize: 'free',
  starters: [
    {
      group: msg('Close-ups'),
      id: 'pair',
      title: msg('Before and after, whole'),
      make: (id, frame) => newPair(id, frame, true),
    },
    {
      group: msg('Close-ups'),
      id: 'pair-inset',
      title: msg('Before and after, inset'),
      make: (id, frame) => newPair(id, frame, false),
    },
  ],
};
