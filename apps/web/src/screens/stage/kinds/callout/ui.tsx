import type { CalloutElement } from '@scenograph/core/elements/callout/model';
import { newCallout } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { SpotHandle } from '../spot-handle';
import { CalloutDesk } from './desk';
import { msg } from '../../../../language/language';

export const calloutUi: KindUi<CalloutElement> = {
  Overlay: CalloutDesk,
  Handles: (props) => <SpotHandle {...props} label={msg('Move the spot')} />,
  resize: 'sides',
  starters: [
    {
      group: msg('Measures and callouts'),
      id: 'callout',
      title: msg('Callout'),
      make: (id, frame) => newCallout(id, frame),
    },
  ],
};
