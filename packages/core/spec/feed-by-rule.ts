import { isBackdrop } from '../elements/backdrop/model';
import { elementKind } from '../elements/index';
import type { Shot } from '../shot/document';
import type { Slot } from './slot';

export interface Feeder {
  id: string;
  document: Shot;
}

/** What a shot's picture has, as a slot's rules ask for it. */
function looksOf({ document }: Feeder) {
  const shown = document.elements.filter((e) => !e.hidden);
  const ground = shown.find(isBackdrop);
  const fill = ground?.fill ?? null;
  return {
    clear: !ground || fill?.type === 'transparent',
    white: fill?.type === 'colour' && fill.colour.toLowerCase() === '#ffffff',
    scene: fill?.type === 'scene',
    overlays: shown.filter((e) => elementKind(e.kind).role === 'overlay').length,
    watermark: shown.some((e) => elementKind(e.kind).mark),
    aspect: document.frame.width / document.frame.height,
  };
}

/**
 * The shot that suits a slot best by its rules, or null where none may be used: white slots take shots on white without
 * overlays, slots that forbid overlays take shots without. Among those left, one of near the slot's shape is preferred,
 * and one that fills fewer slots already, so that a listing shows more than one view.
 */
export function shotByRule(
  slot: Slot,
  shots: readonly Feeder[],
  fed: ReadonlyMap<string, number>,
): string | null {
  const white = slot.background.kind === 'white';
  let best: { id: string; score: number } | null = null;
  for (const shot of shots) {
    const looks = looksOf(shot);
    if (white && !looks.white) continue;
    if ((white || slot.overlays === 'forbidden') && looks.overlays) continue;
    if (slot.background.kind === 'transparent' && looks.scene) continue;
    if (slot.watermark === 'forbidden' && looks.watermark) continue;
    const shape = Math.abs(Math.log(looks.aspect / (slot.width / slot.height)));
    // A slot that takes anything would rather not have the plain picture again.
    const plain = !white && slot.background.kind === 'any' && looks.white && !looks.overlays ? 3 : 0;
    const score = shape + plain + (fed.get(shot.id) ?? 0) * 0.35;
    if (!best || score < best.score) best = { id: shot.id, score };
  }
  return best?.id ?? null;
}

/** Which shot fills each of several slots, by rule; slots that none suits are left out. */
export function feedByRule(
  slots: readonly { key: string; slot: Slot }[],
  shots: readonly Feeder[],
): Map<string, string> {
  const fed = new Map<string, number>();
  const chosen = new Map<string, string>();
  for (const { key, slot } of slots) {
    const id = shotByRule(slot, shots, fed);
    if (!id) continue;
    chosen.set(key, id);
    fed.set(id, (fed.get(id) ?? 0) + 1);
  }
  return chosen;
}
