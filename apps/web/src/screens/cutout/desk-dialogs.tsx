import { ConflictDialog } from '../../documents/document-bar';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { useRecipe } from './recipe-store';
import { msg } from '../../language/language';

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
      title={msg('Adjust {count, plural, one {another photo} other {# other photos}} the same way?', {
        count,
      })}
      footer={
        <>
          <Button onClick={() => onClose()}>{msg('Cancel')}</Button>
          <Button tone="main" onClick={() => onAdjust()}>
            {msg('Adjust {count, plural, one {# photo} other {# photos}}', { count })}
          </Button>
        </>
      }
    >
      <p>
        {msg(
          'Exposure, contrast, local contrast, saturation and white balance of this photo go to {count, plural, one {another, which is} other {# others, which are}} cut out again. Their crops and straightening stay. It can be undone from the notice that follows.',
          { count },
        )}
      </p>
    </Dialog>
  );
}

/** Another window has stored other steps for this photo: which of them count. */
export function CutoutConflict() {
  const store = useRecipe();
  return (
    <ConflictDialog of={store} word={msg('cutout')}>
      <p>
        {msg(
          'There it has {there, plural, one {# step} other {# steps}}, here {here}. Nothing was saved over it.',
          {
            there: store.conflict?.document.steps.length,
            here: store.document?.steps.length,
          },
        )}
      </p>
    </ConflictDialog>
  );
}
