import type { MeasureElement } from '@scenograph/core/elements/measure/model';
import { newMeasure } from '@scenograph/core/shot/overlay-starters';
import type { KindUi } from '../kind-ui';
import { MeasureDesk } from './desk';

export const measureUi: KindUi<MeasureElement> = {
  Overlay: MeasureDesk,
  resize: 'not',
  starters: (['width', 'height'] as const).map((side) => ({
    group: 'Measures and callouts',
    id: side,
    title: `${side === 'width' ? 'Width' : 'Height'} of the product`,
    make: (id, frame) => newMeasure(id, frame, side),
  })),
};
