import type { InsetElement } from '@scenograph/core/elements/inset/model';
import { newInset } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { SpotHandle } from '../spot-handle';
import { InsetDesk } from './desk';
import { InsetInside } from './inside';
import { msg } from '../../../../language/language';

export const insetUi: KindUi<InsetElement> = {
  Overlay: InsetDesk,
  Handles: (props) => <SpotHandle {...props} label={msg('Move the content')} />,
  Inside: InsetInside,
  resize: 'free',
  starters: [
    {
      group: msg('Close-ups'),
      id: 'inset',
      title: msg('Close-up inset'),
      make: (id, frame) => newInset(id, frame, 'cutout'),
    },
  ],
};
