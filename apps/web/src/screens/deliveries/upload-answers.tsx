import { useState } from 'react';
import type { DeliveryDetail } from '../../api/client';
import { Button } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { msg } from '../../language/language';

/** Sends a finished delivery to its marketplaces' test uploads, and shows what they answered. */
export function UploadAnswers({
  data,
  marketplaces,
  onSend,
}: {
  data: DeliveryDetail;
  marketplaces: string[];
  onSend(marketplace: string): Promise<void>;
}) {
  const [busy, setBusy] = useState('');
  return (
    <aside
      aria-label={msg('Test uploads')}
      className="border-line bg-card w-72 shrink-0 overflow-y-auto border-l p-4"
    >
      <h2 className="font-display text-[16px] font-bold">{msg('Test uploads')}</h2>
      <p className="text-ink-2 mb-3 text-[12px]">
        {msg(
          "Stand-ins that ship with Scenograph: each opens every file and takes or refuses it by its marketplace's rules of today.",
        )}
      </p>
      {marketplaces.map((marketplace) => {
        const last = data.uploads.find((u) => u.marketplace === marketplace);
        const refused = last?.answers.filter((a) => !a.taken) ?? [];
        return (
          <section key={marketplace} className="border-line mb-3 border-t pt-2">
            <div className="flex items-center justify-between gap-2">
              <h3 className="truncate font-semibold">{marketplace}</h3>
              <Button
                disabled={!!busy}
                onClick={() => {
                  setBusy(marketplace);
                  void onSend(marketplace).finally(() => setBusy(''));
                }}
              >
                {busy === marketplace ? msg('Sending ...') : last ? msg('Send again') : msg('Send')}
              </Button>
            </div>
            {last && (
              <p className="mt-1 flex items-center gap-1.5">
                <StatusMark mark={refused.length ? 'stop' : 'pass'} />
                {msg('{answers} taken, {refused} refused', {
                  answers: last.answers.length - refused.length,
                  refused: refused.length,
                })}
              </p>
            )}
            <ul className="mt-1 grid gap-1 text-[12px]">
              {refused.slice(0, 30).map((a) => (
                <li key={a.file}>
                  <span className="measure block truncate" title={a.file}>
                    {a.file}
                  </span>
                  <span className="text-coral-ink">{a.says}</span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </aside>
  );
}
