import { isProduct, type ProductElement } from '@scenograph/core/elements/product/model';
import type { Pose } from '@scenograph/core/stage/stand';
import { fitPack } from '@scenograph/core/elements/product/pack';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { ARRANGEMENT_FORMS, MOST_IN_PACK, type Arrangement } from '@scenograph/core/stage/arrange';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { posedBox } from '@scenograph/core/stage/stand';
import { Button, NumberField, Segmented, Select, Slider, Switch } from '../../../../ui/controls';
import { LengthSlider } from '../../../../ui/length-field';
import { standNotes } from '../../true-size';
import type { KindDeskProps } from '../desk-props';
import { msg } from '../../../../language/language';

type Props = KindDeskProps<ProductElement> & { shot: ResolvedShot };

const POSES: Record<Pose, string> = { stand: msg('Stand'), float: msg('Float'), flat: msg('Lay flat') };

/** How a product stands; part of "Place". */
export function ProductPlaceDesk({ element, shot, during, commit }: Props) {
  const ground = groundOf(shot.elements);
  const posed = (change: Partial<Pick<ProductElement, 'pose' | 'liftMm'>>) => ({
    ...change,
    box: posedBox(element, change, ground, shot),
  });
  return (
    <div className="mt-2.5 grid gap-1">
      <Segmented
        label={msg('How it sits')}
        value={element.pose}
        onChange={(pose) => commit(POSES[pose], posed({ pose }))}
        options={(Object.keys(POSES) as Pose[]).map((value) => ({ value, title: POSES[value] }))}
      />
      {element.pose === 'float' && (
        <LengthSlider
          label={msg('Above the ground')}
          min={0}
          max={400}
          value={Math.round(element.liftMm)}
          onChange={(liftMm) => during(posed({ liftMm }))}
          onCommit={(liftMm) => commit(msg('Lift'), posed({ liftMm }))}
        />
      )}
      {element.pose !== 'flat' && (
        <div className="mt-1 flex items-end gap-2">
          <div className="grow">
            <NumberField
              label={msg("Photo's pitch")}
              unit="°"
              min={0}
              max={90}
              value={Math.round(element.pitchDeg ?? element.base?.pitchDeg ?? 15)}
              onCommit={(pitchDeg) => commit(msg('Pitch of the photo'), { pitchDeg })}
            />
          </div>
          {element.pitchDeg !== null && (
            <Button onClick={() => commit(msg('Pitch as estimated'), { pitchDeg: null })}>
              {msg('Estimate')}
            </Button>
          )}
        </div>
      )}
      {standNotes(shot, element).map((note) => (
        <p key={note} className="text-amber-ink mt-1 text-[12px]">
          {note}
        </p>
      ))}
      <Switch
        label={msg('Every variant takes this place')}
        on={element.followsVariant}
        onChange={(followsVariant) => commit(msg('Follow the variant'), { followsVariant })}
      />
      {ground?.occluder && (
        <Switch
          label={msg("Behind the scene's foreground")}
          on={element.behind}
          onChange={(behind) =>
            commit(behind ? msg('Behind the foreground') : msg('Before the foreground'), { behind })
          }
        />
      )}
      <PackDesk element={element} shot={shot} during={during} commit={commit} />
    </div>
  );
}

const FORMS: Record<Arrangement['form'], string> = {
  row: msg('Row'),
  column: msg('Column'),
  rising: msg('Rising diagonal'),
  falling: msg('Falling diagonal'),
  staggered: msg('Staggered rows'),
};

/** Several of one product, or of several, as one. */
function PackDesk({ element, shot, during, commit }: Props) {
  const { pack } = element;
  /** A pack that was changed fits the frame again. */
  const fitted = (next: Arrangement): Partial<ProductElement> => ({
    pack: next,
    box: fitPack({ ...element, pack: next }, groundOf(shot.elements), shot),
  });
  if (!pack)
    return (
      <Button
        className="mt-1"
        onClick={() =>
          commit(
            msg('Make a multipack'),
            fitted({ form: 'row', count: 3, gap: -12, front: 'first', others: [] }),
          )
        }
      >
        {msg('Make a multipack')}
      </Button>
    );
  const change = (value: Partial<Arrangement>) => fitted({ ...pack, ...value });
  const others = shot.elements.filter(
    (e): e is ProductElement => isProduct(e) && e.id !== element.id && e.picture !== element.picture,
  );
  return (
    <fieldset className="border-line mt-2 grid gap-1.5 border-t pt-2">
      <legend className="sr-only">{msg('Multipack')}</legend>
      <div className="flex items-center justify-between">
        <span className="font-medium">{msg('Multipack')}</span>
        <Button tone="quiet" onClick={() => commit(msg('One alone'), { pack: null })}>
          {msg('One alone')}
        </Button>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={msg('Count')}
          unit=""
          min={1}
          max={MOST_IN_PACK}
          value={pack.count}
          onCommit={(count) => commit(msg('Count of the multipack'), change({ count: Math.round(count) }))}
        />
        <div>
          <span className="text-ink-2 mb-1 block text-[12px]">{msg('Form')}</span>
          <Select
            label={msg('Form')}
            className="w-full"
            value={pack.form}
            onChange={(form) => commit(msg('Form of the multipack'), change({ form }))}
            options={ARRANGEMENT_FORMS.map((value) => ({ value, title: FORMS[value] }))}
          />
        </div>
      </div>
      <Slider
        label={msg('Gap')}
        unit="%"
        min={-80}
        max={120}
        value={pack.gap}
        onChange={(gap) => during(change({ gap }))}
        onCommit={(gap) => commit(msg('Gap of the multipack'), change({ gap }))}
      />
      <Segmented
        label={msg('Which stands in front')}
        value={pack.front}
        onChange={(front) => commit(msg('Front of the multipack'), change({ front }))}
        options={[
          { value: 'first', title: msg('First in front') },
          { value: 'last', title: msg('Last in front') },
        ]}
      />
      {others.length > 0 && (
        <Button
          onClick={() =>
            commit(
              msg('Mix products'),
              change({
                others: pack.others.length
                  ? []
                  : others.map((o) => ({
                      picture: o.picture,
                      width: o.box.width / element.box.width,
                      aspect: o.box.height / o.box.width,
                    })),
              }),
            )
          }
        >
          {pack.others.length
            ? msg('Only this product')
            : msg(
                'Mix with the {others, plural, one {other product} other {# other products}} of this shot',
                { others: others.length },
              )}
        </Button>
      )}
    </fieldset>
  );
}
