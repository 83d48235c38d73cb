import { elementKind } from '../../elements/index';
import { uprightBounds } from '../../vector/box';
import { boxPatch, patchFit } from '../../shot/edit';
import { overlapArea } from '../../shot/fit/bounds';
import { percent, shareOf, type Check, type Finding } from './check';
import { seenWords, type SeenWords } from './seen-words';

export const safeZone: Check<SeenWords> = {
  id: 'safe-zone',
  title: 'Safe zone',
  keptAs: 'words',
  measure: seenWords,
  judge({ words, width, height }, slot) {
    if (slot.safeShare === 0 && !slot.safeZones.length) return null;
    const safe = slot.safeShare * Math.min(slot.width, slot.height);
    const limit = `${Math.round(safe)} px clear`;
    // Rounding of places and soft edges is not held against a picture.
    const slack = Math.max(1.5, Math.min(width, height) * 0.002);
    const faults = words.flatMap((w): Finding[] => {
      const { x, y, width: bw, height: bh } = w.bounds;
      const gap = Math.min(x, y, width - x - bw, height - y - bh);
      if (gap >= safe - slack) return [];
      const off = w.outside > 0.02;
      return [
        {
          verdict: off ? 'stop' : 'look',
          measured: off ? 'cut off' : `${Math.round(gap)} px`,
          limit,
          sentence: off
            ? `"${w.name}" runs out of the picture. Bring it inside.`
            : `"${w.name}" is ${Math.round(gap)} px from the edge; the slot keeps ${Math.round(safe)} px clear for what it lays over the picture.`,
          where: shareOf(w.bounds, width, height),
          fix: { title: `Bring "${w.name}" inside` },
          about: { id: w.id, value: safe },
        },
      ];
    });
    const zones = slot.safeZones.flatMap((zone): Finding[] => {
      const z = {
        x: zone.x * width,
        y: zone.y * height,
        width: zone.width * width,
        height: zone.height * height,
      };
      return words.flatMap((w): Finding[] => {
        const share = overlapArea(w.bounds, z) / Math.max(1, w.bounds.width * w.bounds.height);
        if (share < 0.02) return [];
        return [
          {
            verdict: share > 0.25 ? 'stop' : 'look',
            measured: `${percent(share)} in it`,
            limit: `${zone.title} clear`,
            sentence: `${percent(share)} of "${w.name}" lies where the marketplace shows its ${zone.title}. Move it away.`,
            where: shareOf(w.bounds, width, height),
            about: { id: w.id },
          },
        ];
      });
    });
    const inside: Finding = {
      verdict: 'pass',
      measured: 'all inside',
      limit,
      sentence: 'All words are inside the safe zone.',
    };
    const all = [...faults, ...zones];
    return all.length ? all : inside;
  },
  fix(shot, resolved, slotKey, slot, about) {
    const element = resolved.elements.find((e) => e.id === about?.id);
    if (!element || elementKind(element.kind).moved) return shot;
    const safe = (about?.value ?? 0) + 1;
    const b = uprightBounds(element.box);
    const k = Math.min(1, (slot.width - 2 * safe) / b.width, (slot.height - 2 * safe) / b.height);
    const [w, h] = [b.width * k, b.height * k];
    const x = Math.min(slot.width - safe - w, Math.max(safe, b.x));
    const y = Math.min(slot.height - safe - h, Math.max(safe, b.y));
    const [width, height] = [element.box.width * k, element.box.height * k];
    const moved = { ...element.box, width, height, x: x + (w - width) / 2, y: y + (h - height) / 2 };
    return patchFit(shot, slotKey, slot, element.id, boxPatch(element, moved));
  },
};
