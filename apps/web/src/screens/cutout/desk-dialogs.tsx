import { ConflictDialog } from '../../documents/document-bar';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { useRecipe } from './recipe-store';

/** Asks before the adjustments of one photo go to all others of the shoot. */
export function AdjustAlikeDialog({
  count,
  onClose,
  onAdjust,
}: {
  count: number;
  onClose(): void;
  onAdjust(): void;
}) {
  return (
    <Dialog
      open
      onClose={() => onClose()}
      title={`Adjust ${count} other photos the same way?`}
      footer={
        <>
          <Button onClick={() => onClose()}>Cancel</Button>
          <Button tone="main" onClick={() => onAdjust()}>
            Adjust {count} photos
          </Button>
        </>
      }
    >
      <p>
        Exposure, contrast, local contrast, saturation and white balance of this photo go to {count} others,
        which are cut out again. Their crops and straightening stay. It can be undone from the notice that
        follows.
      </p>
    </Dialog>
  );
}

/** Another window has stored other steps for this photo: which of them count. */
export function CutoutConflict() {
  const store = useRecipe();
  return (
    <ConflictDialog of={store} word="cutout">
      <p>
        There it has {store.conflict?.document.steps.length} steps, here {store.document?.steps.length}.
        Nothing was saved over it.
      </p>
    </ConflictDialog>
  );
}
