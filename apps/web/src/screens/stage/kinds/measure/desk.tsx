import { type MeasureElement } from '@scenograph/core/elements/measure/model';
import { lengthText } from '@scenograph/core/elements/measure/paint';
import { Amount, BrandColour, BrandFont, Choice, Toggle } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { ProductChoice } from '../../overlays/product-choice';
import { msg } from '../../../../language/language';

export function MeasureDesk({ element, elements, during, commit }: OverlayDeskProps<MeasureElement>) {
  const field = { element, during, commit };
  const across = element.side === 'width';
  return (
    <div className="grid gap-2.5">
      <ProductChoice element={element} elements={elements} commit={commit} />
      <p className="measure" data-testid="length">
        {element.lengthMm === null
          ? msg('The product’s {side} is not known; give it under Products.', { side: element.side })
          : lengthText(element.lengthMm, element.unit, element.locale ?? 'en-GB')}
      </p>
      <Choice
        {...field}
        label={msg('What it measures')}
        path="side"
        options={[
          { value: 'width', title: msg('Width') },
          { value: 'height', title: msg('Height') },
        ]}
      />
      <Choice
        {...field}
        label={msg('Unit')}
        path="unit"
        options={[
          { value: 'mm', title: 'mm' },
          { value: 'cm', title: 'cm' },
          { value: 'in', title: msg('inches') },
        ]}
      />
      <Choice
        {...field}
        label={msg('Side')}
        path="edge"
        options={[
          { value: 'before', title: across ? msg('Over') : msg('Left') },
          { value: 'after', title: across ? msg('Under') : msg('Right') },
        ]}
      />
      <Choice
        {...field}
        label={msg('Ends')}
        path="ends"
        options={[
          { value: 'ticks', title: msg('Ticks') },
          { value: 'arrows', title: msg('Arrows') },
        ]}
      />
      <Toggle {...field} label={msg('As a diameter')} path="diameter" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label={msg('Off by')} path="offset" min={-5000} max={5000} />
        <Amount {...field} label={msg('Line')} path="line" max={200} digits={1} />
        <Amount {...field} label={msg('Size')} path="size" min={4} />
      </div>
      <BrandFont {...field} label={msg('Font')} path="font" />
      <BrandColour {...field} label={msg('Colour')} path="ink" />
    </div>
  );
}
