import { isShape } from '../../elements/shape/model';
import { isMeasure } from '../../elements/measure/model';
import { uprightBounds } from '../../vector/box';
import { elementKind, scaledElement, type ShotElement } from '../../elements/index';
import type { SlotFrame } from './slot-frame';
import { shrunk, type Bounds } from '../../vector/outline';
import type { Shot } from '../document';
import { arrangeUnits, unitsOf, type Arranged } from './arrange-units';
import { cropped, overlapArea, within } from './bounds';
import { clashes, coveredBounds } from './covered';
import { dividers, stretched, changesOrientation } from './divide';
import { importanceOrder } from './importance';
import { homeOf, roomsBeside } from './rooms';

/** What overlays are placed by. */
export interface OverlayContext {
  shot: Shot;
  overlays: readonly ShotElement[];
  /** Where the products stand together, in the base and in the slot; null where there is none. */
  group: Bounds | null;
  product: Bounds | null;
  slot: SlotFrame;
  /** Slot pixels per pixel of the base. */
  scale: number;
  /** Overlays that a person wants in the slot whatever happens. */
  pinned: ReadonlySet<string>;
}

/** Overlays in the slot: stretched, clinging to the product, at their corners, or arranged anew. */
export function placeOverlays(context: OverlayContext): Arranged {
  return new OverlayPlacement(context).place();
}

/** So much longer or shorter a slot is a strip beside the base. */
const STRIP = 1.9;
/** The same where panels carry what lies on them along. */
const OTHER_SHAPE = 1.15;

class OverlayPlacement {
  private readonly elements = new Map<string, ShotElement>();
  private readonly dropped: string[] = [];
  private readonly panels: ShotElement[];
  /** Panels beside one another lie above one another in the slot, or the other way round. */
  private readonly over: boolean;
  /** Slot's shape against the base's. */
  private readonly shape: number;
  private readonly backing: ShotElement[];
  private readonly ornaments: ShotElement[];
  private readonly clinging: ShotElement[];
  /** What has a place of its own, and where it would be at its corner. */
  private readonly moving: ShotElement[];
  private readonly natural: ShotElement[];

  constructor(private readonly of: OverlayContext) {
    const { shot, overlays, group, product, slot, scale, pinned } = of;
    const { frame } = shot;
    this.panels = dividers(overlays, frame);
    this.over = changesOrientation(this.panels, frame, slot);
    this.shape = slot.width / slot.height / (frame.width / frame.height);
    const free = overlays.filter((e) => !e.spread);
    this.backing = group && product ? free.filter((e) => backs(e, shot.elements, group)) : [];
    this.clinging = free.filter((e) => elementKind(e.kind).pointsAtProduct?.(e));
    this.ornaments = free.filter((e) => isShape(e) && e.form === 'decoration' && !this.backing.includes(e));
    const settled = new Set([...this.clinging, ...this.backing, ...this.ornaments]);
    this.moving = free.filter((e) => !settled.has(e) && !pinned.has(e.id));
    this.natural = this.moving.map((e) => anchorOverlay(e, frame, slot, scale));
  }

  place(): Arranged {
    const { shot, group, product, slot, scale } = this.of;
    for (const e of shot.elements)
      if (e.spread && elementKind(e.kind).role === 'overlay') this.put(this.spread(e));
    for (const e of this.backing) this.put(withProduct(e, group!, product!));
    for (const e of this.ornaments) this.put(anchorOverlay(e, shot.frame, slot, scale));
    const anew = this.needsArranging();
    if (anew) {
      this.arrange();
      this.dropCoveringOrnaments();
    } else this.natural.forEach((e) => this.put(e));
    this.placeClinging(anew);
    return { elements: this.elements, dropped: this.dropped };
  }

  private put(e: ShotElement): void {
    this.elements.set(e.id, e);
  }

  private spread(e: ShotElement): ShotElement {
    const { shot, slot, scale } = this.of;
    const across = this.over && this.panels.includes(e);
    return { ...scaledElement(e, scale), box: { ...e.box, ...stretched(e.box, shot.frame, slot, across) } };
  }

  private differsBy(times: number): boolean {
    return this.shape > times || this.shape < 1 / times;
  }

  private needsArranging(): boolean {
    const { group, product, slot } = this.of;
    return (
      (this.moving.length > 1 && this.differsBy(STRIP)) ||
      (this.panels.length > 0 && this.differsBy(OTHER_SHAPE)) ||
      clashes(this.moving, this.natural, group, product, slot)
    );
  }

  /** Each panel's overlays, and those beside the panels, in the rooms that are left beside the product. */
  private arrange(): void {
    const { frame } = this.of.shot;
    const bases = this.panels.map((p) => cropped(uprightBounds(p.box), frame));
    const whole = { x: 0, y: 0, ...frame };
    const homes = [...bases, roomsBeside(whole, bases, 0)[0] ?? whole];
    const belongs = this.moving.map((e) => {
      const home = homeOf(e.box, bases);
      return home < 0 ? bases.length : home;
    });
    homes.forEach((home, i) => this.arrangeIn(home, (n) => belongs[n] === i));
  }

