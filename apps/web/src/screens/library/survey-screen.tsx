import { Accordion } from 'radix-ui';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Camera } from '@scenograph/core/stage/camera';
import { surveyCamera, type SceneSurvey } from '@scenograph/core/stage/survey';
import { type Scene, useRoute } from '../../api/client';
import { ConflictDialog, DocumentUndoRedo, SavingNote, useDocument } from '../../documents/document-bar';
import { storedSurvey, type Surveyed } from '../../documents/kinds';
import { useOpened } from '../../documents/use-opened';
import { Slider } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { LightDome } from '../stage/light-dome';
import { Section } from '../stage/section';
import { AboutSection } from './about-section';
import { AreasSection } from './areas-section';
import { DepthSection } from './depth-section';
import { MaskSection } from './mask-section';
import { MendSection } from './mend-section';
import { PlaneSection } from './plane-section';
import { ShadowsSection, type ChosenOutline } from './shadows-section';
import { SpotsSection, withSpot } from './spots-section';
import { SurveyPicture } from './survey-picture';
import { surveyStore, useSurveyEdits } from './survey-store';
import { useMending } from './use-mending';
import { msg } from '../../language/language';

export function SurveyScreen() {
  const { id = '' } = useParams();
  const { data: scene, error } = useRoute('GET /api/scenes/:id', { params: { id } });
  const stored = useMemo(() => scene && storedSurvey(scene), [scene]);
  const opened = useOpened(surveyStore, id, stored);
  const now = surveyStore.use((s) => s.document);
  if (scene && opened && now) return <Survey key={scene.id} scene={scene} now={now} />;
  return (
    <>
      <TopBar />
      {error ? <Trouble error={error} /> : <Waiting what={msg('the scene')} />}
    </>
  );
}

function Survey({ scene, now }: { scene: Scene; now: Surveyed }) {
  const state = surveyStore.use();
  const edits = useSurveyEdits();
  const { duringSurvey: during, commitSurvey: commit } = edits;
  const { survey } = now;
  useDocument(surveyStore.use.getState, surveyStore.save);
  const [placing, setPlacing] = useState(false);
  const [open, setOpen] = useState<string[]>([scene.survey.areas.length ? 'areas' : 'plane']);
  const [area, setArea] = useState<string | null>(scene.survey.areas[0]?.id ?? null);
  const [outline, setOutline] = useState<ChosenOutline | null>(null);
  const mending = useMending(scene, survey, commit);

  const { camera, wrong } = useMemo((): { camera: Camera | null; wrong: string | null } => {
    try {
      return { camera: surveyCamera(survey), wrong: null };
    } catch (e) {
      return { camera: null, wrong: (e as Error).message };
    }
  }, [survey]);

  const addSpot = (x: number, y: number) => {
    setPlacing(false);
    const spots = withSpot(survey, camera, x, y);
    if (spots) commit({ spots });
    else say('stop', msg('There is no standing plane at that place. Choose a place below the horizon.'));
  };

  return (
    <>
      <TopBar
        trail={
          <nav aria-label={msg('Where you are')} className="flex min-w-0 items-center gap-2">
            <Link to="/library" className="text-ink-2 hover:text-ink">
              {msg('Library')}
            </Link>
            <span className="text-ink-3">/</span>
            <h1 className="truncate font-semibold">{msg('Survey of {now}', { now: now.title })}</h1>
            <SavingNote of={state} onTryAgain={() => void surveyStore.save()} />
          </nav>
        }
      >
        <DocumentUndoRedo of={state} />
        <a
          className="border-line bg-card hover:border-ink-3 inline-flex h-7 items-center rounded-md border px-3 font-medium"
          href={`/api/scenes/export.zip?id=${scene.id}`}
        >
          {msg('Export')}
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
          outline={outline}
          onOutline={setOutline}
          mending={mending}
        />
        <aside
          aria-label={msg('Survey')}
          className="border-line bg-card w-78 shrink-0 overflow-y-auto border-l"
        >
          <Sections
            {...{ scene, now, camera, wrong, placing, open, area, outline, mending, edits }}
            onOpen={setOpen}
            onArea={setArea}
            onOutline={setOutline}
            onPlacing={setPlacing}
          />
        </aside>
      </div>
      <ConflictDialog of={state} word={msg('survey')} />
    </>
  );
}

