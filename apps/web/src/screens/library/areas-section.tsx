import { writeSize } from '@scenograph/core/data/length';
import { surveyView, type SceneSurvey } from '@scenograph/core/stage/survey';
import { AREA_SHAPES, type AreaShape, type PrintArea } from '@scenograph/core/surface/area';
import { areaSurface, bulgeThrough, cornersOff } from '@scenograph/core/surface/area-surface';
import { INK, MATERIALS } from '@scenograph/core/surface/material';
import { Button, NumberField, Segmented, Select, TextField } from '../../ui/controls';
import { LengthField, LengthSlider, useLengthUnit } from '../../ui/length-field';
import { reshaped } from './area-handles';
import { FromPicture } from './from-picture';
import { FromSide } from './from-side';
import { SizeByRectangle } from './known-rectangle';
import { msg } from '../../language/language';

const SHAPES: Record<AreaShape, string> = {
  flat: msg('Flat'),
  cylinder: msg('Cylinder'),
  cone: msg('Cone'),
  bulge: msg('Bulge'),
};

/** A flat area in the middle of the picture. */
function newArea({ areas, width: w, height: h }: SceneSurvey): PrintArea {
  const ids = new Set(areas.map((a) => a.id));
  let n = 1;
  while (ids.has(`area-${n}`)) n++;
  return {
    id: `area-${n}`,
    title: msg('Area {n}', { n }),
    shape: 'flat',
    corners: [
      [w * 0.38, h * 0.38],
      [w * 0.62, h * 0.38],
      [w * 0.62, h * 0.62],
      [w * 0.38, h * 0.62],
    ],
    edges: null,
    widthMm: 100,
    heightMm: Math.round((100 * h) / w),
    wrapDeg: null,
    bulgeMm: 0,
    material: 'paper',
    stock: 'light',
  };
}

/** Changes the chosen area; `live` while something is dragged. */
type SetArea = (change: Partial<PrintArea>, live?: boolean) => void;

