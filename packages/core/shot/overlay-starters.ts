import type { BrandKit } from '../brand/kit';
import { applyBrand } from '../brand/kit';
import type { BadgeElement } from '../elements/badge/model';
import type { CalloutElement } from '../elements/callout/model';
import type { Box } from '../vector/box';
import type { InsetElement } from '../elements/inset/model';
import type { ShotElement } from '../elements/index';
import type { LogoElement } from '../elements/logo/model';
import type { MeasureElement } from '../elements/measure/model';
import type { PairElement } from '../elements/pair/model';
import type { ShapeElement, ShapeForm } from '../elements/shape/model';
import type { StarsElement } from '../elements/stars/model';
import type { WatermarkElement } from '../elements/watermark/model';
import { DEFAULT_FONT } from '../type/catalogue';
import { newBase } from './starters';

/**
 * New overlays with sensible beginnings, in the colours and fonts of the brand kit where it has entries of these
 * names: ink, paper, main, accent, quiet; headline, body, label, price, script.
 */

type Frame = { width: number; height: number };

/** The colours overlays begin with where no brand kit says otherwise. */
export const PLAIN = {
  ink: '#22261f',
  paper: '#f6f2e8',
  main: '#24443a',
  accent: '#b4552d',
  quiet: '#a9b79b',
};

export const short = (frame: Frame) => Math.min(frame.width, frame.height);
const round = Math.round;

const NONE_OF_BRAND: Record<string, string> = {};

/** A box by its middle and size, as shares of the frame; sizes of its shorter side. */
function middleBox(frame: Frame, cx: number, cy: number, width: number, height: number): Box {
  const s = short(frame);
  return {
    x: round(frame.width * cx - (s * width) / 2),
    y: round(frame.height * cy - (s * height) / 2),
    width: round(s * width),
    height: round(s * height),
    rotation: 0,
  };
}

export function newBadge(id: string, frame: Frame, says: BadgeElement['says']): BadgeElement {
  const s = short(frame);
  return {
    ...newBase(id, says === 'words' ? 'Badge' : 'Price badge'),
    kind: 'badge',
    box: middleBox(frame, 0.8, 0.2, 0.26, 0.26),
    form: says === 'words' ? 'seal' : 'circle',
    corner: 'top-right',
    tips: 16,
    depth: 0.08,
    fill: PLAIN.accent,
    fillOpacity: 1,
    ring: { inset: round(s * 0.01), width: round(s * 0.002), colour: PLAIN.paper },
    ink: '#ffffff',
    font: DEFAULT_FONT,
    numberFont: 'barlow-condensed-800',
    says,
    text: 'New this season',
    lead: says === 'saving' ? 'Save' : '',
    each: '',
    amount: '{amount}',
    was: '{was}',
    savingAs: 'percent',
    currency: null,
    locale: null,
    brand: { fill: 'accent', 'ring.colour': 'paper', font: 'label', numberFont: 'price' },
  };
}

export function newStars(id: string, frame: Frame): StarsElement {
  return {
    ...newBase(id, 'Rating'),
    kind: 'stars',
    box: middleBox(frame, 0.3, 0.9, 0.42, 0.06),
    rating: '{rating}',
    of: 5,
    colour: '#a06a00',
    empty: '#d8d2c4',
    gap: 0.12,
    text: '{rating} ({reviews, plural, one {# review} other {# reviews}})',
    font: DEFAULT_FONT,
    ink: PLAIN.ink,
    textAt: 'right',
    brand: { ink: 'ink', font: 'body' },
  };
}

export function newLogo(id: string, frame: Frame, kit: BrandKit | null | undefined): LogoElement {
  const logo = kit?.logos[0];
  const size = logo?.light ?? logo?.dark ?? { width: 3, height: 1 };
  const width = short(frame) * 0.2;
  const height = (width * size.height) / size.width;
  const inset = short(frame) * 0.06;
  return applyBrand(
    {
      ...newBase(id, 'Logo'),
      kind: 'logo' as const,
      box: {
        x: round(frame.width - inset - width),
        y: round(inset),
        width: round(width),
        height: round(height),
        rotation: 0,
      },
      light: null,
      dark: null,
      ground: 'auto' as const,
      clear: 0.5,
      brand: logo ? { logo: logo.id } : NONE_OF_BRAND,
    },
    kit,
  );
}

export function newWatermark(id: string, frame: Frame, kit: BrandKit | null | undefined): WatermarkElement {
  const logo = kit?.logos[0];
  return applyBrand(
    {
      ...newBase(id, 'Watermark'),
      kind: 'watermark' as const,
      box: { x: 0, y: 0, ...frame, rotation: 0 },
      spread: true,
      mark: logo ? ('logo' as const) : ('words' as const),
      light: null,
      dark: null,
      text: kit?.title ?? 'Sample',
      font: DEFAULT_FONT,
      pattern: 'diagonal' as const,
      size: round(short(frame) * 0.26),
      gap: 0.5,
      angleDeg: -30,
      strength: 12,
      brand: { font: 'headline', ...(logo ? { logo: logo.id } : {}) },
    },
    kit,
  );
}

