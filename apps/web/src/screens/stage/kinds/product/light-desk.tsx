import { useEffect, useState } from 'react';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { STUDIO_LIGHT } from '@scenograph/core/stage/ground';
import { ColourField } from '../../../../ui/colour-field';
import { Button, Checkbox, Segmented, Slider } from '../../../../ui/controls';
import { measureStaging } from '../../../../workers/painters';
import type { StagingNote } from '../../../../workers/paint.worker';
import { LightDome } from '../../light-dome';
import type { KindDeskProps } from '../desk-props';
import { msg } from '../../../../language/language';

type Props = KindDeskProps<ProductElement> & { shot: ResolvedShot };

function useStagingNote(shot: ResolvedShot, element: ProductElement): StagingNote | null {
  const [note, setNote] = useState<StagingNote | null>(null);
  useEffect(() => {
    let here = true;
    const timer = setTimeout(() => {
      measureStaging(shot, element.id)
        .then((n) => here && setNote(n))
        .catch(() => undefined);
    }, 250);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [shot, element.id]);
  return note;
}

/** Under this lightness of the ground a shadow is lost on it. */
const DARK = 0.3;

/** The shadow, the light it falls by unless the camera's own is shown, and the reflection. */
export function ProductLightDesk({ element, shot, during, commit }: Props) {
  const { shadow, ownShadow, reflection } = element;
  const note = useStagingNote(shot, element);
  const ground = groundOf(shot.elements);
  const camera = shadow.source === 'camera' && ownShadow !== null;
  const light = shadow.light ?? ground?.light ?? STUDIO_LIGHT;
  const percent = (
    label: string,
    key: 'strength' | 'contact' | 'softness' | 'length',
    max = 100,
    history = label,
  ) => (
    <Slider
      label={label}
      unit="%"
      max={max}
      value={Math.round(shadow[key] * 100)}
      onChange={(v) => during({ shadow: { ...shadow, [key]: v / 100 } })}
      onCommit={(v) => commit(history, { shadow: { ...shadow, [key]: v / 100 } })}
    />
  );
  return (
    <div>
      {!camera && (
        <>
          <LightDome
            light={light}
            onChange={(l) => during({ shadow: { ...shadow, light: l } })}
            onCommit={(l) => commit(msg('Move the light'), { shadow: { ...shadow, light: l } })}
          />
          {shadow.light && ground && (
            <Button
              className="mt-1"
              onClick={() => commit(msg("The scene's light"), { shadow: { ...shadow, light: null } })}
            >
              {msg('Back to the scene’s light')}
            </Button>
          )}
        </>
      )}
      {percent(msg('Shadow'), 'strength', 100, msg('Shadow strength'))}
      {!camera && (
        <>
          {percent(msg('Contact'), 'contact', 100, msg('Contact shadow'))}
          {percent(msg('Shadow softness'), 'softness', 250)}
          {percent(msg('Shadow length'), 'length', 200)}
          <ColourField
            label={msg('Shadow tint')}
            value={shadow.tint}
            onChange={(tint) => during({ shadow: { ...shadow, tint } })}
            onCommit={(tint) => commit(msg('Shadow tint'), { shadow: { ...shadow, tint } })}
          />
        </>
      )}
      {note?.ground != null && note.ground < DARK && shadow.strength > 0 && (
        <TooDark lightness={note.ground} effects={element.effects} commit={commit} />
      )}
      <ShadowSource {...{ element, commit }} />
      {element.pose !== 'flat' && <ReflectionPart {...{ reflection, during, commit }} />}
    </div>
  );
}

/** A shadow cannot be seen on a dark ground; what can set the product off instead. */
function TooDark({
  lightness,
  effects,
  commit,
}: {
  lightness: number;
  effects: Props['element']['effects'];
  commit: Props['commit'];
}) {
  return (
    <div className="text-amber-ink mt-2 text-[12px]">
      <p>
        {msg(
          'The ground here is too dark for a shadow to be seen (lightness {lightness} of 100). A rim of light sets it off instead.',
          { lightness: Math.round(lightness * 100) },
        )}
      </p>
      <div className="mt-1 flex gap-2">
        <Button
          onClick={() =>
            commit(msg('Light rim'), {
              effects: { ...effects, outline: { width: 2, colour: '#f4ead2', opacity: 0.5 } },
            })
          }
        >
          {msg('Light rim')}
        </Button>
        <Button
          onClick={() =>
            commit(msg('Glow'), {
              effects: { ...effects, glow: { size: 60, colour: '#f4ead2', opacity: 0.4 } },
            })
          }
        >
          {msg('Glow')}
        </Button>
      </div>
    </div>
  );
}

function ShadowSource({ element: { shadow, ownShadow }, commit }: Pick<Props, 'element' | 'commit'>) {
  if (!ownShadow)
    return (
      <p className="text-ink-2 mt-1 text-[12px]">
        {msg('This cutout keeps no shadow of its photo. Turn it on in the cutout desk to show it here.')}
      </p>
    );
  return (
    <div className="mt-2">
      <Segmented
        label={msg('Where the shadow comes from')}
        value={shadow.source}
        onChange={(source) =>
          commit(source === 'camera' ? msg("Show the camera's own shadow") : msg('Shadow by the light'), {
            shadow: { ...shadow, source },
          })
        }
        options={[
          { value: 'light', title: msg('By the light') },
          { value: 'camera', title: msg("Camera's own") },
        ]}
      />
    </div>
  );
}

function ReflectionPart({
  reflection,
  during,
  commit,
}: Pick<Props, 'during' | 'commit'> & { reflection: Props['element']['reflection'] }) {
  const mirror = (label: string, key: keyof typeof reflection) => (
    <Slider
      label={label}
      unit="%"
      value={Math.round(reflection[key] * 100)}
      onChange={(v) => during({ reflection: { ...reflection, [key]: v / 100 } })}
      onCommit={(v) => commit(msg('Reflection'), { reflection: { ...reflection, [key]: v / 100 } })}
    />
  );
  return (
    <fieldset className="border-line mt-2 border-t pt-2">
      <legend className="sr-only">{msg('Reflection')}</legend>
      {mirror(msg('Reflection'), 'strength')}
      {reflection.strength > 0 && (
        <>
          {mirror(msg('Fading'), 'fade')}
          {mirror(msg('Roughness'), 'roughness')}
        </>
      )}
    </fieldset>
  );
}

/** A value of the product that is what was found in photo or scene until it is set by hand. */
function FoundSlider({
  label,
  asFound,
  unit,
  most,
  times,
  step = 1,
  value,
  found,
  onChange,
  onCommit,
}: {
  label: string;
  /** The words of the box that gives it back. */
  asFound: string;
  unit: string;
  most: number;
  /** What is shown a unit of the value. */
  times: number;
  step?: number;
  /** Null: as found. */
  value: number | null;
  /** Null while it is measured. */
  found: number | null;
  onChange(value: number): void;
  onCommit(value: number | null): void;
}) {
  return (
    <>
      <Slider
        label={label}
        unit={unit}
        max={most}
        step={step}
        digits={step < 1 ? 2 : 0}
        value={Math.round((value ?? found ?? 0) * times * 100) / 100}
        onChange={(v) => onChange(v / times)}
        onCommit={(v) => onCommit(v / times)}
      />
      <label className="flex items-center gap-2">
        <Checkbox
          checked={value === null}
          // What is found is not known while it is measured.
          disabled={found === null}
          onChange={(on) => onCommit(on ? null : found)}
        />
        {asFound}
      </label>
    </>
  );
}

/** How sharp the product is, and the haze over it: by hand, or as the scene is at its depth. */
function DepthDesk({
  element: { blur, haze },
  note,
  during,
  commit,
}: Pick<Props, 'element' | 'during' | 'commit'> & { note: ReturnType<typeof useStagingNote> }) {
  return (
    <>
      <FoundSlider
        label={msg('Out of focus')}
        asFound={msg('As sharp as the scene there')}
        unit="px"
        most={40}
        times={1}
        step={0.25}
        value={blur}
        found={note?.blur ?? null}
        onChange={(to) => during({ blur: to })}
        onCommit={(to) => commit(msg('Change the focus'), { blur: to })}
      />
      <FoundSlider
        label={msg('Haze')}
        asFound={msg('As hazy as the scene there')}
        unit="%"
        most={95}
        times={100}
        value={haze}
        found={note?.haze ?? null}
        onChange={(to) => during({ haze: to })}
        onCommit={(to) => commit(msg('Change the haze'), { haze: to })}
      />
    </>
  );
}

/** The product's tone eased toward the scene's, and what that does to its colours. */
export function ProductToneDesk({ element, shot, during, commit }: Props) {
  const { tone, relight, gloss } = element;
  const note = useStagingNote(shot, element);
  const scene = groundOf(shot.elements)?.scene;
  return (
    <div className="grid gap-1">
      {scene ? (
        <>
          <Slider
            label={msg('Scene’s light')}
            unit="%"
            value={Math.round(relight * 100)}
            onChange={(v) => during({ relight: v / 100 })}
            onCommit={(v) => commit(msg('Lay the scene’s light on it'), { relight: v / 100 })}
          />
          {relight > 0 && (
            <FoundSlider
              label={msg('Gloss')}
              asFound={msg('Gloss as its photo shows')}
              unit="%"
              most={100}
              times={100}
              value={gloss}
              found={note?.gloss ?? null}
              onChange={(to) => during({ gloss: to })}
              onCommit={(to) => commit(msg('Change the gloss'), { gloss: to })}
            />
          )}
          <Slider
            label={msg('Match')}
            unit="%"
            value={Math.round(tone.strength * 100)}
            onChange={(v) => during({ tone: { ...tone, strength: v / 100 } })}
            onCommit={(v) => commit(msg('Match the tone'), { tone: { ...tone, strength: v / 100 } })}
          />
          <Slider
            label={msg('Largest colour shift')}
            unit="ΔE"
            max={20}
            value={tone.limit}
            onChange={(limit) => during({ tone: { ...tone, limit } })}
            onCommit={(limit) => commit(msg('Limit of the colour drift'), { tone: { ...tone, limit } })}
          />
          <DepthDesk {...{ element, note, during, commit }} />
          <p className="flex justify-between text-[12.5px]">
            <span className="text-ink-2">{msg('Colour drift from the source')}</span>
            <span className="measure" data-testid="drift">
              {note ? `ΔE ${note.drift.toFixed(1)}${note.held ? msg(', held') : ''}` : msg('measuring')}
            </span>
          </p>
          <p className="flex justify-between text-[12.5px]">
            <span className="text-ink-2">{msg('Light against its photo’s')}</span>
            <span className="measure" data-testid="light">
              {note ? `${Math.round(note.light * 100)} %` : msg('measuring')}
            </span>
          </p>
        </>
      ) : (
        <p className="text-ink-2">{msg('Tone is matched where a product stands in a scene’s picture.')}</p>
      )}
    </div>
  );
}
