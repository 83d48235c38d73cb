import type { ListingDetail } from '../../api/client';
import { Button, Segmented } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { Costs, Doubts, FileNames, SheetSlots, VariantChoice } from './order-parts';
import { PriorityChoice } from './priority-choice';
import { useOrder } from './use-order';
import { WHICH, type Which } from './which';
import { msg } from '../../language/language';

/** Choose slots, variants and which of their pictures; what it will cost and be called is shown before it is ordered. */
export function DeliverDialog({
  detail,
  chosen,
  onClose,
  before,
}: {
  detail: ListingDetail;
  /** Cells chosen on the board; their slots and variants are taken. */
  chosen?: { variantId: string; slotKey: string }[];
  onClose(): void;
  /** Runs first: unsaved edits must be stored before the server paints. */
  before?: () => Promise<void>;
}) {
  const order = useOrder({ detail, chosen, before });
  const { estimate, trouble, busy } = order;
  const count = estimate?.pictures ?? 0;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={msg('Deliver {listing}', { listing: detail.listing.title })}
      about={msg(
        "Pictures are painted at full size, kept within each slot's byte limit, named, checked and zipped with a manifest. What is made already and has not changed costs nothing.",
      )}
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <PriorityChoice value={order.priority} onChange={order.setPriority} />
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" disabled={!count || busy} onClick={order.deliver}>
            {msg('Deliver {count} {count, plural, one {picture} other {pictures}}', { count })}
          </Button>
        </>
      }
    >
      <div className="mb-4 grid grid-cols-[1fr_260px] items-start gap-6">
        <div>
          <Segmented<Which>
            label={msg('Which pictures')}
            value={order.which}
            onChange={order.setWhich}
            options={WHICH}
          />
          <FileNames estimate={estimate} />
          <Doubts estimate={estimate} />
        </div>
        <Costs estimate={estimate} nothing={!order.slots.length || !order.variantIds.length} />
      </div>
      <div className="grid grid-cols-[1fr_220px] gap-6">
        <div className="grid gap-3">
          {detail.sheets.map((sheet) => (
            <SheetSlots key={sheet.id} sheet={sheet} order={order} />
          ))}
        </div>
        <VariantChoice variants={detail.variants} order={order} />
      </div>
    </Dialog>
  );
}
