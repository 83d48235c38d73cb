import type { CalloutElement } from '@scenograph/core/elements/callout/model';
import { LEADERS } from '@scenograph/core/elements/spot';
import { Slider } from '../../../../ui/controls';
import { Amount, BrandColour, BrandFont, Choice, named, patchAt, Wording } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PlateFields } from '../../overlays/plate-fields';
import { ProductChoice } from '../../overlays/product-choice';
import { msg } from '../../../../language/language';

export function CalloutDesk({ element, elements, during, commit }: OverlayDeskProps<CalloutElement>) {
  const field = { element, during, commit };
  const spot = (axis: 'x' | 'y', v: number) => patchAt(element, 'spot', { ...element.spot, [axis]: v / 100 });
  return (
    <div className="grid gap-2.5">
      <Wording {...field} label={msg('Words')} path="text" placeholders={['{size}']} multiline />
      <ProductChoice element={element} elements={elements} commit={commit} />
      {(['x', 'y'] as const).map((axis) => (
        <Slider
          key={axis}
          label={axis === 'x' ? msg('Spot across') : msg('Spot down')}
          unit="%"
          min={-20}
          max={120}
          value={Math.round(element.spot[axis] * 100)}
          onChange={(v) => during(spot(axis, v))}
          onCommit={(v) => commit(msg('Move the spot'), spot(axis, v))}
        />
      ))}
      <Choice {...field} label={msg('Leader')} path="leader" options={named(LEADERS)} />
      <Choice
        {...field}
        label={msg('End of the leader')}
        path="dot"
        options={[
          { value: 'ring', title: msg('Ring') },
          { value: 'filled', title: msg('Dot') },
          { value: 'none', title: msg('None') },
        ]}
      />
      <BrandFont {...field} label={msg('Font')} path="font" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label={msg('Largest')} path="size" min={4} />
        <Amount {...field} label={msg('Smallest')} path="smallest" min={2} />
        <Amount {...field} label={msg('Line')} path="line" max={200} digits={1} />
      </div>
      <Choice
        {...field}
        label={msg('Alignment')}
        step={msg('Align text')}
        path="align"
        options={[
          { value: 'start', title: msg('Start') },
          { value: 'centre', title: msg('Centre') },
          { value: 'right', title: msg('Right') },
        ]}
      />
      <BrandColour {...field} label={msg('Words')} path="ink" />
      <BrandColour {...field} label={msg('Leader')} path="lineColour" />
      <PlateFields {...field} size={element.size} />
    </div>
  );
}
