import type { PairElement } from '@scenograph/core/elements/pair/model';
import { newPair } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { PairDesk } from './desk';
import { PairInside } from './inside';

export const pairUi: KindUi<PairElement> = {
  Overlay: PairDesk,
  Inside: PairInside,
  resize: 'free',
  starters: [
    {
      group: 'Close-ups',
      id: 'pair',
      title: 'Before and after, whole',
      make: (id, frame) => newPair(id, frame, true),
    },
    {
      group: 'Close-ups',
      id: 'pair-inset',
      title: 'Before and after, inset',
      make: (id, frame) => newPair(id, frame, false),
    },
  ],
};
