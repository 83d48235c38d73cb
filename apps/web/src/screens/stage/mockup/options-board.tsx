import { useEffect, useMemo, useRef, useState } from 'react';
import type { BackdropElement } from '@scenograph/core/elements/backdrop/model';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { takeOption } from '@scenograph/core/surface/options';
import type { ItemOption } from '@scenograph/core/surface/print-item';
import { Button, Slider } from '../../../ui/controls';
import { say } from '../../../ui/notices';
import { paintThumbnail } from '../../../workers/painters';
import { download } from '../download';
import { withWork, type MockupElement } from './editing';
import { useMockupTools } from './tools';
import { msg, rich } from '../../../language/language';

const CELL = 420;

/** Options side by side with one zoom and one place in view for all; winners are chosen here. */
export function OptionsBoard({
  shotId,
  element,
  resolved,
  commit,
  before,
}: {
  shotId: string;
  element: MockupElement;
  resolved: ResolvedShot;
  commit(label: string, value: Partial<BackdropElement>): void;
  /** What must be stored before the server is asked. */
  before(): Promise<void>;
}) {
  const { options } = element.fill.item;
  const { take } = useMockupTools();
  const [zoom, setZoom] = useState(1);
  const [centre, setCentre] = useState({ x: 0.5, y: 0.5 });
  const set = (label: string, list: ItemOption[]) => commit(label, withWork(element, { options: list }));
  return (
    <div className="flex min-h-0 grow flex-col" style={{ background: 'var(--stage)' }}>
      <BoardHead
        shotId={shotId}
        options={options}
        before={before}
        zoom={zoom}
        onZoom={setZoom}
        onClose={() => take('place')}
      />
      <ul
        aria-label={msg('Options side by side')}
        className="grid grow auto-rows-min grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-3 overflow-y-auto p-4"
      >
        {options.map((option) => (
          <OptionCell
            key={option.id}
            option={option}
            element={element}
            resolved={resolved}
            zoom={zoom}
            centre={centre}
            onCentre={setCentre}
            onWinner={() =>
              set(
                option.winner ? msg('Not a winner') : msg('Winner'),
                options.map((o) => (o === option ? { ...o, winner: !o.winner } : o)),
              )
            }
            onTake={() => {
              commit(msg('Take option {option}', { option: option.title }), {
                fill: { ...element.fill, item: takeOption(element.fill.item, option) },
              });
              take('place');
            }}
            onRemove={() =>
              set(
                msg('Remove an option'),
                options.filter((o) => o !== option),
              )
            }
          />
        ))}
      </ul>
    </div>
  );
}

