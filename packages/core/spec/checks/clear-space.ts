import { uprightBounds } from '../../elements/element';
import { elementKind } from '../../elements/index';
import { overlapArea } from '../../shot/fit/bounds';
import { percent, shareOf, type Check, type Finding } from './check';

/** Others may reach into a logo's clear space by so much of it. */
const MOST = 0.02;

export const clearSpace: Check = {
  id: 'clear-space',
  title: 'Space around the logo',
  measure({ shot, width, height }) {
    const logos = shot?.elements.filter((e) => e.kind === 'logo' && !e.hidden && e.clear > 0) ?? [];
    if (!shot || !logos.length) return null;
    const faults = logos.flatMap((logo): Finding[] => {
      if (logo.kind !== 'logo') return [];
      const own = uprightBounds(logo.box);
      const by = own.height * logo.clear;
      const clear = { x: own.x - by, y: own.y - by, width: own.width + 2 * by, height: own.height + 2 * by };
      return shot.elements.flatMap((e): Finding[] => {
        const { role } = elementKind(e.kind);
        const shape =
          e.kind === 'shape' && (e.form === 'panel' || e.form === 'frame' || e.form === 'decoration');
        if (e.id === logo.id || e.hidden || e.spread || role === 'ground' || shape) return [];
        const b = uprightBounds(e.box);
        const share = overlapArea(b, clear) / (clear.width * clear.height);
        if (share <= MOST) return [];
        return [
          {
            verdict: overlapArea(b, own) > 0.02 * own.width * own.height ? 'stop' : 'look',
            measured: `${percent(share)} taken`,
            limit: `${Math.round(by)} px clear`,
            sentence: `"${e.name}" reaches into the space that "${logo.name}" keeps clear (${Math.round(by)} px). Move one of them.`,
            where: shareOf(clear, width, height),
            about: { id: logo.id },
          },
        ];
      });
    });
    const free: Finding = {
      verdict: 'pass',
      measured: 'clear',
      limit: 'nothing in it',
      sentence: 'The space around the logo is clear.',
    };
    return faults.length ? faults : free;
  },
};
