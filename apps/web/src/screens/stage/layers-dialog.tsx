import { useState } from 'react';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { download } from './download';
import { saveNow } from './store';
import { msg } from '../../language/language';

/** The shot as one file with a layer for each element, for those who go on with it elsewhere. */
export function LayersDialog({
  shotId,
  slot,
  variant,
  onClose,
}: {
  shotId: string;
  slot: string | null;
  variant: string | null;
  onClose(): void;
}) {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const make = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await saveNow();
      const query = new URLSearchParams({ ...(slot ? { slot } : {}), ...(variant ? { variant } : {}) });
      await download('GET', `/api/shots/${shotId}/layers?${query}`, 'layers.ora');
      onClose();
    } catch (e) {
      setTrouble((e as Error).message);
    }
    setBusy(false);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Layers as OpenRaster')}
      about={msg(
        "An open format (.ora): every element, the shadows and a scene's foreground as PNG layers with their blend modes, and the whole picture.",
      )}
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" disabled={busy} onClick={() => void make()}>
            {busy ? msg('Painting the layers ...') : msg('Make it')}
          </Button>
        </>
      }
    >
      <p>
        {msg('{part} Texts become pixels; the shot itself stays as it is.', {
          part: slot ? msg('In the size of the slot on the stage.') : msg('In the size of the base.'),
        })}
      </p>
    </Dialog>
  );
}
