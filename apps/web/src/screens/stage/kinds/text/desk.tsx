import { isText, type TextElement } from '@scenograph/core/elements/text/model';
import { Button, Select } from '../../../../ui/controls';
import { Amount, BrandColour, BrandFont, Choice, patchAt, Toggle, Wording } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PlateFields } from '../../overlays/plate-fields';
import { msg } from '../../../../language/language';

const PLACEHOLDERS = ['{title}', '{variant}', '{price}', '{sku}', '{size}', '{brand}'];

export function TextDesk({ element, elements, during, commit }: OverlayDeskProps<TextElement>) {
  const field = { element, during, commit };
  const others = elements.filter((e): e is TextElement => isText(e) && e.id !== element.id);
  return (
    <div className="grid gap-2.5">
      <Wording {...field} label={msg('Words')} path="text" placeholders={PLACEHOLDERS} multiline />
      {element.text === '' && (
        <Button onClick={() => commit(msg('Change words'), { text: '{title}' })}>
          {msg('Use the product’s title')}
        </Button>
      )}
      <BrandFont {...field} label={msg('Font')} path="font" />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label={msg('Largest')} path="size" min={4} />
        <Amount {...field} label={msg('Smallest')} path="smallest" min={2} />
        <Amount
          {...field}
          label={msg('Leading')}
          unit="x"
          path="leading"
          min={0.6}
          max={3}
          step={0.05}
          digits={2}
        />
        <Amount {...field} label={msg('Tracking')} unit="‰" path="tracking" min={-200} max={1000} step={5} />
      </div>
      <Choice
        {...field}
        label={msg('Alignment')}
        step={msg('Align text')}
        path="align"
        options={[
          { value: 'start', title: msg('Start'), label: msg('Where reading begins') },
          { value: 'left', title: msg('Left') },
          { value: 'centre', title: msg('Centre') },
          { value: 'right', title: msg('Right') },
        ]}
      />
      <Choice
        {...field}
        label={msg('Place in the box')}
        step={msg('Align text')}
        path="vertical"
        options={[
          { value: 'top', title: msg('Top') },
          { value: 'middle', title: msg('Middle') },
          { value: 'bottom', title: msg('Bottom') },
        ]}
      />
      <Toggle {...field} label={msg('Capitals')} path="capitals" />
      {others.length > 0 && (
        <Select
          label={msg('Set at one size with')}
          value={element.tied ?? 'alone'}
          onChange={(v) => commit(msg('Tie sizes'), patchAt(element, 'tied', v === 'alone' ? null : v))}
          options={[
            { value: 'alone', title: msg('A size of its own') },
            ...[...new Set([element.tied, ...others.map((o) => o.tied)].filter((t) => t !== null))].map(
              (t) => ({
                value: t,
                title: msg('One size with {others}', {
                  others:
                    others
                      .filter((o) => o.tied === t)
                      .map((o) => o.name)
                      .join(', ') || 'others',
                }),
              }),
            ),
            ...(element.tied ? [] : [{ value: `tie-${element.id}`, title: msg('Begin a size to share') }]),
          ]}
        />
      )}
      <BrandColour {...field} label={msg('Colour')} path="colour" />
      <PlateFields {...field} size={element.size} />
    </div>
  );
}
