import { Fullscreen, Maximize, Minus, Plus } from 'lucide-react';
import { Toolbar } from 'radix-ui';
import { toggleAlone, useAlone } from './alone';
import { LayoutMenu } from './layout-menu';
import { RULER, useLayoutAids } from './rulers';
import type { ViewHands } from './use-stage-view';
import { msg } from '../../language/language';

/** The frame's size, how large it is seen, and the ways to change that. */
export function ZoomBar({
  frame,
  zoom,
  hands,
  anyChosen,
}: {
  frame: { width: number; height: number };
  zoom: number;
  hands: ViewHands;
  anyChosen: boolean;
}) {
  const { alone } = useAlone();
  const rulers = useLayoutAids((s) => s.rulers);
  const button = 'hover:bg-spruce-tint flex h-6 items-center rounded-sm px-1.5 disabled:opacity-45';
  return (
    <div
      className="absolute top-3 left-3 z-10 flex gap-1.5"
      style={rulers ? { translate: `${RULER}px ${RULER}px` } : undefined}
    >
      <span className="measure bg-card/95 rounded-sm px-2 py-1">
        {frame.width} x {frame.height}
      </span>
      <Toolbar.Root aria-label={msg('View')} className="bg-card/95 flex items-center rounded-sm">
        <Toolbar.Button
          className={button}
          title={msg('Zoom out (-)')}
          aria-label={msg('Zoom out')}
          onClick={hands.farther}
        >
          <Minus size={13} aria-hidden />
        </Toolbar.Button>
        <Toolbar.Button
          className={`measure ${button} min-w-14 justify-center`}
          title={msg('Actual pixels, 100 % (A)')}
          aria-label={msg('{zoom} %: show actual pixels', { zoom: Math.round(zoom * 100) })}
          onClick={hands.actual}
        >
          {Math.round(zoom * 100)} %
        </Toolbar.Button>
        <Toolbar.Button
          className={button}
          title={msg('Zoom in (+)')}
          aria-label={msg('Zoom in')}
          onClick={hands.closer}
        >
          <Plus size={13} aria-hidden />
        </Toolbar.Button>
        <Toolbar.Button className={button} title={msg('Fit the picture to the view (F)')} onClick={hands.fit}>
          {msg('Fit')}
        </Toolbar.Button>
        <Toolbar.Button
          className={button}
          title={msg('Fit what is chosen (Shift F)')}
          aria-label={msg('Fit what is chosen')}
          disabled={!anyChosen}
          onClick={() => void hands.chosen()}
        >
          <Maximize size={13} aria-hidden />
        </Toolbar.Button>
        <Toolbar.Button
          className={`${button} ${alone ? 'bg-spruce-tint' : ''}`}
          title={msg('The picture alone (.)')}
          aria-label={msg('The picture alone')}
          aria-pressed={alone}
          onClick={toggleAlone}
        >
          <Fullscreen size={13} aria-hidden />
        </Toolbar.Button>
        <Toolbar.Button asChild>
          <LayoutMenu className={button} />
        </Toolbar.Button>
      </Toolbar.Root>
    </div>
  );
}
