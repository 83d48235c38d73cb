import { useState } from 'react';
import type { Camera } from '@scenograph/core/stage/camera';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { reducedUrl } from '../../api/client';
import { msg } from '../../language/language';
import { Button, Slider } from '../../ui/controls';
import { ColourField } from '../../ui/colour-field';
import { say } from '../../ui/notices';
import { focusSeen } from '../../workers/surveying';

interface Props {
  survey: SceneSurvey;
  during(value: Partial<SceneSurvey>): void;
  commit(value: Partial<SceneSurvey>): void;
}

/** What the scene does with depth: where it is sharp, and how hazy it is. */
export function DepthSection({
  picture,
  camera,
  ...props
}: Props & { picture: string; camera: Camera | null }) {
  if (!camera)
    return (
      <p className="text-ink-2">{msg('Depth is known where the standing plane is: measure that first.')}</p>
    );
  return (
    <div className="grid gap-3">
      <FocusPart {...props} picture={picture} />
      <HazePart {...props} />
    </div>
  );
}

function FocusPart({ survey, during, commit, picture }: Props & { picture: string }) {
  const { focus, width, height } = survey;
  const [busy, setBusy] = useState(false);
  const begin = async () => {
    setBusy(true);
    // What the picture shows is a beginning; where it shows nothing, or cannot be read, two places are.
    const found = await focusSeen(reducedUrl(picture, 2048), survey).catch(() => null);
    setBusy(false);
    if (!found)
      say('look', msg('The picture shows no ground out of focus. Two places are a beginning: drag them.'));
    commit({
      focus: found ?? {
        sharp: [width * 0.5, height * 0.8],
        soft: [width * 0.5, height * 0.6],
        blurPx: Math.round(width / 300),
      },
    });
  };
  if (!focus)
    return (
      <div role="group" aria-label={msg('Focus')} className="grid gap-2">
        <p className="text-ink-2 text-[12px]">
          {msg('Where the ground runs out of focus, products are to be as blurred at their depth.')}
        </p>
        <Button disabled={busy} onClick={() => void begin()}>
          {busy ? msg('Looking at the sharpness') : msg('Mark the focus')}
        </Button>
      </div>
    );
  return (
    <div role="group" aria-label={msg('Focus')} className="grid gap-2">
      <p className="text-ink-2 text-[12px]">
        {msg(
          'Drag the point to where the ground is sharpest, and the disc to where it is soft. The disc is as large as its blur.',
        )}
      </p>
      <Slider
        label={msg('Blur at the disc')}
        unit="px"
        max={Math.round(width / 40)}
        step={0.5}
        digits={1}
        value={focus.blurPx}
        onChange={(blurPx) => during({ focus: { ...focus, blurPx } })}
        onCommit={(blurPx) => commit({ focus: { ...focus, blurPx } })}
      />
      <Button onClick={() => commit({ focus: null })}>{msg('Everything is sharp')}</Button>
    </div>
  );
}

function HazePart({ survey, during, commit }: Props) {
  const { haze, width, height } = survey;
  if (!haze)
    return (
      <div role="group" aria-label={msg('Haze')} className="border-line grid gap-2 border-t pt-2">
        <p className="text-ink-2 text-[12px]">
          {msg('Far places out of doors are paler: haze lies over what stands there.')}
        </p>
        <Button
          onClick={() =>
            commit({ haze: { at: [width * 0.5, height * 0.55], share: 0.3, colour: '#c9d2da' } })
          }
        >
          {msg('Mark the haze')}
        </Button>
      </div>
    );
  return (
    <div role="group" aria-label={msg('Haze')} className="border-line grid gap-2 border-t pt-2">
      <p className="text-ink-2 text-[12px]">
        {msg('Drag the point to a far place of the ground and set how much haze lies over it.')}
      </p>
      <Slider
        label={msg('Haze there')}
        unit="%"
        max={95}
        value={Math.round(haze.share * 100)}
        onChange={(v) => during({ haze: { ...haze, share: v / 100 } })}
        onCommit={(v) => commit({ haze: { ...haze, share: v / 100 } })}
      />
      <ColourField
        label={msg('Colour of the haze')}
        value={haze.colour}
        onCommit={(colour) => commit({ haze: { ...haze, colour } })}
      />
      <Button onClick={() => commit({ haze: null })}>{msg('Without haze')}</Button>
    </div>
  );
}
