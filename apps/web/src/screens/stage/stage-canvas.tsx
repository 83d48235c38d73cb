import { useRef } from 'react';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { Guide } from '@scenograph/core/stage/snap';
import { useSize } from '../../ui/use-size';
import { LayoutAids } from './layout-aids';
import { Handles, type HandleEvents } from './handles';
import { SnapGuides } from './snap-guides';
import { usePainting } from './use-painting';
import { useStageView } from './use-stage-view';
import { ZoomBar } from './zoom-bar';
import { msg } from '../../language/language';

/** The picture being worked on: painted by the worker, with handles laid over it. */
export function StageCanvas({
  resolved,
  selected,
  also,
  guides,
  draft,
  overlay,
  ...events
}: HandleEvents & {
  resolved: ResolvedShot;
  selected: string | null;
  also: string[];
  guides: Guide[];
  /** While dragging: painted fast first, in full when it rests. */
  draft: boolean;
  overlay?: (zoom: number) => React.ReactNode;
}) {
  const { ref: room, size } = useSize({ width: 800, height: 500 });
  const canvas = useRef<HTMLCanvasElement>(null);
  const chosen = resolved.elements.find((e) => e.id === selected)?.box ?? null;
  const { view, left, top, hands, pan } = useStageView(room, size, resolved, chosen);
  const { zoom } = view;
  const painting = usePainting(canvas, resolved, paintedScale(zoom, resolved), draft);
  return (
    <div
      ref={room}
      {...pan.handlers}
      data-stage-room
      data-drop-says="Drop on the picture to lay it in this shot, elsewhere to import photos"
      className={`relative min-h-0 grow overflow-hidden ${pan.space ? 'cursor-grab' : ''}`}
      style={{ background: 'var(--stage)' }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={msg('The shot as it will be delivered')}
        data-testid="stage-picture"
        className="clear-ground absolute outline outline-[#00000026]"
        style={{ left, top, width: resolved.width * zoom, height: resolved.height * zoom }}
      />
      {painting.trouble && <Unpainted trouble={painting.trouble} onTryAgain={painting.tryAgain} />}
      <Handles {...{ size, left, top, zoom, resolved, selected, also }} {...events} />
      <SnapGuides {...{ guides, left, top, zoom }} frame={resolved} />
      <div className="pointer-events-none absolute" style={{ left, top }}>
        {overlay?.(zoom)}
      </div>
      <LayoutAids {...{ left, top, zoom, size }} frame={resolved} />
      {pan.space && <div className="absolute inset-0" />}
      <ZoomBar frame={resolved} zoom={zoom} hands={hands} anyChosen={chosen !== null} />
    </div>
  );
}

/** Pixels that a picture on the stage has at most. */
const MOST_PIXELS = 24e6;

/** Pixels painted for each of the frame's: as many as are seen, at most two, and no more in all than can be held. */
const paintedScale = (zoom: number, { width, height }: ResolvedShot) =>
  Math.min(2, zoom * window.devicePixelRatio, Math.max(1, Math.sqrt(MOST_PIXELS / (width * height))));

/** The picture is not what the shot says: why, and a way to paint it again. */
function Unpainted({ trouble, onTryAgain }: { trouble: string; onTryAgain(): void }) {
  return (
    <div
      role="alert"
      className="bg-card absolute inset-x-0 top-12 z-10 mx-auto flex w-fit max-w-lg items-center gap-3 rounded-md px-4 py-2"
    >
      <span>{msg('This picture could not be painted. {trouble}', { trouble })}</span>
      <button
        type="button"
        className="text-spruce font-semibold whitespace-nowrap underline"
        onClick={onTryAgain}
      >
        {msg('Try again')}
      </button>
    </div>
  );
}
