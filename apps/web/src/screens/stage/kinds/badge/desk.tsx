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
import { msg } from '../../../../language/language';

export function BadgeDesk({ element, during, commit }: OverlayDeskProps<BadgeElement>) {
  const field = { element, during, commit };
  const priced = element.says !== 'words';
  return (
    <div className="grid gap-2.5">
      <Choice
        {...field}
        label={msg('Form')}
        step={msg('Form of badge')}
        path="form"
        list
        options={named(BADGE_FORMS)}
      />
      {element.form === 'corner' && (
        <Choice {...field} label={msg('Corner')} path="corner" list options={named(CORNERS)} />
      )}
      {(element.form === 'seal' || element.form === 'starburst') && (
        <div className="grid grid-cols-2 gap-2">
          <Amount {...field} label={msg('Points')} unit="" path="tips" min={5} max={60} />
          <Amount
            {...field}
            label={msg('Depth')}
            unit=""
            path="depth"
            min={0.01}
            max={0.6}
            step={0.01}
            digits={2}
          />
        </div>
      )}
      <Choice
        {...field}
        label={msg('What it says')}
        step={msg('What the badge says')}
        path="says"
        options={[
          { value: 'words', title: msg('Words') },
          { value: 'price', title: msg('Price') },
          { value: 'was-now', title: msg('Was, now') },
          { value: 'saving', title: msg('Saving') },
        ]}
      />
      {!priced && (
        <Wording {...field} label={msg('Words')} path="text" placeholders={['{variant}']} multiline />
      )}
      {priced && <PriceFields element={element} during={during} commit={commit} />}
      <BrandFont {...field} label={msg('Font of words')} path="font" />
      <BrandColour {...field} label={msg('Fill')} path="fill" />
      <Share {...field} label={msg('Fill opacity')} path="fillOpacity" />
      <BrandColour {...field} label={msg('Words')} path="ink" />
      <RingFields element={element} during={during} commit={commit} />
    </div>
  );
}

type Part = Pick<OverlayDeskProps<BadgeElement>, 'element' | 'during' | 'commit'>;

/** What a badge with a price says, and in which currency. */
function PriceFields({ element, during, commit }: Part) {
  const field = { element, during, commit };
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <Wording {...field} label={msg('Price')} path="amount" />
        {element.says !== 'price' && <Wording {...field} label={msg('Former price')} path="was" />}
        <Wording {...field} label={msg('Before it')} path="lead" />
        <Wording {...field} label={msg('After it')} path="each" />
      </div>
      {element.says === 'saving' && (
        <Choice
          {...field}
          label={msg('Saving as')}
          path="savingAs"
          options={[
            { value: 'percent', title: msg('Percent') },
            { value: 'amount', title: msg('Amount') },
          ]}
        />
      )}
      <TextField
        label={msg('Currency, empty for the product’s')}
        mono
        value={element.currency ?? ''}
        onCommit={(v) => {
          const code = v.trim().toUpperCase();
          if (code === '' || /^[A-Z]{3}$/.test(code))
            commit(msg('Currency'), patchAt(element, 'currency', code || null));
        }}
      />
      <BrandFont {...field} label={msg('Font of numbers')} path="numberFont" />
    </>
  );
}

/** A line within the edge. */
function RingFields({ element, during, commit }: Part) {
  const field = { element, during, commit };
  return (
    <>
      <Switch
        label={msg('Ring inside the edge')}
        on={!!element.ring}
        onChange={(on) =>
          commit(
            msg('Ring'),
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
            <Amount {...field} label={msg('Inset')} path="ring.inset" max={500} digits={1} />
            <Amount {...field} label={msg('Line')} path="ring.width" max={200} digits={1} />
          </div>
          <BrandColour {...field} label={msg('Ring')} path="ring.colour" />
        </>
      )}
    </>
  );
}
