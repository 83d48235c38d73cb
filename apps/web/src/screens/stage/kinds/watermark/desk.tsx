import type { WatermarkElement } from '@scenograph/core/elements/watermark/model';
import { Slider } from '../../../../ui/controls';
import { Amount, BrandFont, Choice, patchAt, Share, Wording } from '../../overlays/fields';
import { LogoChoice } from '../logo/desk';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { msg } from '../../../../language/language';

export function WatermarkDesk({ element, during, commit }: OverlayDeskProps<WatermarkElement>) {
  const field = { element, during, commit };
  return (
    <div className="grid gap-2.5">
      <Choice
        {...field}
        label={msg('Mark')}
        path="mark"
        options={[
          { value: 'logo', title: msg('Logo') },
          { value: 'words', title: msg('Words') },
        ]}
      />
      {element.mark === 'logo' ? (
        <LogoChoice element={element} commit={commit} />
      ) : (
        <>
          <Wording {...field} label={msg('Words')} path="text" placeholders={['{brand}', '{sku}']} />
          <BrandFont {...field} label={msg('Font')} path="font" />
        </>
      )}
      <Choice
        {...field}
        label={msg('Pattern')}
        path="pattern"
        options={[
          { value: 'single', title: msg('Single') },
          { value: 'diagonal', title: msg('Diagonal') },
          { value: 'tiled', title: msg('Tiled') },
        ]}
      />
      <Slider
        label={msg('Strength')}
        unit="L*"
        min={2}
        max={50}
        value={element.strength}
        onChange={(v) => during(patchAt(element, 'strength', v))}
        onCommit={(v) => commit(msg('Strength'), patchAt(element, 'strength', v))}
      />
      <p className="text-ink-2 text-[12px]">
        {msg('Each mark is as many steps of lightness off its ground: white on dark, black on light.')}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label={msg('Size')} path="size" min={8} max={20000} />
        <Amount {...field} label={msg('Angle')} unit="°" path="angleDeg" min={-90} max={90} />
      </div>
      {element.pattern !== 'single' && <Share {...field} label={msg('Gap')} path="gap" max={3} />}
    </div>
  );
}
