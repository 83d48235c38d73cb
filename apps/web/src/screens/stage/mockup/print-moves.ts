import type { Print } from '@scenograph/core/surface/print';
import type { Pair } from '@scenograph/core/surface/homography';

/** A drag on an area, in its millimetres: the design as it was, where the pointer began, where it is now. */
export interface PrintDrag {
  from: Print;
  began: Pair;
  now: Pair;
}

/** A design's middle snaps to the area's within this share of the area's width. */
const SNAP_SHARE = 0.015;
/** One press of + makes a design so many times as large. */
const KEY_SCALE = 1.05;

const round = (v: number) => Math.round(v * 100) / 100;

/** Pins move together; a place snaps to the middle of its area. */
export function movedPrint({ from, began, now }: PrintDrag, area: { widthMm: number; heightMm: number }) {
  const [dx, dy] = [now[0] - began[0], now[1] - began[1]];
  if (from.pins) return { pins: from.pins.map(([x, y]): Pair => [round(x + dx), round(y + dy)]) };
  const snap = (value: number, middle: number) =>
    Math.abs(value - middle) < SNAP_SHARE * area.widthMm ? middle : value;
  return {
    place: {
      ...from.place,
      x: round(snap(from.place.x + dx, area.widthMm / 2)),
      y: round(snap(from.place.y + dy, area.heightMm / 2)),
    },
  };
}

/** In proportion by the distance from the design's middle; `free` scales both sides by themselves, along its own axes. */
export function scaledPrint({ from, began, now }: PrintDrag, free: boolean) {
  const { x, y, turn, width, height } = from.place;
  const sized = (w: number, h: number) => ({ place: { ...from.place, width: round(w), height: round(h) } });
  if (!free) {
    const far = ([px, py]: Pair) => Math.hypot(px - x, py - y);
    const factor = Math.max(0.02, far(now) / Math.max(0.5, far(began)));
    return sized(width * factor, height * factor);
  }
  const a = (-turn * Math.PI) / 180;
  const own = ([px, py]: Pair) => [
    Math.abs((px - x) * Math.cos(a) - (py - y) * Math.sin(a)),
    Math.abs((px - x) * Math.sin(a) + (py - y) * Math.cos(a)),
  ];
  const [w0, h0] = own(began);
  const [w1, h1] = own(now);
  return sized(Math.max(1, (width * w1) / Math.max(1, w0)), Math.max(1, (height * h1) / Math.max(1, h0)));
}

/** Turned about its middle; `steps` of 15 degrees where asked, else caught within 2 degrees of a quarter turn. */
export function turnedPrint({ from, began, now }: PrintDrag, steps: boolean) {
  const { x, y, turn } = from.place;
  const angle = ([px, py]: Pair) => Math.atan2(py - y, px - x);
  const by = ((angle(now) - angle(began)) * 180) / Math.PI;
  const to = ((((turn + by + 180) % 360) + 360) % 360) - 180;
  const step = steps ? 15 : 90;
  const near = Math.round(to / step) * step;
  return { place: { ...from.place, turn: round(steps || Math.abs(to - near) < 2 ? near : to) } };
}

/** One pinned corner moved to the pointer. */
export function pinnedPrint({ from, now }: PrintDrag, corner: number) {
  return { pins: from.pins!.map((p, i): Pair => (i === corner ? [round(now[0]), round(now[1])] : p)) };
}

/** What a key does to a design: arrows move it by a millimetre, with Shift by ten; + and - scale it, [ and ] turn it by a degree. */
export function keyedPrint(print: Print, key: string, far: boolean): Partial<Print> | null {
  const step = far ? 10 : 1;
  const arrows: Record<string, Pair> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, -step],
    ArrowDown: [0, step],
  };
  const by = arrows[key];
  const { place, pins } = print;
  if (by && pins) return { pins: pins.map(([x, y]): Pair => [round(x + by[0]), round(y + by[1])]) };
  if (by) return { place: { ...place, x: round(place.x + by[0]), y: round(place.y + by[1]) } };
  if (pins) return null;
  const times = { '+': KEY_SCALE, '=': KEY_SCALE, '-': 1 / KEY_SCALE }[key];
  if (times)
    return {
      place: { ...place, width: round(place.width * times), height: round(place.height * times) },
    };
  const turn = { '[': -step, ']': step }[key];
  if (!turn) return null;
  return { place: { ...place, turn: round(((((place.turn + turn + 180) % 360) + 360) % 360) - 180) } };
}
