import { useMemo, useState } from 'react';
import type { Shot } from '@scenograph/core/shot/document';
import { resizedShot, type Resizing } from '@scenograph/core/shot/resize-shot';
import { frameOf, trimmedSize, type Trim, type TrimmedSize } from '@scenograph/core/shot/trim';
import { useActions } from '../../ui/actions';
import { Button, Segmented } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { SizeFields } from '../new-picture/size-fields';
import { useStage } from './store';
import { msg } from '../../language/language';

/** A shot that was never told otherwise is pixels alone. */
const PIXELS: Trim = { unit: 'px', dpi: 72, bleedMm: 0, safeMm: 0 };

const MEANS: Record<Resizing, string> = {
  keep: msg('Everything stays as large as it is, about the middle.'),
  scale: msg('Everything grows or shrinks with the picture.'),
  arrange: msg('Everything is placed anew, as in a slot of that shape.'),
};

/** The size of the shot's own picture, and what becomes of its content when that changes. */
export function ChangeSize({ shot }: { shot: Shot }) {
  const [open, setOpen] = useState(false);
  const actions = useMemo(
    () => [
      {
        id: 'size',
        title: msg('Change the size of the picture'),
        group: msg('Sizes'),
        run: () => setOpen(true),
      },
    ],
    [],
  );
  useActions('change-size', actions);
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="text-spruce block h-6 text-[12px] underline"
      >
        {msg('Change size')}
      </button>
      {open && <SizeDialog shot={shot} onClose={() => setOpen(false)} />}
    </>
  );
}

function SizeDialog({ shot, onClose }: { shot: Shot; onClose(): void }) {
  const edit = useStage((s) => s.edit);
  const [size, setSize] = useState<TrimmedSize>(() => trimmedSize(shot.frame, shot.trim ?? PIXELS));
  const [how, setHow] = useState<Resizing>('scale');
  const made = sized(size);
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Size of the picture')}
      about={msg('Slots keep their own sizes; this is the picture that they are made from.')}
      onSubmit={(e) => {
        e.preventDefault();
        if (!made.frame) return;
        const { frame } = made;
        const { unit, dpi, bleedMm, safeMm } = size;
        edit(msg('Size of the picture'), (s) => ({
          ...resizedShot(s, frame, how),
          trim: { unit, dpi, bleedMm, safeMm },
        }));
        onClose();
      }}
      footer={
        <>
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" type="submit" disabled={!made.frame}>
            {msg('Change size')}
          </Button>
        </>
      }
    >
      <div className="grid gap-3">
        <SizeFields size={size} onChange={setSize} />
        {made.frame ? (
          <p className="measure text-ink-2">
            {msg('{width} x {height} px, now {w} x {h}', {
              ...{ width: made.frame.width, height: made.frame.height },
              ...{ w: shot.frame.width, h: shot.frame.height },
            })}
          </p>
        ) : (
          <p role="alert" className="text-coral-ink text-[12.5px]">
            {made.wrong}
          </p>
        )}
        <Segmented
          label={msg('What becomes of the content')}
          value={how}
          onChange={(to: Resizing) => setHow(to)}
          options={[
            { value: 'keep', title: msg('Keep') },
            { value: 'scale', title: msg('Scale along') },
            { value: 'arrange', title: msg('Re-arrange') },
          ]}
        />
        <p className="text-ink-2 text-[12px]">{MEANS[how]}</p>
      </div>
    </Dialog>
  );
}

function sized(size: TrimmedSize): { frame: Shot['frame']; wrong: null } | { frame: null; wrong: string } {
  try {
    return { frame: frameOf(size), wrong: null };
  } catch (e) {
    return { frame: null, wrong: (e as Error).message };
  }
}
