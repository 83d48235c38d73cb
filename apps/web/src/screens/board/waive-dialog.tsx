import { useState } from 'react';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { Button, Checkbox } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { msg } from '../../language/language';

/** Asks why a check is waived, and whether for one cell or for its slot with every variant. */
export function WaiveDialog({
  result,
  onWaive,
  onClose,
}: {
  result: CheckResult;
  onWaive(reason: string, everyVariant: boolean): void;
  onClose(): void;
}) {
  const [reason, setReason] = useState('');
  const [every, setEvery] = useState(false);
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Waive "{result}" here', { result: msg(result.title) })}
      about={msg('{sentence} The reason is kept with the listing and written into manifests.', {
        sentence: result.sentence,
      })}
      footer={
        <>
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button
            tone="main"
            disabled={reason.trim().length < 3}
            onClick={() => onWaive(reason.trim(), every)}
          >
            {msg('Waive it')}
          </Button>
        </>
      }
    >
      <div className="grid gap-3">
        <label className="block">
          <span className="text-ink-2 mb-1 block text-[12px]">{msg('Reason')}</span>
          <textarea
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            className="border-line focus:border-spruce bg-card min-h-16 w-full rounded-md border px-2 py-1.5 outline-none"
          />
        </label>
        <label className="flex items-center gap-2">
          <Checkbox checked={every} onChange={setEvery} />
          {msg('In this slot for every variant')}
        </label>
      </div>
    </Dialog>
  );
}
