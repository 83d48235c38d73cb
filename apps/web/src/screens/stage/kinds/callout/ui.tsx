import type { CalloutElement } from '@scenograph/core/elements/callout/model';
import { newCallout } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { SpotHandle } from '../spot-handle';
import { CalloutDesk } from './desk';

export const calloutUi: KindUi<CalloutElement> = {
  Overlay: CalloutDesk,
  Handles: (props) => <SpotHandle {...props} label="Move the spot" />,
  resize: 'sides',
  starters: [
    {
      group: 'Measures and callouts',
      id: 'callout',
      title: 'Callout',
      make: (id, frame) => newCallout(id, frame),
    },
  ],
};
