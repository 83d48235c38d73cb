import { type MeasureElement } from '@scenograph/core/elements/measure/model';
import { lengthText } from '@scenograph/core/elements/measure/paint';
import { Amount, BrandColour, BrandFont, Choice, Toggle } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { ProductChoice } from '../../overlays/product-choice';

export function MeasureDesk({ element, elements, during, commit }: OverlayDeskProps<MeasureElement>) {
  const field = { element, during, commit };
  const across = element.side === 'width';
  return (
    <div className="grid gap-2.5">
      <ProductChoice element={element} elements={elements} commit={commit} />
      <p className="measure" data-testid="length">
        {element.lengthMm === null
          ? `The product’s ${element.side} is not known; give it under Products.`
          : lengthText(element.lengthMm, element.unit, element.locale ?? 'en-GB')}
      </p>
      <Choice
        {...field}
        label="What it measures"
        path="side"
        options={[
          { value: 'width', title: 'Width' },
          { value: 'height', title: 'Height' },
        ]}
      />
      <Choice
        {...field}
        label="Unit"
        path="unit"
        options={[
          { value: 'mm', title: 'mm' },
          { value: 'cm', title: 'cm' },
          { value: 'in', title: 'inches' },
        ]}
      />
      <Choice
        {...field}
        label="Side"
        path="edge"
        options={[
          { value: 'before', title: across ? 'Over' : 'Left' },
          { value: 'after', title: across ? 'Under' : 'Right' },
        ]}
      />
      <Choice
        {...field}
        label="Ends"
        path="ends"
        options={[
          { value: 'ticks', title: 'Ticks' },
          { value: 'arrows', title: 'Arrows' },
        ]}
      />
      <Toggle {...field} label="As a diameter" path="diameter" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label="Off by" path="offset" min={-5000} max={5000} />
        <Amount {...field} label="Line" path="line" max={200} digits={1} />
        <Amount {...field} label="Size" path="size" min={4} />
      </div>
      <BrandFont {...field} label="Font" path="font" />
      <BrandColour {...field} label="Colour" path="ink" />
    </div>
  );
}
