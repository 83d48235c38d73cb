import type { WatermarkElement } from '@scenograph/core/elements/watermark/model';
import { newWatermark } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { WatermarkDesk } from './desk';
import { msg } from '../../../../language/language';

export const watermarkUi: KindUi<WatermarkElement> = {
  Overlay: WatermarkDesk,
  resize: 'free',
  starters: [{ group: msg('Brand'), id: 'watermark', title: msg('Watermark'), make: newWatermark }],
};
