import type { LogoElement } from '@scenograph/core/elements/logo/model';
import { newLogo } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { LogoDesk } from './desk';
import { msg } from '../../../../language/language';

export const logoUi: KindUi<LogoElement> = {
  Overlay: LogoDesk,
  resize: 'corners',
  starters: [{ group: msg('Brand'), id: 'logo', title: msg('Logo'), make: newLogo }],
};
