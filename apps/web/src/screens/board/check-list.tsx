import { useState } from 'react';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { Button } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import type { CellChecks } from './use-cell-checks';
import { WaiveDialog } from './waive-dialog';
import { msg } from '../../language/language';

const ORDER = ['stop', 'look', 'waived', 'pass'];
const rank = (r: CheckResult) => ORDER.indexOf(r.waived ? 'waived' : r.verdict);

/** Every check of a cell, the worst first, each with its limit and what can be done about it. */
export function CheckList({ of, onMark }: { of: CellChecks; onMark(result: CheckResult | null): void }) {
  const { checks, resolved, waive } = of;
  const [waiving, setWaiving] = useState<CheckResult | null>(null);
  return (
    <>
      <h3 className="mb-1.5 font-semibold">{msg('Checks')}</h3>
      {!checks && (
        <p className="text-ink-2">{resolved ? msg('Measuring ...') : msg('Nothing to measure yet.')}</p>
      )}
      <ul className="grid gap-2.5">
        {[...(checks ?? [])]
          .sort((a, b) => rank(a) - rank(b))
          .map((r, i) => (
            <li
              key={`${r.check}-${i}`}
              className="flex gap-2"
              onMouseEnter={() => onMark(r)}
              onMouseLeave={() => onMark(null)}
            >
              <span className="pt-1">
                <StatusMark mark={r.waived ? 'pass' : r.verdict} />
              </span>
              <div className="min-w-0 grow">
                <p className="flex flex-wrap items-baseline justify-between gap-x-2">
                  <span className="font-medium">{msg(r.title)}</span>
                  <span className="measure text-ink-2">
                    {r.measured} ({r.limit})
                  </span>
                </p>
                {r.verdict !== 'pass' && <Remedies of={of} result={r} onWaive={() => setWaiving(r)} />}
              </div>
            </li>
          ))}
      </ul>
      {waiving && (
        <WaiveDialog
          result={waiving}
          onWaive={async (reason, every) => {
            if (await waive(waiving, reason, every)) setWaiving(null);
          }}
          onClose={() => setWaiving(null)}
        />
      )}
    </>
  );
}

/** What a check that did not pass says, and the ways out: its fix, or waiving it. */
function Remedies({
  of: { shot, busy, current, mend, withdraw },
  result,
  onWaive,
}: {
  of: CellChecks;
  result: CheckResult;
  onWaive(): void;
}) {
  const { fix, waived, sentence } = result;
  return (
    <>
      <p className="text-ink-2 text-[12px]">{waived ? msg('Waived: {waived}', { waived }) : sentence}</p>
      <div className="mt-1 flex gap-1.5">
        {fix && shot && !waived && (
          <Button disabled={busy} onClick={() => void mend(result)}>
            {msg(fix.title)}
          </Button>
        )}
        {current && (
          <Button tone="quiet" onClick={() => (waived ? void withdraw(result) : onWaive())}>
            {waived ? msg('Do not waive') : msg('Waive')}
          </Button>
        )}
      </div>
    </>
  );
}
