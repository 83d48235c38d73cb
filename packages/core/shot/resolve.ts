import { isProduct } from '../elements/product/model';
import { isBackdrop } from '../elements/backdrop/model';
import type { Box } from '../vector/box';
import { elementKind, scaledElement, type ShotElement } from '../elements/index';
import type { SlotFrame } from './fit/slot-frame';
import { groundOf } from '../elements/ground-of';
import type { Ground } from '../stage/ground';
import { basePoint, drawnPxPerMm, scaledOnBase, groundPlacement, trueSizeBox } from '../stage/stand';
import { applyBrand } from '../brand/kit';
import { type ProductData } from '../data/product-data';
import type { Shot, SlotFit } from './document';
import { rescaledFit } from './rescaled-fit';
import { coverBox, fitToSlot } from './fit/fit-to-slot';

/** A shot with everything decided: data bound, boxes in the frame's pixels. Ready to be painted or measured. */
export interface ResolvedShot {
  width: number;
  height: number;
  elements: ShotElement[];
  /** Names of data that texts asked for and that is not there. */
  missing: string[];
  /** Ids of overlays left out by rule for want of room. */
  dropped?: string[];
}

/** The base picture, bound to a variant's data (null binds nothing). */
export function resolveBase(shot: Shot, data: ProductData | null): ResolvedShot {
  const missing = new Set<string>();
  const elements = attach(bind(shot, data, missing), missing);
  return { ...shot.frame, elements, missing: [...missing] };
}

/** The picture a shot gives for one slot: fitted by rule, then what was changed for this slot alone. */
export function resolveForSlot(
  shot: Shot,
  slotKey: string,
  slot: SlotFrame,
  data: ProductData | null,
): ResolvedShot {
  const fit = fitFor(shot, slotKey, data);
  const { elements: own, missing } = bindForSlot(shot, slotKey, data);
  const { elements: fitted, dropped } = fitToSlot({ ...shot, elements: own }, slot, pinnedIn(fit));
  const ground = data?.cutout ? groundOf(fitted) : null;
  const elements = attach(
    fitted.map((element) => withBox(element, fit, slot, data, ground)),
    missing,
  );
  return { width: slot.width, height: slot.height, elements, missing: [...missing], dropped };
}

/**
 * A shot's elements filled with a variant's data, with what a slot changes of them (their places aside): together with
 * the slot's own differences and measures this decides the whole picture.
 */
export function bindForSlot(
  shot: Shot,
  slotKey: string,
  data: ProductData | null,
): { elements: ShotElement[]; missing: Set<string> } {
  const missing = new Set<string>();
  const fit = fitFor(shot, slotKey, data);
  // Differences that change what an element is (its fill, its text) count before fitting, places after.
  const changed = fit ? shot.elements.map((element) => withoutBox(element, fit)) : shot.elements;
  return { elements: bind({ ...shot, elements: changed }, data, missing), missing };
}

/** The name under which the differences of one cell (a slot of one variant) are kept. */
export const cellFitKey = (slotKey: string, variantId: string) => `${slotKey}@${variantId}`;

/** What a shot does differently for a slot of a variant: the slot's differences, and over them the cell's own. */
export function fitFor(shot: Shot, slotKey: string, data: ProductData | null): SlotFit | undefined {
  const slotFit: SlotFit | undefined = shot.fits[slotKey];
  const own = data?.id ? shot.fits[cellFitKey(slotKey, data.id)] : undefined;
  if (!own || !slotFit) return own ?? slotFit;
  const elements = { ...rescaledFit(slotFit, own.frame) };
  for (const [id, patch] of Object.entries(own.elements))
    elements[id] = { ...elements[id], ...patch } as Partial<ShotElement>;
  return { frame: own.frame, elements };
}

/** What a slot places itself, or says is to be seen, is left where it is. */
function pinnedIn(fit: SlotFit | undefined): Set<string> {
  const entries = Object.entries(fit?.elements ?? {});
  return new Set(entries.filter(([, patch]) => patch.box || patch.hidden === false).map(([id]) => id));
}

function withoutBox(element: ShotElement, fit: SlotFit | undefined): ShotElement {
  const patch = fit?.elements[element.id];
  if (!patch) return element;
  const placed = patch.box ? elementKind(element.kind).placedBy?.(element) : {};
  return {
    ...element,
    ...patch,
    ...placed,
    id: element.id,
    kind: element.kind,
    box: element.box,
  } as ShotElement;
}

