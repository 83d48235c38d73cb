import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { levelOfScale, onPlane, scaleAt, type Camera } from '@scenograph/core/stage/camera';
import { perspectiveGrid } from '@scenograph/core/stage/grid';
import { reducedUrl, type Scene } from '../../api/client';
import { AreaHandles } from './area-handles';
import { MendLayer } from './mend-layer';
import type { useMending } from './use-mending';

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
  mending: ReturnType<typeof useMending>;
}) {
  const room = useRef<HTMLElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const [box, setBox] = useState({ width: 900, height: 700 });
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([e]) =>
      setBox({ width: e.contentRect.width, height: e.contentRect.height }),
    );
    observer.observe(room.current!);
    return () => observer.disconnect();
  }, []);
  useEffect(() => svg.current?.focus(), []);
  const k = Math.min((box.width - 48) / survey.width, (box.height - 48) / survey.height);
  const grid = useMemo(
    () => camera && perspectiveGrid(camera, survey.width, survey.height),
    [camera, survey],
  );
  const px = 1 / k;
  const at = (e: React.PointerEvent): [number, number] => {
    const r = svg.current!.getBoundingClientRect();
    return [whole((e.clientX - r.left) / k), whole((e.clientY - r.top) / k)];
  };
  const handle = (
    label: string,
    [x, y]: [number, number],
    change: (to: [number, number]) => Partial<SceneSurvey>,
    colour = '#ffffff',
  ) => (
    <circle
      key={label}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuetext={`${Math.round(x)}, ${Math.round(y)} pixels`}
      aria-valuenow={Math.round(x)}
      cx={x}
      cy={y}
      r={8 * px}
      fill={colour}
      stroke="#12463a"
      strokeWidth={2.5 * px}
      className="cursor-grab"
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => e.buttons && during(change(at(e)))}
      onPointerUp={(e) => commit(change(at(e)))}
      onKeyDown={(e) => {
        const by = e.shiftKey ? 10 : 1;
        const to: Record<string, [number, number]> = {
          ArrowLeft: [x - by, y],
          ArrowRight: [x + by, y],
          ArrowUp: [x, y - by],
          ArrowDown: [x, y + by],
        };
        if (!to[e.key]) return;
        e.preventDefault();
        commit(change(to[e.key]));
      }}
    />
  );
  const { plane, known, horizonY } = survey;
  const names = ['Back left', 'Back right', 'Front right', 'Front left'];
  return (
    <main
      ref={room}
      className="relative flex min-w-0 grow items-center justify-center overflow-hidden"
      style={{ background: 'var(--stage)' }}
    >
      <div className="relative" style={{ width: survey.width * k, height: survey.height * k }}>
        <img
          src={reducedUrl(survey.mended ?? scene.picture, 2048)}
          alt={scene.title}
          className="absolute inset-0 h-full w-full"
          draggable={false}
        />
        <svg
          ref={svg}
          data-testid="survey"
          viewBox={`0 0 ${survey.width} ${survey.height}`}
          className={`absolute inset-0 h-full w-full touch-none overflow-visible ${placing ? 'cursor-crosshair' : ''}`}
          onPointerDown={(e) => placing && onPlace(...at(e))}
        >
          {grid && (open.includes('plane') || open.includes('spots')) && (
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
                    {p.mm} mm
                  </text>
                </g>
              ))}
            </g>
          )}
          {open.includes('plane') && plane && (
            <>
              <path
                d={`M${plane.corners.map((c) => c.join(' ')).join('L')}Z`}
                fill="#d3f04a22"
                stroke="#12463a"
                strokeWidth={2 * px}
              />
              {plane.corners.map((c, i) =>
                handle(names[i], c, (to) => ({
                  plane: { ...plane, corners: plane.corners.map((p, j) => (j === i ? to : p)) },
                })),
              )}
            </>
          )}
          {open.includes('plane') && !plane && horizonY !== null && (
            <>
              <path
                d={`M0 ${horizonY}H${survey.width}`}
                stroke="#d3f04a"
                strokeWidth={1.5 * px}
                strokeDasharray={`${8 * px} ${6 * px}`}
              />
              {handle('Horizon', [survey.width * 0.06, horizonY], ([, y]) => ({ horizonY: y }), '#d3f04a')}
            </>
          )}
          {open.includes('plane') && !plane && known && (
            <>
              <path
                d={`M${known.base.join(' ')}L${known.top.join(' ')}`}
                stroke="#ffffff"
                strokeWidth={2 * px}
              />
              {handle('Foot of the known height', known.base, (base) => ({ known: { ...known, base } }))}
              {handle('Top of the known height', known.top, (top) => ({ known: { ...known, top } }))}
            </>
          )}
          {open.includes('areas') && (
            <AreaHandles survey={survey} chosen={area} px={px} handle={handle} onChoose={onArea} />
          )}
          {(open.includes('spots') || open.includes('plane')) &&
            survey.spots.map((s, i) => (
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
                {handle(
                  `Spot ${s.id}`,
                  [s.x, s.y],
                  ([x, y]) => ({
                    spots: survey.spots.map((p, j) => {
                      if (j !== i) return p;
                      const level = camera ? levelOfScale(camera, p, p.pxPerMm) : 0;
                      const there = camera && onPlane(camera, { x, y }, level);
                      return { ...p, x, y, pxPerMm: camera && there ? scaleAt(camera, there).up : p.pxPerMm };
                    }),
                  }),
                  '#12463a',
                )}
              </g>
            ))}
          {open.includes('mend') && mending.tool && (
            <MendLayer survey={survey} px={px} at={at} mending={mending} />
          )}
        </svg>
      </div>
    </main>
  );
}
