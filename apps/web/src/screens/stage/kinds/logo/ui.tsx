import type { LogoElement } from '@scenograph/core/elements/logo/model';
import { newLogo } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { LogoDesk } from './desk';

export const logoUi: KindUi<LogoElement> = {
  Overlay: LogoDesk,
  resize: 'corners',
  starters: [{ group: 'Brand', id: 'logo', title: 'Logo', make: newLogo }],
};
