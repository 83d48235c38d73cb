import type { Mode, Point, Step } from '@scenograph/core/cutout/recipe';
import type { Gesture } from './desk-traces';
import { isBrush, type ToolOptions } from './tools';
import { msg } from '../../language/language';

/** The step that a finished gesture makes by itself; null for tools that want more (paths, repairs, tidying). */
export function stepOf(
  gesture: Gesture,
  options: ToolOptions,
  mode: Mode,
): { label: string; step: Step } | null {
  const { points, tool } = gesture;
  const [start] = points;
  const end = points[points.length - 1];
  const base = { id: crypto.randomUUID(), name: '', on: true };
  const { softness } = options;
  const radius = isBrush(tool) ? options.radii[tool] : 1;
  const line = thinned(points, Math.max(0.5, radius * 0.12));
  switch (tool) {
    case 'keep':
    case 'drop':
      return {
        label: tool === 'keep' ? msg('Keep stroke') : msg('Drop stroke'),
        step: { ...base, kind: 'stroke', side: tool, points: line, radius },
      };
    case 'paint-keep':
    case 'paint-drop': {
      const side = tool === 'paint-keep' ? 'keep' : 'drop';
      return {
        label: side === 'keep' ? msg('Painted in') : msg('Painted out'),
        step: { ...base, kind: 'paint', side, points: line, radius, softness },
      };
    }
    case 'fibre':
      return { label: msg('Fibre zone'), step: { ...base, kind: 'fibre', points: line, radius } };
    case 'colour': {
      const { tolerance, reach } = options;
      return {
        label: msg('By colour'),
        step: { ...base, kind: 'colour', mode, seeds: [start], tolerance, reach },
      };
    }
    case 'shape': {
      const { shape, snap } = options;
      const tiny =
        shape === 'freehand' ? points.length < 3 : Math.hypot(end[0] - start[0], end[1] - start[1]) < 2;
      if (shape === 'polygon' || tiny) return null;
      return {
        label: shape[0].toUpperCase() + shape.slice(1),
        step: {
          ...base,
          kind: 'shape',
          mode,
          shape,
          points: shape === 'freehand' ? thinned(points, 1.5) : [start, end],
          snap,
        },
      };
    }
    default:
      return null;
  }
}

/** Leaves out points that lie nearer than `least` to the one before. */
export function thinned(points: Point[], least: number): Point[] {
  const out: Point[] = [];
  for (const p of points) {
    const last = out[out.length - 1];
    if (!last || Math.hypot(p[0] - last[0], p[1] - last[1]) >= least) out.push(round(p));
  }
  return out;
}

const round = ([x, y]: Point): Point => [Math.round(x * 10) / 10, Math.round(y * 10) / 10];
