import type { ShapeElement } from '@scenograph/core/elements/shape/model';
import { newShape } from '@scenograph/core/shot/overlay-starters';
import { capitalised } from '../../../../ui/capitalised';
import type { KindUi } from '../kind-ui';
import { ShapeDesk } from './desk';
import { msg } from '../../../../language/language';

export const shapeUi: KindUi<ShapeElement> = {
  Overlay: ShapeDesk,
  resize: 'free',
  starters: (['line', 'arrow', 'frame', 'panel', 'icon', 'decoration'] as const).map((form) => ({
    group: msg('Shapes'),
    id: form,
    title: msg(capitalised(form)),
    make: (id, frame) => newShape(id, frame, form),
  })),
};
