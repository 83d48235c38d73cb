import type { StarsElement } from '@scenograph/core/elements/stars/model';
import { Amount, BrandColour, BrandFont, Choice, Share, Wording } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { msg } from '../../../../language/language';

export function StarsDesk({ element, during, commit }: OverlayDeskProps<StarsElement>) {
  const field = { element, during, commit };
  return (
    <div className="grid gap-2.5">
      <div className="grid grid-cols-2 items-end gap-2">
        <Wording {...field} label={msg('Rating')} path="rating" />
        <Amount {...field} label={msg('Out of')} unit="" path="of" min={1} max={10} />
      </div>
      <Wording
        {...field}
        label={msg('Words beside it')}
        path="text"
        placeholders={['{rating}', '{reviews}']}
      />
      <Choice
        {...field}
        label={msg('Where the words stand')}
        step={msg('Words of the rating')}
        path="textAt"
        options={[
          { value: 'right', title: msg('Beside') },
          { value: 'below', title: msg('Under') },
        ]}
      />
      <BrandFont {...field} label={msg('Font')} path="font" />
      <BrandColour {...field} label={msg('Stars')} path="colour" />
      <BrandColour {...field} label={msg('Empty stars')} path="empty" />
      <BrandColour {...field} label={msg('Words')} path="ink" />
      <Share {...field} label={msg('Gap')} path="gap" />
    </div>
  );
}
