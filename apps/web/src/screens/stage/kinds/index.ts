import { inBrand } from '@scenograph/core/shot/overlay-starters';
import type { BrandKit } from '@scenograph/core/brand/kit';
import { isKnown, type ShotElement } from '@scenograph/core/elements/index';
import { backdropUi } from './backdrop/ui';
import { badgeUi } from './badge/ui';
import { calloutUi } from './callout/ui';
import { insetUi } from './inset/ui';
import { STARTER_GROUPS, type KindUi, type Starter } from './kind-ui';
import { logoUi } from './logo/ui';
import { measureUi } from './measure/ui';
import { pairUi } from './pair/ui';
import { pictureUi } from './picture/ui';
import { productUi } from './product/ui';
import { shapeUi } from './shape/ui';
import { starsUi } from './stars/ui';
import { textUi } from './text/ui';
import { unknownUi } from './unknown/ui';
import { watermarkUi } from './watermark/ui';

/** What every kind shows on the stage. */
const KINDS: { [K in ShotElement['kind']]: KindUi<Extract<ShotElement, { kind: K }>> } = {
  backdrop: backdropUi,
  product: productUi,
  text: textUi,
  picture: pictureUi,
  badge: badgeUi,
  stars: starsUi,
  logo: logoUi,
  watermark: watermarkUi,
  inset: insetUi,
  pair: pairUi,
  measure: measureUi,
  callout: calloutUi,
  shape: shapeUi,
};

/** What an element's kind shows; of one that this version does not know, that it is kept. */
export const kindUi = <E extends ShotElement>(element: E): KindUi<E> =>
  (isKnown(element) ? KINDS[element.kind] : unknownUi) as unknown as KindUi<E>;

const all = Object.values(KINDS).flatMap((kind) => kind.starters ?? []);

/** Every overlay that can be added, by group. */
export const STARTERS: { title: string; choices: Starter[] }[] = STARTER_GROUPS.map((title) => ({
  title,
  choices: all.filter((s) => s.group === title),
}));

/** A fresh overlay in the brand's colours and fonts. */
export function startOverlay(
  starter: Starter,
  id: string,
  frame: { width: number; height: number },
  kit: BrandKit,
): ShotElement {
  return inBrand(starter.make(id, frame, kit), kit);
}
