import { useState } from 'react';
import { writeLength } from '@scenograph/core/data/length';
import type { PrintArea } from '@scenograph/core/surface/area';
import type { SideOutline } from '@scenograph/core/surface/side-outline';
import { msg } from '../../language/language';
import { Button, Segmented } from '../../ui/controls';
import { FileButton } from '../../ui/file-button';
import { LengthField, useLengthUnit } from '../../ui/length-field';
import { say } from '../../ui/notices';
import { sideSeen } from '../../workers/surveying';

type Face = keyof SideOutline;

/** How far an area bulges by a view of the item from its side, cut out. */
export function FromSide({ area, set }: { area: PrintArea; set(change: Partial<PrintArea>): void }) {
  const { unit } = useLengthUnit();
  const [outline, setOutline] = useState<SideOutline | null>(null);
  const [face, setFace] = useState<Face>('right');
  const [tall, setTall] = useState(area.heightMm);
  const look = async ([file]: File[]) => {
    try {
      const found = await sideSeen(file);
      if (!found)
        return say('look', msg('This cutout shows no item that stands upright, seen from its side.'));
      setOutline(found);
      setFace(found.left > found.right ? 'left' : 'right');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  if (!outline)
    return (
      <FileButton
        title={msg('Bulge by a side view')}
        label={msg('The item cut out, seen from its side')}
        accept="image/png,image/webp"
        onFiles={(files) => void look(files)}
      />
    );
  const bulgeMm = Math.round(outline[face] * tall * 10) / 10;
  return (
    <div role="group" aria-label={msg('Side view')} className="grid gap-2">
      <p className="text-ink-2 text-[12px]">
        {msg('Say how high the whole item is, and to which side of the view this face looks.')}
      </p>
      <LengthField label={msg('Height of the item')} min={1} value={tall} onCommit={setTall} />
      <Segmented
        label={msg('Where the face looks in the side view')}
        value={face}
        onChange={(to: Face) => setFace(to)}
        options={[
          { value: 'left', title: msg('To the left') },
          { value: 'right', title: msg('To the right') },
        ]}
      />
      <div className="flex gap-2">
        <Button
          tone="main"
          onClick={() => {
            set({ bulgeMm });
            setOutline(null);
          }}
        >
          {msg('Use {size}', { size: writeLength(bulgeMm, unit, 1) })}
        </Button>
        <Button onClick={() => setOutline(null)}>{msg('Cancel')}</Button>
      </div>
    </div>
  );
}
