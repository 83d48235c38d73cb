import { LENS_SHAPES, type InsetElement } from '@scenograph/core/elements/inset/model';
import { LEADERS } from '@scenograph/core/elements/spot';
import { Segmented, Slider } from '../../../../ui/controls';
import { Amount, BrandColour, BrandFont, Choice, named, patchAt, Toggle } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PictureChoice } from '../../overlays/picture-choice';
import { ProductChoice } from '../../overlays/product-choice';

export function InsetDesk({ element, elements, during, commit }: OverlayDeskProps<InsetElement>) {
  const field = { element, during, commit };
  const own = element.source === 'picture';
  const spot = (axis: 'x' | 'y', v: number) => patchAt(element, 'spot', { ...element.spot, [axis]: v / 100 });
  return (
    <div className="grid gap-2.5">
      <Segmented
        label="Source"
        value={element.source}
        onChange={(source) =>
          commit('Source of the close-up', {
            source,
            picture: null,
            ...(source === 'picture'
              ? { mark: 'none', leader: 'none', spot: { x: 0.5, y: 0.5 }, across: 1 }
              : {}),
          })
        }
        options={[
          { value: 'cutout', title: 'Cutout' },
          { value: 'photo', title: 'Photo' },
          { value: 'picture', title: 'A close-up' },
        ]}
      />
      {own ? (
        <PictureChoice
          label="Close-up picture"
          chosen={element.picture}
          onChoose={(picture) => commit('Choose a close-up', patchAt(element, 'picture', picture))}
        />
      ) : (
        <ProductChoice element={element} elements={elements} commit={commit} />
      )}
      {element.times !== null && (
        <p className="measure" data-testid="magnification">
          {element.times.toFixed(1)} times as large as on the picture
        </p>
      )}
      {(['x', 'y'] as const).map((axis) => (
        <Slider
          key={axis}
          label={axis === 'x' ? 'Spot across' : 'Spot down'}
          unit="%"
          min={0}
          max={100}
          value={Math.round(element.spot[axis] * 100)}
          onChange={(v) => during(spot(axis, v))}
          onCommit={(v) => commit('Move the content', spot(axis, v))}
        />
      ))}
      <Slider
        label="Shows"
        unit="%"
        min={3}
        max={100}
        value={Math.round(element.across * 100)}
        onChange={(v) => during(patchAt(element, 'across', v / 100))}
        onCommit={(v) => commit('How much is shown', patchAt(element, 'across', v / 100))}
      />
      <Choice {...field} label="Shape of the lens" path="shape" list options={named(LENS_SHAPES)} />
      {!own && (
        <>
          <Choice
            {...field}
            label="Mark on the spot"
            step="Mark"
            path="mark"
            options={[
              { value: 'area', title: 'Area' },
              { value: 'dot', title: 'Dot' },
              { value: 'none', title: 'None' },
            ]}
          />
          <Choice {...field} label="Leader" path="leader" options={named(LEADERS)} />
          <Toggle {...field} label="State the magnification" path="states" />
          {element.states && <BrandFont {...field} label="Font" path="font" />}
        </>
      )}
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label="Ring" path="ring.width" max={500} />
        <Amount {...field} label="Line" path="line" max={200} digits={1} />
        {element.shape === 'rounded' && <Amount {...field} label="Radius" path="radius" />}
      </div>
      <BrandColour {...field} label="Ring and line" path="ring.colour" />
      <Toggle {...field} label="Light on dark ground" path="adapts" />
      {element.source === 'cutout' && <BrandColour {...field} label="Behind the cutout" path="fill" />}
      <p className="text-ink-2 text-[12px]">Shadows and glow of the lens are under Tone.</p>
    </div>
  );
}
