import { useEffect, useMemo, useRef } from 'react';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { levelOfScale, onPlane, scaleAt, type Camera } from '@scenograph/core/stage/camera';
import { perspectiveGrid } from '@scenograph/core/stage/grid';
import { reducedUrl, type Scene } from '../../api/client';
import { useSize } from '../../ui/use-size';
import { AreaHandles } from './area-handles';
import { DepthMarks } from './depth-marks';
import { MendLayer } from './mend-layer';
import { KnownRectangle } from './known-rectangle';
import { OutlineHandles } from './outline-handles';
import { ShadowMarks } from './shadow-marks';
import type { ChosenOutline } from './shadows-section';
import { handlesFor, type MakeHandle } from './survey-handle';
import { useCornerSnap } from './use-corner-snap';
import type { useMending } from './use-mending';
import { msg } from '../../language/language';

/** A corner of the picture draws handles to it within so many screen pixels. */
const SNAP = 9;

const whole = (v: number) => Math.round(v * 10) / 10;

/** The picture with everything surveyed drawn over it, to be dragged. */
export function SurveyPicture({
  scene,
  survey,
  camera,
  placing,
  onPlace,
  during,
  commit,
  open,
  area,
  onArea,
  outline,
  onOutline,
  mending,
}: {
  scene: Scene;
  survey: SceneSurvey;
  camera: Camera | null;
  placing: boolean;
  onPlace(x: number, y: number): void;
  during(value: Partial<SceneSurvey>): void;
  commit(value: Partial<SceneSurvey>): void;
  /** Sections that are open: only what belongs to them can be dragged. */
  open: string[];
  area: string | null;
  onArea(id: string | null): void;
  outline: ChosenOutline | null;
  onOutline(outline: ChosenOutline | null): void;
  mending: ReturnType<typeof useMending>;
}) {
  const picture = reducedUrl(survey.mended ?? scene.picture, 2048);
  const room = useSize<HTMLElement>({ width: 900, height: 700 });
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => svg.current?.focus(), []);
  const k = Math.min((room.width - 48) / survey.width, (room.height - 48) / survey.height);
  const px = 1 / k;
  const at = (e: React.PointerEvent): [number, number] => {
    const r = svg.current!.getBoundingClientRect();
    return [whole((e.clientX - r.left) / k), whole((e.clientY - r.top) / k)];
  };
  const snap = useCornerSnap(picture, survey.width, SNAP * px);
  const handle = handlesFor({ px, at, snap, during, commit });
  const plane = open.includes('plane');
  const spots = plane || open.includes('spots');
  return (
    <main
      ref={room.ref}
      className="relative flex min-w-0 grow items-center justify-center overflow-hidden"
      style={{ background: 'var(--stage)' }}
    >
      <div className="relative" style={{ width: survey.width * k, height: survey.height * k }}>
        <img src={picture} alt={scene.title} className="absolute inset-0 h-full w-full" draggable={false} />
        <svg
          ref={svg}
          data-testid="survey"
          viewBox={`0 0 ${survey.width} ${survey.height}`}
          className={`absolute inset-0 h-full w-full touch-none overflow-visible ${placing ? 'cursor-crosshair' : ''}`}
          onPointerDown={(e) => placing && onPlace(...at(e))}
        >
          {camera && spots && <Grid {...{ camera, survey, px }} />}
          {plane && <PlaneHandles {...{ survey, px, handle }} />}
          {plane && survey.edge && (
            <OutlineHandles
              outline={survey.edge}
              what={msg('the edge')}
              change={(edge) => ({ edge })}
              {...{ px, handle, commit }}
            />
          )}
          {open.includes('shadows') && (
            <ShadowMarks {...{ survey, px, handle, commit }} chosen={outline} onChoose={onOutline} />
          )}
          {open.includes('areas') && (
            <AreaHandles {...{ survey, px, handle }} chosen={area} onChoose={onArea} />
          )}
          {open.includes('areas') && <KnownRectangle {...{ px, at, snap }} />}
          {open.includes('depth') && <DepthMarks {...{ survey, px, handle }} />}
          {spots && <SpotHandles {...{ survey, camera, px, handle }} />}
          {open.includes('mend') && mending.tool && <MendLayer {...{ survey, px, at, mending }} />}
        </svg>
      </div>
    </main>
  );
}

