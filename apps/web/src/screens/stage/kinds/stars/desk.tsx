import type { StarsElement } from '@scenograph/core/elements/stars/model';
import { Amount, BrandColour, BrandFont, Choice, Share, Wording } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';

export function StarsDesk({ element, during, commit }: OverlayDeskProps<StarsElement>) {
  const field = { element, during, commit };
  return (
    <div className="grid gap-2.5">
      <div className="grid grid-cols-2 items-end gap-2">
        <Wording {...field} label="Rating" path="rating" />
        <Amount {...field} label="Out of" unit="" path="of" min={1} max={10} />
      </div>
      <Wording {...field} label="Words beside it" path="text" placeholders={['{rating}', '{reviews}']} />
      <Choice
        {...field}
        label="Where the words stand"
        step="Words of the rating"
        path="textAt"
        options={[
          { value: 'right', title: 'Beside' },
          { value: 'below', title: 'Under' },
        ]}
      />
      <BrandFont {...field} label="Font" path="font" />
      <BrandColour {...field} label="Stars" path="colour" />
      <BrandColour {...field} label="Empty stars" path="empty" />
      <BrandColour {...field} label="Words" path="ink" />
      <Share {...field} label="Gap" path="gap" />
    </div>
  );
}
