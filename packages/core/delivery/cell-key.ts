import type { ShotElement } from '../elements/index';
import type { ProductData } from '../data/product-data';
import type { Shot } from '../shot/document';
import { bindForSlot, fitFor } from '../shot/resolve';
import type { Slot } from '../spec/slot';
import type { Encoding, FileWords } from './encoding';

/** Raised whenever the same shot gives other pixels or other bytes than before. */
export const PAINTER_VERSION = 4;

/** What an element is called and how it is handled in the stage paints nothing. */
const NAMES = new Set(['name', 'locked', 'link']);

/** Hexadecimal digest of a text: SHA-256 where it names stored content. */
export type Digest = (text: string) => string;

/**
 * Keys of finished files by everything they depend on: what the shot's elements are once the variant's data is bound,
 * the slot's measures, its differences, how the file is written. A value that no element uses changes no key. Digests
 * of parts that many cells share (a scene, a slot, a shot bound to one variant) are made once; documents must not be
 * changed in place meanwhile.
 */
export function cellKeys(digest: Digest): {
  of(cell: {
    shot: Shot;
    slotKey: string;
    slot: Slot;
    data: ProductData;
    encoding: Encoding;
    words: FileWords;
  }): string;
} {
  const parts = new WeakMap<object, string>();
  const part = (value: unknown): string => {
    if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'null';
    let known = parts.get(value);
    if (known === undefined) parts.set(value, (known = digest(JSON.stringify(value))));
    return known;
  };
  const written = new WeakMap<ShotElement, string>();
  const element = (e: ShotElement): string => {
    let known = written.get(e);
    if (known !== undefined) return known;
    known = '';
    for (const [key, value] of Object.entries(e) as [string, unknown][]) {
      if (NAMES.has(key)) continue;
      // A backdrop's fill holds a whole survey: its parts are digested apart, so that they are once only.
      if (key === 'fill') for (const [k, v] of Object.entries(value as object)) known += `|${k}=${part(v)}`;
      else known += typeof value === 'object' ? `|${key}:${part(value)}` : `|${key}:${JSON.stringify(value)}`;
    }
    written.set(e, known);
    return known;
  };
  const measures = new WeakMap<Slot, string>();
  const measuresOf = (slot: Slot): string => {
    let known = measures.get(slot);
    if (known === undefined) measures.set(slot, (known = slotMeasures(slot)));
    return known;
  };
  const bound = new WeakMap<Shot, Map<ProductData, string>>();
  const boundOf = (shot: Shot, slotKey: string, data: ProductData): string => {
    const make = () => digest(bindForSlot(shot, slotKey, data).elements.map(element).join('\n'));
    const fit = fitFor(shot, slotKey, data);
    // A slot that only moves elements is bound as the base is.
    const own =
      fit && Object.values(fit.elements).some((patch) => Object.keys(patch).some((k) => k !== 'box'));
    if (own) return make();
    let byData = bound.get(shot);
    if (!byData) bound.set(shot, (byData = new Map()));
    let known = byData.get(data);
    if (known === undefined) byData.set(data, (known = make()));
    return known;
  };
  return {
    of({ shot, slotKey, slot, data, encoding, words }) {
      return digest(
        [
          PAINTER_VERSION,
          boundOf(shot, slotKey, data),
          part(shot.frame),
          part(shot.importance),
          part(fitFor(shot, slotKey, data) ?? null),
          measuresOf(slot),
          part(encoding),
          JSON.stringify(words),
        ].join('\n'),
      );
    },
  };
}

/** What of a slot decides its pixels and bytes; its other rules are only judged by. */
function slotMeasures(slot: Slot): string {
  const { width, height, coverage, marginShare, safeShare, formats, maxBytes, colourSpace, density } = slot;
  return JSON.stringify([
    [width, height, coverage, marginShare, safeShare],
    [formats, maxBytes, colourSpace, density],
    // White ground changes how a group is fitted, a transparent one which formats are taken.
    slot.background.kind,
  ]);
}