function withBox(
  element: ShotElement,
  fit: SlotFit | undefined,
  slot: SlotFrame,
  data: ProductData | null,
  ground: Ground | null,
): ShotElement {
  const patch = fit?.elements[element.id];
  const box = patch?.box;
  if (!box || !fit) return element;
  const kx = slot.width / fit.frame.width;
  const ky = slot.height / fit.frame.height;
  const k = Math.min(kx, ky);
  const placed: Box = {
    width: box.width * k,
    height: box.height * k,
    x: (box.x + box.width / 2) * kx - (box.width * k) / 2,
    y: (box.y + box.height / 2) * ky - (box.height * k) / 2,
    rotation: box.rotation,
  };
  // It was placed on another variant's picture: this one is put in its place.
  if (isProduct(element) && element.followsVariant && data?.cutout && placedOn(patch, element)) {
    const there = { ...element, ...(patch as Partial<Product>), box: placed } as Product;
    return swapProduct(there, data, ground, slot);
  }
  // Lengths inside the element (a text's size) grow with its box.
  const scaled = scaledElement(element, placed.width / element.box.width);
  return { ...scaled, box: placed };
}

/** What hangs on other elements (a dimension line on its product) goes to its place. */
function attach(elements: ShotElement[], missing: Set<string>): ShotElement[] {
  return elements.map((e) => {
    const wanted = e.hidden ? new Set<string>() : missing;
    return (elementKind(e.kind).attached?.(e, elements, wanted) as ShotElement) ?? e;
  });
}

function bind(
  { elements, frame }: Pick<Shot, 'elements' | 'frame'>,
  data: ProductData | null,
  missing: Set<string>,
): ShotElement[] {
  const placed = elements.map((element) =>
    isBackdrop(element) ? { ...element, box: groundBox(element, frame.width, frame.height) } : element,
  );
  const ground = data?.cutout ? groundOf(placed) : null;
  return placed.map((written) => {
    const element = applyBrand(written, data?.brand);
    if (isProduct(element) && element.followsVariant && data?.cutout) {
      const swapped = swapProduct(element, data, ground, frame);
      const area = element.place?.area;
      return area && swapped.picture !== element.picture
        ? { ...swapped, box: fitInArea(swapped.box, area) }
        : swapped;
    }
    // What is hidden asks for nothing.
    const wanted = element.hidden ? new Set<string>() : missing;
    return (elementKind(element.kind).bind?.(element, data, wanted) as ShotElement) ?? element;
  });
}

/** A box of some shape as large as it can be in an area, standing at the middle of its foot. */
export function fitInArea(box: { width: number; height: number }, area: Box): Box {
  const k = Math.min(area.width / box.width, area.height / box.height);
  const [width, height] = [box.width * k, box.height * k];
  return {
    x: area.x + (area.width - width) / 2,
    y: area.y + area.height - height,
    width,
    height,
    rotation: area.rotation,
  };
}

/** Whether a place was set on another picture than the one that an element shows now. */
const placedOn = (patch: Partial<ShotElement>, element: Product): boolean =>
  'picture' in patch && !!patch.picture && patch.picture !== element.picture;

type Product = Extract<ShotElement, { kind: 'product' }>;

/** Another variant in the same place: base on the same point, sized by its own millimetres where both know theirs. */
export function swapProduct(
  element: Product,
  data: ProductData,
  ground: Ground | null,
  frame: { width: number; height: number },
): Product {
  const cutout = data.cutout!;
  const own = { ownShadow: cutout.shadow ?? null, base: cutout.base ?? null };
  if (cutout.picture === element.picture) return { ...element, ...own };
  const millimetres =
    data.widthMm && data.heightMm && data.depthMm
      ? { width: data.widthMm, height: data.heightMm, depth: data.depthMm }
      : null;
  const { box } = element;
  const aspect = cutout.height / cutout.width;
  const before = drawnPxPerMm(element);
  let next: Product = {
    ...element,
    ...own,
    picture: cutout.picture,
    pitchDeg: null,
    millimetres,
    box: { ...box, height: box.width * aspect },
  };
  const after = drawnPxPerMm(next);
  if (before && after) next = { ...next, box: scaledOnBase(next, before / after) };
  const from = basePoint(element);
  const to = basePoint(next);
  next = { ...next, box: { ...next.box, x: next.box.x + from.x - to.x, y: next.box.y + from.y - to.y } };
  // A taller one reaches nearer to the camera: the share of true size is held where the ground tells it.
  const share = groundPlacement(element, ground, frame)?.ratio;
  return { ...next, box: (share && trueSizeBox(next, ground, frame, share)) || next.box };
}

/** Where a backdrop lies in a frame: the frame itself, or a scene's picture covering it around its focus. */
export function groundBox(
  element: Extract<ShotElement, { kind: 'backdrop' }>,
  width: number,
  height: number,
): Box {
  const { fill } = element;
  if (fill.type !== 'scene') return { x: 0, y: 0, width, height, rotation: 0 };
  return coverBox(fill.survey.width, fill.survey.height, fill.focus, width, height, fill.zoom);
}
