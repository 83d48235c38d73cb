import { call, type ListingDetail } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { Button, TextField } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

/** A listing's name; it can be undone on the board. */
export function RenameListing({
  listing: { id, title },
  onClose,
}: {
  listing: ListingDetail['listing'];
  onClose(): void;
}) {
  const rename = (to: string) => {
    const name = to.trim();
    if (!name || name === title) return null;
    const sent = { params: { id }, body: { title: name } };
    return tried(call('PATCH /api/listings/:id', sent, { of: boardOf(id) }), '/api/listings');
  };
  return (
    <Dialog
      open
      title={msg('Rename the listing')}
      about={msg('Names of files that were delivered stay as they are.')}
      onClose={onClose}
      footer={
        <Button tone="main" onClick={onClose}>
          {msg('Done')}
        </Button>
      }
    >
      <TextField label={msg('Name of the listing')} value={title} onCommit={rename} />
    </Dialog>
  );
}
