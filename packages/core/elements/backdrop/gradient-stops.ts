import { parseHex } from '../../raster/colour';
import type { GradientStop } from './gradient';

/** Fewer make no gradient; more are not taken. */
export const LEAST_STOPS = 2;
export const MOST_STOPS = 64;

const hex = (rgb: readonly number[]) =>
  `#${rgb.map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;

/** The colour of a gradient at a place 0..1, mixed in sRGB as canvases and CSS do. Stops are in their order. */
export function colourOfStops(stops: readonly GradientStop[], at: number): string {
  const after = stops.findIndex((s) => s.at >= at);
  if (after === 0) return stops[0].colour;
  if (after < 0) return stops[stops.length - 1].colour;
  const [a, b] = [stops[after - 1], stops[after]];
  const share = (at - a.at) / (b.at - a.at);
  const [from, to] = [parseHex(a.colour), parseHex(b.colour)];
  return hex(from.map((v, c) => v + (to[c] - v) * share));
}

/** The middle of the widest gap between two stops: where another is wanted most. */
export function widestGap(stops: readonly GradientStop[]): number {
  let [place, width] = [0.5, -1];
  for (let i = 1; i < stops.length; i++) {
    const gap = stops[i].at - stops[i - 1].at;
    if (gap > width) [place, width] = [(stops[i].at + stops[i - 1].at) / 2, gap];
  }
  return place;
}

/** What a change of stops gives, and which one it is about. */
export interface ChangedStops {
  stops: GradientStop[];
  index: number;
}

/** Another stop, in the colour that is there already: nothing changes until it is coloured or moved. */
export function addStop(stops: readonly GradientStop[], at: number): ChangedStops {
  if (stops.length >= MOST_STOPS) return { stops: [...stops], index: stops.length - 1 };
  const index = stops.filter((s) => s.at <= at).length;
  const made = { at, colour: colourOfStops(stops, at) };
  return { stops: [...stops.slice(0, index), made, ...stops.slice(index)], index };
}

/** A stop elsewhere, 0..1; stops stay in their order, so its number changes where it passes another. */
export function moveStop(stops: readonly GradientStop[], index: number, at: number): ChangedStops {
  const moved = { ...stops[index], at: Math.min(1, Math.max(0, at)) };
  const others = stops.filter((_, i) => i !== index);
  const before = others.filter((s, i) => s.at < moved.at || (s.at === moved.at && i < index)).length;
  return { stops: [...others.slice(0, before), moved, ...others.slice(before)], index: before };
}

/** Without one; of the last two none is taken away. */
export function removeStop(stops: readonly GradientStop[], index: number): ChangedStops {
  if (stops.length <= LEAST_STOPS) return { stops: [...stops], index };
  const rest = stops.filter((_, i) => i !== index);
  return { stops: rest, index: Math.min(index, rest.length - 1) };
}
