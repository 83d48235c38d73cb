import type { Guide } from '../stage/snap';
import { MOST_GUIDES, type Shot, type ShotGuide } from './document';

interface Frame {
  width: number;
  height: number;
}

const sideOf = ({ width, height }: Frame, axis: 'x' | 'y') => (axis === 'x' ? width : height);

/** The shot's guides as lines of another frame: each keeps its share of the picture. */
export function guidesIn(shot: Shot, frame: Frame): Guide[] {
  return (shot.guides ?? []).map(({ axis, at }) => ({
    axis,
    at: (at * sideOf(frame, axis)) / sideOf(shot.frame, axis),
    label: 'guide',
  }));
}

/** The shot with one more guide, in pixels of its frame; one that lies where another does is not added. */
export function addGuide(shot: Shot, guide: ShotGuide): Shot {
  const guides = shot.guides ?? [];
  const at = Math.min(sideOf(shot.frame, guide.axis), Math.max(0, guide.at));
  if (guides.length >= MOST_GUIDES || guides.some((g) => g.axis === guide.axis && g.at === at)) return shot;
  return { ...shot, guides: [...guides, { axis: guide.axis, at }] };
}

/** The shot with its guide `index` elsewhere; off the picture (null, or beyond its edges) it is removed. */
export function moveGuide(shot: Shot, index: number, at: number | null): Shot {
  const guides = shot.guides ?? [];
  const guide = guides[index];
  if (!guide) return shot;
  const gone = at === null || at < 0 || at > sideOf(shot.frame, guide.axis);
  const next = guides.flatMap((g, i) => (i !== index ? [g] : gone ? [] : [{ ...g, at }]));
  const { guides: _, ...rest } = shot;
  return next.length ? { ...rest, guides: next } : rest;
}

/** A mark of a ruler: a long one has its number beside it. */
export interface Tick {
  at: number;
  long: boolean;
}

/** Screen pixels between two numbers of a ruler, at least. */
const APART = 56;

/**
 * Marks of a ruler between two places: numbers are 1, 2 or 5 times a power of ten apart, five marks from one to the next.
 * @param zoom screen pixels per unit
 */
export function rulerTicks(from: number, to: number, zoom: number): Tick[] {
  const wanted = APART / zoom;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = [1, 2, 5, 10].map((k) => k * power).find((s) => s >= wanted)!;
  const ticks: Tick[] = [];
  const short = step / 5;
  for (let k = Math.ceil(from / short); k * short <= to; k++)
    ticks.push({ at: k * short, long: k % 5 === 0 });
  return ticks;
}
