import { memo, useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { whatCastsOnWhat } from '@scenograph/core/elements/product/casts';
import type { Shot } from '@scenograph/core/shot/document';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { newId } from '@scenograph/core/shot/edit';
import { newPicture } from '@scenograph/core/shot/starters';
import { useRoute, type Variant } from '../../api/client';
import { AddMenu } from './add-menu';
import { DepthStrip } from './depth-strip';
import { moveDepth, patchElement, type SlotTarget } from './editing';
import { useStage } from './store';
import type { useAdding } from './use-adding';
import type { Editing } from './use-editing';
import { msg } from '../../language/language';

/** The depth strip of the shot on the stage, with the menu that adds to it. */
export const ShotStrip = memo(function ShotStrip({
  shot,
  resolved,
  target,
  editing,
  adding: { addOverlay, addProduct },
  variant,
}: {
  shot: Shot;
  resolved: ResolvedShot;
  target: SlotTarget | null;
  editing: Editing;
  adding: ReturnType<typeof useAdding>;
  variant: Variant;
}) {
  const { selected, also, select, choose, edit } = useStage(
    useShallow(({ selected, also, select, choose, edit }) => ({ selected, also, select, choose, edit })),
  );
  const { data: pictures } = useRoute('GET /api/pictures');
  const casts = useMemo(() => whatCastsOnWhat(resolved), [resolved]);
  return (
    <DepthStrip
      elements={shot.elements}
      looks={resolved.elements}
      selected={selected}
      onSelect={select}
      onMove={(id, to) => edit(msg('Change depth'), (s) => moveDepth(s, id, to))}
      onHide={(id, hidden) =>
        edit(hidden ? msg('Hide') : msg('Show'), (s) => patchElement(s, id, { hidden }, target))
      }
      also={also}
      onChoose={choose}
      onLock={(id, locked) =>
        edit(locked ? msg('Lock') : msg('Unlock'), (s) => patchElement(s, id, { locked }, null))
      }
      onRename={(id, name) => edit(msg('Rename'), (s) => patchElement(s, id, { name }, null))}
      casts={casts}
    >
      <AddMenu
        pictures={pictures ?? []}
        onProduct={() => addProduct(variant)}
        onOther={addProduct}
        onOverlay={addOverlay}
        onPicture={(p) => editing.add((now) => newPicture(newId('picture', now), p.title, p, now.frame))}
      />
    </DepthStrip>
  );
});
