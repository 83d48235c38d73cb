import { useMemo } from 'react';
import { surveyView, type SceneSurvey } from '@scenograph/core/stage/survey';
import { bendEdge, edgeBetween, type AreaEdges, type PrintArea } from '@scenograph/core/surface/area';
import { areaMesh, areaSurface, bulgeThrough } from '@scenograph/core/surface/area-surface';
import type { Pair } from '@scenograph/core/surface/homography';
import type { MakeHandle } from './survey-handle';
import { msg } from '../../language/language';

const CORNERS = [msg('Top left'), msg('Top right'), msg('Bottom right'), msg('Bottom left')];
const SIDES: [keyof AreaEdges, string][] = [
  ['top', msg('Upper edge')],
  ['bottom', msg('Lower edge')],
  ['left', msg('Left edge')],
  ['right', msg('Right edge')],
];

/** A print area's corners and bendable edges, with its mesh in millimetres. */
export function AreaHandles({
  survey,
  chosen,
  px,
  handle,
  onChoose,
}: {
  survey: SceneSurvey;
  chosen: string | null;
  /** Picture pixels a screen pixel. */
  px: number;
  handle: MakeHandle;
  onChoose(id: string): void;
}) {
  return (
    <>
      {survey.areas.map((area) => (
        <Area
          key={area.id}
          survey={survey}
          area={area}
          chosen={area.id === chosen}
          px={px}
          handle={handle}
          onChoose={() => onChoose(area.id)}
        />
      ))}
    </>
  );
}

function Area({
  survey,
  area,
  chosen,
  px,
  handle,
  onChoose,
}: {
  survey: SceneSurvey;
  area: PrintArea;
  chosen: boolean;
  px: number;
  handle: MakeHandle;
  onChoose(): void;
}) {
  const mesh = useMemo(() => {
    try {
      const surface = areaSurface(area, surveyView(survey));
      const along = (at: (t: number) => Pair) => Array.from({ length: 25 }, (_, i) => at(i / 24));
      return {
        lines: areaMesh(surface, meshStep(area)).lines,
        curves: [along((t) => surface.at(0.5, t)), along((t) => surface.at(t, 0.5))],
        middle: surface.at(0.5, 0.5),
      };
    } catch {
      return null;
    }
  }, [area, survey]);
  const changed = (next: PrintArea): Partial<SceneSurvey> => ({
    areas: survey.areas.map((a) => (a.id === area.id ? next : a)),
  });
  const path = (points: Pair[]) => `M${points.map((p) => p.map((v) => v.toFixed(1)).join(' ')).join('L')}`;
  return (
    <g>
      {mesh &&
        ['#00000066', chosen ? '#d3f04a' : '#ffffffaa'].map((stroke, i) => (
          <path
            key={stroke}
            d={mesh.lines.map((l) => path(l.points)).join('')}
            fill="none"
            stroke={stroke}
            strokeWidth={(i ? 0.9 : 2.2) * px}
            pointerEvents="none"
          />
        ))}
      <path
        d={`${path(area.corners)}Z`}
        fill={mesh ? '#ffffff00' : '#d9573c33'}
        stroke={mesh ? 'none' : '#d9573c'}
        strokeWidth={2 * px}
        className="cursor-pointer"
        onPointerDown={onChoose}
      />
      {chosen && area.shape === 'bulge' && mesh && <MiddleCurves {...{ mesh, px }} />}
      {chosen &&
        area.shape === 'bulge' &&
        mesh &&
        handle(
          msg('Middle of {area}', { area: area.title }),
          mesh.middle,
          (to) => {
            const bulgeMm = bulgeThrough(area, surveyView(survey), to);
            return bulgeMm === null ? {} : changed({ ...area, bulgeMm: Math.round(bulgeMm * 10) / 10 });
          },
          { colour: '#d3f04a' },
        )}
      {chosen &&
        area.corners.map((c, i) =>
          handle(
            msg('{corner} of {area}', { corner: CORNERS[i], area: area.title }),
            c,
            (to) => changed(moveCorner(area, i, to)),
            { snaps: true },
          ),
        )}
      {chosen &&
        area.edges &&
        SIDES.map(([side, name]) => {
          const edge = area.edges![side];
          if (!edge) return null;
          return handle(
            msg('{name} of {area}', { name, area: area.title }),
            edge[4],
            (to) => changed({ ...area, edges: { ...area.edges!, [side]: bendEdge(edge, to) } }),
            { colour: '#d3f04a' },
          );
        })}
    </g>
  );
}

/** The two curves that cross in the middle of what bulges; they are dragged where they cross. */
function MiddleCurves({ mesh, px }: { mesh: { curves: Pair[][] }; px: number }) {
  return mesh.curves.map((points, i) => (
    <path
      key={i}
      d={`M${points.map((p) => p.map((v) => v.toFixed(1)).join(' ')).join('L')}`}
      fill="none"
      stroke="#d3f04a"
      strokeWidth={2.5 * px}
      pointerEvents="none"
    />
  ));
}

/** Lines a mesh may have before it hides what lies under it. */
function meshStep({ widthMm }: PrintArea): number {
  return [5, 10, 20, 50, 100, 200, 500].find((step) => widthMm / step <= 14) ?? 1000;
}

/** The area with a corner moved; its edges keep their bend. */
function moveCorner(area: PrintArea, index: number, to: Pair): PrintArea {
  const corners = area.corners.map((c, i) => (i === index ? to : c));
  if (!area.edges) return { ...area, corners };
  const { top, bottom, left, right } = area.edges;
  const [tl, tr, br, bl] = corners;
  return {
    ...area,
    corners,
    edges: {
      top: edgeBetween(tl, tr, top),
      bottom: edgeBetween(bl, br, bottom),
      left: left && edgeBetween(tl, bl, left),
      right: right && edgeBetween(tr, br, right),
    },
  };
}

/** The area in another shape: curved ones get edges to bend, flat ones lose theirs. */
export function reshaped(area: PrintArea, shape: PrintArea['shape']): PrintArea {
  if (shape === 'flat') return { ...area, shape, edges: null, wrapDeg: null };
  const [tl, tr, br, bl] = area.corners;
  const round = shape !== 'bulge';
  const sag = Math.hypot(tr[0] - tl[0], tr[1] - tl[1]) * 0.06;
  const curve = (from: Pair, to: Pair) => {
    const straight = edgeBetween(from, to);
    return round ? bendEdge(straight, [straight[4][0], straight[4][1] + sag]) : straight;
  };
  const edges = area.edges ?? { top: curve(tl, tr), bottom: curve(bl, br), left: null, right: null };
  return {
    ...area,
    shape,
    edges: {
      ...edges,
      left: round ? null : (edges.left ?? edgeBetween(tl, bl)),
      right: round ? null : (edges.right ?? edgeBetween(tr, br)),
    },
    wrapDeg: round ? (area.wrapDeg ?? 100) : null,
  };
}
