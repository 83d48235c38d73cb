import type { CalloutElement } from '@scenograph/core/elements/callout/model';
import { LEADERS } from '@scenograph/core/elements/spot';
import { Slider } from '../../../../ui/controls';
import { Amount, BrandColour, BrandFont, Choice, named, patchAt, Wording } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PlateFields } from '../../overlays/plate-fields';
import { ProductChoice } from '../../overlays/product-choice';

export function CalloutDesk({ element, elements, during, commit }: OverlayDeskProps<CalloutElement>) {
  const field = { element, during, commit };
  const spot = (axis: 'x' | 'y', v: number) => patchAt(element, 'spot', { ...element.spot, [axis]: v / 100 });
  return (
    <div className="grid gap-2.5">
      <Wording {...field} label="Words" path="text" placeholders={['{size}']} multiline />
      <ProductChoice element={element} elements={elements} commit={commit} />
      {(['x', 'y'] as const).map((axis) => (
        <Slider
          key={axis}
          label={axis === 'x' ? 'Spot across' : 'Spot down'}
          unit="%"
          min={-20}
          max={120}
          value={Math.round(element.spot[axis] * 100)}
          onChange={(v) => during(spot(axis, v))}
          onCommit={(v) => commit('Move the spot', spot(axis, v))}
        />
      ))}
      <Choice {...field} label="Leader" path="leader" options={named(LEADERS)} />
      <Choice
        {...field}
        label="End of the leader"
        path="dot"
        options={[
          { value: 'ring', title: 'Ring' },
          { value: 'filled', title: 'Dot' },
          { value: 'none', title: 'None' },
        ]}
      />
      <BrandFont {...field} label="Font" path="font" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label="Largest" path="size" min={4} />
        <Amount {...field} label="Smallest" path="smallest" min={2} />
        <Amount {...field} label="Line" path="line" max={200} digits={1} />
      </div>
      <Choice
        {...field}
        label="Alignment"
        step="Align text"
        path="align"
        options={[
          { value: 'start', title: 'Start' },
          { value: 'centre', title: 'Centre' },
          { value: 'right', title: 'Right' },
        ]}
      />
      <BrandColour {...field} label="Words" path="ink" />
      <BrandColour {...field} label="Leader" path="lineColour" />
      <PlateFields {...field} size={element.size} />
    </div>
  );
}
