import { drawPicture } from '../draw-picture';
import type { ElementPainter } from '../painter';
import { PictureElement } from './model';

export const picturePainter: ElementPainter<PictureElement> = {
  inVectors: () => true,
  paint(element, canvas, environment) {
    // The picture keeps its own shape inside the box.
    const { box } = element;
    const source = environment.picture(element.picture);
    const k = Math.min(box.width / source.width, box.height / source.height);
    const width = source.width * k;
    const height = source.height * k;
    const x = box.x + (box.width - width) / 2;
    const y = box.y + (box.height - height) / 2;
    drawPicture(element.picture, { x, y, width, height }, canvas, environment);
  },
};
