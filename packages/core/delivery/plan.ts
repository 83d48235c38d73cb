import { isProduct } from '../elements/product/model';
import { bindText, type ProductData } from '../data/product-data';
import type { Shot } from '../shot/document';
import type { Slot, SpecSheet } from '../spec/slot';
import { cellKeys, type Digest } from './cell-key';
import { PLAIN_ENCODING, type Encoding, type FileWords } from './encoding';
import { fileName } from '../spec/file-name';

export interface PlannedShot {
  id: string;
  title: string;
  document: Shot;
  /** Alternative text with placeholders, such as `{title} in {variant}`. */
  alt: string;
}

export interface PlanInput {
  listing: string;
  slots: { key: string; slot: Slot; sheet: Pick<SpecSheet, 'marketplace'> }[];
  /** The shot that fills a cell; null where none does. */
  shotFor(slotKey: string, variantId: string): PlannedShot | null;
  encodings: Readonly<Record<string, Encoding>>;
  digest: Digest;
}

/** Why a cell has no picture: no shot fills it, or the variant's cutout is not there. */
export type Missing = 'no-shot' | 'no-cutout';

export interface PlannedCell {
  variantId: string;
  slotKey: string;
  shot: PlannedShot | null;
  missing: Missing | null;
  /** Names the file by everything it depends on; null where it is missing. */
  key: string | null;
  words: FileWords;
  encoding: Encoding;
  fileName: string;
}

export interface PlannedVariant {
  id: string;
  data: ProductData;
}

/**
 * Plans a listing variant by variant: for each of its slots what the cell is made of, under which key, and how its file
 * is called. What cells share is worked out once for all variants. Throws a sentence for a file name pattern that names
 * nothing.
 */
export function planner({
  listing,
  slots,
  shotFor,
  encodings,
  digest,
}: PlanInput): (variant: PlannedVariant) => PlannedCell[] {
  const keys = cellKeys(digest);
  const follows = new WeakMap<Shot, boolean>();
  const alts = new Map<string, Map<ProductData, string | null>>();
  const altOf = (shot: PlannedShot, data: ProductData): string | null => {
    let byData = alts.get(shot.id);
    if (!byData) alts.set(shot.id, (byData = new Map()));
    let known = byData.get(data);
    if (known === undefined) {
      const filled = bindText(shot.alt, data);
      byData.set(data, (known = shot.alt.trim() && !filled.missing.length ? filled.text : null));
    }
    return known;
  };
  return ({ id: variantId, data }) =>
    slots.map(({ key: slotKey, slot, sheet }, i): PlannedCell => {
      const shot = shotFor(slotKey, variantId);
      const name = fileName(slot.fileName, {
        sku: data.sku,
        listing,
        marketplace: sheet.marketplace,
        slot: slot.id,
        variant: data.variant,
        shot: shot?.title ?? '',
        n: i + 1,
      });
      const cell = { variantId, slotKey, shot, fileName: name };
      const encoding = encodings[slotKey] ?? PLAIN_ENCODING;
      const nothing = { key: null, words: { alt: null, copyright: null, title: null }, encoding };
      if (!shot) return { ...cell, ...nothing, missing: 'no-shot' };
      let needs = follows.get(shot.document);
      if (needs === undefined) follows.set(shot.document, (needs = followsVariant(shot.document)));
      if (needs && !data.cutout) return { ...cell, ...nothing, missing: 'no-cutout' };
      const words: FileWords = {
        alt: altOf(shot, data),
        copyright: data.brand?.title ? `© ${data.brand.title}` : null,
        title: data.variant ? `${data.title}, ${data.variant}` : data.title,
      };
      const key = keys.of({ shot: shot.document, slotKey, slot, data, encoding, words });
      return { ...cell, missing: null, key, words, encoding };
    });
}

/** Whether a shot shows the variant's own cutout. */
export function followsVariant(document: Shot): boolean {
  return document.elements.some((e) => isProduct(e) && e.followsVariant);
}
