import { lengthText, type MeasureElement } from '@scenograph/core/elements/measure/definition';
import { Segmented, Switch } from '../../../ui/controls';
import { Amount, BrandColour, BrandFont, patchAt } from './fields';
import type { OverlayDeskProps } from './overlay-desk';
import { ProductChoice } from './product-choice';

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
      <Segmented
        label="What it measures"
        value={element.side}
        onChange={(v) => commit('What it measures', patchAt(element, 'side', v))}
        options={[
          { value: 'width', title: 'Width' },
          { value: 'height', title: 'Height' },
        ]}
      />
      <Segmented
        label="Unit"
        value={element.unit}
        onChange={(v) => commit('Unit', patchAt(element, 'unit', v))}
        options={[
          { value: 'mm', title: 'mm' },
          { value: 'cm', title: 'cm' },
          { value: 'in', title: 'inches' },
        ]}
      />
      <Segmented
        label="Side"
        value={element.edge}
        onChange={(v) => commit('Side', patchAt(element, 'edge', v))}
        options={[
          { value: 'before', title: across ? 'Over' : 'Left' },
          { value: 'after', title: across ? 'Under' : 'Right' },
        ]}
      />
      <Segmented
        label="Ends"
        value={element.ends}
        onChange={(v) => commit('Ends', patchAt(element, 'ends', v))}
        options={[
          { value: 'ticks', title: 'Ticks' },
          { value: 'arrows', title: 'Arrows' },
        ]}
      />
      <Switch
        label="As a diameter"
        on={element.diameter}
        onChange={(v) => commit('As a diameter', patchAt(element, 'diameter', v))}
      />
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
