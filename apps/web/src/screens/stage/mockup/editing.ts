import { isBackdrop, type BackdropElement, type SceneFill } from '@scenograph/core/elements/backdrop/model';
import type { OptionDesign } from '@scenograph/core/surface/options';
import type { ItemWork } from '@scenograph/core/surface/print-item';
import type { Print } from '@scenograph/core/surface/print';
import type { Artwork } from '../../../api/client';

/** A backdrop whose fill is a mockup: a scene with print areas. */
export type MockupElement = BackdropElement & { fill: SceneFill };

export function isMockup(element: { kind: string } | null | undefined): element is MockupElement {
  const fill = (element as BackdropElement | undefined)?.fill;
  return !!element && isBackdrop(element) && fill?.type === 'scene' && fill.survey.areas.length > 0;
}

export function withWork(element: MockupElement, work: Partial<ItemWork>): Partial<BackdropElement> {
  const { fill } = element;
  return { fill: { ...fill, item: { ...fill.item, ...work } } };
}

export function withPrint(
  element: MockupElement,
  id: string,
  change: Partial<Print>,
): Partial<BackdropElement> {
  const { prints } = element.fill.item;
  return withWork(element, { prints: prints.map((p) => (p.id === id ? { ...p, ...change } : p)) });
}

/** Names of new parts count up. */
export function freshId(stem: string, taken: readonly { id: string }[]): string {
  const ids = new Set(taken.map((t) => t.id));
  let n = 1;
  while (ids.has(`${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}

/** A library's artwork as a design to be printed; white that it lies on is taken away, so that it leaves that clear. */
export const designOf = (art: Artwork): OptionDesign => ({
  title: art.title,
  hash: art.picture,
  width: art.width,
  height: art.height,
  drawn: art.vector ? { svg: art.original, inks: {} } : null,
  knockOut: art.whiteGround ? 1 : 0,
  covers: art.covers && !art.whiteGround,
});