/** How many there are, the zoom of all of them, and a sheet to send to the customer. */
function BoardHead({
  shotId,
  options,
  before,
  zoom,
  onZoom,
  onClose,
}: {
  shotId: string;
  options: ItemOption[];
  /** What must be stored before the server is asked. */
  before(): Promise<void>;
  zoom: number;
  onZoom(zoom: number): void;
  onClose(): void;
}) {
  const [making, setMaking] = useState(false);
  const winners = options.filter((o) => o.winner);
  const shown = winners.length ? winners : options;
  const sheet = async () => {
    setMaking(true);
    try {
      await before();
      await download('POST', `/api/shots/${shotId}/option-sheet`, 'options.png', {
        options: shown.map((o) => o.id),
        columns: Math.min(4, Math.ceil(Math.sqrt(shown.length))),
      });
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setMaking(false);
  };
  return (
    <div className="bg-card/95 flex items-center gap-3 px-4 py-2">
      <h2 className="font-semibold">
        {rich('Options <measure>{options}</measure>', {
          measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
          options: options.length,
        })}
      </h2>
      <div className="w-64">
        <Slider
          label={msg('Shared zoom')}
          unit="%"
          min={100}
          max={800}
          value={Math.round(zoom * 100)}
          onChange={(v) => onZoom(v / 100)}
          onCommit={(v) => onZoom(v / 100)}
        />
      </div>
      <span className="grow" />
      <Button onClick={() => void sheet()} disabled={making || !options.length}>
        {making ? msg('Making the sheet') : winners.length ? msg('Sheet of the chosen') : msg('Sheet of all')}
      </Button>
      <Button onClick={onClose}>{msg('Back to the stage')}</Button>
    </div>
  );
}

/** A canvas that shows the shot with an option of its mockup. */
function useOptionPicture(
  option: ItemOption,
  element: MockupElement,
  resolved: ResolvedShot,
  zoom: number,
): React.RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null);
  const wish = useRef(0);
  const shot = useMemo((): ResolvedShot => {
    const fill = { ...element.fill, item: takeOption(element.fill.item, option) };
    return {
      ...resolved,
      elements: resolved.elements.map((e) => (e.id === element.id ? ({ ...e, fill } as typeof e) : e)),
    };
  }, [element, option, resolved]);
  // Painted as large as it is shown, in steps, so that zooming does not paint at every move.
  const detail = Math.min(1, (CELL * 2 ** Math.ceil(Math.log2(zoom))) / resolved.width);
  useEffect(() => {
    const mine = ++wish.current;
    paintThumbnail(shot, detail, () => wish.current === mine)
      .then((bitmap) => {
        const target = canvas.current;
        if (!bitmap || !target || wish.current !== mine) return;
        target.width = bitmap.width;
        target.height = bitmap.height;
        target.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
        target.setAttribute('aria-busy', 'false');
      })
      .catch((e: Error) => say('stop', e.message));
    return () => {
      wish.current++;
    };
  }, [shot, detail]);
  return canvas;
}

function OptionCell({
  option,
  element,
  resolved,
  zoom,
  centre,
  onCentre,
  onWinner,
  onTake,
  onRemove,
}: {
  option: ItemOption;
  element: MockupElement;
  resolved: ResolvedShot;
  zoom: number;
  centre: { x: number; y: number };
  onCentre(centre: { x: number; y: number }): void;
  onWinner(): void;
  onTake(): void;
  onRemove(): void;
}) {
  const canvas = useOptionPicture(option, element, resolved, zoom);
  const grabbed = useRef<{ x: number; y: number; centre: { x: number; y: number } } | null>(null);
  const hold = (v: number) => Math.min(1 - 0.5 / zoom, Math.max(0.5 / zoom, v));
  return (
    <li
      className={`bg-card overflow-hidden rounded-lg border ${option.winner ? 'border-spruce ring-spruce ring-2' : 'border-line'}`}
    >
      <div
        className="relative cursor-grab touch-none overflow-hidden"
        style={{ aspectRatio: `${resolved.width} / ${resolved.height}` }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          grabbed.current = { x: e.clientX, y: e.clientY, centre };
        }}
        onPointerMove={(e) => {
          const g = grabbed.current;
          if (!g || !e.buttons) return;
          const { width, height } = e.currentTarget.getBoundingClientRect();
          onCentre({
            x: hold(g.centre.x - (e.clientX - g.x) / width / zoom),
            y: hold(g.centre.y - (e.clientY - g.y) / height / zoom),
          });
        }}
        onPointerUp={() => {
          grabbed.current = null;
        }}
      >
        <canvas
          ref={canvas}
          role="img"
          aria-label={msg('Option {option}', { option: option.title })}
          aria-busy="true"
          className="absolute top-0 left-0 h-full w-full origin-top-left"
          style={{
            transform: `translate(${(0.5 - hold(centre.x) * zoom) * 100}%, ${(0.5 - hold(centre.y) * zoom) * 100}%) scale(${zoom})`,
          }}
        />
      </div>
      <div className="border-line grid gap-1.5 border-t px-2.5 py-2">
        <p className="truncate font-medium" title={option.title}>
          {option.title}
        </p>
        <div className="flex gap-1.5">
          <Button aria-pressed={option.winner} onClick={onWinner}>
            {option.winner ? msg('Chosen') : msg('Choose')}
          </Button>
          <Button onClick={onTake}>{msg('Take it')}</Button>
          <Button tone="quiet" onClick={onRemove}>
            {msg('Remove')}
          </Button>
        </div>
      </div>
    </li>
  );
}
