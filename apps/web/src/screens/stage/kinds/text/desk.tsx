import { isText, type TextElement } from '@scenograph/core/elements/text/model';
import { Button, Select } from '../../../../ui/controls';
import { Amount, BrandColour, BrandFont, Choice, patchAt, Toggle, Wording } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PlateFields } from '../../overlays/plate-fields';

const PLACEHOLDERS = ['{title}', '{variant}', '{price}', '{sku}', '{size}', '{brand}'];

export function TextDesk({ element, elements, during, commit }: OverlayDeskProps<TextElement>) {
  const field = { element, during, commit };
  const others = elements.filter((e): e is TextElement => isText(e) && e.id !== element.id);
  return (
    <div className="grid gap-2.5">
      <Wording {...field} label="Words" path="text" placeholders={PLACEHOLDERS} multiline />
      {element.text === '' && (
        <Button onClick={() => commit('Change words', { text: '{title}' })}>Use the product’s title</Button>
      )}
      <BrandFont {...field} label="Font" path="font" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label="Largest" path="size" min={4} />
        <Amount {...field} label="Smallest" path="smallest" min={2} />
        <Amount {...field} label="Leading" unit="x" path="leading" min={0.6} max={3} step={0.05} digits={2} />
        <Amount {...field} label="Tracking" unit="‰" path="tracking" min={-200} max={1000} step={5} />
      </div>
      <Choice
        {...field}
        label="Alignment"
        step="Align text"
        path="align"
        options={[
          { value: 'start', title: 'Start', label: 'Where reading begins' },
          { value: 'left', title: 'Left' },
          { value: 'centre', title: 'Centre' },
          { value: 'right', title: 'Right' },
        ]}
      />
      <Choice
        {...field}
        label="Place in the box"
        step="Align text"
        path="vertical"
        options={[
          { value: 'top', title: 'Top' },
          { value: 'middle', title: 'Middle' },
          { value: 'bottom', title: 'Bottom' },
        ]}
      />
      <Toggle {...field} label="Capitals" path="capitals" />
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
