import type { InsetElement } from '@scenograph/core/elements/inset/model';
import { newInset } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { SpotHandle } from '../spot-handle';
import { InsetDesk } from './desk';
import { InsetInside } from './inside';

export const insetUi: KindUi<InsetElement> = {
  Overlay: InsetDesk,
  Handles: (props) => <SpotHandle {...props} label="Move the content" />,
  Inside: InsetInside,
  resize: 'free',
  starters: [
    {
      group: 'Close-ups',
      id: 'inset',
      title: 'Close-up inset',
      make: (id, frame) => newInset(id, frame, 'cutout'),
    },
  ],
};
