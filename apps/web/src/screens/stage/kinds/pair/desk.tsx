import type { PairElement, PairHalf } from '@scenograph/core/elements/pair/model';
import { Slider, Switch } from '../../../../ui/controls';
import {
  Amount,
  BrandColour,
  BrandFont,
  Choice,
  patchAt,
  Share,
  Toggle,
  Wording,
} from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { PictureChoice } from '../../overlays/picture-choice';
import { msg } from '../../../../language/language';

type Half = 'before' | 'after';

const changed = (element: PairElement, which: Half, part: Partial<PairHalf>) =>
  patchAt(element, which, { ...element[which], ...part });

export function PairDesk({ element, during, commit }: OverlayDeskProps<PairElement>) {
  const field = { element, during, commit };
  const halves = ['before', 'after'] as const;
  const change = (which: Half, part: Partial<PairHalf>) => changed(element, which, part);
  return (
    <div className="grid gap-2.5">
      {halves.map((which) => (
        <PictureChoice
          key={which}
          label={which === 'before' ? msg('Picture of before') : msg('Picture of after')}
          chosen={element[which].picture}
          onChoose={(picture) => commit(msg('Picture of {which}', { which }), change(which, { picture }))}
        />
      ))}
      <Choice
        {...field}
        label={msg('Split')}
        path="split"
        options={[
          { value: 'vertical', title: msg('Upright') },
          { value: 'horizontal', title: msg('Level') },
          { value: 'diagonal', title: msg('Diagonal') },
        ]}
      />
      <Share {...field} label={msg('Divider at')} path="at" min={0.05} max={0.95} />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label={msg('Divider')} path="divider.width" max={200} />
        <Amount {...field} label={msg('Radius')} path="radius" />
      </div>
      <BrandColour {...field} label={msg('Divider')} path="divider.colour" />
      <Toggle {...field} label={msg('Crop both alike')} path="sameCrop" />
      {halves
        .filter((w) => w === 'after' || !element.sameCrop)
        .map((which) => (
          <CropOfHalf key={which} element={element} which={which} during={during} commit={commit} />
        ))}
      <Share {...field} label={msg('Match tone')} path="matchTone" />
      <Switch
        label={msg('Labels')}
        on={!!element.labels}
        onChange={(on) =>
          commit(
            msg('Labels'),
            patchAt(
              element,
              'labels',
              on
                ? {
                    font: 'hanken-grotesk-600',
                    size: Math.round(element.box.height * 0.06),
                    ink: '#ffffff',
                    plate: '#24443a',
                    opacity: 0.9,
                  }
                : null,
            ),
          )
        }
      />
      {element.labels && (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Wording {...field} label={msg('Before')} path="before.label" />
            <Wording {...field} label={msg('After')} path="after.label" />
          </div>
          <BrandFont {...field} label={msg('Font')} path="labels.font" />
          <Amount {...field} label={msg('Size')} path="labels.size" min={4} />
          <BrandColour {...field} label={msg('Behind labels')} path="labels.plate" />
          <BrandColour {...field} label={msg('Labels')} path="labels.ink" />
        </>
      )}
    </div>
  );
}

/** Which part of a picture its half shows, or both where they are cropped alike. */
function CropOfHalf({
  element,
  which,
  during,
  commit,
}: Pick<OverlayDeskProps<PairElement>, 'element' | 'during' | 'commit'> & { which: Half }) {
  const change = (part: Partial<PairHalf>) => changed(element, which, part);
  return (
    <div>
      <p className="text-ink-2 text-[12px]">
        {element.sameCrop ? msg('Crop') : msg('Crop of {which}', { which })}
      </p>
      {(['x', 'y'] as const).map((axis) => (
        <Slider
          key={axis}
          label={axis === 'x' ? msg('Across') : msg('Down')}
          unit="%"
          value={Math.round(element[which].focus[axis] * 100)}
          onChange={(v) => during(change({ focus: { ...element[which].focus, [axis]: v / 100 } }))}
          onCommit={(v) =>
            commit(msg('Crop'), change({ focus: { ...element[which].focus, [axis]: v / 100 } }))
          }
        />
      ))}
      <Slider
        label={msg('Zoom')}
        unit="%"
        min={100}
        max={800}
        value={Math.round(element[which].zoom * 100)}
        onChange={(v) => during(change({ zoom: v / 100 }))}
        onCommit={(v) => commit(msg('Crop'), change({ zoom: v / 100 }))}
      />
    </div>
  );
}