/** The sections of the survey, in the order in which a picture is surveyed. */
function Sections({
  scene,
  now,
  camera,
  wrong,
  placing,
  open,
  area,
  outline,
  mending,
  edits,
  onOpen,
  onArea,
  onOutline,
  onPlacing,
}: {
  scene: Scene;
  now: Surveyed;
  camera: Camera | null;
  wrong: string | null;
  placing: boolean;
  open: string[];
  area: string | null;
  outline: ChosenOutline | null;
  mending: ReturnType<typeof useMending>;
  edits: ReturnType<typeof useSurveyEdits>;
  onOpen(sections: string[]): void;
  onArea(id: string | null): void;
  onOutline(outline: ChosenOutline | null): void;
  onPlacing(on: boolean): void;
}) {
  const { survey } = now;
  const { duringSurvey: during, commitSurvey: commit } = edits;
  const picture = survey.mended ?? scene.picture;
  return (
    <Accordion.Root type="multiple" value={open} onValueChange={onOpen}>
      <Section
        n={1}
        id="plane"
        title={msg('Standing plane')}
        summary={camera ? msg('solved') : msg('not known')}
      >
        <PlaneSection {...{ picture, survey, camera, wrong, commit }} />
      </Section>
      <Section n={2} id="light" title={msg('Light')} summary={lightInWords(survey)}>
        <LightPart {...{ survey, during, commit }} />
      </Section>
      <Section n={3} id="shadows" title={msg('Shadows')} summary={meetsInWords(survey)}>
        <ShadowsSection {...{ picture, survey, commit }} chosen={outline} onChoose={onOutline} />
      </Section>
      <Section n={4} id="depth" title={msg('Depth')} summary={depthInWords(survey)}>
        <DepthSection {...{ picture, survey, camera, during, commit }} />
      </Section>
      <Section n={5} id="spots" title={msg('Placement points')} summary={String(survey.spots.length)}>
        <SpotsSection
          survey={survey}
          camera={camera}
          placing={placing}
          onPlacing={onPlacing}
          commit={commit}
        />
      </Section>
      <Section
        n={6}
        id="foreground"
        title={msg('Foreground')}
        summary={survey.occluder ? msg('masked') : msg('none')}
      >
        <MaskPart {...{ scene, now, commit }} mask="occluder" />
      </Section>
      <Section n={7} id="areas" title={msg('Print areas')} summary={String(survey.areas.length)}>
        <AreasSection
          picture={picture}
          survey={survey}
          chosen={area}
          onChoose={onArea}
          during={during}
          commit={commit}
        />
      </Section>
      <Section
        n={8}
        id="outline"
        title={msg('Outline of the item')}
        summary={survey.outline ? msg('made') : msg('none')}
      >
        <MaskPart {...{ scene, now, commit }} mask="outline" />
      </Section>
      <Section n={9} id="mend" title={msg('Remove marks')} summary={String(survey.mends.length)}>
        <MendSection survey={survey} mending={mending} />
      </Section>
      <Section n={10} id="about" title={msg('About')} summary={now.season ?? ''}>
        <AboutSection sceneId={scene.id} now={now} during={edits.during} commit={edits.commit} />
      </Section>
    </Accordion.Root>
  );
}

/** What is said of a mask, and of the photo in which it is cut out. */
const MASKS = {
  occluder: {
    title: (now: string) => msg('{now} foreground', { now }),
    about: msg('What stands before the products, cut out with the cutout desk.'),
    hint: msg('Keep what stands before the products and drop the rest; then come back here and use it.'),
  },
  outline: {
    title: (now: string) => msg('{now} item', { now }),
    about: msg('The blank item alone: prints over the whole item and its colour end there.'),
    hint: msg('Keep the blank item and drop the rest; then come back here and use it.'),
  },
};

/** What stands before the products, or the blank item alone. */
function MaskPart({
  scene,
  now,
  mask,
  commit,
}: {
  scene: Scene;
  now: Surveyed;
  mask: keyof typeof MASKS;
  commit(value: Partial<SceneSurvey>): void;
}) {
  const { title, about, hint } = MASKS[mask];
  return (
    <MaskSection
      {...{ scene, mask, about, hint }}
      title={title(now.title)}
      value={now.survey[mask]}
      onTaken={(hash) => commit({ [mask]: hash })}
      onWithout={() => commit({ [mask]: null })}
    />
  );
}

const lightInWords = ({ light }: SceneSurvey) =>
  msg('{azimuthDeg}°, {elevationDeg}° up', {
    azimuthDeg: Math.round(light.azimuthDeg),
    elevationDeg: Math.round(light.elevationDeg),
  });

/** What shadows meet besides the ground. */
function meetsInWords({ wall, things = [], shades = [] }: SceneSurvey): string {
  const words = [
    wall ? msg('wall') : null,
    things.length ? msg('{n, plural, one {# thing} other {# things}}', { n: things.length }) : null,
    shades.length ? msg('{n, plural, one {# shade} other {# shades}}', { n: shades.length }) : null,
  ].filter((word) => word !== null);
  return words.join(', ') || msg('the ground alone');
}

const depthInWords = ({ focus, haze }: SceneSurvey): string =>
  [focus ? msg('focus') : null, haze ? msg('haze') : null].filter((w) => w !== null).join(', ') ||
  msg('sharp and clear');

/** Where the scene's light comes from, and how far its ground mirrors. */
function LightPart({
  survey,
  during,
  commit,
}: {
  survey: SceneSurvey;
  during(value: Partial<SceneSurvey>): void;
  commit(value: Partial<SceneSurvey>): void;
}) {
  return (
    <>
      <LightDome
        light={survey.light}
        onChange={(light) => during({ light })}
        onCommit={(light) => commit({ light })}
      />
      <Slider
        label={msg('Gloss of the ground')}
        unit="%"
        value={Math.round(survey.gloss * 100)}
        onChange={(v) => during({ gloss: v / 100 })}
        onCommit={(v) => commit({ gloss: v / 100 })}
      />
    </>
  );
}
