import type { BadgeElement } from '@scenograph/core/elements/badge/model';
import { BADGE_FORMS, CORNERS } from '@scenograph/core/elements/badge/forms';
import { Switch, TextField } from '../../../../ui/controls';
import {
  Amount,
  BrandColour,
  BrandFont,
  Choice,
  named,
  patchAt,
  Share,
  Wording,
} from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';

export function BadgeDesk({ element, during, commit }: OverlayDeskProps<BadgeElement>) {
  const field = { element, during, commit };
  const priced = element.says !== 'words';
  return (
    <div className="grid gap-2.5">
      <Choice {...field} label="Form" step="Form of badge" path="form" list options={named(BADGE_FORMS)} />
      {element.form === 'corner' && (
        <Choice {...field} label="Corner" path="corner" list options={named(CORNERS)} />
      )}
      {(element.form === 'seal' || element.form === 'starburst') && (
        <div className="grid grid-cols-2 gap-2">
          <Amount {...field} label="Points" unit="" path="tips" min={5} max={60} />
          <Amount {...field} label="Depth" unit="" path="depth" min={0.01} max={0.6} step={0.01} digits={2} />
        </div>
      )}
      <Choice
        {...field}
        label="What it says"
        step="What the badge says"
        path="says"
        options={[
          { value: 'words', title: 'Words' },
          { value: 'price', title: 'Price' },
          { value: 'was-now', title: 'Was, now' },
          { value: 'saving', title: 'Saving' },
        ]}
      />
      {!priced && <Wording {...field} label="Words" path="text" placeholders={['{variant}']} multiline />}
      {priced && (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Wording {...field} label="Price" path="amount" />
            {element.says !== 'price' && <Wording {...field} label="Former price" path="was" />}
            <Wording {...field} label="Before it" path="lead" />
            <Wording {...field} label="After it" path="each" />
          </div>
          {element.says === 'saving' && (
            <Choice
              {...field}
              label="Saving as"
              path="savingAs"
              options={[
                { value: 'percent', title: 'Percent' },
                { value: 'amount', title: 'Amount' },
              ]}
            />
          )}
          <TextField
            label="Currency, empty for the product’s"
            mono
            value={element.currency ?? ''}
            onCommit={(v) => {
              const code = v.trim().toUpperCase();
              if (code === '' || /^[A-Z]{3}$/.test(code))
                commit('Currency', patchAt(element, 'currency', code || null));
            }}
          />
          <BrandFont {...field} label="Font of numbers" path="numberFont" />
        </>
      )}
      <BrandFont {...field} label="Font of words" path="font" />
      <BrandColour {...field} label="Fill" path="fill" />
      <Share {...field} label="Fill opacity" path="fillOpacity" />
      <BrandColour {...field} label="Words" path="ink" />
      <Switch
        label="Ring inside the edge"
        on={!!element.ring}
        onChange={(on) =>
          commit(
            'Ring',
            patchAt(
              element,
              'ring',
              on
                ? {
                    inset: Math.round(element.box.width * 0.04),
                    width: Math.max(1, Math.round(element.box.width * 0.008)),
                    colour: '#ffffff',
                  }
                : null,
            ),
          )
        }
      />
      {element.ring && (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Amount {...field} label="Inset" path="ring.inset" max={500} digits={1} />
            <Amount {...field} label="Line" path="ring.width" max={200} digits={1} />
          </div>
          <BrandColour {...field} label="Ring" path="ring.colour" />
        </>
      )}
    </div>
  );
}
