import { uprightBounds } from '../../vector/box';
import Joi from 'joi';
import { drawPicture } from '../draw-picture';
import type { PaintEnvironment } from '../environment';
import { hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { isDarkBeneath } from '../ground-tone';

/** A logo: the picture made for the ground it lies on. */
export interface LogoElement extends ElementBase {
  kind: 'logo';
  /** For light and for dark ground; either may be missing. */
  light: string | null;
  dark: string | null;
  ground: 'auto' | 'light' | 'dark';
  /** Space that others keep clear around it, as a share of its height. */
  clear: number;
}

export const logoKind: ElementKind<LogoElement> = {
  kind: 'logo',
  title: 'Logo',
  role: 'overlay',
  weight: 6,
  keepsClear: ({ box, clear }) => uprightBounds(box).height * clear,
  schema: {
    light: hashSchema.allow(null).required(),
    dark: hashSchema.allow(null).required(),
    ground: Joi.string().valid('auto', 'light', 'dark').required(),
    clear: Joi.number().min(0).max(3).required(),
  },
  needs: ({ light, dark }) => ({
    pictures: [light, dark].filter((p): p is string => p !== null),
    fonts: [],
  }),
  scaled: (e) => e,
  bind(e, _data, missing) {
    if (!e.light && !e.dark) missing.add('logo in the brand kit');
    return e;
  },
  depends: (e, environment) => logoPicture(e, environment),
  paint(e, canvas, environment) {
    const picture = logoPicture(e, environment);
    if (!picture) return;
    const { x, y, width, height } = innerBox(e, picture, environment);
    drawPicture(picture, x, y, width, height, canvas, environment);
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
