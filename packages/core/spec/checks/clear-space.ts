import { uprightBounds } from '../../vector/box';
import { elementKind } from '../../elements/index';
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

export const clearSpace: Check<Intruder[]> = {
  id: 'clear-space',
  title: 'Space around the logo',
  measure({ shot, width, height }) {
    const logos = shot?.elements.filter((e) => e.kind === 'logo' && !e.hidden && e.clear > 0) ?? [];
    if (!shot || !logos.length) return null;
    return logos.flatMap((logo): Intruder[] => {
      if (logo.kind !== 'logo') return [];
      const own = uprightBounds(logo.box);
      const by = own.height * logo.clear;
      const clear = { x: own.x - by, y: own.y - by, width: own.width + 2 * by, height: own.height + 2 * by };
      return shot.elements.flatMap((e): Intruder[] => {
        const { role } = elementKind(e.kind);
        const shape =
          e.kind === 'shape' && (e.form === 'panel' || e.form === 'frame' || e.form === 'decoration');
        if (e.id === logo.id || e.hidden || e.spread || role === 'ground' || shape) return [];
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
