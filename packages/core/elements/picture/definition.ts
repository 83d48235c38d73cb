import { drawPicture } from '../draw-picture';
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
  paint(element, canvas, environment) {
    // The picture keeps its own shape inside the box.
    const { box } = element;
    const source = environment.picture(element.picture);
    const k = Math.min(box.width / source.width, box.height / source.height);
    const width = source.width * k;
    const height = source.height * k;
    const x = box.x + (box.width - width) / 2;
    const y = box.y + (box.height - height) / 2;
    drawPicture(element.picture, x, y, width, height, canvas, environment);
  },
};