  private arrangeIn(home: Bounds, belongs: (n: number) => boolean): void {
    const { shot, product, slot, scale, pinned } = this.of;
    const order = importanceOrder(shot.elements, shot.importance);
    const units = unitsOf(
      this.moving.filter((_, n) => belongs(n)),
      order,
    );
    if (!units.length) return;
    const short = Math.min(slot.width, slot.height);
    const all = { x: 0, y: 0, width: slot.width, height: slot.height };
    const part = this.panels.length ? stretched(home, shot.frame, slot, this.over) : all;
    const region = shrunk(part, Math.max(slot.safeShare, 0.02) * short);
    const behind = this.differsBy(STRIP) ? [] : this.backing.map((e) => this.elements.get(e.id)!.box);
    const rooms = roomsBeside(region, product ? [product, ...behind] : [], short * 0.05);
    if (!rooms.length) {
      // A product that takes all of its part leaves no room beside it: overlays keep to their corners on it.
      this.natural.forEach((e, n) => belongs(n) && this.put(e));
      return;
    }
    const found = arrangeUnits(units, rooms, {
      natural: scale,
      slot,
      keep: pinned,
      last: this.panels.length === 0,
    });
    for (const e of found.elements.values()) this.put(e);
    this.dropped.push(...found.dropped);
  }

  /** An ornament that runs into words it was clear of in the base is left out. */
  private dropCoveringOrnaments(): void {
    for (const e of this.ornaments) {
      const placed = this.elements.get(e.id)!;
      const was = this.moving.reduce((sum, m) => sum + overlapArea(coveredBounds(m), e.box), 0);
      const over = this.moving.some((m) => {
        const now = this.elements.get(m.id);
        if (!now || now.hidden) return false;
        const b = coveredBounds(now);
        return overlapArea(b, placed.box) > 0.02 * b.width * b.height;
      });
      if (over && was === 0 && !this.of.pinned.has(e.id)) this.dropped.push(e.id);
    }
  }

  /** Callouts and measures; in a slot that is small or crowded they are left out. */
  private placeClinging(anew: boolean): void {
    const { shot, group, product, slot, scale, pinned } = this.of;
    const small = Math.min(slot.width, slot.height) < 420 || !product;
    for (const e of this.clinging) {
      const placed = clingTo(e, group, product, shot.frame, slot, scale);
      const hides = [...this.elements.values()].some(
        (o) =>
          !o.hidden &&
          !o.spread &&
          overlapArea(coveredBounds(o), placed.box) > 0.1 * placed.box.width * placed.box.height,
      );
      const follows = !!elementKind(e.kind).attached && isMeasure(e);
      if (!pinned.has(e.id) && (small || (anew && hides && !follows))) this.dropped.push(e.id);
      else this.put(placed);
    }
  }
}

/** A shape behind the product that it stands before, such as an arch. */
function backs(e: ShotElement, elements: readonly ShotElement[], group: Bounds): boolean {
  if (!isShape(e) || e.form === 'line' || e.form === 'arrow' || e.form === 'icon') return false;
  const first = elements.findIndex((o) => elementKind(o.kind).role === 'subject' && !o.hidden);
  if (elements.indexOf(e) > first) return false;
  return overlapArea(e.box, group) > 0.55 * group.width * group.height;
}

/** Moved and scaled as the product is. */
function withProduct(e: ShotElement, group: Bounds, product: Bounds): ShotElement {
  const k = product.width / group.width;
  return {
    ...scaledElement(e, k),
    box: {
      ...e.box,
      x: product.x + (e.box.x - group.x) * k,
      y: product.y + (e.box.y - group.y) * k,
      width: e.box.width * k,
      height: e.box.height * k,
    },
  };
}

/** What points at the product keeps its distance from it, inside the frame. */
function clingTo(
  e: ShotElement,
  group: Bounds | null,
  product: Bounds | null,
  frame: { width: number; height: number },
  slot: SlotFrame,
  scale: number,
): ShotElement {
  if (!group || !product) return anchorOverlay(e, frame, slot, scale);
  const safe = slot.safeShare * Math.min(slot.width, slot.height);
  const k = Math.min(product.width / group.width, product.height / group.height, scale * 1.3);
  const [width, height] = [e.box.width * k, e.box.height * k];
  const kp = product.width / group.width;
  // Its middle moves with the products' middle.
  const cx = product.x + product.width / 2 + (e.box.x + e.box.width / 2 - group.x - group.width / 2) * kp;
  const cy = product.y + product.height / 2 + (e.box.y + e.box.height / 2 - group.y - group.height / 2) * kp;
  return {
    ...scaledElement(e, k),
    box: {
      ...e.box,
      x: within(cx - width / 2, safe, slot.width - safe - width),
      y: within(cy - height / 2, safe, slot.height - safe - height),
      width,
      height,
    },
  };
}

/** An overlay keeps its distance to the edge, corner or middle line it is nearest to, inside the safe margin. */
export function anchorOverlay(
  element: ShotElement,
  frame: { width: number; height: number },
  slot: SlotFrame,
  scale: number,
): ShotElement {
  const bounds = uprightBounds(element.box);
  const safe = slot.safeShare * Math.min(slot.width, slot.height);
  const k = Math.min(scale, (slot.width - 2 * safe) / bounds.width, (slot.height - 2 * safe) / bounds.height);
  const along = (start: number, size: number, frameSize: number, slotSize: number): number => {
    const middle = (start + size / 2) / frameSize;
    const far = frameSize - start - size;
    let at: number;
    if (middle < 0.36) at = start * k;
    else if (middle > 0.64) at = slotSize - (far + size) * k;
    else at = middle * slotSize - (size * k) / 2;
    return within(at, safe, slotSize - safe - size * k);
  };
  const x = along(bounds.x, bounds.width, frame.width, slot.width);
  const y = along(bounds.y, bounds.height, frame.height, slot.height);
  const scaled = scaledElement(element, k);
  const width = element.box.width * k;
  const height = element.box.height * k;
  return {
    ...scaled,
    box: {
      ...element.box,
      x: x + (bounds.width * k - width) / 2,
      y: y + (bounds.height * k - height) / 2,
      width,
      height,
    },
  };
}
