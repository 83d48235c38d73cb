import { elementKind, type ShotElement } from '../../elements/index';
import { contrastRatio, parseHex, relativeLuminance } from '../../raster/colour';
import { patchFit } from '../../shot/edit';
import { shareOf, type Check, type Finding } from './check';
import { seenWords, type SeenWords } from './seen-words';

/** Least contrast of letters and of signs (WCAG 2.2, 1.4.3 and 1.4.11). */
const LETTERS = 4.5;
const SIGNS = 3;

export const legibility: Check<SeenWords> = {
  id: 'legibility',
  title: 'Contrast of words',
  keptAs: 'words',
  measure: seenWords,
  judge({ words, width, height }) {
    const needed = (w: { sign: boolean }) => (w.sign ? SIGNS : LETTERS);
    const faults = words
      .filter((w) => w.contrast < needed(w) - 0.05)
      .map((w): Finding => ({
        verdict: w.contrast < needed(w) * 0.6 ? 'stop' : 'look',
        measured: `${w.contrast.toFixed(1)} : 1`,
        limit: `at least ${needed(w)} : 1`,
        sentence: `"${w.name}" stands out by ${w.contrast.toFixed(1)} to 1 from what lies behind it; ${needed(w)} to 1 is needed to read it. Change its colour, put a panel behind it, or move it.`,
        where: shareOf(w.weakest, width, height),
        fix: { title: `Make "${w.name}" stand out` },
        about: { id: w.id, value: w.ground },
      }));
    const least = words.reduce((a, b) => (b.contrast / needed(b) < a.contrast / needed(a) ? b : a));
    const enough: Finding = {
      verdict: 'pass',
      measured: `${least.contrast.toFixed(1)} : 1`,
      limit: `at least ${needed(least)} : 1`,
      sentence: 'All words stand out from what lies behind them.',
    };
    return faults.length ? faults : enough;
  },
  fix(shot, resolved, slotKey, slot, about) {
    const element = resolved.elements.find((e) => e.id === about?.id);
    if (!element) return shot;
    return patchFit(shot, slotKey, slot, element.id, standingOut(element, about?.value ?? 1));
  },
};

const luminanceOf = (hex: string) => relativeLuminance(...parseHex(hex));

/** Ink for its ground, with a panel for kinds whose letters lie on ground that is light here and dark there. */
function standingOut(e: ShotElement, ground: number): Partial<ShotElement> {
  const [dark, light] = ['#171b19', '#ffffff'];
  const darker = contrastRatio(luminanceOf(dark), ground) >= contrastRatio(luminanceOf(light), ground);
  const to = { ink: darker ? dark : light, panel: darker ? '#f7f7f6' : dark, dark, light };
  const own = elementKind(e.kind).standingOut?.(e, to);
  if (own) return own as Partial<ShotElement>;
  const { ink: _, ...brand } = e.brand;
  return { ink: to.ink, brand, opacity: 1 };
}
