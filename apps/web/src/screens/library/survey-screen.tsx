import { Redo2, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { surveyCamera } from '@scenograph/core/stage/survey';
import {
  cornerError,
  horizonOf,
  levelOfScale,
  onPlane,
  pitchAt,
  scaleAt,
  type Camera,
} from '@scenograph/core/stage/camera';

import { refresh, type Scene, call, useRoute } from '../../api/client';
import { Button, IconButton, NumberField, Segmented, Slider, TextField } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { LightDome } from '../stage/light-dome';
import { AreasSection } from './areas-section';
import { MaskSection } from './mask-section';
import { MendSection } from './mend-section';
import { SurveyPicture } from './survey-picture';
import { useMending } from './use-mending';
import { useSurvey } from './use-survey';
import { Section } from '../stage/section';
import { Accordion } from 'radix-ui';

export function SurveyScreen() {
  const { id = '' } = useParams();
  const { data: scene, error } = useRoute('GET /api/scenes/:id', { params: { id } });
  if (error)
    return (
      <>
        <TopBar />
        <Trouble error={error} />
      </>
    );
  if (!scene)
    return (
      <>
        <TopBar />
        <Waiting what="the scene" />
      </>
    );
  return <Survey key={scene.id} scene={scene} />;
}

const whole = (v: number) => Math.round(v * 10) / 10;

function Survey({ scene }: { scene: Scene }) {
  const navigate = useNavigate();
  const {
    now,
    saving,
    canUndo,
    canRedo,
    undo,
    redo,
    during: duringAll,
    commit: commitAll,
    duringSurvey: during,
    commitSurvey: commit,
  } = useSurvey(scene);
  const { survey } = now;
  const [placing, setPlacing] = useState(false);
  const [open, setOpen] = useState<string[]>([scene.survey.areas.length ? 'areas' : 'plane']);
  const [area, setArea] = useState<string | null>(scene.survey.areas[0]?.id ?? null);
  const mending = useMending(scene, survey, commit);

  const { camera, wrong } = useMemo((): { camera: Camera | null; wrong: string | null } => {
    try {
      return { camera: surveyCamera(survey), wrong: null };
    } catch (e) {
      return { camera: null, wrong: (e as Error).message };
    }
  }, [survey]);

  const mode = survey.plane ? 'plane' : 'horizon';
  const setMode = (to: 'plane' | 'horizon') => {
    const { width: w, height: h } = survey;
    if (to === 'plane')
      commit({
        plane: {
          corners: [
            [w * 0.32, h * 0.66],
            [w * 0.68, h * 0.66],
            [w * 0.78, h * 0.82],
            [w * 0.22, h * 0.82],
          ],
          widthMm: 400,
          depthMm: 300,
        },
        known: null,
      });
    else
      commit({
        plane: null,
        horizonY: survey.horizonY ?? h * 0.25,
        known: { base: [w / 2, h * 0.75], top: [w / 2, h * 0.55], heightMm: 150 },
      });
  };
  const addSpot = (x: number, y: number) => {
    setPlacing(false);
    const at = camera && onPlane(camera, { x, y });
    if (!camera || !at)
      return say('stop', 'There is no standing plane at that place. Choose a place below the horizon.');
    const ids = new Set(survey.spots.map((s) => s.id));
    let n = survey.spots.length + 1;
    while (ids.has(`spot-${n}`)) n++;
    commit({
      spots: [
        ...survey.spots,
        {
          id: `spot-${n}`,
          x: whole(x),
          y: whole(y),
          pxPerMm: Math.round(scaleAt(camera, at).up * 1e4) / 1e4,
        },
      ],
    });
  };
  const error = camera && survey.plane ? cornerError(camera, survey.plane) : null;
  const middle = camera && onPlane(camera, { x: survey.width / 2, y: survey.height * 0.75 });

  return (
    <>
      <TopBar
        trail={
          <nav aria-label="Where you are" className="flex min-w-0 items-center gap-2">
            <Link to="/library" className="text-ink-2 hover:text-ink">
              Library
            </Link>
            <span className="text-ink-3">/</span>
            <h1 className="truncate font-semibold">Survey of {now.title}</h1>
            <span role="status" data-testid="saving" className="measure text-ink-2 whitespace-nowrap">
              {saving}
            </span>
          </nav>
        }
      >
        <IconButton label="Undo" disabled={!canUndo} onClick={undo}>
          <Undo2 size={15} aria-hidden />
        </IconButton>
        <IconButton label="Redo" disabled={!canRedo} onClick={redo}>
          <Redo2 size={15} aria-hidden />
        </IconButton>
        <a
          className="border-line bg-card hover:border-ink-3 inline-flex h-7 items-center rounded-md border px-3 font-medium"
          href={`/api/scenes/export.zip?id=${scene.id}`}
        >
          Export
        </a>
      </TopBar>
      <div className="flex min-h-0 grow">
        <SurveyPicture
          scene={scene}
          survey={survey}
          camera={camera}
          placing={placing}
          onPlace={addSpot}
          during={during}
          commit={commit}
          open={open}
          area={area}
          onArea={setArea}
          mending={mending}
        />
        <aside aria-label="Survey" className="border-line bg-card w-78 shrink-0 overflow-y-auto border-l">
          <Accordion.Root type="multiple" value={open} onValueChange={setOpen}>
            <Section n={1} id="plane" title="Standing plane" summary={camera ? 'solved' : 'not known'}>
              <div className="grid gap-2">
                <Segmented
                  label="How the plane is measured"
                  value={mode}
                  onChange={setMode}
                  options={[
                    { value: 'plane', title: 'Rectangle' },
                    { value: 'horizon', title: 'Horizon and height' },
                  ]}
                />
                {survey.plane ? (
                  <>
                    <p className="text-ink-2 text-[12px]">
                      Drag the corners onto something rectangular of known size: back left, back right, front
                      right, front left.
                    </p>
                    <div className="grid grid-cols-2 gap-2">
                      <NumberField
                        label="Width"
                        unit="mm"
                        min={1}
                        value={survey.plane.widthMm}
                        onCommit={(widthMm) => commit({ plane: { ...survey.plane!, widthMm } })}
                      />
                      <NumberField
                        label="Depth"
                        unit="mm"
                        min={1}
                        value={survey.plane.depthMm}
                        onCommit={(depthMm) => commit({ plane: { ...survey.plane!, depthMm } })}
                      />
                    </div>
                  </>
                ) : (
                  <>
                    <p className="text-ink-2 text-[12px]">
                      Drag the horizon, and the foot and top of something upright whose height you know.
                    </p>
                    <div className="grid grid-cols-2 gap-2">
                      <NumberField
                        label="Horizon"
                        unit="px"
                        value={survey.horizonY}
                        onCommit={(horizonY) => commit({ horizonY })}
                      />
                      {survey.known ? (
                        <NumberField
                          label="Height"
                          unit="mm"
                          min={1}
                          value={survey.known.heightMm}
                          onCommit={(heightMm) => commit({ known: { ...survey.known!, heightMm } })}
                        />
                      ) : (
                        <Button onClick={() => setMode('horizon')}>Mark a height</Button>
                      )}
                    </div>
                  </>
                )}
                {wrong && (
                  <p role="alert" className="text-coral-ink text-[12.5px]">
                    {wrong}
                  </p>
                )}
                {camera && (
                  <dl className="measure text-ink-2 grid grid-cols-[1fr_auto] gap-y-0.5">
                    <dt>Horizon</dt>
                    <dd>{Math.round(horizonOf(camera))} px</dd>
                    <dt>Angle of view across</dt>
                    <dd>{Math.round((2 * Math.atan(survey.width / 2 / camera.focal) * 180) / Math.PI)}°</dd>
                    {middle && (
                      <>
                        <dt>Looks down by</dt>
                        <dd>{Math.round(pitchAt(camera, middle.X, middle.Y))}°</dd>
                      </>
                    )}
                    {error !== null && (
                      <>
                        <dt>Corners off by</dt>
                        <dd className={error > survey.width * 0.004 ? 'text-amber-ink' : ''}>
                          {error.toFixed(1)} px
                        </dd>
                      </>
                    )}
                  </dl>
                )}
              </div>
            </Section>
            <Section
              n={2}
              id="light"
              title="Light"
              summary={`${Math.round(survey.light.azimuthDeg)}°, ${Math.round(survey.light.elevationDeg)}° up`}
            >
              <LightDome
                light={survey.light}
                onChange={(light) => during({ light })}
                onCommit={(light) => commit({ light })}
              />
              <Slider
                label="Gloss of the ground"
                unit="%"
                value={Math.round(survey.gloss * 100)}
                onChange={(v) => during({ gloss: v / 100 })}
                onCommit={(v) => commit({ gloss: v / 100 })}
              />
            </Section>
            <Section n={3} id="spots" title="Placement points" summary={String(survey.spots.length)}>
              <ul className="grid gap-1.5">
                {survey.spots.map((s, i) => (
                  <li key={s.id} className="flex items-center gap-2">
                    <span className="grow truncate">{s.id}</span>
                    <span className="measure text-ink-2">{s.pxPerMm.toFixed(2)} px/mm</span>
                    {camera && levelOfScale(camera, s, s.pxPerMm) > 0 && (
                      <span className="measure text-ink-2">
                        {Math.round(levelOfScale(camera, s, s.pxPerMm))} mm up
                      </span>
                    )}
                    <Button
                      tone="quiet"
                      onClick={() => commit({ spots: survey.spots.filter((_, j) => j !== i) })}
                    >
                      Remove
                    </Button>
                  </li>
                ))}
              </ul>
              <Button className="mt-2" aria-pressed={placing} onClick={() => setPlacing(!placing)}>
                {placing ? 'Click on the picture' : 'Add a point'}
              </Button>
            </Section>
            <Section n={4} id="foreground" title="Foreground" summary={survey.occluder ? 'masked' : 'none'}>
              <MaskSection
                scene={scene}
                mask="occluder"
                title={`${now.title} foreground`}
                about="What stands before the products, cut out with the cutout desk."
                hint="Keep what stands before the products and drop the rest; then come back here and use it."
                value={survey.occluder}
                onTaken={(occluder) => commit({ occluder }, { stored: true })}
                onWithout={() => commit({ occluder: null })}
              />
            </Section>
            <Section n={5} id="areas" title="Print areas" summary={String(survey.areas.length)}>
              <AreasSection
                survey={survey}
                chosen={area}
                onChoose={setArea}
                during={during}
                commit={commit}
              />
            </Section>
            <Section
              n={6}
              id="outline"
              title="Outline of the item"
              summary={survey.outline ? 'made' : 'none'}
            >
              <MaskSection
                scene={scene}
                mask="outline"
                title={`${now.title} item`}
                about="The blank item alone: prints over the whole item and its colour end there."
                hint="Keep the blank item and drop the rest; then come back here and use it."
                value={survey.outline}
                onTaken={(outline) => commit({ outline }, { stored: true })}
                onWithout={() => commit({ outline: null })}
              />
            </Section>
            <Section n={7} id="mend" title="Remove marks" summary={String(survey.mends.length)}>
              <MendSection survey={survey} mending={mending} />
            </Section>
            <Section n={8} id="about" title="About" summary={now.season ?? ''}>
              <div className="grid gap-2">
                <TextField
                  label="Title"
                  value={now.title}
                  onCommit={(title) => title && commitAll({ title })}
                />
                <TextField
                  label="Season"
                  value={now.season ?? ''}
                  onCommit={(season) => commitAll({ season: season.trim() || null })}
                />
                <span className="text-ink-2 text-[12px]">Palette</span>
                <div className="flex gap-1">
                  {now.palette.map((c, i) => (
                    <input
                      key={i}
                      type="color"
                      aria-label={`Colour ${i + 1} of the palette`}
                      value={c}
                      className="border-line h-7 w-9 rounded-sm border"
                      onChange={(e) =>
                        duringAll({ palette: now.palette.map((p, j) => (j === i ? e.target.value : p)) })
                      }
                      onBlur={() => commitAll({})}
                    />
                  ))}
                </div>
                <Button
                  tone="danger"
                  onClick={() =>
                    void call('DELETE /api/scenes/:id', { params: { id: scene.id } })
                      .then(() => {
                        refresh('/api/scenes');
                        void navigate('/library');
                      })
                      .catch((e: Error) => say('stop', e.message))
                  }
                >
                  Remove from the library
                </Button>
              </div>
            </Section>
          </Accordion.Root>
        </aside>
      </div>
    </>
  );
}
