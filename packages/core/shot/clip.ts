import { isGround, scaledElement, type ShotElement } from '../elements/index';
import type { Point } from '../vector/outline';
import { readShot, type Shot } from './document';
import { newId } from './edit';
import { rescaledFit } from './rescaled-fit';

/** Some elements of a shot, as a shot of their own: what is copied, and put into this shot again or into another. */
export function clipOf(shot: Shot, ids: readonly string[]): Shot {
  const among = new Set(ids);
  const fits = Object.entries(shot.fits).flatMap(([slotKey, fit]) => {
    const own = Object.entries(fit.elements).filter(([id]) => among.has(id));
    return own.length ? [[slotKey, { ...fit, elements: Object.fromEntries(own) }]] : [];
  });
  return {
    ...shot,
    elements: shot.elements.filter((e) => among.has(e.id) && !isGround(e)),
    fits: Object.fromEntries(fits) as Shot['fits'],
    importance: [],
  };
}

/**
 * Reads a clip from text.
 * @throws with a sentence where it is none, or of a newer version
 */
export function readClip(text: string): Shot {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('What was copied cannot be read. Copy it again.');
  }
  return readShot(value);
}

/**
 * The shot with a clip's elements in front, in their order, each under an id of its own; in every slot they look as they
 * did there. In another frame places keep their share of it, and sizes go with the smaller ratio. Elements that were
 * linked are linked with one another alone, none is locked.
 * @param aside how far from where they were, as shares of each frame's width and height
 */
export function withClip(shot: Shot, clip: Shot, aside: Point): { shot: Shot; ids: string[] } {
  const kx = shot.frame.width / clip.frame.width;
  const ky = shot.frame.height / clip.frame.height;
  const k = Math.min(kx, ky);
  const next: Shot = { ...shot, elements: [...shot.elements], fits: { ...shot.fits } };
  const copies = new Map<string, string>();
  for (const from of clip.elements) {
    const id = newId(from.kind, next);
    copies.set(from.id, id);
    const { x, y, width, height, rotation } = from.box;
    const box = {
      x: (x + width / 2) * kx - (width * k) / 2 + aside.x * shot.frame.width,
      y: (y + height / 2) * ky - (height * k) / 2 + aside.y * shot.frame.height,
      width: width * k,
      height: height * k,
      rotation,
    };
    const scaled = k === 1 ? from : scaledElement(from, k);
    const name = shot.elements.some((e) => e.name === from.name) ? copyName(from.name) : from.name;
    next.elements.push({ ...scaled, id, name, box, locked: false });
  }
  const links = ownLinks(clip.elements, copies);
  const made = new Set(copies.values());
  next.elements = next.elements.map((e) => (made.has(e.id) ? among(e, copies, links) : e));
  for (const [slotKey, fit] of Object.entries(clip.fits)) {
    const there = shot.fits[slotKey];
    const frame = there?.frame ?? fit.frame;
    const elements = { ...there?.elements };
    for (const [id, patch] of Object.entries(rescaledFit(fit, frame))) {
      const copy = copies.get(id);
      if (!copy) continue;
      const { box } = patch;
      const moved = box && { ...box, x: box.x + aside.x * frame.width, y: box.y + aside.y * frame.height };
      elements[copy] = moved ? { ...patch, box: moved } : patch;
    }
    if (Object.keys(elements).length) next.fits[slotKey] = { frame, elements };
  }
  return { shot: next, ids: [...copies.values()] };
}

const LONGEST_NAME = 120;

const copyName = (name: string) => `${name.slice(0, LONGEST_NAME - 6)}, copy`;

/** For each link that two or more of the elements share, one of their copies' own. */
function ownLinks(
  elements: readonly ShotElement[],
  copies: ReadonlyMap<string, string>,
): Map<string, string> {
  const links = new Map<string, string>();
  for (const { id, link } of elements)
    if (link && !links.has(link) && elements.filter((e) => e.link === link).length > 1)
      links.set(link, `link-${copies.get(id)}`);
  return links;
}

/** What an element of a clip is among the copies: what it points at is the copy where that came along. */
function among(
  element: ShotElement,
  copies: ReadonlyMap<string, string>,
  links: ReadonlyMap<string, string>,
): ShotElement {
  const of = 'of' in element && typeof element.of === 'string' ? copies.get(element.of) : undefined;
  return {
    ...element,
    ...(of && { of }),
    link: (element.link && links.get(element.link)) ?? null,
  } as ShotElement;
}
