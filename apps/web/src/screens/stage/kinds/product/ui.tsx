import type { ProductElement } from '@scenograph/core/elements/product/model';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { STUDIO_LIGHT } from '@scenograph/core/stage/ground';
import type { KindUi } from '../kind-ui';
import { SlatPhoto } from '../slat-photo';
import { ProductLightDesk, ProductToneDesk } from './light-desk';
import { ProductPlaceDesk } from './place-desk';
import { msg } from '../../../../language/language';

export const productUi: KindUi<ProductElement> = {
  Place: ProductPlaceDesk,
  Light: ProductLightDesk,
  Tone: ProductToneDesk,
  lightSummary({ shadow }, shot) {
    const light = shadow.light ?? groundOf(shot.elements)?.light ?? STUDIO_LIGHT;
    return msg('{azimuthDeg}°, {elevationDeg}° up', {
      azimuthDeg: Math.round(light.azimuthDeg),
      elevationDeg: Math.round(light.elevationDeg),
    });
  },
  toneSummary: ({ tone }) => `${Math.round(tone.strength * 100)} %`,
  slat: ({ picture }) => <SlatPhoto picture={picture} />,
  resize: 'corners',
};
