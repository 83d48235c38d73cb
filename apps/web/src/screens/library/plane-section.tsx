import { cornerError, horizonOf, onPlane, pitchAt, type Camera } from '@scenograph/core/stage/camera';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { Button, NumberField, Segmented } from '../../ui/controls';
import { LengthField } from '../../ui/length-field';
import { GroundEdge } from './ground-edge';
import { msg } from '../../language/language';

/** How the standing plane is measured: by a rectangle of known size, or by the horizon and a known height. */
export function PlaneSection({
  picture,
  survey,
  camera,
  wrong,
  commit,
}: {
  picture: string;
  survey: SceneSurvey;
  camera: Camera | null;
  /** Why the measures give no camera. */
  wrong: string | null;
  commit(value: Partial<SceneSurvey>): void;
}) {
  const setMode = (to: 'plane' | 'horizon') =>
    commit(to === 'plane' ? firstPlane(survey) : firstHeight(survey));
  return (
    <div className="grid gap-2">
      <Segmented
        label={msg('How the plane is measured')}
        value={survey.plane ? 'plane' : 'horizon'}
        onChange={setMode}
        options={[
          { value: 'plane', title: msg('Rectangle') },
          { value: 'horizon', title: msg('Horizon and height') },
        ]}
      />
      {survey.plane ? (
        <Rectangle plane={survey.plane} commit={commit} />
      ) : (
        <HorizonAndHeight survey={survey} commit={commit} onMark={() => setMode('horizon')} />
      )}
      {wrong && (
        <p role="alert" className="text-coral-ink text-[12.5px]">
          {wrong}
        </p>
      )}
      {camera && <Solved survey={survey} camera={camera} />}
      <GroundEdge {...{ picture, survey, commit }} />
    </div>
  );
}

function firstPlane({ width: w, height: h }: SceneSurvey): Partial<SceneSurvey> {
  return {
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
  };
}

function firstHeight({ width: w, height: h, horizonY }: SceneSurvey): Partial<SceneSurvey> {
  return {
    plane: null,
    horizonY: horizonY ?? h * 0.25,
    known: { base: [w / 2, h * 0.75], top: [w / 2, h * 0.55], heightMm: 150 },
  };
}

function Rectangle({
  plane,
  commit,
}: {
  plane: NonNullable<SceneSurvey['plane']>;
  commit(value: Partial<SceneSurvey>): void;
}) {
  return (
    <>
      <p className="text-ink-2 text-[12px]">
        {msg(
          'Drag the corners onto something rectangular of known size: back left, back right, front right, front left.',
        )}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label={msg('Width')}
          min={1}
          value={plane.widthMm}
          onCommit={(widthMm) => commit({ plane: { ...plane, widthMm } })}
        />
        <LengthField
          label={msg('Depth')}
          min={1}
          value={plane.depthMm}
          onCommit={(depthMm) => commit({ plane: { ...plane, depthMm } })}
        />
      </div>
    </>
  );
}

function HorizonAndHeight({
  survey: { horizonY, known },
  commit,
  onMark,
}: {
  survey: SceneSurvey;
  commit(value: Partial<SceneSurvey>): void;
  onMark(): void;
}) {
  return (
    <>
      <p className="text-ink-2 text-[12px]">
        {msg('Drag the horizon, and the foot and top of something upright whose height you know.')}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={msg('Horizon')}
          unit="px"
          value={horizonY}
          onCommit={(y) => commit({ horizonY: y })}
        />
        {known ? (
          <LengthField
            label={msg('Height')}
            min={1}
            value={known.heightMm}
            onCommit={(heightMm) => commit({ known: { ...known, heightMm } })}
          />
        ) : (
          <Button onClick={onMark}>{msg('Mark a height')}</Button>
        )}
      </div>
    </>
  );
}

/** What the measures say of the camera. */
function Solved({ survey, camera }: { survey: SceneSurvey; camera: Camera }) {
  const error = survey.plane ? cornerError(camera, survey.plane) : null;
  const middle = onPlane(camera, { x: survey.width / 2, y: survey.height * 0.75 });
  return (
    <dl className="measure text-ink-2 grid grid-cols-[1fr_auto] gap-y-0.5">
      <dt>{msg('Horizon')}</dt>
      <dd>{msg('{camera} px', { camera: Math.round(horizonOf(camera)) })}</dd>
      <dt>{msg('Angle of view across')}</dt>
      <dd>{Math.round((2 * Math.atan(survey.width / 2 / camera.focal) * 180) / Math.PI)}°</dd>
      {middle && (
        <>
          <dt>{msg('Looks down by')}</dt>
          <dd>{Math.round(pitchAt(camera, middle.X, middle.Y))}°</dd>
        </>
      )}
      {error !== null && (
        <>
          <dt>{msg('Corners off by')}</dt>
          <dd className={error > survey.width * 0.004 ? 'text-amber-ink' : ''}>
            {msg('{error} px', { error: error.toFixed(1) })}
          </dd>
        </>
      )}
    </dl>
  );
}
