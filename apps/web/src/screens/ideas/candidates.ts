import { NEW_SET } from '@scenograph/core/stage/set';
import type { Shot } from '@scenograph/core/shot/document';
import { emptyShot } from '@scenograph/core/shot/document';
import { newBackdrop, newProduct, sceneShot } from '@scenograph/core/shot/starters';
import { fillTemplate, openPlaces } from '@scenograph/core/templates/fill';
import type { Purpose, Season } from '@scenograph/core/templates/template';
import type { ListedTemplate } from '../../api/client';
import type { Scene, Variant } from '../../api/client';
import { msg } from '../../language/language';

/** A finished picture that could be made of a product. */
export interface Candidate {
  id: string;
  title: string;
  kind: 'scene' | 'backdrop' | 'template';
  purpose: Purpose | null;
  season: Season | null;
  shot: Shot;
}

const SEASON_NAMES: readonly string[] = ['spring', 'summer', 'autumn', 'winter'];

/**
 * Candidates for a product: through the scenes, before backdrops in its own palette, and in templates, in the brand's
 * colours and in the product's. Kinds take turns, so that the first in view differ.
 */
export function candidatesFor(
  variant: Variant,
  others: Variant[],
  scenes: readonly Scene[],
  templates: readonly ListedTemplate[],
  palette: readonly string[],
): Candidate[] {
  const { data, pose } = variant;
  const inScenes = scenes
    .filter((s) => !s.survey.areas.length)
    .map((s): Candidate => ({
      id: `scene-${s.id}`,
      title: s.title,
      kind: 'scene',
      purpose: null,
      season: SEASON_NAMES.includes(s.season ?? '') ? (s.season as Season) : null,
      shot: sceneShot(data, pose, s),
    }));
  const backdrops = backdropShots(variant, palette);
  const own: Candidate[] = [];
  const filled = templates.flatMap((t): Candidate[] => {
    const shot = fillTemplate(
      t.document,
      data,
      pose,
      others.map((o) => o.data),
    );
    const one = { title: t.title, kind: 'template' as const, purpose: t.purpose, season: t.season };
    // What needs pictures of its own is no finished picture yet.
    if (openPlaces(shot).length) return [];
    if (palette.length > 2)
      own.push({
        ...one,
        id: `template-${t.id}-own`,
        title: msg('{t}, in the product’s colours', { t: t.title }),
        shot: inPalette(shot, palette),
      });
    return [{ ...one, id: `template-${t.id}`, shot }];
  });
  return inTurns([filled, inScenes, backdrops, own]);
}

function inTurns<T>(lists: T[][]): T[] {
  const out: T[] = [];
  const longest = Math.max(0, ...lists.map((l) => l.length));
  // Each begins at once; a longer list gives more in each turn, so that all end together.
  const counts = lists.map((l) => l.length / Math.max(1, longest));
  for (let i = 0; i < longest; i++)
    lists.forEach((l, n) => {
      const [from, to] = [Math.ceil(i * counts[n]), Math.ceil((i + 1) * counts[n])];
      out.push(...l.slice(from, to));
    });
  return out;
}

const channels = (hex: string) => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
const hexOf = (rgb: number[]) =>
  `#${rgb
    .map((v) =>
      Math.round(Math.min(255, Math.max(0, v)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
const mixed = (a: string, b: string, share: number) => {
  const [p, q] = [channels(a), channels(b)];
  return hexOf(p.map((v, i) => v + (q[i] - v) * share));
};
const luma = (hex: string) => {
  const [r, g, b] = channels(hex);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const vivid = (hex: string) => {
  const rgb = channels(hex);
  return Math.max(...rgb) - Math.min(...rgb);
};

/** The palette's colours by how vivid they are, those that make up more of the product before others. */
const byStrength = (palette: readonly string[]) =>
  palette
    .map((colour, i) => ({ colour, weight: vivid(colour) / (1 + 0.8 * i) }))
    .sort((a, b) => b.weight - a.weight)
    .map((p) => p.colour);

/** The product before plain, lit and built backdrops in tints and shades of its own colours. */
function backdropShots({ data, pose }: Variant, palette: readonly string[]): Candidate[] {
  const strong = byStrength(palette).slice(0, 2);
  const tints = strong.flatMap((c) => [
    mixed(c, '#ffffff', 0.78),
    mixed(c, '#ffffff', 0.55),
    mixed(c, '#14181a', 0.55),
  ]);
  const frame = { width: 1600, height: 1600 };
  const made: Candidate[] = [];
  const add = (title: string, shot: Shot) =>
    made.push({ id: `backdrop-${made.length}`, title, kind: 'backdrop', purpose: null, season: null, shot });
  for (const colour of tints) {
    const ground = {
      ...newBackdrop('backdrop', frame, colour),
      fill: {
        type: 'gradient' as const,
        form: 'radial' as const,
        from: { x: 0.5, y: 0.46 },
        to: { x: 1.3, y: 0.46 },
        stops: [
          { at: 0, colour: mixed(colour, '#ffffff', 0.35) },
          { at: 1, colour: mixed(colour, '#000000', 0.1) },
        ],
      },
    };
    add(msg('Glow in its own colours'), {
      ...emptyShot(1600, 1600),
      elements: [ground, newProduct('product', data, frame, pose)],
    });
  }
  (['paper', 'linen', 'plaster', 'wood'] as const).forEach((material, i) => {
    const wall = tints[i % tints.length] ?? '#d8cfc2';
    const ground = {
      ...newBackdrop('backdrop', frame, wall),
      name: msg('Studio set'),
      fill: {
        ...NEW_SET,
        material,
        colour: material === 'wood' ? '#a5825c' : mixed(wall, '#ffffff', 0.3),
        wall,
        tableLine: i % 2 ? 0.56 : null,
        seed: 7 + i,
      },
    };
    add(msg('Studio set of {material}', { material }), {
      ...emptyShot(1600, 1600),
      elements: [ground, newProduct('product', data, frame, pose, [ground])],
    });
  });
  return made;
}

/** A template in tints and shades of the product instead of the brand's colours. */
function inPalette(shot: Shot, palette: readonly string[]): Shot {
  const [strong, second = strong] = byStrength(palette);
  const dark = luma(strong) > 90 ? mixed(strong, '#0f1413', 0.62) : mixed(strong, '#0f1413', 0.3);
  const colours: Record<string, string> = {
    ink: mixed(strong, '#14181a', 0.82),
    paper: mixed(strong, '#ffffff', 0.9),
    main: dark,
    accent: luma(second) > 120 ? mixed(second, '#14181a', 0.4) : second,
    quiet: mixed(strong, '#ffffff', 0.58),
  };
  const recolour = <E extends Shot['elements'][number]>(e: E): E =>
    Object.entries(e.brand).reduce<E>((at, [path, entry]) => {
      const colour = colours[entry];
      if (!colour || /font|text|logo|effects/i.test(path)) return at;
      const { [path]: _, ...brand } = at.brand;
      const [first, key] = path.split('.');
      const whole = at as unknown as Record<string, unknown>;
      const value = key ? (whole[first] ? { ...whole[first], [key]: colour } : whole[first]) : colour;
      return { ...at, [first]: value, brand };
    }, e);
  return { ...shot, elements: shot.elements.map(recolour) };
}
