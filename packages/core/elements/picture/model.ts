import { hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

/** A picture laid over the shot, such as a logo. */
export interface PictureElement extends ElementBase {
  kind: 'picture';
  picture: string;
}

export const pictureKind: ElementKind<PictureElement> = {
  kind: 'picture',
  title: 'Picture',
  role: 'overlay',
  weight: 5,
  schema: { picture: hashSchema.required() },
  needs: (element) => ({ pictures: [element.picture], fonts: [] }),
  scaled: (element) => element,
};

export const isPicture = (element: { kind: string }): element is PictureElement => element.kind === 'picture';