export function newInset(id: string, frame: Frame, source: InsetElement['source']): InsetElement {
  const s = short(frame);
  return {
    ...newBase(id, 'Close-up'),
    kind: 'inset',
    box: middleBox(frame, 0.8, 0.74, 0.32, 0.32),
    of: null,
    source,
    picture: null,
    spot: { x: 0.5, y: 0.3 },
    across: 0.3,
    shape: 'circle',
    radius: round(s * 0.03),
    fill: PLAIN.paper,
    ring: { width: round(s * 0.006), colour: PLAIN.main },
    adapts: true,
    mark: source === 'picture' ? 'none' : 'area',
    leader: source === 'picture' ? 'none' : 'straight',
    line: round(s * 0.003),
    states: false,
    font: DEFAULT_FONT,
    ink: PLAIN.ink,
    seen: null,
    target: null,
    times: null,
    effects: {
      outline: null,
      glow: null,
      dropShadow: { x: 0, y: round(s * 0.006), blur: round(s * 0.02), colour: '#1c1712', opacity: 0.3 },
      innerShadow: null,
    },
    brand: { fill: 'paper', 'ring.colour': 'main', font: 'body', ink: 'ink' },
  };
}

export function newPair(id: string, frame: Frame, whole: boolean): PairElement {
  const s = short(frame);
  const half = { picture: null, focus: { x: 0.5, y: 0.5 }, zoom: 1 };
  return {
    ...newBase(id, 'Before and after'),
    kind: 'pair',
    box: whole ? { x: 0, y: 0, ...frame, rotation: 0 } : middleBox(frame, 0.74, 0.76, 0.42, 0.3),
    spread: whole,
    before: { ...half, label: 'Before' },
    after: { ...half, label: 'After' },
    split: 'vertical',
    at: 0.5,
    divider: { width: round(s * 0.006), colour: '#ffffff' },
    radius: whole ? 0 : round(s * 0.02),
    sameCrop: true,
    matchTone: 0,
    labels: {
      font: DEFAULT_FONT,
      size: round(s * (whole ? 0.04 : 0.024)),
      ink: '#ffffff',
      plate: PLAIN.main,
      opacity: 0.9,
    },
    brand: { 'labels.plate': 'main', 'labels.font': 'label' },
  };
}

export function newShape(id: string, frame: Frame, form: ShapeForm): ShapeElement {
  const s = short(frame);
  const boxes: Record<ShapeForm, Box> = {
    line: middleBox(frame, 0.5, 0.5, 0.4, 0.02),
    arrow: middleBox(frame, 0.5, 0.5, 0.3, 0.04),
    frame: { x: round(s * 0.04), y: round(s * 0.04), width: frame.width - round(s * 0.08), height: frame.height - round(s * 0.08), rotation: 0 }, // prettier-ignore
    panel: middleBox(frame, 0.5, 0.5, 0.5, 0.3),
    icon: middleBox(frame, 0.5, 0.5, 0.12, 0.12),
    decoration: middleBox(frame, 0.5, 0.3, 0.5, 0.2),
  };
  const names: Record<ShapeForm, string> = {
    line: 'Line', arrow: 'Arrow', frame: 'Frame', panel: 'Panel', icon: 'Icon', decoration: 'Decoration',
  }; // prettier-ignore
  return {
    ...newBase(id, names[form]),
    kind: 'shape',
    box: boxes[form],
    spread: form === 'frame',
    form,
    colour: form === 'panel' ? PLAIN.quiet : PLAIN.main,
    second: PLAIN.accent,
    line: round(s * (form === 'icon' ? 0.008 : 0.004)),
    dash: 'whole',
    heads: 'end',
    panel: 'rectangle',
    radius: form === 'panel' ? round(s * 0.02) : 0,
    double: false,
    icon: 'leaf',
    decoration: 'leaves',
    count: 7,
    seed: 7,
    brand: { colour: form === 'panel' ? 'quiet' : 'main', second: 'accent' },
  };
}

export function newMeasure(id: string, frame: Frame, side: MeasureElement['side']): MeasureElement {
  const s = short(frame);
  return {
    ...newBase(id, side === 'width' ? 'Width' : 'Height'),
    kind: 'measure',
    box: middleBox(frame, 0.5, 0.5, 0.4, 0.05),
    of: null,
    side,
    edge: side === 'width' ? 'after' : 'before',
    offset: round(s * 0.045),
    unit: 'mm',
    diameter: false,
    ends: 'ticks',
    line: Math.max(1, round(s * 0.0025)),
    ink: PLAIN.ink,
    font: DEFAULT_FONT,
    size: round(s * 0.03),
    lengthMm: null,
    locale: null,
    brand: { ink: 'ink', font: 'label' },
  };
}

export function newCallout(id: string, frame: Frame): CalloutElement {
  const s = short(frame);
  return {
    ...newBase(id, 'Callout'),
    kind: 'callout',
    box: middleBox(frame, 0.2, 0.34, 0.26, 0.1),
    of: null,
    spot: { x: 0.5, y: 0.3 },
    text: 'Glazed by hand',
    font: DEFAULT_FONT,
    size: round(s * 0.032),
    smallest: round(s * 0.014),
    leading: 1.15,
    align: 'start',
    ink: PLAIN.ink,
    plate: null,
    leader: 'straight',
    line: Math.max(1, round(s * 0.0025)),
    lineColour: PLAIN.main,
    dot: 'ring',
    target: null,
    brand: { ink: 'ink', font: 'body', lineColour: 'main' },
  };
}

/** A fresh overlay as the kit has its colours and fonts. */
export function inBrand<E extends ShotElement>(element: E, kit: BrandKit | null | undefined): E {
  return applyBrand(element, kit);
}
