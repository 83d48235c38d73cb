import { useState } from 'react';
import { elementKind } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { Format } from '@scenograph/core/spec/slot';
import { Button, NumberField, Segmented } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { download } from './download';

/** The shot as one file of a chosen size, in pixels or in millimetres and dots an inch. */
export function ExportDialog({
  shotId,
  resolved,
  slot,
  variant,
  known,
  before,
  onClose,
}: {
  shotId: string;
  resolved: ResolvedShot;
  slot: string | null;
  variant: string | null;
  known: ReadonlyMap<string, { width: number; height: number }>;
  before(): Promise<void>;
  onClose(): void;
}) {
  const [by, setBy] = useState<'pixels' | 'millimetres'>('pixels');
  const [width, setWidth] = useState(resolved.width);
  const [mm, setMm] = useState(100);
  const [dpi, setDpi] = useState(300);
  const [format, setFormat] = useState<Format>('jpeg');
  const [making, setMaking] = useState(false);
  const pixels = by === 'pixels' ? width : Math.round((mm / 25.4) * dpi);
  const density = by === 'pixels' ? 72 : dpi;
  const scale = pixels / resolved.width;
  const soft = enlargedIn(resolved, known, scale);
  const make = async () => {
    setMaking(true);
    const query = new URLSearchParams({
      width: String(pixels),
      density: String(density),
      format,
      ...(slot && { slot }),
      ...(variant && { variant }),
    });
    try {
      await before();
      await download(
        'GET',
        `/api/shots/${shotId}/export?${query}`,
        `shot.${format === 'jpeg' ? 'jpg' : format}`,
      );
      onClose();
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setMaking(false);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Export one picture"
      footer={
        <Button tone="main" onClick={() => void make()} disabled={making}>
          {making ? 'Making the picture' : 'Export'}
        </Button>
      }
    >
      <div className="grid gap-3">
        <Segmented
          label="Size by"
          value={by}
          onChange={(v) => setBy(v)}
          options={[
            { value: 'pixels', title: 'Pixels' },
            { value: 'millimetres', title: 'Millimetres' },
          ]}
        />
        <div className="grid grid-cols-2 gap-3">
          {by === 'pixels' ? (
            <NumberField
              label="Width"
              unit="px"
              min={16}
              max={20000}
              value={width}
              onCommit={(v) => setWidth(Math.round(v))}
            />
          ) : (
            <>
              <NumberField label="Width" unit="mm" min={5} max={2000} value={mm} onCommit={setMm} />
              <NumberField
                label="Density"
                unit="dpi"
                min={10}
                max={2400}
                value={dpi}
                onCommit={(v) => setDpi(Math.round(v))}
              />
            </>
          )}
        </div>
        <Segmented
          label="Format"
          value={format}
          onChange={(v) => setFormat(v)}
          options={[
            { value: 'jpeg', title: 'JPEG' },
            { value: 'png', title: 'PNG' },
            { value: 'webp', title: 'WebP' },
          ]}
        />
        <p className="measure text-ink-2" data-testid="export-size">
          {pixels} x {Math.round(resolved.height * scale)} px at {density} dpi,{' '}
          {((pixels / density) * 25.4).toFixed(0)} mm wide
        </p>
        {soft.map((s) => (
          <p key={s.name} className="text-amber-ink text-[12.5px]">
            “{s.name}” is enlarged to {Math.round(s.factor * 100)} percent of its own pixels and will look
            soft. Import it larger, or export smaller.
          </p>
        ))}
      </div>
    </Dialog>
  );
}

/** What would be shown at more than its own pixels, the worst first. */
function enlargedIn(
  shot: ResolvedShot,
  known: ReadonlyMap<string, { width: number; height: number }>,
  scale: number,
): { name: string; factor: number }[] {
  return shot.elements
    .filter((e) => !e.hidden)
    .flatMap((e) => {
      const kind = elementKind(e.kind);
      if (kind.enlarged) return kind.enlarged(e, known);
      return kind.needs(e).pictures.flatMap((hash) => {
        const size = known.get(hash);
        return size
          ? [{ name: e.name, factor: Math.min(e.box.width / size.width, e.box.height / size.height) }]
          : [];
      });
    })
    .map(({ name, factor }) => ({ name, factor: factor * scale }))
    .filter(({ factor }) => factor > 1.05)
    .sort((a, b) => b.factor - a.factor);
}
