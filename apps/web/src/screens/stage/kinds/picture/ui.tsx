import type { PictureElement } from '@scenograph/core/elements/picture/model';
import type { KindUi } from '../kind-ui';
import { SlatPhoto } from '../slat-photo';

export const pictureUi: KindUi<PictureElement> = {
  resize: 'corners',
  slat: ({ picture }) => <SlatPhoto picture={picture} />,
};
