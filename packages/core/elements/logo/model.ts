import { uprightBounds } from '../../vector/box';
import Joi from 'joi';
import { hashSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

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
};