/** The print areas of a blank item: how they lie, how large they are, what they are made of. */
export function AreasSection({
  picture,
  survey,
  chosen,
  onChoose,
  during,
  commit,
}: {
  /** The picture that is surveyed, by content hash. */
  picture: string;
  survey: SceneSurvey;
  chosen: string | null;
  onChoose(id: string | null): void;
  during(value: Partial<SceneSurvey>): void;
  commit(value: Partial<SceneSurvey>): void;
}) {
  const { unit } = useLengthUnit();
  const { areas } = survey;
  const area = areas.find((a) => a.id === chosen) ?? null;
  const add = () => {
    const made = newArea(survey);
    commit({ areas: [...areas, made] });
    onChoose(made.id);
  };
  const set = (change: Partial<PrintArea>, live = false) =>
    (live ? during : commit)({ areas: areas.map((a) => (a.id === area!.id ? { ...a, ...change } : a)) });
  return (
    <div className="grid gap-2">
      <p className="text-ink-2 text-[12px]">
        {msg(
          'Where artwork is printed. A picture with print areas is a mockup. Drag the corners onto the item, and bend the edges of a round one. Corners are drawn to corners of the picture; hold Alt to place them freely.',
        )}
      </p>
      <ul className="grid gap-1">
        {areas.map((a) => (
          <li key={a.id}>
            <button
              type="button"
              aria-pressed={a.id === chosen}
              onClick={() => onChoose(a.id)}
              className={`flex w-full justify-between rounded-md border px-2 py-1 text-left ${a.id === chosen ? 'border-spruce' : 'border-line'}`}
            >
              <span>{a.title}</span>
              <span className="measure text-ink-2">
                {SHAPES[a.shape].toLowerCase()}, {writeSize(a.widthMm, a.heightMm, unit, 1)}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <Button onClick={add}>{msg('Add a print area')}</Button>
      {area && (
        <AreaForm
          {...{ picture, area, survey }}
          key={area.id}
          set={set}
          onRemove={() => {
            commit({ areas: areas.filter((a) => a.id !== area.id) });
            onChoose(null);
          }}
        />
      )}
    </div>
  );
}

function AreaForm({
  picture,
  area,
  survey,
  set,
  onRemove,
}: {
  picture: string;
  area: PrintArea;
  survey: SceneSurvey;
  set: SetArea;
  onRemove(): void;
}) {
  return (
    <fieldset className="border-line grid gap-2 rounded-md border p-2.5">
      <legend className="px-1 font-medium">{area.title}</legend>
      <TextField
        label={msg('Name of the area')}
        value={area.title}
        onCommit={(title) => title && set({ title })}
      />
      <Lie {...{ area, set }} />
      <SizeByRectangle area={area} onSize={set} />
      {area.edges && <FromPicture {...{ picture, area, survey, set }} />}
      {area.shape === 'bulge' && <FromSide {...{ area, set }} />}
      <Select
        label={msg('Material')}
        className="w-full"
        value={area.material}
        onChange={(material) => set({ material })}
        options={MATERIALS.map((value) => ({ value, title: msg(INK[value].title) }))}
      />
      <Segmented
        label={msg('Stock')}
        value={area.stock}
        onChange={(stock) => set({ stock })}
        options={[
          { value: 'light', title: msg('Light stock') },
          { value: 'dark', title: msg('Dark stock') },
        ]}
      />
      <Fit area={area} survey={survey} />
      <Button tone="danger" onClick={onRemove}>
        {msg('Remove this area')}
      </Button>
    </fieldset>
  );
}

/** How the area lies on the item, and its size there. */
function Lie({ area, set }: { area: PrintArea; set: SetArea }) {
  return (
    <>
      <Segmented
        label={msg('How it lies')}
        value={area.shape}
        onChange={(shape) => set(reshaped(area, shape))}
        options={AREA_SHAPES.map((value) => ({ value, title: SHAPES[value] }))}
      />
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label={msg('Width')}
          min={1}
          value={area.widthMm}
          onCommit={(widthMm) => set({ widthMm })}
        />
        <LengthField
          label={msg('Height')}
          min={1}
          value={area.heightMm}
          onCommit={(heightMm) => set({ heightMm })}
        />
        {(area.shape === 'cylinder' || area.shape === 'cone') && (
          <NumberField
            label={msg('Reaches round')}
            unit="°"
            min={5}
            max={200}
            value={area.wrapDeg}
            onCommit={(wrapDeg) => set({ wrapDeg })}
          />
        )}
      </div>
      {area.shape === 'bulge' && (
        <LengthSlider
          label={msg('Middle stands out')}
          min={-30}
          max={60}
          value={Math.round(area.bulgeMm)}
          onChange={(bulgeMm) => set({ bulgeMm }, true)}
          onCommit={(bulgeMm) => set({ bulgeMm })}
        />
      )}
    </>
  );
}

/** How well the fitted surface keeps to the edges, or what is wrong with them. */
function Fit({ area, survey }: { area: PrintArea; survey: SceneSurvey }) {
  let error: number | null = null;
  let corners: number | null = null;
  let straightOn = false;
  let wrong: string | null = null;
  let free = false;
  try {
    const view = surveyView(survey);
    const surface = areaSurface(area, view);
    // A round body's corners lie on no plane.
    if (area.shape === 'flat' || area.shape === 'bulge') corners = cornersOff(area, view);
    straightOn = area.shape === 'bulge' && bulgeThrough(area, view, surface.at(0.5, 0.5)) === null;
    error = surface.error;
    free = (area.shape === 'cylinder' || area.shape === 'cone') && !surface.body;
  } catch (e) {
    wrong = (e as Error).message;
  }
  if (wrong)
    return (
      <p role="alert" className="text-coral-ink text-[12.5px]">
        {wrong}
      </p>
    );
  if (free)
    return (
      <p className="text-amber-ink text-[12px]">
        {msg(
          'No round body fits these edges; they are followed as they are. Bend them to the item, or set how far the area reaches round.',
        )}
      </p>
    );
  const far = corners !== null && corners > 0.004 * Math.max(survey.width, survey.height);
  return (
    <>
      {error !== null && (
        <p className="measure text-ink-2">{msg('edges off by {error} px', { error: error.toFixed(1) })}</p>
      )}
      {corners !== null && (
        <p className={`measure ${far ? 'text-amber-ink' : 'text-ink-2'}`}>
          {msg('corners off by {error} px', { error: corners.toFixed(1) })}
        </p>
      )}
      {far && (
        <p className="text-amber-ink text-[12px]">
          {msg('Its width and height do not fit these corners. Type its real size, or drag a corner.')}
        </p>
      )}
      {straightOn && (
        <p className="text-ink-2 text-[12px]">
          {msg('Seen straight on its middle hardly moves: set how far it stands out by the slider.')}
        </p>
      )}
    </>
  );
}
