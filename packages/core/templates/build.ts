import type { BadgeElement } from '../elements/badge/model';
import type { Box } from '../vector/box';
import type { Place } from '../elements/base';
import type { InsetElement } from '../elements/inset/model';
import type { ShotElement } from '../elements/index';
import type { PairElement } from '../elements/pair/model';
import type { ProductElement } from '../elements/product/model';
import type { ShapeElement, ShapeForm } from '../elements/shape/model';
import type { StarsElement } from '../elements/stars/model';
import type { TextElement } from '../elements/text/model';
import { emptyShot, type Shot } from '../shot/document';
import {
  newBadge,
  newCallout,
  newInset,
  newLogo,
  newMeasure,
  newPair,
  newShape,
  newStars,
  PLAIN,
} from '../shot/overlay-starters';
import { newBackdrop, newBase, newText } from '../shot/starters';
import type { CalloutElement } from '../elements/callout/model';
import type { MeasureElement } from '../elements/measure/model';
import { NO_PICTURE } from '../elements/base';

/** The frame that the shipped designs are drawn in. */
export const FRAME = { width: 1600, height: 1600 };

export type Colour = keyof typeof PLAIN;

const FONTS = {
  headline: 'fraunces-600',
  body: 'alegreya-sans-500',
  label: 'alegreya-sans-800',
  price: 'barlow-condensed-800',
  script: 'caveat-700',
};

export const at = (x: number, y: number, width: number, height: number, rotation = 0): Box => ({
  x,
  y,
  width,
  height,
  rotation,
});

const place = (
  expects: Place['expects'],
  hint: string,
  required = false,
  area: Box | null = null,
): Place => ({
  expects,
  hint,
  required,
  area,
});

/** Draws a design part by part, all in the brand's colours and fonts. */
export class Design {
  private readonly elements: ShotElement[] = [];
  private readonly counts = new Map<string, number>();

  private id(kind: string): string {
    const n = (this.counts.get(kind) ?? 0) + 1;
    this.counts.set(kind, n);
    return `${kind}-${n}`;
  }

  ground(colour: Colour) {
    this.elements.push({
      ...newBackdrop('backdrop', FRAME, PLAIN[colour]),
      brand: { 'fill.colour': colour },
    });
  }

  panel(box: Box, colour: Colour, more: Partial<ShapeElement> = {}) {
    const made = newShape(this.id('panel'), FRAME, 'panel');
    this.elements.push({ ...made, box, colour: PLAIN[colour], radius: 0, brand: { colour }, ...more });
  }

  shape(form: ShapeForm, box: Box, colour: Colour, more: Partial<ShapeElement> = {}) {
    const made = newShape(this.id(form), FRAME, form);
    const second = (more.brand?.second as Colour | undefined) ?? (colour === 'accent' ? 'main' : 'accent');
    this.elements.push({
      ...made,
      box,
      colour: PLAIN[colour],
      second: PLAIN[second],
      brand: { colour, second },
      ...more,
    });
  }

  product(area: Box, hint = 'The product', more: Partial<ProductElement> = {}) {
    this.elements.push({
      ...newBase(this.id('product'), hint),
      kind: 'product',
      box: area,
      hidden: true,
      picture: NO_PICTURE,
      followsVariant: true,
      millimetres: null,
      pose: 'stand',
      base: null,
      pitchDeg: null,
      liftMm: 40,
      behind: true,
      ownShadow: null,
      shadow: {
        source: 'light',
        strength: 0.34,
        contact: 0.7,
        softness: 1.6,
        length: 0.5,
        tint: '#1c1712',
        light: null,
      },
      reflection: { strength: 0, fade: 0.5, roughness: 0.25 },
      tone: { strength: 0, limit: 6 },
      relight: 0,
      gloss: 0,
      blur: 0,
      haze: 0,
      pack: null,
      place: place('product', hint, true, area),
      ...more,
    });
  }

  text(
    role: keyof typeof FONTS,
    text: string,
    box: Box,
    size: number,
    colour: Colour,
    more: Partial<TextElement> & { hint?: string } = {},
  ) {
    const { hint, ...rest } = more;
    const name = hint ?? (role === 'headline' ? 'Headline' : 'Words');
    this.elements.push({
      ...newText(this.id('text'), text, FRAME),
      name,
      box,
      size,
      smallest: Math.min(size, Math.max(22, Math.round(size * 0.4))),
      font: FONTS[role],
      leading: role === 'headline' ? 1.04 : 1.22,
      colour: PLAIN[colour],
      brand: { font: role, colour },
      place: place('text', name),
      ...(role === 'label' ? { tracking: 60, capitals: true } : {}),
      ...rest,
    });
  }

  badge(says: BadgeElement['says'], box: Box, fill: Colour, more: Partial<BadgeElement> = {}) {
    const made = newBadge(this.id('badge'), FRAME, says);
    this.elements.push({
      ...made,
      box,
      fill: PLAIN[fill],
      font: FONTS.label,
      numberFont: FONTS.price,
      brand: { ...made.brand, fill },
      ...more,
    });
  }

  stars(box: Box, more: Partial<StarsElement> = {}) {
    this.elements.push({ ...newStars(this.id('stars'), FRAME), box, font: FONTS.body, ...more });
  }

  logo(box: Box) {
    this.elements.push({ ...newLogo(this.id('logo'), FRAME, null), box, brand: { logo: 'main' } });
  }

  inset(box: Box, more: Partial<InsetElement> = {}) {
    this.elements.push({ ...newInset(this.id('inset'), FRAME, 'cutout'), box, font: FONTS.label, ...more });
  }

  pair(box: Box, more: Partial<PairElement> = {}) {
    const made = newPair(this.id('pair'), FRAME, false);
    this.elements.push({
      ...made,
      box,
      labels: { ...made.labels!, font: FONTS.label, size: 40 },
      place: place('picture', 'The pictures of before and after', true),
      ...more,
    });
  }

  measure(side: MeasureElement['side'], more: Partial<MeasureElement> = {}) {
    this.elements.push({ ...newMeasure(this.id('measure'), FRAME, side), font: FONTS.label, ...more });
  }

  callout(text: string, spot: { x: number; y: number }, box: Box, more: Partial<CalloutElement> = {}) {
    this.elements.push({
      ...newCallout(this.id('callout'), FRAME),
      text,
      spot,
      box,
      font: FONTS.body,
      place: place('text', 'A feature'),
      ...more,
    });
  }

  shot(): Shot {
    return { ...emptyShot(FRAME.width, FRAME.height), elements: this.elements };
  }
}
