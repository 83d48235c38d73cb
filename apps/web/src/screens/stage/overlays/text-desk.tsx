import type { TextElement } from '@scenograph/core/elements/text/definition';
import { Button, Segmented, Select, Switch } from '../../../ui/controls';
import { Amount, BrandColour, BrandFont, patchAt, Wording } from './fields';
import type { OverlayDeskProps } from './overlay-desk';
import { PlateFields } from './plate-fields';

const PLACEHOLDERS = ['{title}', '{variant}', '{price}', '{sku}', '{size}', '{brand}'];

export function TextDesk({ element, written, elements, during, commit }: OverlayDeskProps<TextElement>) {
  const field = { element, during, commit };
  const others = elements.filter((e): e is TextElement => e.kind === 'text' && e.id !== element.id);
  return (
    <div className="grid gap-2.5">
      <Wording
        {...field}
        label="Words"
        path="text"
        written={written.text}
        placeholders={PLACEHOLDERS}
        multiline
      />
      {element.text === '' && (
        <Button onClick={() => commit('Change words', { text: '{title}' } as Partial<TextElement>)}>
          Use the product’s title
        </Button>
      )}
      <BrandFont {...field} label="Font" path="font" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label="Largest" path="size" min={4} />
        <Amount {...field} label="Smallest" path="smallest" min={2} />
        <Amount {...field} label="Leading" unit="x" path="leading" min={0.6} max={3} step={0.05} digits={2} />
        <Amount {...field} label="Tracking" unit="‰" path="tracking" min={-200} max={1000} step={5} />
      </div>
      <Segmented
        label="Alignment"
        value={element.align}
        onChange={(align) => commit('Align text', { align } as Partial<TextElement>)}
        options={[
          { value: 'start', title: 'Start', label: 'Where reading begins' },
          { value: 'left', title: 'Left' },
          { value: 'centre', title: 'Centre' },
          { value: 'right', title: 'Right' },
        ]}
      />
      <Segmented
        label="Place in the box"
        value={element.vertical}
        onChange={(vertical) => commit('Align text', { vertical } as Partial<TextElement>)}
        options={[
          { value: 'top', title: 'Top' },
          { value: 'middle', title: 'Middle' },
          { value: 'bottom', title: 'Bottom' },
        ]}
      />
      <Switch
        label="Capitals"
        on={element.capitals}
        onChange={(capitals) => commit('Capitals', { capitals } as Partial<TextElement>)}
      />
      {others.length > 0 && (
        <Select
          label="Set at one size with"
          value={element.tied ?? 'alone'}
          onChange={(v) => commit('Tie sizes', patchAt(element, 'tied', v === 'alone' ? null : v))}
          options={[
            { value: 'alone', title: 'A size of its own' },
            ...[...new Set([element.tied, ...others.map((o) => o.tied)].filter((t) => t !== null))].map(
              (t) => ({
                value: t,
                title: `One size with ${
                  others
                    .filter((o) => o.tied === t)
                    .map((o) => o.name)
                    .join(', ') || 'others'
                }`,
              }),
            ),
            ...(element.tied ? [] : [{ value: `tie-${element.id}`, title: 'Begin a size to share' }]),
          ]}
        />
      )}
      <BrandColour {...field} label="Colour" path="colour" />
      <PlateFields {...field} size={element.size} />
    </div>
  );
}
