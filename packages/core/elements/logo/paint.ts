import { drawPicture } from '../draw-picture';
import type { PaintEnvironment } from '../environment';
import { isDarkBeneath } from '../ground-tone';
import type { ElementPainter } from '../painter';
import { LogoElement } from './model';

export const logoPainter: ElementPainter<LogoElement> = {
  inVectors: () => true,
  depends: (e, environment) => logoPicture(e, environment),
  paint(e, canvas, environment) {
    const picture = logoPicture(e, environment);
    if (!picture) return;
    drawPicture(picture, innerBox(e, picture, environment), canvas, environment);
  },
};

/** Which of the two pictures is shown. */
export function logoPicture(e: LogoElement, environment: PaintEnvironment): string | null {
  const dark = e.ground === 'auto' ? isDarkBeneath(e.box, environment) : e.ground === 'dark';
  return dark ? (e.dark ?? e.light) : (e.light ?? e.dark);
}

/** The picture keeps its own shape inside the box. */
function innerBox({ box }: LogoElement, picture: string, environment: PaintEnvironment) {
  const source = environment.picture(picture);
  const k = Math.min(box.width / source.width, box.height / source.height);
  const [width, height] = [source.width * k, source.height * k];
  return { x: box.x + (box.width - width) / 2, y: box.y + (box.height - height) / 2, width, height };
}