interface Drawn {
  survey: SceneSurvey;
  /** Picture pixels a screen pixel. */
  px: number;
}

/** The plane's grid in perspective, and posts of a known height on it. */
function Grid({ camera, survey, px }: Drawn & { camera: Camera }) {
  const grid = useMemo(() => perspectiveGrid(camera, survey.width, survey.height), [camera, survey]);
  return (
    <g fill="none">
      {['#00000055', '#ffffffcc'].map((stroke, i) => (
        <path
          key={stroke}
          stroke={stroke}
          strokeWidth={(i ? 0.8 : 2) * px}
          d={grid.lines.map((l) => `M${l.x1} ${l.y1}L${l.x2} ${l.y2}`).join('')}
        />
      ))}
      {grid.posts.map((p, i) => (
        <g key={i}>
          <path d={`M${p.x} ${p.y}L${p.topX} ${p.topY}`} stroke="#000000aa" strokeWidth={4 * px} />
          <path d={`M${p.x} ${p.y}L${p.topX} ${p.topY}`} stroke="#d3f04a" strokeWidth={2 * px} />
          <text
            className="measure"
            x={p.topX + 5 * px}
            y={p.topY + 4 * px}
            style={{ fontSize: 11 * px }}
            fill="#fff"
            stroke="#000000aa"
            strokeWidth={3 * px}
            paintOrder="stroke"
          >
            {msg('{mm} mm', { mm: p.mm })}
          </text>
        </g>
      ))}
    </g>
  );
}

const CORNERS = [msg('Back left'), msg('Back right'), msg('Front right'), msg('Front left')];

/** A plane by its corners; without one, the horizon and a known height. */
function PlaneHandles({ survey, px, handle }: Drawn & { handle: MakeHandle }) {
  const { plane, known, horizonY } = survey;
  if (plane)
    return (
      <>
        <path
          d={`M${plane.corners.map((c) => c.join(' ')).join('L')}Z`}
          fill="#d3f04a22"
          stroke="#12463a"
          strokeWidth={2 * px}
        />
        {plane.corners.map((c, i) =>
          handle(
            CORNERS[i],
            c,
            (to) => ({ plane: { ...plane, corners: plane.corners.map((p, j) => (j === i ? to : p)) } }),
            { snaps: true },
          ),
        )}
      </>
    );
  return (
    <>
      {horizonY !== null && (
        <>
          <path
            d={`M0 ${horizonY}H${survey.width}`}
            stroke="#d3f04a"
            strokeWidth={1.5 * px}
            strokeDasharray={`${8 * px} ${6 * px}`}
          />
          {handle(msg('Horizon'), [survey.width * 0.06, horizonY], ([, y]) => ({ horizonY: y }), {
            colour: '#d3f04a',
          })}
        </>
      )}
      {known && (
        <>
          <path d={`M${known.base.join(' ')}L${known.top.join(' ')}`} stroke="#ffffff" strokeWidth={2 * px} />
          {handle(msg('Foot of the known height'), known.base, (base) => ({ known: { ...known, base } }), {
            snaps: true,
          })}
          {handle(msg('Top of the known height'), known.top, (top) => ({ known: { ...known, top } }), {
            snaps: true,
          })}
        </>
      )}
    </>
  );
}

/** Where products may stand; a spot that is moved keeps its level, so its scale follows the camera. */
function SpotHandles({ survey, camera, px, handle }: Drawn & { camera: Camera | null; handle: MakeHandle }) {
  const moved = (index: number, [x, y]: [number, number]) =>
    survey.spots.map((spot, i) => {
      if (i !== index) return spot;
      const level = camera ? levelOfScale(camera, spot, spot.pxPerMm) : 0;
      const there = camera && onPlane(camera, { x, y }, level);
      return { ...spot, x, y, pxPerMm: camera && there ? scaleAt(camera, there).up : spot.pxPerMm };
    });
  return survey.spots.map((s, i) => (
    <g key={s.id}>
      <ellipse
        cx={s.x}
        cy={s.y}
        rx={26 * px}
        ry={9 * px}
        fill="none"
        stroke="#ffffff"
        strokeWidth={2 * px}
        pointerEvents="none"
      />
      {handle(msg('Spot {id}', { id: s.id }), [s.x, s.y], (to) => ({ spots: moved(i, to) }), {
        colour: '#12463a',
      })}
    </g>
  ));
}
