import type { BackdropElement, Fill } from '@scenograph/core/elements/backdrop/model';
import { NEW_SET } from '@scenograph/core/stage/set';
import { sceneFill } from '@scenograph/core/shot/starters';
import { UNADJUSTED } from '@scenograph/core/stage/ground-colour';
import { ColourField } from '../../../../ui/colour-field';
import { Button, Segmented, Slider } from '../../../../ui/controls';
import { PictureList } from '../../../../ui/picture-list';
import { type Scene, useRoute } from '../../../../api/client';
import { GradientPart, Palette, SetPart } from './parts';
import type { KindDeskProps } from '../desk-props';
import { msg } from '../../../../language/language';

type Props = KindDeskProps<BackdropElement> & { palette: string[] };

/** What each kind of fill begins with: the colour that was there, or where that would not be seen, one of the product's. */
const START: Record<Exclude<Fill['type'], 'scene'>, (colour: string, palette: string[]) => Fill> = {
  colour: (colour) => ({ type: 'colour', colour }),
  gradient: (colour, palette) => ({
    type: 'gradient',
    form: 'linear',
    from: { x: 0.5, y: 0 },
    to: { x: 0.5, y: 1 },
    stops: [
      { at: 0, colour: '#ffffff' },
      { at: 1, colour: colour === '#ffffff' ? (palette.at(-1) ?? '#d9d4cb') : colour },
    ],
  }),
  set: (colour) => ({ ...NEW_SET, colour }),
  transparent: () => ({ type: 'transparent' }),
};

/** The colour that another kind of fill begins with. */
function colourOf(fill: Fill): string {
  if (fill.type === 'gradient') return fill.stops[fill.stops.length - 1].colour;
  if (fill.type === 'transparent') return '#ffffff';
  return fill.type === 'scene' ? '#d9d4cb' : fill.colour;
}

export function BackdropDesk({ element, during, commit, palette }: Props) {
  const { data: scenes } = useRoute('GET /api/scenes');
  const { fill } = element;
  const colour = colourOf(fill);
  const toScene = (s: Scene) =>
    commit(msg('Change backdrop'), {
      name: s.title,
      fill: sceneFill(s.picture, s.survey),
    });
  return (
    <div className="grid gap-2.5">
      <Segmented
        label={msg('Backdrop')}
        value={fill.type}
        onChange={(type) => {
          if (type === 'scene') {
            if (scenes?.[0]) toScene(scenes[0]);
          } else
            commit(msg('Change backdrop'), {
              name: type === 'set' ? msg('Set') : msg('Backdrop'),
              fill: START[type](colour, palette),
            });
        }}
        options={[
          { value: 'colour', title: msg('Colour') },
          { value: 'gradient', title: msg('Gradient') },
          { value: 'set', title: msg('Set') },
          { value: 'scene', title: msg('Scene') },
          { value: 'transparent', title: msg('Transparent') },
        ]}
      />
      {fill.type === 'transparent' && (
        <p className="text-ink-2 text-[12px]">
          {msg('The ground is transparent in PNG, WebP, AVIF and TIFF, and white in JPEG.')}
        </p>
      )}
      {fill.type === 'colour' && (
        <>
          <ColourField
            label={msg('Colour')}
            value={fill.colour}
            onChange={(c) => during({ fill: { ...fill, colour: c } })}
            onCommit={(c) => commit(msg('Colour backdrop'), { fill: { ...fill, colour: c } })}
          />
          <Palette
            palette={palette}
            onPick={(c) => commit(msg('Colour backdrop'), { fill: { ...fill, colour: c } })}
          />
          <Button
            onClick={() => commit(msg('Colour backdrop'), { fill: { type: 'colour', colour: '#ffffff' } })}
          >
            {msg('Pure white')}
          </Button>
        </>
      )}
      {fill.type === 'gradient' && (
        <GradientPart fill={fill} during={during} commit={commit} palette={palette} />
      )}
      {fill.type === 'set' && <SetPart fill={fill} during={during} commit={commit} palette={palette} />}
      {fill.type === 'scene' && <ScenePart {...{ fill, scenes, toScene, during, commit }} />}
      {fill.type !== 'transparent' && <BackgroundAlone {...{ element, during, commit }} />}
    </div>
  );
}

