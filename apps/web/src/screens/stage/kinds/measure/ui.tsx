import type { MeasureElement } from '@scenograph/core/elements/measure/model';
import { newMeasure } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { MeasureDesk } from './desk';
import { msg } from '../../../../language/language';

export const measureUi: KindUi<MeasureElement> = {
  Overlay: MeasureDesk,
  resize: 'not',
  starters: (['width', 'height'] as const).map((side) => ({
    group: msg('Measures and callouts'),
    id: side,
    title: msg('{part} of the product', { part: side === 'width' ? msg('Width') : msg('Height') }),
    make: (id, frame) => newMeasure(id, frame, side),
  })),
};
