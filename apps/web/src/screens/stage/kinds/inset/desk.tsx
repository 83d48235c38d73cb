import { LENS_SHAPES, type InsetElement } from '@scenograph/core/elements/inset/model';
import { LEADERS } from '@scenograph/core/elements/spot';
import { Segmented, Slider } from '../../../../ui/controls';
import { Amount, BrandColour, BrandFont, Choice, named, patchAt, Toggle } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PictureChoice } from '../../overlays/picture-choice';
import { ProductChoice } from '../../overlays/product-choice';
import { msg } from '../../../../language/language';

export function InsetDesk({ element, elements, during, commit }: OverlayDeskProps<InsetElement>) {
  const field = { element, during, commit };
  const own = element.source === 'picture';
  const spot = (axis: 'x' | 'y', v: number) => patchAt(element, 'spot', { ...element.spot, [axis]: v / 100 });
  return (
    <div className="grid gap-2.5">
      <Segmented
        label={msg('Source')}
        value={element.source}
        onChange={(source) =>
          commit(msg('Source of the close-up'), {
            source,
            picture: null,
            ...(source === 'picture'
              ? { mark: 'none', leader: 'none', spot: { x: 0.5, y: 0.5 }, across: 1 }
              : {}),
          })
        }
        options={[
          { value: 'cutout', title: msg('Cutout') },
          { value: 'photo', title: msg('Photo') },
          { value: 'picture', title: 'A close-up' },
        ]}
      />
      {own ? (
        <PictureChoice
          label={msg('Close-up picture')}
          chosen={element.picture}
          onChoose={(picture) => commit(msg('Choose a close-up'), patchAt(element, 'picture', picture))}
        />
      ) : (
        <ProductChoice element={element} elements={elements} commit={commit} />
      )}
      {element.times !== null && (
        <p className="measure" data-testid="magnification">
          {msg('{times} times as large as on the picture', { times: element.times.toFixed(1) })}
        </p>
      )}
      {(['x', 'y'] as const).map((axis) => (
        <Slider
          key={axis}
          label={axis === 'x' ? msg('Spot across') : msg('Spot down')}
          unit="%"
          min={0}
          max={100}
          value={Math.round(element.spot[axis] * 100)}
          onChange={(v) => during(spot(axis, v))}
          onCommit={(v) => commit(msg('Move the content'), spot(axis, v))}
        />
      ))}
      <Slider
        label={msg('Shows')}
        unit="%"
        min={3}
        max={100}
        value={Math.round(element.across * 100)}
        onChange={(v) => during(patchAt(element, 'across', v / 100))}
        onCommit={(v) => commit(msg('How much is shown'), patchAt(element, 'across', v / 100))}
      />
      <Choice {...field} label={msg('Shape of the lens')} path="shape" list options={named(LENS_SHAPES)} />
      {!own && (
        <>
          <Choice
            {...field}
            label={msg('Mark on the spot')}
            step={msg('Mark')}
            path="mark"
            options={[
              { value: 'area', title: msg('Area') },
              { value: 'dot', title: msg('Dot') },
              { value: 'none', title: msg('None') },
            ]}
          />
          <Choice {...field} label={msg('Leader')} path="leader" options={named(LEADERS)} />
          <Toggle {...field} label={msg('State the magnification')} path="states" />
          {element.states && <BrandFont {...field} label={msg('Font')} path="font" />}
        </>
      )}
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label={msg('Ring')} path="ring.width" max={500} />
        <Amount {...field} label={msg('Line')} path="line" max={200} digits={1} />
        {element.shape === 'rounded' && <Amount {...field} label={msg('Radius')} path="radius" />}
      </div>
      <BrandColour {...field} label={msg('Ring and line')} path="ring.colour" />
      <Toggle {...field} label={msg('Light on dark ground')} path="adapts" />
      {element.source === 'cutout' && <BrandColour {...field} label={msg('Behind the cutout')} path="fill" />}
      <p className="text-ink-2 text-[12px]">{msg('Shadows and glow of the lens are under Tone.')}</p>
    </div>
  );
}
