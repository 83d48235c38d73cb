import { ConflictDialog } from '../../documents/document-bar';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { useRecipe } from './recipe-store';
import { OTHER_KEYS, SIGHTS, TOOLS } from './tools';

export function KeysDialog({ onClose }: { onClose(): void }) {
  return (
    <Dialog open onClose={() => onClose()} title="Keys of the cutout desk" wide>
      <div className="grid grid-cols-2 gap-x-8">
        {[
          ...TOOLS.map((t): [string, string] => [
            t.key.toUpperCase(),
            `${t.title}: ${t.about.toLowerCase()}`,
          ]),
          ...SIGHTS.map((s): [string, string] => [s.key, `Look at it: ${s.title.toLowerCase()}`]),
          ...OTHER_KEYS,
        ].map(([keys, what]) => (
          <p key={keys + what} className="border-line flex h-8 items-center justify-between gap-4 border-b">
            <span>{what}</span>
            <kbd className="measure text-ink-2">{keys}</kbd>
          </p>
        ))}
      </div>
    </Dialog>
  );
}

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
