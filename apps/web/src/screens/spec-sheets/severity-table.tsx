import { CHECK_TITLES } from '@scenograph/core/spec/checks/index';
import type { Severity, SpecSheet } from '@scenograph/core/spec/slot';
import { Select } from '../../ui/controls';
import { msg } from '../../language/language';

/** Whether a fault fails or warns, check by check, where a marketplace says otherwise than the check. */
export function SeverityTable({
  sheet,
  onChange,
}: {
  sheet: Pick<SpecSheet, 'severity'>;
  onChange(severity: SpecSheet['severity']): void;
}) {
  return (
    <section className="max-w-xl">
      <h2 className="font-display text-[17px] font-bold">{msg('Severity of each check')}</h2>
      <p className="text-ink-2 mb-3">
        {msg(
          'Whether a fault makes a check fail or is a warning is the check’s own judgement; here this marketplace may say otherwise.',
        )}
      </p>
      <ul>
        {CHECK_TITLES.map(({ id, title }) => (
          <li key={id} className="border-line flex items-center justify-between border-b py-1">
            {msg(title)}
            <Select<'own' | Severity>
              label={msg(title)}
              className="w-44"
              value={sheet.severity[id] ?? 'own'}
              onChange={(v) => {
                const { [id]: _, ...others } = sheet.severity;
                onChange(v === 'own' ? others : { ...others, [id]: v });
              }}
              options={[
                { value: 'own', title: msg('as the check judges') },
                { value: 'stop', title: msg('failed') },
                { value: 'look', title: msg('warning') },
                { value: 'off', title: msg('off') },
              ]}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
