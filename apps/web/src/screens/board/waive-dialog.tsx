import { useState } from 'react';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { Button, Checkbox } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';

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
      title={`Waive "${result.title}" here`}
      about={`${result.sentence} The reason is kept with the listing and written into manifests.`}
      footer={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button
            tone="main"
            disabled={reason.trim().length < 3}
            onClick={() => onWaive(reason.trim(), every)}
          >
            Waive it
          </Button>
        </>
      }
    >
      <div className="grid gap-3">
        <label className="block">
          <span className="text-ink-2 mb-1 block text-[12px]">Reason</span>
          <textarea
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            className="border-line focus:border-spruce bg-card min-h-16 w-full rounded-md border px-2 py-1.5 outline-none"
          />
        </label>
        <label className="flex items-center gap-2">
          <Checkbox checked={every} onChange={setEvery} />
          In this slot for every variant
        </label>
      </div>
    </Dialog>
  );
}
