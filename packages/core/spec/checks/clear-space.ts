import { uprightBounds } from '../../vector/box';
import { elementKind, type ShotElement } from '../../elements/index';
import type { Rect } from '../../raster/pixels';
import { overlapArea } from '../../shot/fit/bounds';
import { percent, round, shareOf, type Check, type Finding } from './check';

/** Others may reach into a logo's clear space by so much of it. */
const MOST = 0.02;

interface Intruder {
  /** The logo, and who reaches into its space. */
  logo: { id: string; name: string };
  name: string;
  /** Share of the clear space that is taken, and whether the logo itself is touched. */
  share: number;
  touches: boolean;
  by: number;
  where: Rect;
}

const clearOf = (e: ShotElement) => elementKind(e.kind).keepsClear?.(e) ?? 0;

export const clearSpace: Check<Intruder[]> = {
  id: 'clear-space',
  title: 'Space around the logo',
  measure({ shot, width, height }) {
    const logos = shot?.elements.filter((e) => !e.hidden && clearOf(e) > 0) ?? [];
    if (!shot || !logos.length) return null;
    return logos.flatMap((logo): Intruder[] => {
      const own = uprightBounds(logo.box);
      const by = clearOf(logo);
      const clear = { x: own.x - by, y: own.y - by, width: own.width + 2 * by, height: own.height + 2 * by };
      return shot.elements.flatMap((e): Intruder[] => {
        const kind = elementKind(e.kind);
        if (e.id === logo.id || e.hidden || e.spread || kind.role === 'ground' || kind.backs?.(e)) return [];
        const b = uprightBounds(e.box);
        const share = overlapArea(b, clear) / (clear.width * clear.height);
        if (share <= MOST) return [];
        return [
          {
            logo: { id: logo.id, name: logo.name },
            name: e.name,
            share: round(share),
            touches: overlapArea(b, own) > 0.02 * own.width * own.height,
            by: Math.round(by),
            where: shareOf(clear, width, height),
          },
        ];
      });
    });
  },
  judge(intruders) {
    const faults = intruders.map((i): Finding => ({
      verdict: i.touches ? 'stop' : 'look',
      measured: `${percent(i.share)} taken`,
      limit: `${i.by} px clear`,
      sentence: `"${i.name}" reaches into the space that "${i.logo.name}" keeps clear (${i.by} px). Move one of them.`,
      where: i.where,
      about: { id: i.logo.id },
    }));
    const free: Finding = {
      verdict: 'pass',
      measured: 'clear',
      limit: 'nothing in it',
      sentence: 'The space around the logo is clear.',
    };
    return faults.length ? faults : free;
  },
};
