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

export function PairDesk({ element, during, commit }: OverlayDeskProps<PairElement>) {
  const field = { element, during, commit };
  const halves = ['before', 'after'] as const;
  const change = (which: 'before' | 'after', part: Partial<PairHalf>) =>
    patchAt(element, which, { ...element[which], ...part });
  return (
    <div className="grid gap-2.5">
      {halves.map((which) => (
        <PictureChoice
          key={which}
          label={which === 'before' ? 'Picture of before' : 'Picture of after'}
          chosen={element[which].picture}
          onChoose={(picture) => commit(`Picture of ${which}`, change(which, { picture }))}
        />
      ))}
      <Choice
        {...field}
        label="Split"
        path="split"
        options={[
          { value: 'vertical', title: 'Upright' },
          { value: 'horizontal', title: 'Level' },
          { value: 'diagonal', title: 'Diagonal' },
        ]}
      />
      <Share {...field} label="Divider at" path="at" min={0.05} max={0.95} />
      <div className="grid grid-cols-2 gap-2">
        <Amount {...field} label="Divider" path="divider.width" max={200} />
        <Amount {...field} label="Radius" path="radius" />
      </div>
      <BrandColour {...field} label="Divider" path="divider.colour" />
      <Toggle {...field} label="Crop both alike" path="sameCrop" />
      {halves
        .filter((w) => w === 'after' || !element.sameCrop)
        .map((which) => (
          <div key={which}>
            <p className="text-ink-2 text-[12px]">{element.sameCrop ? 'Crop' : `Crop of ${which}`}</p>
            {(['x', 'y'] as const).map((axis) => (
              <Slider
                key={axis}
                label={axis === 'x' ? 'Across' : 'Down'}
                unit="%"
                value={Math.round(element[which].focus[axis] * 100)}
                onChange={(v) =>
                  during(change(which, { focus: { ...element[which].focus, [axis]: v / 100 } }))
                }
                onCommit={(v) =>
                  commit('Crop', change(which, { focus: { ...element[which].focus, [axis]: v / 100 } }))
                }
              />
            ))}
            <Slider
              label="Zoom"
              unit="%"
              min={100}
              max={800}
              value={Math.round(element[which].zoom * 100)}
              onChange={(v) => during(change(which, { zoom: v / 100 }))}
              onCommit={(v) => commit('Crop', change(which, { zoom: v / 100 }))}
            />
          </div>
        ))}
      <Share {...field} label="Match tone" path="matchTone" />
      <Switch
        label="Labels"
        on={!!element.labels}
        onChange={(on) =>
          commit(
            'Labels',
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
            <Wording {...field} label="Before" path="before.label" />
            <Wording {...field} label="After" path="after.label" />
          </div>
          <BrandFont {...field} label="Font" path="labels.font" />
          <Amount {...field} label="Size" path="labels.size" min={4} />
          <BrandColour {...field} label="Behind labels" path="labels.plate" />
          <BrandColour {...field} label="Labels" path="labels.ink" />
        </>
      )}
    </div>
  );
}