/** Which scene it is, and what of it stays in view. */
function ScenePart({
  fill,
  scenes,
  toScene,
  during,
  commit,
}: Pick<Props, 'during' | 'commit'> & {
  fill: Extract<Fill, { type: 'scene' }>;
  scenes: Scene[] | undefined;
  toScene(scene: Scene): void;
}) {
  const newer = scenes?.find(
    (s) => s.picture === fill.picture && JSON.stringify(s.survey) !== JSON.stringify(fill.survey),
  );
  return (
    <>
      <PictureList
        label={msg('Scenes')}
        items={scenes}
        chosen={scenes?.find((s) => s.picture === fill.picture)?.id ?? null}
        onPick={({ id }) => toScene(scenes!.find((s) => s.id === id)!)}
      />
      {newer && (
        <Button onClick={() => commit(msg('Newer survey'), { fill: { ...fill, survey: newer.survey } })}>
          {msg('Take the scene’s newer survey')}
        </Button>
      )}
      <p className="text-ink-2 text-[12px]">{msg('Place to keep in view when a slot crops the scene:')}</p>
      {(['x', 'y'] as const).map((axis) => (
        <Slider
          key={axis}
          label={axis === 'x' ? msg('Focus across') : msg('Focus down')}
          unit="%"
          value={Math.round(fill.focus[axis] * 100)}
          onChange={(v) => during({ fill: { ...fill, focus: { ...fill.focus, [axis]: v / 100 } } })}
          onCommit={(v) =>
            commit(msg('Move focus'), { fill: { ...fill, focus: { ...fill.focus, [axis]: v / 100 } } })
          }
        />
      ))}
    </>
  );
}

/** The background's colours and edges; what stands before it keeps its own. */
function BackgroundAlone({ element: { adjust, edges }, during, commit }: Omit<Props, 'palette' | 'shot'>) {
  const dim = (label: string, key: keyof typeof adjust, unit: string, by: number, most: number) => (
    <Slider
      label={label}
      unit={unit}
      min={-most}
      max={most}
      value={Math.round(adjust[key] * by)}
      onChange={(v) => during({ adjust: { ...adjust, [key]: v / by } })}
      onCommit={(v) =>
        commit(msg('{label} of the background', { label }), { adjust: { ...adjust, [key]: v / by } })
      }
    />
  );
  return (
    <fieldset className="border-line border-t pt-2">
      <legend className="sr-only">{msg('Background alone')}</legend>
      <div className="flex items-center justify-between">
        <span className="font-medium">{msg('Background alone')}</span>
        <Button tone="quiet" onClick={() => commit(msg('Background as it is'), { adjust: UNADJUSTED })}>
          {msg('As it is')}
        </Button>
      </div>
      {dim(msg('Hue'), 'hue', '°', 1, 180)}
      {dim(msg('Saturation'), 'saturation', '%', 100, 100)}
      {dim(msg('Lightness'), 'lightness', '%', 100, 100)}
      <Slider
        label={msg('Darkened edges')}
        unit="%"
        value={Math.round(edges.strength * 100)}
        onChange={(v) => during({ edges: { ...edges, strength: v / 100 } })}
        onCommit={(v) => commit(msg('Darkened edges'), { edges: { ...edges, strength: v / 100 } })}
      />
      {edges.strength > 0 && (
        <Slider
          label={msg('Edges reach in')}
          unit="%"
          value={Math.round(edges.reach * 100)}
          onChange={(v) => during({ edges: { ...edges, reach: v / 100 } })}
          onCommit={(v) => commit(msg('Darkened edges'), { edges: { ...edges, reach: v / 100 } })}
        />
      )}
    </fieldset>
  );
}
